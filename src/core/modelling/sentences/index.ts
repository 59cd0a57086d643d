/** Rules as sentences, in English and German: printed from their formulas and read back into the same rules. */
export { sentenceOf, type Sentence } from './print';
export { expectedAt, readSentence, type SentenceProblem, type SentenceRead } from './read';
export { isSameRule } from './same';
export { piecesOf, type Expected } from './scanner';
export type { Piece } from './pieces';
export { wordsOf, type Language, type Words } from './words';
