/** Price changes: formulas over entries of price lists, in words and in figures, and what is wrong with an entry. */
export { applyFormula, formulaProblem, type ChangeFormula, type PriceStep } from './formula';
export { figuresOf, leadingPrice, triedAt, withFigures } from './figures';
export { entryProblems, entryWarnings, type EntryProblem, type EntryWarning } from './check';
export {
  cellsOfEntry,
  entryCells,
  priceMethods,
  readEntryCells,
  type EntryCell,
  type ListEntry,
} from './cells';
export {
  readRow,
  sheetColumns,
  sheetReader,
  type SheetColumn,
  type SheetMeans,
  type SheetRow,
  type WrongRow,
} from './sheet';
export { readFormula, writeFormula } from './words';
