import { itemsEn } from './items.en';

/** English texts of keeping items. */
export const texts = {
  ...itemsEn,
};
