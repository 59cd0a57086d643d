/**
 * What changed from one plain value to the next. Between a worker and its page only this travels, and what
 * did not change stays the same object, so that nothing that shows it is drawn again.
 */
export type Changes =
  /** Another value in its place. */
  | { is: 'value'; value: unknown }
  /** A record, some of whose entries changed or went. */
  | { is: 'entries'; entries: Record<string, Changes>; gone: string[] };

type Plain = Readonly<Record<string, unknown>>;
const isRecord = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Null where nothing changed. Both are plain data: texts, numbers, yes and no, null, lists and records. */
export function changesOf(before: unknown, after: unknown): Changes | null {
  if (Object.is(before, after)) return null;
  if (Array.isArray(before) && Array.isArray(after)) {
    const same =
      before.length === after.length && after.every((each, index) => changesOf(before[index], each) === null);
    return same ? null : { is: 'value', value: after };
  }
  if (!isRecord(before) || !isRecord(after)) return { is: 'value', value: after };
  const entries: Record<string, Changes> = {};
  for (const [key, value] of Object.entries(after)) {
    const change: Changes | null = Object.hasOwn(before, key)
      ? changesOf(before[key], value)
      : { is: 'value', value };
    if (change) entries[key] = change;
  }
  const gone = Object.keys(before).filter((key) => !Object.hasOwn(after, key));
  return Object.keys(entries).length === 0 && gone.length === 0 ? null : { is: 'entries', entries, gone };
}

/** The value that it became: what did not change is the very object that it was. */
export function withChanges<T>(before: T, changes: Changes | null): T {
  if (!changes) return before;
  if (changes.is === 'value') return changes.value as T;
  const gone = new Set(changes.gone);
  const after: Record<string, unknown> = Object.fromEntries(
    Object.entries(before as Plain).filter(([key]) => !gone.has(key)),
  );
  for (const [key, change] of Object.entries(changes.entries)) after[key] = withChanges(after[key], change);
  return after as T;
}
