import { Exact } from '../../exact';
import { compareValues, equal, type Value } from '../value';
import {
  asList,
  contains,
  itemOf,
  itemsOf,
  listOfFirst,
  number,
  whole,
  yesno,
  type Builtin,
} from './builtin';

const overNumbers = (
  apply: (numbers: Exact[]) => Value,
  type: Builtin['type'] = (args) => itemOf(args[0]),
): Builtin => ({
  least: 1,
  most: 99,
  takes: [],
  type,
  apply: (args) => {
    const items = itemsOf(args);
    return items?.every((item): item is Exact => item instanceof Exact) ? apply(items) : null;
  },
});

/** The first of the items in an order; numbers, texts, days and durations have one. */
const extreme = (sign: '<' | '>'): Builtin => ({
  least: 1,
  most: 99,
  takes: [],
  type: (args) => itemOf(args[0]),
  apply: (args) => {
    const [first, ...rest] = itemsOf(args) ?? [];
    let best = first ?? null;
    if (best !== null && compareValues('<', best, best) === null) return null;
    for (const item of rest) {
      const before = compareValues(sign, item, best);
      if (before === null) return null;
      if (before) best = item;
    }
    return best;
  },
});

/** A function of one list; null where there is none. */
const onList = (
  most: number,
  type: Builtin['type'],
  apply: (list: Value[], rest: Value[]) => Value,
  least = most,
): Builtin => ({
  least,
  most,
  takes: [],
  type,
  apply: ([first, ...rest]) => {
    const list = asList(first);
    return list ? apply(list, rest) : null;
  },
});

const truths = (decisive: boolean): Builtin => ({
  least: 1,
  most: 99,
  takes: [],
  type: () => yesno,
  apply: (args) => {
    const items = itemsOf(args);
    if (!items) return null;
    if (items.includes(decisive)) return decisive;
    return items.every((item) => typeof item === 'boolean') ? !decisive : null;
  },
});

const total = (numbers: Exact[]): Exact => numbers.reduce((sum, each) => sum.plus(each), new Exact(0));
const mean = (numbers: Exact[]): Exact => total(numbers).div(numbers.length);

function median(numbers: Exact[]): Value {
  const sorted = [...numbers].sort((a, b) => a.comparedTo(b));
  const middle = sorted.length >> 1;
  if (sorted.length === 0) return null;
  return sorted.length % 2 === 1
    ? (sorted[middle] as Exact)
    : (sorted[middle - 1] as Exact).plus(sorted[middle] as Exact).div(2);
}

/** Of a sample: divided by one less than there are. */
function deviation(numbers: Exact[]): Value {
  if (numbers.length < 2) return null;
  const middle = mean(numbers);
  return total(numbers.map((each) => each.minus(middle).pow(2)))
    .div(numbers.length - 1)
    .sqrt();
}

function mode(numbers: Exact[]): Value {
  const counts = new Map<string, number>();
  for (const each of numbers) counts.set(each.toString(), (counts.get(each.toString()) ?? 0) + 1);
  const most = Math.max(0, ...counts.values());
  return [...counts]
    .filter(([, count]) => count === most)
    .map(([each]) => new Exact(each))
    .sort((a, b) => a.comparedTo(b));
}

const unique = (list: readonly Value[]): Value[] =>
  list.reduce<Value[]>((found, item) => (contains(found, item) ? found : [...found, item]), []);
const flat = (list: readonly Value[]): Value[] =>
  list.flatMap((item) => (Array.isArray(item) ? flat(item) : [item]));

/** Place of a position counted from 1, or from the end below zero; null where there is no such item. */
function placeOf(position: Value | undefined, length: number): number | null {
  const at = whole(position);
  if (at === null || at === 0 || Math.abs(at) > length) return null;
  return at > 0 ? at - 1 : length + at;
}

/** Functions on lists, by name. */
export const lists: Readonly<Record<string, Builtin>> = {
  min: extreme('<'),
  max: extreme('>'),
  sum: overNumbers((numbers) => (numbers.length ? total(numbers) : null)),
  mean: overNumbers((numbers) => (numbers.length ? mean(numbers) : null)),
  product: overNumbers(
    (numbers) => (numbers.length ? numbers.reduce((product, each) => product.times(each)) : null),
    () => number,
  ),
  median: overNumbers(median),
  stddev: overNumbers(deviation),
  mode: overNumbers(mode, listOfFirst),
  all: truths(false),
  any: truths(true),
  count: {
    least: 1,
    most: 1,
    takes: ['list'],
    type: () => number,
    apply: ([list]) => (Array.isArray(list) ? new Exact(list.length) : list === null ? null : new Exact(1)),
  },
  'list contains': {
    least: 2,
    most: 2,
    takes: ['list'],
    type: () => yesno,
    apply: ([list, item]) => (Array.isArray(list) ? contains(list, item as Value) : null),
  },
  append: onList(99, listOfFirst, (list, rest) => [...list, ...rest], 2),
  concatenate: {
    least: 1,
    most: 99,
    takes: [],
    type: listOfFirst,
    apply: (args) => {
      const all = args.map(asList);
      return all.every((each) => each !== null) ? all.flat(1) : null;
    },
  },
  'insert before': onList(3, listOfFirst, (list, [position, item]) => {
    const at = placeOf(position, list.length);
    return at === null ? null : [...list.slice(0, at), item as Value, ...list.slice(at)];
  }),
  remove: onList(2, listOfFirst, (list, [position]) => {
    const at = placeOf(position, list.length);
    return at === null ? null : list.filter((_, index) => index !== at);
  }),
  reverse: onList(1, listOfFirst, (list) => [...list].reverse()),
  'index of': onList(
    2,
    () => ({ is: 'list', item: number }),
    (list, [item]) =>
      list.flatMap((each, index) => (equal(each, item as Value) === true ? [new Exact(index + 1)] : [])),
  ),
  union: {
    least: 1,
    most: 99,
    takes: [],
    type: listOfFirst,
    apply: (args) => {
      const all = args.map(asList);
      return all.every((each) => each !== null) ? unique(all.flat(1)) : null;
    },
  },
  'distinct values': onList(1, listOfFirst, unique),
  flatten: onList(
    1,
    ([type]) => {
      let item = itemOf(type);
      while (item.is === 'list') item = item.item;
      return { is: 'list', item };
    },
    flat,
  ),
  sublist: onList(
    3,
    listOfFirst,
    (list, [start, length]) => {
      const from = placeOf(start, list.length);
      const wanted = length === undefined ? list.length : whole(length);
      return from === null || wanted === null || wanted < 0 ? null : list.slice(from, from + wanted);
    },
    2,
  ),
};
