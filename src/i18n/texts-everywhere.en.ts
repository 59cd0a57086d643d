import { shellEn } from './shell.en';
import { beginEn } from './begin.en';
import { accessEn } from './access.en';

/** English texts of what every page says: its frame, signing in, and with what a quote is begun. */
export const texts = {
  ...shellEn,
  ...beginEn,
  ...accessEn,
};
