/** What a grid holds: rows of cells, as texts that were read, or as typed where they could not be. */

/** What was typed or pasted and cannot be read, with the sentence that says why. It stays until it is mended. */
export interface Wrong {
  readonly typed: string;
  readonly why: string;
}

/** What stands in a cell: a text in the one form in which it is kept, or something that cannot be read. */
export type Cell = string | Wrong;

/** A row; in a tree it is inside the nearest row above it that is less deep. */
export interface Row {
  /** Its name, which stays the same wherever it is moved. */
  readonly id: string;
  /** How deep it is in the tree; 0 for all rows of a grid that is none. */
  readonly depth: number;
  /** One for each column. */
  readonly cells: readonly Cell[];
}

/** What typing comes to. */
export type Reading = { readonly kept: string } | { readonly why: string };

/** A column: how a cell is read, shown and edited. */
export interface GridColumn {
  readonly id: string;
  readonly title: string;
  /** In pixels. */
  readonly width: number;
  /** figure: right-aligned mono; code: mono; mark: turned on and off by the space bar, kept as '1'. */
  readonly kind?: 'figure' | 'code' | 'mark';
  /** Reads what somebody typed; what it gives as kept is shown and edited by `shown` and `typed`. */
  readonly read: (typed: string) => Reading;
  /** As it is shown; what is kept where it is not said. */
  readonly shown?: (kept: string) => string;
  /** As it is typed and copied, such that `read` gives the same again; as shown where it is not said. */
  readonly typed?: (kept: string) => string;
  /** What can be chosen; typing finds among it. */
  readonly choices?: readonly string[];
  /** Nobody may change it. */
  readonly fixed?: boolean;
  /** Why a row in use may not have it empty. */
  readonly needed?: string;
}

/** Whether it could not be read. */
export const isWrong = (cell: Cell | undefined): cell is Wrong => typeof cell === 'object';

/** Whether nothing stands there. */
export const isEmpty = (cell: Cell | undefined): boolean => cell === undefined || cell === '';

/** Whether nothing stands in any of its cells. */
export const isBlank = (row: Row): boolean => row.cells.every(isEmpty);

/** A cell as it is shown. */
export const shownIn = (column: GridColumn, cell: Cell | undefined): string =>
  isWrong(cell) ? cell.typed : isEmpty(cell) ? '' : (column.shown ?? same)(cell as string);

/** A cell as it is edited and copied. */
export const typedIn = (column: GridColumn, cell: Cell | undefined): string =>
  isWrong(cell) ? cell.typed : isEmpty(cell) ? '' : (column.typed ?? column.shown ?? same)(cell as string);

/** What typing makes of a cell; blanks alone make it empty. */
export function cellOf(column: GridColumn, typed: string): Cell {
  const text = typed.trim();
  if (text === '') return '';
  const reading = column.read(text);
  return 'kept' in reading ? reading.kept : { typed: text, why: reading.why };
}

/** What is wrong with a cell, in a sentence; null where nothing is. */
export const wrongIn = (column: GridColumn, row: Row, cell: Cell | undefined): string | null =>
  isWrong(cell)
    ? cell.why
    : column.needed !== undefined && isEmpty(cell) && !isBlank(row)
      ? column.needed
      : null;

const same = (kept: string): string => kept;
