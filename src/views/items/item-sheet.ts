/** Rows of a spreadsheet as changes of items: what each becomes, and what in it cannot be read. */
import { readWritten } from '../../core/exact';
import { skuPattern } from '../../core/items';
import type { ItemRowView } from '../../contract';
import { cellOf, isBlank, type Cell, type GridColumn, type Row } from '../../ui/grid';
import { changesIn, rowOf, type RowChanges } from './item-rows';

/** What came of a sheet. */
export interface Taken {
  changes: RowChanges;
  /** Rows that are new, that are different, and that say what is there already. */
  fresh: number;
  different: number;
  same: number;
  /** Titles of columns that are none of an item. */
  unknown: readonly string[];
}

/** Why a sheet cannot be taken at all. */
export type SheetRefused = 'noNumbers' | 'empty';

/** What is said of cells that cannot be taken as they stand. */
export interface SheetWords {
  twice: (sku: string) => string;
  twoWays: (one: string, other: string) => string;
  language: string;
}

/** Texts alike in whatever way their letters and blanks are written. */
const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * Takes the rows of a sheet over changes that were made before. Its first row has the titles of columns, as the grid
 * has them, or their ids; a row is told by its number, and says nothing of columns that are not there, or where a cell is
 * empty.
 */
export function takenFrom(
  sheet: readonly (readonly string[])[],
  columns: readonly GridColumn[],
  items: ReadonlyMap<string, ItemRowView>,
  before: RowChanges,
  words: SheetWords,
): Taken | SheetRefused {
  const [head = [], ...body] = sheet;
  const places = head.map((title) =>
    columns.findIndex((column) => plain(column.title) === plain(title) || plain(column.id) === plain(title)),
  );
  const numberAt = places.indexOf(0);
  if (numberAt < 0) return 'noNumbers';
  const seen = new Set<string>();
  const known = new Map([...before.changed].map(([, row]) => [row.cells[0], row]));
  let made = 0;
  const fresh = (): string => {
    do made += 1;
    while (before.changed.has(`sheet-${String(made)}`));
    return `sheet-${String(made)}`;
  };
  const rows = body.flatMap((line): Row[] => {
    if (line.every((cell) => cell.trim() === '')) return [];
    const typed = (line[numberAt] ?? '').trim();
    const sku = typed.toUpperCase();
    const there = items.get(sku);
    const base = there ? (before.changed.get(sku) ?? rowOf(there)) : known.get(sku);
    const cells: Cell[] = base ? [...base.cells] : columns.map(() => '');
    places.forEach((place, at) => {
      const column = columns[place];
      const text = line[at] ?? '';
      // An empty cell says nothing, but of a mark.
      const silent = text.trim() === '' && column?.kind !== 'mark';
      if (column && place > 0 && !silent) cells[place] = read(column, text, words);
    });
    const twice = skuPattern.test(sku) && seen.has(sku);
    seen.add(sku);
    const number = columns[0] ? cellOf(columns[0], typed) : sku;
    cells[0] = twice ? { typed, why: words.twice(sku) } : there ? sku : number;
    const own = twice ? undefined : there ? sku : base?.id;
    return [{ id: own ?? fresh(), depth: 0, cells }];
  });
  if (rows.length === 0) return 'empty';
  const changes = changesIn(before, [], rows, items);
  const different = rows.filter(({ id }) => items.has(id) && changes.changed.has(id)).length;
  const news = rows.filter((row) => !items.has(row.id) && !isBlank(row)).length;
  return {
    changes,
    fresh: news,
    different,
    same: rows.length - different - news,
    unknown: head.filter((title, at) => places[at] === -1 && title.trim() !== ''),
  };
}

/** A cell; a number that could be two is not guessed. */
function read(column: GridColumn, text: string, { twoWays, language }: SheetWords): Cell {
  if (column.kind === 'figure') {
    const written = readWritten(text, language);
    if (written.is === 'twoWays') return { typed: text.trim(), why: twoWays(...written.values) };
  }
  return cellOf(column, text);
}
