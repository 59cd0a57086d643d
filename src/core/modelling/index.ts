/** Making models: edits with inverses, names changed in all that names them, and what names what. */
export type { Edit, EditProblem } from './edit';
export { conflictKey } from './conflict-key';
export { differences, editOf, type Difference } from './differences';
export { edited } from './edits';
export { impactOn, type BuildImpact } from './impact';
export { merged, type Conflict } from './merge';
export { listAt, partAt, valueAt, withValue, type Part, type PartAt } from './places';
export { namedAt, usesOf } from './rename';
export { rowsOfRule, rulesOfRow } from './of-rules';
export { outlineRows, type OutlineRows } from './rows';
export {
  expectedAt,
  isSameRule,
  readSentence,
  sentenceOf,
  wordsOf,
  type Expected,
  type Language,
  type Sentence,
  type SentenceProblem,
  type Words,
} from './sentences';
export { isEdit, touch } from './touching';
