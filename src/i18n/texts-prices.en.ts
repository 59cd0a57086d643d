import { priceListsEn } from './price-lists.en';
import { termsEn } from './terms.en';

/** English texts of price lists, price changes and terms. */
export const texts = {
  ...priceListsEn,
  ...termsEn,
};
