/** Rows to edit in the manner of a spreadsheet. Fetched by the rooms that have one. */
export { Grid } from './Grid';
export { useGrid, type GridHandle } from './useGrid';
export { paste } from './clipboard-handlers';
export { typing } from './cells';
export { cellOf, isBlank, isWrong, type Cell, type GridColumn, type Row } from './row';
export type { GridWords } from './words';
