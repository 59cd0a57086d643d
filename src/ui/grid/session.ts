/** A grid while somebody works in it: what it is now, and who wants to know when that changes. */
import { wrongIn, type GridColumn, type Row } from './row';
import { tidied } from './rows-acts';
import { gridOf, type GridState, type Place } from './state';

/** Holds the state of a grid, for whoever shows it and whoever keeps what stands in it. */
export class GridSession {
  private now: GridState;
  private begun: readonly Row[];
  private made = 0;
  private readonly hearers = new Set<() => void>();

  constructor(rows: readonly Row[], columns: number) {
    this.now = gridOf(tidied(rows, columns), columns);
    this.begun = this.now.rows;
  }

  /** What it is now. */
  readonly state = (): GridState => this.now;

  /** Tells of every change until what is given back is called. */
  readonly hear = (hearer: () => void): (() => void) => {
    this.hearers.add(hearer);
    return () => this.hearers.delete(hearer);
  };

  /** Does something; nobody is told where it changes nothing. */
  readonly act = (next: (state: GridState) => GridState): void => {
    const state = next(this.now);
    if (state === this.now) return;
    this.now = state;
    this.hearers.forEach((hear) => hear());
  };

  /** A name for a new row. */
  readonly fresh = (): string => `new-${String((this.made += 1))}`;

  /** Whether its rows are others than those that it began with. */
  changed(): boolean {
    return this.now.rows !== this.begun && !sameRows(this.now.rows, this.begun);
  }

  /** Begins again with other rows, as those that were kept; nothing can be taken back any more. */
  begin(rows: readonly Row[]): void {
    const { columns, cursor, anchor } = this.now;
    const next = gridOf(tidied(rows, columns), columns);
    const most = Math.max(0, rows.length - 1);
    this.begun = next.rows;
    this.act(() => ({
      ...next,
      cursor: { ...cursor, row: Math.min(cursor.row, most) },
      anchor: { ...anchor, row: Math.min(anchor.row, most) },
    }));
  }

  /**
   * Shows rows as somebody else keeps them by now, beneath the hand that works in the grid: cursor, marks and what is
   * folded stay with their rows. What can be taken back is theirs to know.
   */
  settle(rows: readonly Row[]): void {
    const { rows: before, columns, cursor, anchor } = this.now;
    const next = tidied(rows, columns);
    const placed = new Map(next.map(({ id }, at) => [id, at]));
    const most = Math.max(0, next.length - 1);
    const moved = (place: Place): Place => ({
      ...place,
      row: placed.get(before[place.row]?.id ?? '') ?? Math.min(place.row, most),
    });
    this.begun = next;
    this.act((state) => ({
      ...state,
      rows: next,
      cursor: moved(cursor),
      anchor: moved(anchor),
      done: [],
      undone: [],
    }));
  }
}

const sameRows = (one: readonly Row[], other: readonly Row[]): boolean =>
  one.length === other.length && one.every((row, at) => row === other[at] || alike(row, other[at]));
const alike = (one: Row, other: Row | undefined): boolean =>
  one.id === other?.id &&
  one.depth === other.depth &&
  one.cells.every((cell, at) => cell === other.cells[at]);

/** The cells with something wrong, in the order in which they are read. */
export function wrongCells(
  rows: readonly Row[],
  columns: readonly GridColumn[],
): readonly { row: number; column: number; why: string }[] {
  return rows.flatMap((row, at) => {
    const known = wrongKnown.get(columns) ?? new WeakMap<Row, readonly { column: number; why: string }[]>();
    wrongKnown.set(columns, known);
    let wrong = known.get(row);
    if (!wrong) {
      wrong = columns.flatMap((column, place) => {
        const why = wrongIn(column, row, row.cells[place]);
        return why === null ? [] : [{ column: place, why }];
      });
      known.set(row, wrong);
    }
    return wrong.map((each) => ({ row: at, ...each }));
  });
}
/** A row is looked at once: most rows are the same after a change. */
const wrongKnown = new WeakMap<
  readonly GridColumn[],
  WeakMap<Row, readonly { column: number; why: string }[]>
>();
