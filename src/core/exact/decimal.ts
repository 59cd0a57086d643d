/** The decimal itself, and how it is written and rounded. */
import { Decimal } from 'decimal.js';

/** Decimals of 34 digits, rounded half to even, as FEEL has them (decimal128). */
export const Exact = Decimal.clone({
  precision: 34,
  rounding: Decimal.ROUND_HALF_EVEN,
  toExpNeg: -40,
  toExpPos: 40,
});
/** Decimals of 34 digits, rounded half to even, as FEEL has them (decimal128). */
export type Exact = InstanceType<typeof Exact>;

/** A decimal written out, as it travels in documents, messages and the database. */
export type ExactText = string;

/** A decimal of a text or a whole number. */
export const exact = (value: ExactText | number): Exact => new Exact(value);
/** Nothing, as a decimal. */
export const zero = exact(0);

const written = /^-?\d{1,15}(\.\d{1,12})?$/;

/** Reads a plain decimal such as "-12.50"; null for anything else (exponents, blanks, words). */
export function readExact(text: string): Exact | null {
  return written.test(text) ? new Exact(text) : null;
}

/** Rounds half up (away from zero on a tie) to so many decimals, as prices are rounded. */
export function roundHalfUp(value: Exact, decimals: number): Exact {
  return value.toDecimalPlaces(decimals, Decimal.ROUND_HALF_UP);
}
