/** Rows of terms as rows of a grid, and what was done to them as what is sent. */
import { termKinds, type TermKindId } from '../../core/terms';
import type { TermRowView } from '../../contract';
import { cellsOfSheet, type SheetWords } from '../parts/grid/sheet';
import { isBlank, isWrong, type Cell, type GridColumn, type Row } from '../../ui/grid';

/** What is sent of rows. */
export interface SentTerms {
  rows: {
    id?: string;
    version?: number;
    cells: Record<string, string>;
    from?: string | null;
    to?: string | null;
  }[];
  gone: { id: string; version: number }[];
}

/** A row as the grid shows it. */
export const rowOfTerm = (kind: TermKindId, { id, cells, from, to, stand }: TermRowView): Row => {
  const { fields, dated } = termKinds[kind];
  return {
    id,
    depth: 0,
    cells: [...fields.map((field) => cells[field.id] ?? ''), ...(dated ? [from ?? '', to ?? '', stand] : [])],
  };
};

const alike = (one: Row, other: Row): boolean =>
  one.cells.every((cell, at) => cell === (other.cells[at] ?? ''));

/** What was done to rows since they were kept. */
export function termChanges(kind: TermKindId, views: readonly TermRowView[], now: readonly Row[]): SentTerms {
  const { fields, dated } = termKinds[kind];
  const known = new Map(views.map((view) => [view.id, view]));
  const there = new Set(now.map(({ id }) => id));
  const text = (cell: Cell | undefined): string => (typeof cell === 'string' ? cell : '');
  return {
    gone: views.flatMap(({ id, version }) => (there.has(id) ? [] : [{ id, version }])),
    rows: now.flatMap((row) => {
      const view = known.get(row.id);
      if (view ? alike(rowOfTerm(kind, view), row) : isBlank(row)) return [];
      const days = (at: number): string | null => text(row.cells[fields.length + at]) || null;
      return [
        {
          ...(view ? { id: view.id, version: view.version } : {}),
          cells: Object.fromEntries(fields.map((field, at) => [field.id, text(row.cells[at])])),
          ...(dated ? { from: days(0), to: days(1) } : {}),
        },
      ];
    }),
  };
}

/** Whether something cannot be read in a row. */
export const hasWrongCells = (rows: readonly Row[]): boolean => rows.some(({ cells }) => cells.some(isWrong));

/** What came of a sheet: all rows as they are by now. */
export interface TakenTerms {
  rows: Row[];
  fresh: number;
  different: number;
  same: number;
  unknown: string[];
}

/**
 * Takes the rows of a sheet over those that are there: one that says something of the same is changed, one that is for
 * itself is the same where it says the same. Null where the sheet has no column of the kind.
 */
export function takeTerms(
  kind: TermKindId,
  sheet: readonly (readonly string[])[],
  columns: readonly GridColumn[],
  now: readonly Row[],
  words: SheetWords,
): TakenTerms | null {
  const { fields, key, dated } = termKinds[kind];
  const read = cellsOfSheet(sheet, columns, words);
  if (!fields.some((_, at) => read.has[at])) return null;
  const keyPlaces =
    key.length > 0
      ? key.map((id) => fields.findIndex((field) => field.id === id))
      : fields.map((_, at) => at);
  const keyIn = (cells: readonly (Cell | undefined)[]): string =>
    keyPlaces.map((at) => (typeof cells[at] === 'string' ? cells[at] : '')).join('\u0000');
  // Of several rows of the same the one in force is meant, or the first that is to come.
  const stands = dated ? fields.length + 2 : -1;
  const byKey = new Map<string, Row>();
  for (const row of [...now].sort(
    (a, b) => Number(b.cells[stands] === 'now') - Number(a.cells[stands] === 'now'),
  ))
    if (!byKey.has(keyIn(row.cells))) byKey.set(keyIn(row.cells), row);
  const rows = new Map(now.map((row) => [row.id, row]));
  let [fresh, different, same] = [0, 0, 0];
  read.rows.forEach((given, at) => {
    const base = byKey.get(keyIn(given));
    if (!base) {
      fresh += 1;
      const id = `sheet-${String(at)}`;
      rows.set(id, { id, depth: 0, cells: columns.map((_, place) => given[place] ?? '') });
      return;
    }
    const cells = base.cells.map((cell, place) => (place === stands ? cell : (given[place] ?? cell)));
    const next = { ...base, cells };
    if (alike(base, next)) same += 1;
    else different += 1;
    rows.set(base.id, next);
  });
  return { rows: [...rows.values()], fresh, different, same, unknown: read.unknown };
}
