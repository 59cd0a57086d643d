/** The values of a number, a date or the length of a text as codes 0, 1, 2, ... */
import { type Exact, exact, readExact } from '../exact';
import { Day, type Value } from '../formula';
import { lettersOf } from './letters';

/** Which codes a value has in a part number. */
export interface Grid {
  /** What the codes stand for. */
  of: 'number' | 'day' | 'length';
  /** A number, days since the first of January 1970, or characters. */
  least: Exact;
  step: Exact;
  /** How many codes there are. */
  count: number;
  /** Code 0 is no value at all; the values begin at 1. */
  optional: boolean;
}

/**
 * Values that a row may have at most: their codes are whole numbers of a machine, and two of them are added.
 */
export const mostValues = 1_000_000_000;

/** Null where the step is not above zero or the most below the least. */
export function gridOf(
  of: Grid['of'],
  least: Exact,
  most: Exact,
  step: Exact,
  optional = false,
): Grid | null {
  if (step.lte(0) || most.lt(least)) return null;
  return {
    of,
    least,
    step,
    count: most.minus(least).div(step).floor().toNumber() + 1 + Number(optional),
    optional,
  };
}

/**
 * Position of a value as it travels; null where it is out of range or between two steps. Of a text the
 * position of its length.
 */
export function codeOf(grid: Grid, written: string | null): number | null {
  if (written === null) return grid.optional ? 0 : null;
  const value = measure(grid, written);
  const code = value?.minus(grid.least).div(grid.step).plus(Number(grid.optional));
  return code?.isInteger() && code.gte(Number(grid.optional)) && code.lt(grid.count) ? code.toNumber() : null;
}

function measure({ of }: Grid, written: string): Exact | null {
  if (of === 'number') return readExact(written);
  if (of === 'length') return exact(lettersOf(written));
  const day = Day.read(written);
  return day && exact(day.number);
}

const measureAt = ({ least, step, optional }: Grid, code: number): Exact | null =>
  optional && code === 0 ? null : least.plus(step.times(code - Number(optional)));

/** What formulas see of a code: a number (of a text its length), a day, or null. */
export function valueAt(grid: Grid, code: number): Value {
  const value = measureAt(grid, code);
  return value && grid.of === 'day' ? Day.at(value.toNumber()) : value;
}

/** A code as it travels; of a text dots for its characters. */
export function plainAt(grid: Grid, code: number): string | null {
  const value = valueAt(grid, code);
  if (value === null) return null;
  return grid.of === 'length' ? '·'.repeat(Number(value)) : String(value);
}
