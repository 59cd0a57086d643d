/** What is told of options, by row and then by "row.option"; of a row as a whole by its own name. */
export type ByRow<T> = ReadonlyMap<string, Readonly<Record<string, T>>>;

/**
 * Told by row. A row of which the same is told as before keeps its object, and all of it does where nothing
 * changed: what shows it is not drawn again.
 */
export function byRow<T>(all: Readonly<Record<string, T>>, before: ByRow<T> = new Map()): ByRow<T> {
  const after = new Map<string, Record<string, T>>();
  for (const [key, value] of Object.entries(all)) {
    const dot = key.indexOf('.');
    const row = dot < 0 ? key : key.slice(0, dot);
    const slice = after.get(row) ?? {};
    slice[key] = value;
    after.set(row, slice);
  }
  let same = after.size === before.size;
  for (const [row, slice] of after) {
    const kept = before.get(row);
    if (kept && tellsTheSame(kept, slice)) after.set(row, kept);
    else same = false;
  }
  return same ? before : after;
}

function tellsTheSame<T>(one: Readonly<Record<string, T>>, other: Readonly<Record<string, T>>): boolean {
  const keys = Object.keys(one);
  return (
    keys.length === Object.keys(other).length &&
    keys.every((key) => Object.hasOwn(other, key) && one[key] === other[key])
  );
}
