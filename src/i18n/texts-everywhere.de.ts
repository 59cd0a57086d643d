import { shellDe } from './shell.de';
import { beginDe } from './begin.de';
import { accessDe } from './access.de';

/** German texts of what every page says: its frame, signing in, and with what a quote is begun. */
export const texts = {
  ...shellDe,
  ...beginDe,
  ...accessDe,
};
