import { colleaguesDe } from './colleagues.de';
import { sendingDe } from './sending.de';

/** German texts of mails, shares, answers, and work between colleagues. */
export const texts = {
  ...colleaguesDe,
  ...sendingDe,
};
