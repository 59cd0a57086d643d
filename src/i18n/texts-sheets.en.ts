import { filesEn } from './files.en';
import { gridEn } from './grid.en';

/** English texts of bringing files, of grids, and of what is typed into both. */
export const texts = {
  ...filesEn,
  ...gridEn,
};
