/** The standard's functions that models use. Each answers null where the standard does. */
import { Decimal } from 'decimal.js';
import { Exact } from '../exact';
import type { FeelType } from './types';
import type { Value } from './evaluate';

interface Builtin {
  least: number;
  most: number;
  /** Result type, given the argument types. */
  type(args: FeelType[]): FeelType;
  /** Type each argument must fit. */
  takes: FeelType['is'][];
  apply(args: Value[]): Value;
}

const number: FeelType = { is: 'number', unit: 'any' };
const yesno: FeelType = { is: 'yesno' };
const sameAsFirst = (args: FeelType[]): FeelType => args[0] ?? number;
const itemOfFirst = (args: FeelType[]): FeelType => (args[0]?.is === 'list' ? args[0].item : (args[0] ?? number));

const onNumber = (apply: (value: Exact, places: number) => Value): Builtin => ({
  least: 1,
  most: 2,
  takes: ['number', 'number'],
  type: sameAsFirst,
  apply: ([value, places]) => {
    if (!(value instanceof Exact)) return null;
    if (places !== undefined && !(places instanceof Exact)) return null;
    return apply(value, places ? places.toNumber() : 0);
  },
});

const rounded = (mode: Decimal.Rounding) => onNumber((value, places) => scaled(value, places, mode));

function scaled(value: Exact, places: number, mode: Decimal.Rounding): Exact | null {
  if (!Number.isInteger(places) || Math.abs(places) > 30) return null;
  const factor = new Exact(10).pow(places);
  return new Exact(value.times(factor).toDecimalPlaces(0, mode)).div(factor);
}

const overNumbers = (apply: (numbers: Exact[]) => Value): Builtin => ({
  least: 1,
  most: 99,
  takes: [],
  type: itemOfFirst,
  apply: (args) => {
    const items = args.length === 1 && Array.isArray(args[0]) ? args[0] : args;
    return items.every((item): item is Exact => item instanceof Exact) ? apply(items) : null;
  },
});

export const builtins: Readonly<Record<string, Builtin>> = {
  not: { least: 1, most: 1, takes: ['yesno'], type: () => yesno, apply: ([value]) => (typeof value === 'boolean' ? !value : null) },
  abs: onNumber((value) => value.abs() as Exact),
  ceiling: rounded(Decimal.ROUND_CEIL),
  floor: rounded(Decimal.ROUND_FLOOR),
  'round up': rounded(Decimal.ROUND_UP),
  'round down': rounded(Decimal.ROUND_DOWN),
  'round half up': rounded(Decimal.ROUND_HALF_UP),
  'round half down': rounded(Decimal.ROUND_HALF_DOWN),
  decimal: { ...rounded(Decimal.ROUND_HALF_EVEN), least: 2 },
  min: overNumbers((numbers) => (numbers.length ? (Exact.min(...numbers) as Exact) : null)),
  max: overNumbers((numbers) => (numbers.length ? (Exact.max(...numbers) as Exact) : null)),
  sum: overNumbers((numbers) => (numbers.length ? numbers.reduce((total, value) => total.plus(value) as Exact) : null)),
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
    apply: ([list, item]) => (Array.isArray(list) ? list.some((each) => equal(each, item as Value) === true) : null),
  },
  string: { least: 1, most: 1, takes: [], type: () => ({ is: 'text' }), apply: ([value]) => (value === null || value === undefined ? null : written(value)) },
};

const written = (value: Exclude<Value, null>): string => (value instanceof Exact ? value.toString() : String(value));

/** The standard's equality: null equals only null; different kinds give null. */
export function equal(a: Value, b: Value): boolean | null {
  if (a === null || b === null) return a === b;
  if (a instanceof Exact) return b instanceof Exact ? a.equals(b) : null;
  if (Array.isArray(a)) return Array.isArray(b) ? a.length === b.length && a.every((each, i) => equal(each, b[i] as Value) === true) : null;
  return typeof a === typeof b ? a === b : null;
}
