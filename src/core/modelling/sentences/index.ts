/** Rules as sentences, in English and German: printed from their formulas and read back into the same rules. */
export { sentenceOf, type Sentence } from './print';
export { expectedAt, readSentence, type SentenceProblem } from './read';
export { isSameRule } from './same';
export type { Expected } from './scanner';
export { wordsOf, type Language, type Words } from './words';
