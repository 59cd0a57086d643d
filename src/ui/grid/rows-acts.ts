/** What is done to whole rows; whatever is inside one goes with it. */
import { blankRow, type GridPlan } from './cells';
import { endOf, holderOf, holdsRows, levelled } from './outline';
import type { Row } from './row';
import { areaOf, changed, seenIn, type GridState } from './state';

/** Rows side by side, with all that is inside them: from one place to before another. */
interface Block {
  readonly from: number;
  readonly to: number;
}

/** The marked rows. */
export function blockOf(state: GridState): Block {
  const { top, bottom } = areaOf(state);
  let to = top;
  for (let at = top; at <= bottom && at < state.rows.length; at = endOf(state.rows, at))
    to = Math.max(to, endOf(state.rows, at));
  return { from: top, to };
}

/** Whether the first row of a block is the least deep: only then it can go anywhere as one. */
const stands = (rows: readonly Row[], { from, to }: Block): boolean =>
  rows.slice(from, to).every(({ depth }) => depth >= (rows[from]?.depth ?? 0));

/** Adds an empty row above what is marked or below it; below an open row that holds others, as the first of them. */
export function inserted(state: GridState, plan: GridPlan, where: 'above' | 'below'): GridState {
  const { rows, cursor } = state;
  if (rows.length >= plan.most) return state;
  const { top, bottom } = areaOf(state);
  const inside = holdsRows(rows, bottom) && !state.folded.has(rows[bottom]?.id ?? '');
  const at = rows.length === 0 ? 0 : where === 'above' ? top : inside ? bottom + 1 : endOf(rows, bottom);
  const beside = rows[where === 'above' ? top : bottom];
  const depth = (beside?.depth ?? 0) + (where === 'below' && inside ? 1 : 0);
  const place = { row: at, column: cursor.column };
  return changed(state, [...rows.slice(0, at), blankRow(plan, depth), ...rows.slice(at)], {
    cursor: place,
    anchor: place,
  });
}

/** Takes the marked rows away. */
export function removed(state: GridState): GridState {
  const { from, to } = blockOf(state);
  const place = { row: from, column: state.cursor.column };
  return changed(state, [...state.rows.slice(0, from), ...state.rows.slice(to)], {
    cursor: place,
    anchor: place,
  });
}

/** Puts a copy of the marked rows behind them, and marks it; nothing where there would be too many. */
export function doubled(state: GridState, plan: GridPlan): GridState {
  const { rows } = state;
  const block = blockOf(state);
  const { from, to } = block;
  if (to === from || rows.length + to - from > plan.most || !stands(rows, block)) return state;
  const copies = rows.slice(from, to).map((row) => ({ ...row, id: plan.fresh() }));
  return changed(state, [...rows.slice(0, to), ...copies, ...rows.slice(to)], shifted(state, to - from));
}

/** What is marked, so many rows further down. */
const shifted = ({ cursor, anchor }: GridState, by: number) => ({
  cursor: { ...cursor, row: cursor.row + by },
  anchor: { ...anchor, row: anchor.row + by },
});

/** Moves the marked rows past the one before or behind them that is inside the same row; else nothing. */
export function moved(state: GridState, way: 'up' | 'down'): GridState {
  const { rows } = state;
  const block = blockOf(state);
  const depth = rows[block.from]?.depth ?? 0;
  if (!stands(rows, block)) return state;
  if (way === 'down') return rows[block.to]?.depth === depth ? placed(state, endOf(rows, block.to)) : state;
  let before = block.from - 1;
  while (before >= 0 && (rows[before]?.depth ?? 0) > depth) before -= 1;
  return rows[before]?.depth === depth ? placed(state, before) : state;
}

/**
 * Puts the marked rows before the row at a place, counted as they stand now. They become as deep as they must
 * be there, so that no other row comes to be inside another one.
 */
export function placed(state: GridState, to: number): GridState {
  const { rows } = state;
  const block = blockOf(state);
  const inside = to > block.from && to < block.to;
  if (inside || !stands(rows, block) || block.to === block.from) return state;
  const first = rows[block.from]?.depth ?? 0;
  const rest = [...rows.slice(0, block.from), ...rows.slice(block.to)];
  const at = to <= block.from ? to : to - (block.to - block.from);
  const [least, most] = [rest[at]?.depth ?? 0, (rest[at - 1]?.depth ?? -1) + 1];
  return settled(state, block, rest, at, Math.max(least, Math.min(first, most)));
}

/** The block at a place among the other rows, its first row so deep. */
function settled(state: GridState, block: Block, rest: readonly Row[], at: number, depth: number) {
  const taken = state.rows.slice(block.from, block.to);
  const by = depth - (taken[0]?.depth ?? 0);
  const put = by === 0 ? taken : taken.map((row) => ({ ...row, depth: row.depth + by }));
  return changed(state, [...rest.slice(0, at), ...put, ...rest.slice(at)], shifted(state, at - block.from));
}

/** Puts the marked rows inside the row before them, or out of the one that they are inside of, behind it. */
export function deeper(state: GridState, way: 'in' | 'out'): GridState {
  const { rows } = state;
  const block = blockOf(state);
  const depth = rows[block.from]?.depth ?? 0;
  if (!stands(rows, block) || block.to === block.from) return state;
  const rest = [...rows.slice(0, block.from), ...rows.slice(block.to)];
  if (way === 'in')
    return depth <= (rows[block.from - 1]?.depth ?? -1)
      ? settled(state, block, rest, block.from, depth + 1)
      : state;
  const holder = holderOf(rows, block.from);
  return holder < 0 ? state : settled(state, block, rest, endOf(rest, holder), depth - 1);
}

/** Rows as they come from elsewhere: as deep as a tree allows, and with a cell for each column. */
export const tidied = (rows: readonly Row[], columns: number): readonly Row[] =>
  levelled(
    rows.map((row) =>
      row.cells.length === columns
        ? row
        : { ...row, cells: Array.from({ length: columns }, (_, at) => row.cells[at] ?? '') },
    ),
    0,
  );

/** Marks the marked rows from the first to the last column. */
export const wholeRows = (state: GridState): GridState => ({
  ...state,
  anchor: { ...state.anchor, column: 0 },
  cursor: { ...state.cursor, column: state.columns - 1 },
});

/** Marks the marked columns from the first to the last row. */
export const wholeColumns = (state: GridState): GridState => ({
  ...state,
  anchor: { ...state.anchor, row: 0 },
  cursor: { ...state.cursor, row: seenIn(state).at(-1) ?? 0 },
});
