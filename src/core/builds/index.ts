/** A build: what a person makes of a model, what follows from it, and what each choice would do. */
export {
  specialFacts,
  specialKey,
  specialOf,
  specialTariff,
  warningsOf,
  type BuildContent,
  type PassedWarning,
  type SpecialPart,
  type WarningView,
} from './content';
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
