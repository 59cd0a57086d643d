import { priceListsEn } from './price-lists.en';

/** English texts of price lists, price changes and terms. */
export const texts = {
  ...priceListsEn,
};
