import { sendingDe } from './sending.de';

/** German texts of mails, shares and answers. */
export const texts = {
  ...sendingDe,
};
