import { colleaguesEn } from './colleagues.en';
import { shelfEn } from './shelf.en';
import { sendingEn } from './sending.en';

/** English texts of mails, shares, answers, and work between colleagues. */
export const texts = {
  ...colleaguesEn,
  ...sendingEn,
  ...shelfEn,
};
