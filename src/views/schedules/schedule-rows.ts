/** Positions as rows of a grid, and back: what a cell is of stays with its line or build, however it is copied. */
import type { PositionView } from '../../contract';
import { positionProblems, type PositionOf } from '../../core/schedule';
import { own } from '../../i18n';
import { isBlank, isWrong, type Cell, type Row } from '../../ui/grid';

/** Cells of a row that somebody types: tag, area, what, quantity, remark; how it stands, behind them, is told. */
const typedCells = 5;

/** How what a position is of is kept in a cell. */
export const keptOf = (of: PositionOf): string =>
  of.is === 'words' ? (of.text === '' ? '' : `"${of.text}`) : JSON.stringify(of);

/** And back. */
export function ofKept(kept: string): PositionOf {
  if (kept.startsWith('{')) return JSON.parse(kept) as PositionOf;
  return { is: 'words', text: kept.replace(/^"/, '') };
}

/** What such cells show: names of what is known, else the words or the number. */
export class Names {
  private readonly byKept = new Map<string, string>();
  private readonly byName = new Map<string, string>();

  constructor(positions: readonly PositionView[], language: string) {
    for (const { of, name, number } of positions) {
      if (of.is === 'words') continue;
      const kept = keptOf(of);
      const text = [own(name, language), number].filter(Boolean).join(', ') || '?';
      this.byKept.set(kept, text);
      if (!this.byName.has(text)) this.byName.set(text, kept);
    }
  }

  shown(kept: string): string {
    const known = this.byKept.get(kept);
    if (known !== undefined) return known;
    const of = ofKept(kept);
    return of.is === 'words' ? of.text : of.is === 'item' ? of.sku : '?';
  }

  /** What was typed or pasted: something that is known by its name, else words. */
  read(typed: string): string {
    return this.byName.get(typed) ?? `"${typed}`;
  }
}

/** A position as a row. */
export const rowOf = ({ id, tag, area, of, quantity, remark, ...told }: PositionView): Row => ({
  id,
  depth: 0,
  cells: [tag, area, keptOf(of), quantity, remark, stateOf(told)],
});

/** What is to be known of it: that it is gone, unfinished, or on which quote. */
const stateOf = ({ gone, unfinished, quote }: Pick<PositionView, 'gone' | 'unfinished' | 'quote'>): string =>
  gone ? 'gone' : unfinished ? 'unfinished' : quote === null ? '' : `quote ${quote}`;

const text = (cell: Cell | undefined): string => (typeof cell === 'string' ? cell : '');

/** A row as it is sent; one of which nothing is said how many, is one. */
export const sentRow = ({ cells }: Row) => ({
  tag: text(cells[0]),
  area: text(cells[1]),
  of: ofKept(text(cells[2])),
  quantity: text(cells[3]) || '1',
  remark: text(cells[4]),
});

/** Whether something was typed into it. */
export const isUsed = (row: Row): boolean => !isBlank({ ...row, cells: row.cells.slice(0, typedCells) });

/** Rows that are used, with what is wrong with them, by their places in the grid. */
export function wrongIn(
  rows: readonly Row[],
): { at: number; code: string; params: Record<string, string | number> }[] {
  const used = rows.flatMap((row, at) => (isUsed(row) ? [{ row, at }] : []));
  const unread = used.flatMap(({ row, at }) =>
    row.cells.some(isWrong) ? [{ at, code: 'house.toMend', params: {} }] : [],
  );
  return [
    ...unread,
    ...positionProblems(used.map(({ row }) => sentRow(row))).map(({ at, code, params = {} }) => ({
      at: used[at]?.at ?? 0,
      code,
      // Rows are counted as the grid counts them.
      params:
        typeof params.row === 'number' ? { ...params, row: (used[params.row - 1]?.at ?? 0) + 1 } : params,
    })),
  ];
}

/** Whether rows are as they were. */
export const sameRows = (one: readonly Row[], other: readonly Row[]): boolean =>
  one.length === other.length &&
  one.every((row, at) =>
    row.cells.slice(0, typedCells).every((cell, place) => cell === other[at]?.cells[place]),
  );
