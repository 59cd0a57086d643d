import { colleaguesDe } from './colleagues.de';
import { shelfDe } from './shelf.de';
import { sendingDe } from './sending.de';

/** German texts of mails, shares, answers, and work between colleagues. */
export const texts = {
  ...colleaguesDe,
  ...sendingDe,
  ...shelfDe,
};
