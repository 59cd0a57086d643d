/** Rows of a spreadsheet as positions: told by their tags, those that are there changed, others behind them. */
import { tagKey } from '../../core/schedule';
import type { Translate } from '../../i18n';
import type { Cell, GridColumn, Row } from '../../ui/grid';
import { cellsOfSheet } from '../parts/grid/sheet';

/** What came of a sheet: all rows by now, and a sentence. */
export interface Taken {
  rows: Row[];
  says: string;
}

/** Takes a sheet over the rows that there are; a sentence where it cannot be taken at all. */
export function takenRows(
  sheet: readonly (readonly string[])[],
  columns: readonly GridColumn[],
  before: readonly Row[],
  t: Translate,
  language: string,
): Taken | string {
  const read = cellsOfSheet(sheet, columns, {
    twoWays: (one, other) => t('grid.noNumber', { value: `${one} / ${other}` }),
    language,
  });
  if (!read.has[0]) return t('schedule.noTagColumn');
  const rows = [...before];
  const places = new Map(rows.map(({ cells }, at) => [tagKey(textOf(cells[0])), at]));
  const met = new Set<string>();
  for (const [at, given] of read.rows.entries()) {
    const key = tagKey(read.typed[at]?.[0] ?? '');
    // A tag that is twice in the sheet stands twice in the rows, where it is marked.
    const there = met.has(key) ? undefined : places.get(key);
    met.add(key);
    const base = there === undefined ? undefined : rows[there];
    const cells: Cell[] = base ? [...base.cells] : columns.map(() => '');
    given.forEach((cell, place) => {
      if (cell !== undefined && columns[place]?.fixed !== true) cells[place] = cell;
    });
    const row: Row = { id: base?.id ?? `sheet-${String(rows.length)}`, depth: 0, cells };
    if (there === undefined) rows.push(row);
    else rows[there] = row;
  }
  return {
    rows,
    says: [
      t('schedule.came', { count: read.rows.length }),
      ...(read.unknown.length > 0 ? [t('schedule.unknownTitles', { titles: read.unknown.join(', ') })] : []),
    ].join('. '),
  };
}

const textOf = (cell: Cell | undefined): string =>
  cell === undefined ? '' : typeof cell === 'string' ? cell : cell.typed;
