/** Making models: edits with inverses, names changed in all that names them, and what names what. */
export { bareDocument, numberedBy, ofBundle } from './bare';
export type { Edit, EditProblem } from './edit';
export { conflictKey } from './conflict-key';
export { ruleOf, tableOf, type DecisionTable, type NotTaken } from './decision-tables';
export { differences, editOf, type Difference } from './differences';
export { edited } from './edits';
export {
  broughtBy,
  differs,
  factsOf,
  forgetFact,
  takeFacts,
  type FactsOfModel,
  type ToldItem,
} from './item-facts';
export { impactOn, type BuildImpact } from './impact';
export { merged, type Conflict } from './merge';
export { listAt, partAt, valueAt, withValue, type Part, type PartAt } from './places';
export { usesOfRemoved } from './removal';
export { namedAt, usesOf } from './rename';
export { rowsOfRule, rulesOfRow } from './of-rules';
export { outlineRows, type OutlineRow, type OutlineRows } from './rows';
export { outlineSheet, readWords, textKey, textsIn, wordsSheet, type Sheet } from './sheets';
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
export type { Mentioned } from './named';
export { isEdit, touch } from './touching';
