/**
 * Quotes as they travel between server and page, what input is acceptable, and what the page works out of
 * them.
 */
export type { AgreementView, DealView, LastPrice } from './deal';
export * from './quote-views';
export { changesBetween, isChanges, withChanges, type QuoteChanges } from './quote-changes';
export * from './bench-views';
export * from './list-views';
export { isWhole } from './quantities';
export * from './list-input';
export * from './input';
export * from './content';
export * from './revisions';
export * from './ledger-columns';
export { ofBuilds, requoter, sameWhereEqual, type LocalEdit } from './requote';
export type { LineBasis } from './line-basis';
export { grouped, moved } from './arrange';
export { against, apart, countsFor, instead, settledRivals, type Rival } from './rivals';
export { mostRows, readPartList, type PartListRow } from './part-list';
export { effectOfOffer, effectsOf, offersOf, sureOf } from './effects';
export { bestFor, fewestDecisions, seenRows, type BestWish, type MadeOf } from './best-wish';
export {
  effectOf,
  pictureOf,
  withoutMaking,
  type BenchMeans,
  type BenchPicture,
  type Effect,
} from './picture';
