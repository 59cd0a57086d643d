import { itemsDe } from './items.de';

/** German texts of keeping items. */
export const texts = {
  ...itemsDe,
};
