import { composerEn } from './composer.en';

/** English texts of composing documents. */
export const texts = { ...composerEn };
