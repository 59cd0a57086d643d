/** Tax, by country and class of item. */
import { exact, roundHalfUp, zero, type Exact, type ExactText } from '../../exact';

/** A rate of tax, as a fraction, in a country. */
export interface TaxRate {
  country: string;
  /** Class of item; without one, all that have no rate of their own. */
  class?: string;
  rate: ExactText;
}

/** Tax by rate, and the sum with it. */
export interface Taxed {
  net: ExactText;
  /** By rate, the highest first: what is taxed at it, and the tax, rounded half up once a rate. */
  byRate: { rate: ExactText; net: ExactText; tax: ExactText }[];
  tax: ExactText;
  gross: ExactText;
}

/**
 * The rate for an item's class in a country; undefined where none is known, which is not the same as none
 * due.
 */
export const taxRate = (
  rates: readonly TaxRate[],
  country: string,
  itemClass: string,
): ExactText | undefined =>
  (
    rates.find((each) => each.country === country && each.class === itemClass) ??
    rates.find((each) => each.country === country && each.class === undefined)
  )?.rate;

/** Sums nets by their rate and taxes each sum. */
export function taxed(lines: readonly { net: ExactText; rate: ExactText }[], decimals: number): Taxed {
  const nets = new Map<string, Exact>();
  for (const { net, rate } of lines) {
    const key = exact(rate).toString();
    nets.set(key, (nets.get(key) ?? zero).plus(net));
  }
  const byRate = [...nets]
    .sort(([a], [b]) => exact(b).cmp(a))
    .map(([rate, net]) => ({
      rate,
      net: net.toString(),
      tax: roundHalfUp(net.times(rate), decimals).toString(),
    }));
  const net = [...nets.values()].reduce((all, each) => all.plus(each), zero);
  const tax = byRate.reduce((all, each) => all.plus(each.tax), zero);
  return { net: net.toString(), byRate, tax: tax.toString(), gross: net.plus(tax).toString() };
}
