/** Rows of a spreadsheet as cells of a grid: which column each is of, and what cannot be read. */
import { readWritten } from '../../../core/exact';
import { cellOf, type Cell, type GridColumn } from '../../../ui/grid';

/** A sheet by the columns of a grid. */
export interface SheetCells {
  /** By column; nothing where the sheet has no such column, or says nothing in it. */
  rows: (Cell | undefined)[][];
  /** As the first cells of rows are typed, by column. */
  typed: string[][];
  /** Which columns it has. */
  has: boolean[];
  /** Titles of columns that are none of the grid. */
  unknown: string[];
}

/** What is said of a number that could be two. */
export interface SheetWords {
  twoWays: (one: string, other: string) => string;
  language: string;
}

/** Texts alike in whatever way their letters and blanks are written. */
const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * Reads a sheet whose first row has the titles of columns, as the grid has them, or their ids. An empty cell says nothing,
 * but of a mark; empty rows are left out.
 */
export function cellsOfSheet(
  sheet: readonly (readonly string[])[],
  columns: readonly GridColumn[],
  words: SheetWords,
): SheetCells {
  const [head = [], ...body] = sheet;
  const places = head.map((title) =>
    columns.findIndex((column) => plain(column.title) === plain(title) || plain(column.id) === plain(title)),
  );
  const lines = body.filter((line) => line.some((cell) => cell.trim() !== ''));
  const byColumn = (line: readonly string[]): string[] => {
    const typed = columns.map(() => '');
    places.forEach((place, at) => {
      if (place >= 0) typed[place] = (line[at] ?? '').trim();
    });
    return typed;
  };
  const typed = lines.map(byColumn);
  const has = columns.map((_, at) => places.includes(at));
  return {
    typed,
    has,
    rows: typed.map((line) =>
      columns.map((column, at) => {
        const text = line[at] ?? '';
        const silent = text === '' && column.kind !== 'mark';
        return !has[at] || silent ? undefined : readCell(column, text, words);
      }),
    ),
    unknown: head.filter((title, at) => places[at] === -1 && title.trim() !== ''),
  };
}

/** A cell; a number that could be two is not guessed. */
function readCell(column: GridColumn, text: string, { twoWays, language }: SheetWords): Cell {
  if (column.kind === 'figure') {
    const written = readWritten(text, language);
    if (written.is === 'twoWays') return { typed: text, why: twoWays(...written.values) };
  }
  return cellOf(column, text);
}
