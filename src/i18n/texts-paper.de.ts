import { composerDe } from './composer.de';

/** German texts of composing documents. */
export const texts = { ...composerDe };
