/** Rows of a spreadsheet as changes of items: what each becomes, and what in it cannot be read. */
import { skuPattern } from '../../core/items';
import type { ItemRowView } from '../../contract';
import { cellsOfSheet, type SheetWords as Words } from '../parts/grid/sheet';
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
export interface SheetWords extends Words {
  twice: (sku: string) => string;
}

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
  const read = cellsOfSheet(sheet, columns, words);
  if (!read.has[0]) return 'noNumbers';
  const seen = new Set<string>();
  const known = new Map([...before.changed].map(([, row]) => [row.cells[0], row]));
  let made = 0;
  const fresh = (): string => {
    do made += 1;
    while (before.changed.has(`sheet-${String(made)}`));
    return `sheet-${String(made)}`;
  };
  const rows = read.rows.map((given, at): Row => {
    const typed = read.typed[at]?.[0] ?? '';
    const sku = typed.toUpperCase();
    const there = items.get(sku);
    const base = there ? (before.changed.get(sku) ?? rowOf(there)) : known.get(sku);
    const cells: Cell[] = base ? [...base.cells] : columns.map(() => '');
    given.forEach((cell, place) => {
      if (cell !== undefined && place > 0) cells[place] = cell;
    });
    const twice = skuPattern.test(sku) && seen.has(sku);
    seen.add(sku);
    const number = columns[0] ? cellOf(columns[0], typed) : sku;
    cells[0] = twice ? { typed, why: words.twice(sku) } : there ? sku : number;
    const own = twice ? undefined : there ? sku : base?.id;
    return { id: own ?? fresh(), depth: 0, cells };
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
    unknown: read.unknown,
  };
}
