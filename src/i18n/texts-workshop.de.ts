import { draftsDe } from './drafts.de';

/** German texts of making models. */
export const texts = { ...draftsDe };
