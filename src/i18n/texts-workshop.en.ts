import { draftsEn } from './drafts.en';

/** English texts of making models. */
export const texts = { ...draftsEn };
