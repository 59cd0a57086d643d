import { sharedDe } from './shared.de';

/** German texts of what is behind a share. */
export const texts = {
  ...sharedDe,
};
