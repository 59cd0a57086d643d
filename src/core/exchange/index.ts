/** Exchange: models and their answers as text, for integrators and for checking; pasted lists. */
export { runCommand } from './command';
export { mostFileBytes } from './limits';
export { mostRows, readPartList, type PartListRow } from './part-list';
