/**
 * Paper: from a quote, its builds, texts and choices to a document that knows no format. What is given has nothing
 * in it that a customer must not see; what a choice hides is not in the document. Writers of formats take it as it is.
 */
export type * from './types';
export type * from './given';
export type { Words } from './words';
export { partKinds, type PartKind } from './kinds';
export {
  blockKinds,
  composedBy,
  fitOf,
  plainComposition,
  textKinds,
  usualBlock,
  usualBlocks,
  usualColour,
  usualLines,
  type BlockChoice,
  type Composition,
  type DrawingsChoice,
  type LinesChoice,
  type TemplateContent,
  type TextContent,
} from './composition';
export { plainRich, readRich, richWords, type RichText } from './rich';
export { paperScope } from './scope';
export {
  conditionProblems,
  filled as wordsFilled,
  filledRich as textFilled,
  placeholderValue,
  richProblems,
  unreadPlaceholders,
} from './placeholders';
export {
  composePackage,
  composePosition,
  composeSchedule,
  type PaperPosition,
  type ScheduleGiven,
} from './schedule';
export { compose, composeSpecification, type Making, type SpecificationGiven } from './compose';
export { figuresIn, workedOut } from './figures';
