import { fixed, minus, plus, ratio, rounded, Sum, textOf, type Fixed } from '../../exact';
import type { LinePrice, LineRecurring } from '../types';

/** What lines come to, once and recurring. */
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

/**
 * Sums lines. The list total is rounded to the minor unit for showing; the net total is a sum of rounded
 * prices and exact.
 */
export function sumLines(lines: readonly LinePrice[], decimals: number): Totals {
  const sum = new AmountSum();
  for (const line of lines) sum.add(line);
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

  add(line: LinePrice, times: 1 | -1 = 1): void {
    this.lines += times;
    this.lists.add(fixed(line.list), times);
    const net = fixed(line.net);
    this.nets.add(net, times);
    if (line.cost === undefined) this.uncosted += times;
    else this.costs.add(fixed(line.cost), times);
    if (line.recurring) this.addRecurring(net, line.recurring, times);
    else if (line.subscriptions)
      for (const each of line.subscriptions)
        if (each.recurring) this.addRecurring(fixed(each.net), each.recurring, times);
  }

  private addRecurring(net: Fixed, { perMonth, firstYear }: LineRecurring, times: 1 | -1): void {
    this.overTerms.add(net, times);
    this.months.add(fixed(perMonth), times);
    this.years.add(fixed(firstYear), times);
  }

  totals(decimals: number): Totals {
    const [net, recurring, list] = [
      this.nets.value,
      this.overTerms.value,
      rounded(this.lists.value, decimals),
    ];
    const oneTime = minus(net, recurring);
    const cost = this.lines > 0 && this.uncosted === 0 ? this.costs.value : undefined;
    return {
      list: textOf(list),
      net: textOf(net),
      reduction: textOf(minus(list, net)),
      oneTime: textOf(oneTime),
      recurring: textOf(recurring),
      perMonth: textOf(this.months.value),
      firstYear: textOf(plus(oneTime, this.years.value)),
      ...(cost === undefined
        ? {}
        : {
            cost: textOf(rounded(cost, decimals)),
            ...(net.units === 0n ? {} : { margin: ratio(minus(net, cost), net) }),
          }),
    };
  }
}
