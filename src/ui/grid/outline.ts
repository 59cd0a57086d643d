/** Rows as a tree: which are inside another, and which are to be seen. */
import type { Row } from './row';

/** Where the rows inside a row end: the place behind the last of them, itself counted. */
export function endOf(rows: readonly Row[], at: number): number {
  const depth = rows[at]?.depth ?? 0;
  let end = at + 1;
  while (end < rows.length && (rows[end]?.depth ?? 0) > depth) end += 1;
  return end;
}

/** Whether other rows are inside it. */
export const holdsRows = (rows: readonly Row[], at: number): boolean =>
  (rows[at + 1]?.depth ?? -1) > (rows[at]?.depth ?? 0);

/** The places of the rows that are to be seen: those inside a folded one are not. */
export function seenRows(rows: readonly Row[], folded: ReadonlySet<string>): readonly number[] {
  const seen: number[] = [];
  for (let at = 0; at < rows.length; at = folded.has(rows[at]?.id ?? '') ? endOf(rows, at) : at + 1)
    seen.push(at);
  return seen;
}

/** The row that it is inside of; -1 for none. */
export function holderOf(rows: readonly Row[], at: number): number {
  const depth = rows[at]?.depth ?? 0;
  let up = at - 1;
  while (up >= 0 && (rows[up]?.depth ?? 0) >= depth) up -= 1;
  return depth === 0 ? -1 : up;
}

/**
 * Rows none of which is more than one deeper than the one above it, the first not deeper than `most`; those
 * inside one that was lifted are lifted with it.
 */
export function levelled(rows: readonly Row[], most: number): readonly Row[] {
  const path: { was: number; is: number }[] = [];
  let changed = false as boolean;
  const out = rows.map((row) => {
    while (path.length > 0 && (path.at(-1)?.was ?? 0) >= row.depth) path.pop();
    const holder = path.at(-1);
    const is = holder ? holder.is + 1 : Math.min(row.depth, most);
    path.push({ was: row.depth, is });
    if (is === row.depth) return row;
    changed = true;
    return { ...row, depth: is };
  });
  return changed ? out : rows;
}

/** Whether rows are a tree: the first at the top, none more than one deeper than the one above it. */
export const isOutline = (rows: readonly Row[]): boolean =>
  rows.every((row, at) => row.depth >= 0 && row.depth <= (rows[at - 1]?.depth ?? -1) + 1);
