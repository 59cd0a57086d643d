import { benchEn } from './bench.en';
import { panelsEn } from './panels.en';
import { pricesEn } from './prices.en';

/** English texts of the Bench. */
export const texts = {
  ...benchEn,
  ...panelsEn,
  ...pricesEn,
};
