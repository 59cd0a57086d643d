import { priceListsDe } from './price-lists.de';
import { termsDe } from './terms.de';

/** German texts of price lists, price changes and terms. */
export const texts = {
  ...priceListsDe,
  ...termsDe,
};
