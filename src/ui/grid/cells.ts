/** What is done to cells: typed, emptied, filled, pasted. What is not to be seen, and fixed columns, stay as they are. */
import { cellOf, isWrong, typedIn, type Cell, type GridColumn, type Row } from './row';
import { series } from './series';
import { areaOf, changed, seenIn, type Area, type GridState, type Place } from './state';

/** What a grid is made of, and what may be done to it. */
export interface GridPlan {
  readonly columns: readonly GridColumn[];
  /** How many rows there can be; as many as there are where none may be added. */
  readonly most: number;
  /** A name that no row has yet. */
  readonly fresh: () => string;
}

/** What came of a command that can be refused or cut. */
export type Outcome =
  | { readonly is: 'done'; readonly state: GridState; readonly beside: number }
  | { readonly is: 'tooMany'; readonly most: number };

/** A row with nothing in it. */
export const blankRow = ({ columns, fresh }: GridPlan, depth: number): Row => ({
  id: fresh(),
  depth,
  cells: columns.map(() => ''),
});

/** The rows with some cells replaced; the same rows where nothing differs. `next` gives undefined to leave one. */
function replaced(
  rows: readonly Row[],
  plan: GridPlan,
  places: readonly number[],
  [left, right]: readonly [number, number],
  next: (row: number, column: number, nth: number) => Cell | undefined,
): readonly Row[] {
  const out = [...rows];
  let any = false as boolean;
  places.forEach((at, nth) => {
    const row = rows[at];
    if (!row) return;
    let cells: Cell[] | undefined;
    for (let column = left; column <= right; column += 1) {
      if (plan.columns[column]?.fixed) continue;
      const cell = next(at, column, nth);
      if (cell === undefined || alike(cell, row.cells[column])) continue;
      (cells ??= [...row.cells])[column] = cell;
    }
    if (!cells) return;
    any = true;
    out[at] = { ...row, cells };
  });
  return any ? out : rows;
}

const alike = (one: Cell, other: Cell | undefined): boolean =>
  isWrong(one) ? isWrong(other) && one.typed === other.typed && one.why === other.why : one === other;

const seenWithin = (state: GridState, { top, bottom }: Area): number[] =>
  seenIn(state).filter((at) => at >= top && at <= bottom);

/** Puts what was typed into the cell of the cursor, or into all that are marked. */
export function typing(
  state: GridState,
  plan: GridPlan,
  typed: string,
  where: 'cursor' | 'marked' = 'cursor',
): GridState {
  const { cursor } = state;
  const area =
    where === 'marked'
      ? areaOf(state)
      : { top: cursor.row, bottom: cursor.row, left: cursor.column, right: cursor.column };
  const read = new Map<number, Cell>();
  const rows = replaced(state.rows, plan, seenWithin(state, area), [area.left, area.right], (_, column) => {
    const of = plan.columns[column];
    if (!of) return undefined;
    const cell = read.get(column) ?? cellOf(of, typed);
    read.set(column, cell);
    return cell;
  });
  return changed(state, rows, state);
}

/** Empties the marked cells. */
export const emptied = (state: GridState, plan: GridPlan): GridState => typing(state, plan, '', 'marked');

/**
 * Fills the marked cells from the first of them, by rows or by columns; where one row or column alone is marked,
 * from the one before it.
 */
export function filled(state: GridState, plan: GridPlan, way: 'down' | 'right'): GridState {
  const area = areaOf(state);
  const down = way === 'down';
  const seen = seenIn(state);
  const alone = down ? area.top === area.bottom : area.left === area.right;
  const before = down ? seen[seen.indexOf(area.top) - 1] : area.left - 1;
  const from = alone ? before : down ? area.top : area.left;
  if (from === undefined || from < 0) return state;
  const rows = replaced(state.rows, plan, seenWithin(state, area), [area.left, area.right], (row, column) => {
    const source = down
      ? state.rows[from]?.cells[column]
      : taken(plan, from, column, state.rows[row]?.cells[from]);
    return source;
  });
  return changed(state, rows, state);
}

/** A cell of one column as another column reads it. */
function taken(plan: GridPlan, from: number, to: number, cell: Cell | undefined): Cell | undefined {
  const [source, target] = [plan.columns[from], plan.columns[to]];
  return source && target ? cellOf(target, typedIn(source, cell)) : undefined;
}

/**
 * Goes on with what is marked as far as a cell: downwards or to the right, whichever is further. Numbers that
 * rise by the same go on rising, all else is repeated.
 */
export function continued(state: GridState, plan: GridPlan, to: Place): GridState {
  const area = areaOf(state);
  const [below, beside] = [to.row - area.bottom, to.column - area.right];
  if (below <= 0 && beside <= 0) return state;
  const source = seenWithin(state, area);
  if (below >= beside) {
    const targets = seenWithin(state, { ...area, top: area.bottom + 1, bottom: to.row });
    const lines = new Map<number, (nth: number) => Cell>();
    for (let column = area.left; column <= area.right; column += 1)
      lines.set(column, series(source.map((row) => state.rows[row]?.cells[column] ?? '')));
    const rows = replaced(state.rows, plan, targets, [area.left, area.right], (_, column, nth) =>
      lines.get(column)?.(nth),
    );
    const corner = { row: targets.at(-1) ?? area.bottom, column: area.right };
    return changed(state, rows, { anchor: { row: area.top, column: area.left }, cursor: corner });
  }
  const width = area.right - area.left + 1;
  const rows = replaced(state.rows, plan, source, [area.right + 1, to.column], (row, column) => {
    const from = area.left + ((column - area.left) % width);
    return taken(plan, from, column, state.rows[row]?.cells[from]);
  });
  const corner = { row: area.bottom, column: Math.min(to.column, state.columns - 1) };
  return changed(state, rows, { anchor: { row: area.top, column: area.left }, cursor: corner });
}

/**
 * Pastes a table from the first marked cell on. One cell fills all that are marked; a table that fits into them
 * several times is repeated. Rows are added for what stands below the last one; how many columns stand beside
 * the last one is told, and they are left out. Too many rows: nothing is done.
 */
export function pasted(state: GridState, plan: GridPlan, table: readonly (readonly string[])[]): Outcome {
  const [area, seen] = [areaOf(state), seenIn(state)];
  const width = table.reduce((most, row) => Math.max(most, row.length), 0);
  if (width === 0) return { is: 'done', state, beside: 0 };
  const marked = seenWithin(state, area);
  const tall = times(marked.length, table.length);
  const wide = times(area.right - area.left + 1, width);
  const repeated = tall > 0 && wide > 0;
  const height = table.length * (repeated ? tall : 1);
  const right = Math.min(area.left + width * (repeated ? wide : 1), plan.columns.length) - 1;
  const from = state.rows.length === 0 ? 0 : seen.indexOf(area.top);
  const missing = Math.max(0, from + height - seen.length);
  if (state.rows.length + missing > Math.max(plan.most, state.rows.length))
    return { is: 'tooMany', most: plan.most };
  const depth = state.rows[seen.at(-1) ?? -1]?.depth ?? 0;
  const added = Array.from({ length: missing }, () => blankRow(plan, depth));
  const rows = [...state.rows, ...added];
  const places = [...seen.slice(from, from + height), ...added.map((_, at) => state.rows.length + at)];
  const filledIn = replaced(rows, plan, places, [area.left, right], (_, column, nth) => {
    const of = plan.columns[column];
    const text = table[nth % table.length]?.[(column - area.left) % width];
    return of ? cellOf(of, text ?? '') : undefined;
  });
  const next = changed(state, filledIn, {
    anchor: { row: places[0] ?? 0, column: area.left },
    cursor: { row: places.at(-1) ?? 0, column: right },
  });
  return { is: 'done', state: next, beside: Math.max(0, area.left + width - plan.columns.length) };
}

/** How many times one goes into another; 0 where it does not go. */
const times = (whole: number, part: number): number => (whole % part === 0 ? whole / part : 0);

/** The marked cells as they are typed. */
export function copied(state: GridState, { columns }: GridPlan): string[][] {
  const area = areaOf(state);
  return seenWithin(state, area).map((row) =>
    columns
      .slice(area.left, area.right + 1)
      .map((column, offset) => typedIn(column, state.rows[row]?.cells[area.left + offset])),
  );
}
