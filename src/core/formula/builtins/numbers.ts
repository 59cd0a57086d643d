import { Decimal } from 'decimal.js';
import { Exact } from '../../exact';
import type { Value } from '../value';
import { number, sameAsFirst, yesno, type Builtin } from './builtin';

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

/** A function of pure numbers; null where it has no finite value. */
const pure = (apply: (value: Exact) => Decimal): Builtin => ({
  least: 1,
  most: 1,
  takes: ['number'],
  type: () => number,
  apply: ([value]) => {
    const result = value instanceof Exact ? apply(value) : null;
    return result?.isFinite() ? result : null;
  },
});

const parity = (rest: number): Builtin => ({
  least: 1,
  most: 1,
  takes: ['number'],
  type: () => yesno,
  apply: ([value]) => (value instanceof Exact && value.isInteger() ? value.abs().mod(2).eq(rest) : null),
});

/** Functions on numbers, by name. */
export const numbers: Readonly<Record<string, Builtin>> = {
  abs: { ...onNumber((value) => value.abs()), most: 1 },
  ceiling: rounded(Decimal.ROUND_CEIL),
  floor: rounded(Decimal.ROUND_FLOOR),
  'round up': rounded(Decimal.ROUND_UP),
  'round down': rounded(Decimal.ROUND_DOWN),
  'round half up': rounded(Decimal.ROUND_HALF_UP),
  'round half down': rounded(Decimal.ROUND_HALF_DOWN),
  decimal: { ...rounded(Decimal.ROUND_HALF_EVEN), least: 2 },
  /**
   * Takes the sign of the divisor, as the standard has it: dividend - divisor * floor(dividend / divisor).
   */
  modulo: {
    least: 2,
    most: 2,
    takes: ['number', 'number'],
    type: sameAsFirst,
    apply: ([a, b]) =>
      a instanceof Exact && b instanceof Exact && !b.isZero() ? a.minus(b.times(a.div(b).floor())) : null,
  },
  sqrt: pure((value) => value.sqrt()),
  log: pure((value) => value.ln()),
  exp: pure((value) => value.exp()),
  odd: parity(1),
  even: parity(0),
};
