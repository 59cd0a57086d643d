import { fixed, minus, plus, ratio, rounded, Sum, textOf, type Fixed } from '../exact';
import type { LinePrice } from './index';

export interface Totals {
  list: string;
  net: string;
  /** list - net. */
  reduction: string;
  /** Of the net: what is due once, and what recurs over its whole terms. Together they are the net. */
  oneTime: string;
  recurring: string;
  /** Of what recurs, in a month. */
  perMonth: string;
  /** What is due once, and what recurs in its first year. */
  firstYear: string;
  cost?: string;
  /** (net - cost) / net. */
  margin?: string;
}

/** What is summed of a line, read and ready to be added: all at one scale, where it can be. */
export interface Amounts {
  list: Fixed;
  net: Fixed;
  cost: Fixed | undefined;
  perMonth: Fixed | undefined;
  firstYear: Fixed | undefined;
}

const usualScale = 6;
const read = (text: string): Fixed => plus(fixed(text), { units: 0n, scale: usualScale });

export function amountsOf({ list, net, cost, recurring }: LinePrice): Amounts {
  return { list: read(list), net: read(net), cost: cost === undefined ? undefined : read(cost), perMonth: recurring && read(recurring.perMonth), firstYear: recurring && read(recurring.firstYear) };
}

/** Sums lines. The list total is rounded to the minor unit for showing; the net total is a sum of rounded prices and exact. */
export const sumLines = (lines: readonly LinePrice[], decimals: number): Totals => sumAmounts(lines.map(amountsOf), decimals);

export function sumAmounts(lines: readonly Amounts[], decimals: number): Totals {
  const [lists, nets, once, months, years, costs] = [new Sum(), new Sum(), new Sum(), new Sum(), new Sum(), new Sum()];
  let costed = lines.length > 0;
  for (const own of lines) {
    lists.add(own.list);
    nets.add(own.net);
    if (own.cost) costs.add(own.cost);
    else costed = false;
    if (own.perMonth && own.firstYear) {
      months.add(own.perMonth);
      years.add(own.firstYear);
    } else once.add(own.net);
  }
  const [listed, net, oneTime, perMonth, firstYear, cost] = [lists.value, nets.value, once.value, months.value, years.value, costed ? costs.value : undefined];
  const list = rounded(listed, decimals);
  return {
    list: textOf(list), net: textOf(net), reduction: textOf(minus(list, net)),
    oneTime: textOf(oneTime), recurring: textOf(minus(net, oneTime)), perMonth: textOf(perMonth), firstYear: textOf(plus(oneTime, firstYear)),
    ...(cost === undefined ? {} : { cost: textOf(rounded(cost, decimals)), ...(net.units === 0n ? {} : { margin: ratio(minus(net, cost), net) }) }),
  };
}
