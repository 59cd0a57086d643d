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
export function sumLines(lines: readonly LinePrice[], decimals: number): Totals {
  const sum = new AmountSum();
  for (const line of lines) sum.add(amountsOf(line));
  return sum.totals(decimals);
}

/** Lines summed; one may be taken off and another added. */
export class AmountSum {
  private readonly lists = new Sum();
  private readonly nets = new Sum();
  private readonly overTerms = new Sum();
  private readonly months = new Sum();
  private readonly years = new Sum();
  private readonly costs = new Sum();
  private lines = 0;
  private uncosted = 0;

  add({ list, net, cost, recurring }: Amounts, times: 1 | -1 = 1): void {
    this.lines += times;
    this.lists.add(list, times);
    this.nets.add(net, times);
    if (cost) this.costs.add(cost, times);
    else this.uncosted += times;
    if (!recurring) return;
    this.overTerms.add(recurring.net, times);
    this.months.add(recurring.perMonth, times);
    this.years.add(recurring.firstYear, times);
  }

  totals(decimals: number): Totals {
    const [net, recurring, list] = [this.nets.value, this.overTerms.value, rounded(this.lists.value, decimals)];
    const oneTime = minus(net, recurring);
    const cost = this.lines > 0 && this.uncosted === 0 ? this.costs.value : undefined;
    return {
      list: textOf(list), net: textOf(net), reduction: textOf(minus(list, net)),
      oneTime: textOf(oneTime), recurring: textOf(recurring), perMonth: textOf(this.months.value), firstYear: textOf(plus(oneTime, this.years.value)),
      ...(cost === undefined ? {} : { cost: textOf(rounded(cost, decimals)), ...(net.units === 0n ? {} : { margin: ratio(minus(net, cost), net) }) }),
    };
  }
}
