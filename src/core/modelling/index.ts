/** Making models: edits with inverses, names changed in all that names them, and what names what. */
export type { Edit, EditProblem } from './edit';
export { differences, editOf, type Difference } from './differences';
export { edited } from './edits';
export { impactOn } from './impact';
export { merged } from './merge';
export { listAt, partAt, type Part, type PartAt } from './places';
export { namedAt, usesOf } from './rename';
export { outlineRows, type OutlineRows } from './rows';
export {
  expectedAt,
  isSameRule,
  piecesOf,
  readSentence,
  sentenceOf,
  wordsOf,
  type Expected,
  type Language,
  type Piece,
  type Sentence,
  type SentenceProblem,
  type SentenceRead,
  type Words,
} from './sentences';
