import { filesDe } from './files.de';
import { gridDe } from './grid.de';

/** German texts of bringing files, of grids, and of what is typed into both. */
export const texts = {
  ...filesDe,
  ...gridDe,
};
