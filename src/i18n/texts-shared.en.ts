import { sharedEn } from './shared.en';

/** English texts of what is behind a share. */
export const texts = {
  ...sharedEn,
};
