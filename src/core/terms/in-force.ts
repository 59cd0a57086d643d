/** What holds on a day of what was said from a day on: the newest that has begun, unless it has ended. */

/** Something that holds from a day on (ISO; null: always so far) to a last day (null: until it is followed). */
export interface Dated {
  validFrom: string | null;
  validTo: string | null;
}

/** Where something stands: it is still to come, it holds, or something else holds by now. */
export type Stand = 'ahead' | 'now' | 'over';

const begun = ({ validFrom }: Pick<Dated, 'validFrom'>, day: string): boolean =>
  validFrom === null || validFrom <= day;
const ended = ({ validTo }: Dated, day: string): boolean => validTo !== null && validTo < day;
const later = (one: Dated, other: Dated): boolean => (one.validFrom ?? '') >= (other.validFrom ?? '');

/**
 * Of rows that say something of the same, by their key, the one that holds on a day. One that has ended does not
 * give way to what it followed: then nothing holds. Of two from one day the later in the rows holds.
 */
export function inForce<T extends Dated>(
  rows: readonly T[],
  keyOf: (row: T) => string,
  day: string,
): Map<string, T> {
  const newest = new Map<string, T>();
  for (const row of rows) {
    if (!begun(row, day)) continue;
    const key = keyOf(row);
    const had = newest.get(key);
    if (!had || later(row, had)) newest.set(key, row);
  }
  for (const [key, row] of newest) if (ended(row, day)) newest.delete(key);
  return newest;
}

/** Where a row stands on a day, among all rows of its key. */
export function standOf<T extends Dated>(row: T, ofKey: readonly T[], day: string): Stand {
  if (!begun(row, day)) return 'ahead';
  return [...inForce(ofKey, () => '', day).values()].includes(row) ? 'now' : 'over';
}
