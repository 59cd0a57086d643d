/** Where keys lead in a grid. */
import { isEmpty } from './row';
import { areaOf, seenIn, type GridState, type Place } from './state';

/** Which way. */
export type Way = 'up' | 'down' | 'left' | 'right';

/** The cell so many cells on, over rows that are to be seen; it stops at the edge. */
export function stepped(state: GridState, way: Way, by = 1): Place {
  const { cursor } = state;
  if (way === 'left') return { ...cursor, column: Math.max(0, cursor.column - by) };
  if (way === 'right') return { ...cursor, column: Math.min(state.columns - 1, cursor.column + by) };
  const seen = seenIn(state);
  const at = placeIn(seen, cursor.row) + (way === 'up' ? -by : by);
  return { ...cursor, row: seen[Math.max(0, Math.min(seen.length - 1, at))] ?? 0 };
}

/** Where a row stands among those that are to be seen; they are in order. */
export function placeIn(seen: readonly number[], row: number): number {
  let [low, high] = [0, seen.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((seen[middle] ?? 0) <= row) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * The end of what is filled: from a filled cell the last one before an empty one, else the next filled one, or
 * the edge.
 */
export function jumped(state: GridState, way: Way): Place {
  const filled = ({ row, column }: Place): boolean => !isEmpty(state.rows[row]?.cells[column]);
  const next = (from: Place): Place => stepped({ ...state, cursor: from }, way);
  const same = (one: Place, other: Place): boolean => one.row === other.row && one.column === other.column;
  const first = next(state.cursor);
  const along = filled(state.cursor) && filled(first);
  let at = first;
  for (let then = next(at); !same(then, at); then = next(at)) {
    if (along ? !filled(then) : filled(at)) return at;
    at = then;
  }
  return at;
}

/** First or last cell of the row. */
export const rowEnd = ({ cursor, columns }: GridState, end: 'first' | 'last'): Place => ({
  ...cursor,
  column: end === 'first' ? 0 : columns - 1,
});

/** First or last cell of the grid. */
export const corner = (state: GridState, end: 'first' | 'last'): Place =>
  end === 'first' ? { row: 0, column: 0 } : { row: seenIn(state).at(-1) ?? 0, column: state.columns - 1 };

/** Where Tab leads: along the row, from its end to the next row; it stops in the corners. */
export function tabbed(state: GridState, way: 'left' | 'right'): Place {
  const { cursor, columns } = state;
  const column = cursor.column + (way === 'right' ? 1 : -1);
  if (column >= 0 && column < columns) return { ...cursor, column };
  const row = stepped(state, way === 'right' ? 'down' : 'up').row;
  return row === cursor.row ? cursor : { row, column: way === 'right' ? 0 : columns - 1 };
}

/** How many cells are marked. */
export const markedCount = (state: GridState): number => {
  const { top, bottom, left, right } = areaOf(state);
  return (bottom - top + 1) * (right - left + 1);
};
