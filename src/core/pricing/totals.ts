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
  /** Of what recurs: over its whole term, in a month, and in its first year. */
  recurring?: { net: Fixed; perMonth: Fixed; firstYear: Fixed };
}

const usualScale = 6;
const read = (text: string): Fixed => plus(fixed(text), { units: 0n, scale: usualScale });

export function amountsOf({ list, net, cost, recurring, subscriptions }: LinePrice): Amounts {
  const amounts: Amounts = { list: read(list), net: read(net), cost: cost === undefined ? undefined : read(cost) };
  if (recurring) return { ...amounts, recurring: { net: amounts.net, perMonth: read(recurring.perMonth), firstYear: read(recurring.firstYear) } };
  return subscriptions ? { ...amounts, recurring: recurringIn(subscriptions) } : amounts;
}

function recurringIn(subscriptions: readonly LinePrice[]): NonNullable<Amounts['recurring']> {
  const [net, perMonth, firstYear] = [new Sum(), new Sum(), new Sum()];
  for (const each of subscriptions) {
    net.add(read(each.net));
    perMonth.add(read(each.recurring?.perMonth ?? '0'));
    firstYear.add(read(each.recurring?.firstYear ?? '0'));
  }
  return { net: net.value, perMonth: perMonth.value, firstYear: firstYear.value };
}

/** Sums lines. The list total is rounded to the minor unit for showing; the net total is a sum of rounded prices and exact. */
export const sumLines = (lines: readonly LinePrice[], decimals: number): Totals => sumAmounts(lines.map(amountsOf), decimals);

export function sumAmounts(lines: readonly Amounts[], decimals: number): Totals {
  const [lists, nets, overTerms, months, years, costs] = [new Sum(), new Sum(), new Sum(), new Sum(), new Sum(), new Sum()];
  let costed = lines.length > 0;
  for (const own of lines) {
    lists.add(own.list);
    nets.add(own.net);
    if (own.cost) costs.add(own.cost);
    else costed = false;
    if (!own.recurring) continue;
    overTerms.add(own.recurring.net);
    months.add(own.recurring.perMonth);
    years.add(own.recurring.firstYear);
  }
  const [listed, net, recurring, perMonth, firstYear, cost] = [lists.value, nets.value, overTerms.value, months.value, years.value, costed ? costs.value : undefined];
  const oneTime = minus(net, recurring);
  const list = rounded(listed, decimals);
  return {
    list: textOf(list), net: textOf(net), reduction: textOf(minus(list, net)),
    oneTime: textOf(oneTime), recurring: textOf(recurring), perMonth: textOf(perMonth), firstYear: textOf(plus(oneTime, firstYear)),
    ...(cost === undefined ? {} : { cost: textOf(rounded(cost, decimals)), ...(net.units === 0n ? {} : { margin: ratio(minus(net, cost), net) }) }),
  };
}
