/** A grid at a moment: its rows, where the cursor is, what is marked, and what can be taken back. */
import { endOf, holderOf, seenRows } from './outline';
import type { Row } from './row';
import { applied, inverse, stepBetween, type Step } from './step';

/** A cell, by the place of its row and its column. */
export interface Place {
  readonly row: number;
  readonly column: number;
}

/** The cells between two corners, both counted. */
export interface Area {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

/** The cursor is a corner of what is marked, the anchor the one opposite. */
export interface Marked {
  readonly cursor: Place;
  readonly anchor: Place;
}

/** A step with what was marked before and after it. */
interface Change {
  readonly step: Step;
  readonly before: Marked;
  readonly after: Marked;
}

/** All that a grid is at a moment. Nothing in it is ever changed; what is done makes the next one. */
export interface GridState extends Marked {
  readonly rows: readonly Row[];
  readonly columns: number;
  /** Rows whose insides are not to be seen. */
  readonly folded: ReadonlySet<string>;
  readonly done: readonly Change[];
  readonly undone: readonly Change[];
}

const mostKept = 200;

/** A grid of rows, its cursor in the first cell. */
export function gridOf(rows: readonly Row[], columns: number): GridState {
  const start: Place = { row: 0, column: 0 };
  return { rows, columns, cursor: start, anchor: start, folded: new Set(), done: [], undone: [] };
}

const between = (value: number, most: number): number => Math.max(0, Math.min(value, most));
const within = ({ rows, columns }: Pick<GridState, 'rows' | 'columns'>, place: Place): Place => ({
  row: between(place.row, rows.length - 1),
  column: between(place.column, columns - 1),
});

/** Moves the cursor; what was marked stays marked up to it where `extend` says so. */
export function movedTo(state: GridState, to: Place, extend: 'extend' | 'leave' = 'leave'): GridState {
  const cursor = within(state, to);
  return opened({ ...state, cursor, anchor: extend === 'extend' ? state.anchor : cursor });
}

/** Marks from one corner to another, the cursor in the second. */
export const marking = (state: GridState, anchor: Place, cursor: Place): GridState =>
  opened({ ...state, anchor: within(state, anchor), cursor: within(state, cursor) });

/** The cells that are marked: at least the one of the cursor. */
export const areaOf = ({ cursor, anchor }: Marked): Area => ({
  top: Math.min(cursor.row, anchor.row),
  bottom: Math.max(cursor.row, anchor.row),
  left: Math.min(cursor.column, anchor.column),
  right: Math.max(cursor.column, anchor.column),
});

/** Puts other rows in the place of all rows, as one change that can be taken back. */
export function changed(state: GridState, rows: readonly Row[], marked: Marked): GridState {
  const step = stepBetween(state.rows, rows);
  const { cursor, anchor } = state;
  const next = { ...state, rows };
  const after = { cursor: within(next, marked.cursor), anchor: within(next, marked.anchor) };
  if (!step) return opened({ ...state, ...after });
  const change: Change = { step, before: { cursor, anchor }, after };
  return opened({ ...next, ...after, done: [...state.done, change].slice(-mostKept), undone: [] });
}

/** Takes the last change back; the same state where there is none. */
export function undo(state: GridState): GridState {
  const last = state.done.at(-1);
  if (!last) return state;
  return opened({
    ...state,
    ...last.before,
    rows: applied(state.rows, inverse(last.step)),
    done: state.done.slice(0, -1),
    undone: [...state.undone, last],
  });
}

/** Makes the change again that was taken back last; the same state where there is none. */
export function redo(state: GridState): GridState {
  const next = state.undone.at(-1);
  if (!next) return state;
  return opened({
    ...state,
    ...next.after,
    rows: applied(state.rows, next.step),
    done: [...state.done, next],
    undone: state.undone.slice(0, -1),
  });
}

/** Folds a row or opens it; the cursor comes out of what is not to be seen any more. */
export function folding(state: GridState, row: number, shut: boolean): GridState {
  const id = state.rows[row]?.id;
  if (id === undefined || state.folded.has(id) === shut) return state;
  const folded = new Set(state.folded);
  if (shut) folded.add(id);
  else folded.delete(id);
  const next = { ...state, folded };
  const end = endOf(state.rows, row);
  const out = (place: Place): Place =>
    shut && place.row > row && place.row < end ? { ...place, row } : place;
  return { ...next, cursor: out(state.cursor), anchor: out(state.anchor) };
}

/** The rows that are to be seen, by their places. */
export function seenIn({ rows, folded }: GridState): readonly number[] {
  if (folded.size > 0) return seenRows(rows, folded);
  const known = everyRow.get(rows);
  if (known) return known;
  const all = rows.map((_, at) => at);
  everyRow.set(rows, all);
  return all;
}
const everyRow = new WeakMap<readonly Row[], readonly number[]>();

/** Opens whatever hides the cursor or the anchor. */
function opened(state: GridState): GridState {
  if (state.folded.size === 0) return state;
  let folded: Set<string> | undefined;
  for (const { row } of [state.cursor, state.anchor])
    for (let up = holderOf(state.rows, row); up >= 0; up = holderOf(state.rows, up)) {
      const id = state.rows[up]?.id ?? '';
      if (state.folded.has(id)) (folded ??= new Set(state.folded)).delete(id);
    }
  return folded ? { ...state, folded } : state;
}
