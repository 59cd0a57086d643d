/**
 * Paper: from a quote, its builds, texts and choices to a document that knows no format. What is given has nothing
 * in it that a customer must not see; what a choice hides is not in the document. Writers of formats take it as it is.
 */
export type * from './types';
export type * from './given';
export { paperWords, type PaperWord, type Words } from './words';
export {
  blockKinds,
  composedBy,
  fitOf,
  plainComposition,
  partKinds,
  textKinds,
  usualBlock,
  usualBlocks,
  usualColour,
  usualLines,
  type BlockChoice,
  type BlockKind,
  type Composition,
  type DrawingsChoice,
  type LinesChoice,
  type PartKind,
  type TemplateContent,
  type TemplateFor,
  type TextContent,
} from './composition';
export {
  mayLead,
  mostRichLetters,
  plainRich,
  readRich,
  richLength,
  richWords,
  type RichPart,
  type RichText,
} from './rich';
export { paperNames, paperScope, type PlaceOfText } from './scope';
export {
  conditionProblems,
  filledRich as textFilled,
  placeholderValue,
  richProblems,
  unreadPlaceholders,
  type Filling,
  type PlaceholderProblem,
} from './placeholders';
export { compose, composeSpecification, type Making, type SpecificationGiven } from './compose';
export { figuresIn, workedOut } from './figures';
