/**
 * Models: the document, its validation, and its compiled form. A document that compiles can be configured,
 * priced, numbered and made without further checks; one that does not gives a list of problems, each with a
 * path and a sentence code.
 */
export { countedApart, countedIn, countingKey, type Counting } from './counting';
export type * from './document';
export type { Axis, Dimension, Drawing, DrawingLayer, Looks, Shape, Viewpoint } from './drawing';
export type { ModelProblem } from './problem';
export { documentSchema } from './schema';
export { compilePublished } from './compile';
export { compileModel } from './compile-checked';
export type { CompiledModel, CompiledRule, Entry, Pick, Proposal } from './entries';
export { codeOf, plainAt, valueAt } from './grid';
export { buildsInside, featureAt, nameOfBuild, outlineOf, reachingIn, type Outline } from './inside';
export { lettersOf } from './letters';
export { withClasses, withLibrary } from './library';
export { movedOn } from './moved-on';
export { seenFromOutside } from './outside';
export { readsTyped } from './typed';
export { open, Reading, rowsRead, type Open, type PlainValue, type Values } from './reading';
