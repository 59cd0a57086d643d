import { sendingEn } from './sending.en';

/** English texts of mails, shares and answers. */
export const texts = {
  ...sendingEn,
};
