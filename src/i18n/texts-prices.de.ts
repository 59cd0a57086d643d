import { priceListsDe } from './price-lists.de';

/** German texts of price lists, price changes and terms. */
export const texts = {
  ...priceListsDe,
};
