/** What a grid says, in the language of the page. */
export interface GridWords {
  /** How many rows there are. */
  rows: (count: number) => string;
  marked: (count: number) => string;
  /** How many cells are to be mended; pressed, it leads to the next. */
  wrong: (count: number) => string;
  tooMany: (most: number) => string;
  /** Columns that had no place. */
  beside: (count: number) => string;
  undone: string;
  redone: string;
  empty: string;
  add: string;
  /** The menu of what is done to rows. */
  more: string;
  row: (number: number) => string;
  open: (row: string) => string;
  fold: (row: string) => string;
  acts: Readonly<Record<RowAct, string>>;
  /** Keys as the keyboards of the language name them. */
  keys: (keys: string) => string;
}

/** What can be done to rows. */
export type RowAct = 'above' | 'below' | 'double' | 'remove' | 'up' | 'down' | 'in' | 'out';
