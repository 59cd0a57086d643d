/**
 * What differs between two documents, part by part: parts are known by their ids, values by their names. As edits
 * these make the one from the other, whatever stands in them.
 */
import type { ModelDocument } from '../model';
import type { Edit } from './edit';
import { listAt, listsOf, partAt, type Held, type ListAt, type Part, type PartAt } from './places';

/** One thing that differs. */
export type Difference =
  | { is: 'added'; to: ListAt; part: Part; before?: string }
  | { is: 'removed'; at: PartAt; part: Part }
  /** In its list: before another, or at the end. */
  | { is: 'moved'; at: PartAt; before?: string }
  /** A value of a part or of the document; undefined where it is not there. */
  | { is: 'set'; at: PartAt; name: string; from: unknown; to: unknown };

/** All that differs, in an order in which the edits can be done. */
export const differences = (before: ModelDocument, after: ModelDocument): Difference[] =>
  between(before, after, []);

/** The edit that makes a difference. */
export function editOf(difference: Difference): Edit {
  switch (difference.is) {
    case 'added': {
      const { to, part, before } = difference;
      return { do: 'add', to, part, ...(before === undefined ? {} : { before }) };
    }
    case 'removed':
      return { do: 'remove', at: difference.at };
    case 'moved': {
      const { at, before } = difference;
      return { do: 'move', at, ...(before === undefined ? {} : { before }) };
    }
    case 'set': {
      const { at, name, to } = difference;
      return { do: 'set', at, name, ...(to === undefined ? {} : { value: to }) };
    }
  }
}

function between(before: ModelDocument, after: ModelDocument, at: PartAt): Difference[] {
  const [one, other] = [partAt(before, at) ?? {}, partAt(after, at) ?? {}];
  const own = listsOf(at);
  return [
    ...valuesBetween(one, other, own).map(({ name, from, to }): Difference => ({
      is: 'set',
      at,
      name,
      from,
      to,
    })),
    ...own.flatMap((name) => partsBetween(before, after, [...at, name])),
  ];
}

/** Values that differ; lists of parts, and ids, which are told otherwise, apart. */
function valuesBetween(
  one: Held,
  other: Held,
  apart: readonly string[],
  within = '',
): { name: string; from: unknown; to: unknown }[] {
  const names = [...new Set([...Object.keys(one), ...Object.keys(other)])];
  return names.flatMap((key) => {
    const name = within === '' ? key : `${within}.${key}`;
    if (name === 'id' || apart.includes(name)) return [];
    const [from, to] = [one[key], other[key]];
    const leads = apart.some((each) => each.startsWith(`${name}.`));
    if (leads || (isNamed(from) && isNamed(to)))
      return valuesBetween((from ?? {}) as Held, (to ?? {}) as Held, apart, name);
    return alike(from, to) ? [] : [{ name, from, to }];
  });
}

/** An object whose values can be told one by one: no name in it has a dot. */
const isNamed = (value: unknown): value is Held =>
  typeof value === 'object' &&
  value !== null &&
  !Array.isArray(value) &&
  Object.keys(value).every((name) => !name.includes('.'));

/** Whether two values are the same, whatever the order of their names. */
export function alike(one: unknown, other: unknown): boolean {
  if (one === other) return true;
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) return false;
  if (Array.isArray(one) !== Array.isArray(other)) return false;
  const [left, right] = [one as Held, other as Held];
  const names = Object.keys(left);
  return (
    names.length === Object.keys(right).length &&
    names.every((name) => Object.hasOwn(right, name) && alike(left[name], right[name]))
  );
}

/** What differs in a list: removed, then added from the end on, then moved, then within each that stays. */
function partsBetween(before: ModelDocument, after: ModelDocument, list: ListAt): Difference[] {
  const [old, now] = [listAt(before, list), listAt(after, list)];
  if (old === now) return [];
  const [known, wanted] = [new Set(old.map(({ id }) => id)), new Set(now.map(({ id }) => id))];
  const removed = old
    .filter(({ id }) => !wanted.has(id))
    .map((part): Difference => ({ is: 'removed', at: [...list, part.id], part }));
  const stay = old.filter(({ id }) => wanted.has(id)).map(({ id }) => id);
  const places = new Map(now.map(({ id }, place) => [id, place]));
  const fixed = longestRising(stay, (id) => places.get(id) ?? 0);
  // From the end on, each goes before the one that is right behind it in the end, which is in its place already.
  const placed = [...now].reverse().flatMap((part, back): Difference[] => {
    const behind = now[now.length - back]?.id;
    const before = behind === undefined ? {} : { before: behind };
    if (!known.has(part.id)) return [{ is: 'added', to: list, part, ...before }];
    return fixed.has(part.id) ? [] : [{ is: 'moved', at: [...list, part.id], ...before }];
  });
  const within = now
    .filter(({ id }) => known.has(id))
    .flatMap(({ id }) => between(before, after, [...list, id]));
  return [...removed, ...placed, ...within];
}

/** As many as can stay where they are: the longest run of ids whose places only rise. */
function longestRising(ids: readonly string[], placeOf: (id: string) => number): ReadonlySet<string> {
  /** By length of a run, the id that ends it at the lowest place. */
  const ends: string[] = [];
  const previous = new Map<string, string | undefined>();
  for (const id of ids) {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (placeOf(ends[middle] ?? '') < placeOf(id)) low = middle + 1;
      else high = middle;
    }
    previous.set(id, ends[low - 1]);
    ends[low] = id;
  }
  const found = new Set<string>();
  for (let id = ends.at(-1); id !== undefined; id = previous.get(id)) found.add(id);
  return found;
}
