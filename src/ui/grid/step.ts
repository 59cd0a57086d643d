/** The one way in which rows change: some of them, side by side, are replaced by others. */
import type { Row } from './row';

/** `removed` stood at `at`, and `added` stands there instead. */
export interface Step {
  readonly at: number;
  readonly removed: readonly Row[];
  readonly added: readonly Row[];
}

/** The rows after a step. Throws where what it removes does not stand there. */
export function applied(rows: readonly Row[], { at, removed, added }: Step): readonly Row[] {
  if (removed.some((row, offset) => rows[at + offset]?.id !== row.id))
    throw new Error('a step for other rows');
  return [...rows.slice(0, at), ...added, ...rows.slice(at + removed.length)];
}

/** The step that takes it back. */
export const inverse = ({ at, removed, added }: Step): Step => ({ at, removed: added, added: removed });

/** What makes other rows of rows: the least of them that covers all that differs; null where nothing does. */
export function stepBetween(before: readonly Row[], after: readonly Row[]): Step | null {
  const shorter = Math.min(before.length, after.length);
  let at = 0;
  while (at < shorter && before[at] === after[at]) at += 1;
  let end = 0;
  while (end < shorter - at && before[before.length - 1 - end] === after[after.length - 1 - end]) end += 1;
  const removed = before.slice(at, before.length - end);
  const added = after.slice(at, after.length - end);
  return removed.length === 0 && added.length === 0 ? null : { at, removed, added };
}
