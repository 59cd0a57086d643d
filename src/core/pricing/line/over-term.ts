/** What recurs, over its whole term. */
import { divided, fixed, ofWhole, rounded, textOf, times, type Fixed } from '../../exact';
import type { LinePrice } from '../types';
import { beginningOf, lastDay, monthsIn, type Recurrence, type Term } from './recurring';
import { withMargins } from '../limits/margins';

/**
 * A walked line over a term: its unit figures are for the base period, its sums for the whole term, each to
 * the minor unit.
 */
export const overTerm = (line: LinePrice, every: Recurrence, term: Term, decimals: number): LinePrice =>
  withMargins(chargedOver(line, every, term, decimals));

/** The sums of a line that is measured, each to the minor unit. */
export function toMinor(line: LinePrice, decimals: number): LinePrice {
  const each = (amount: string): string => textOf(rounded(fixed(amount), decimals));
  const made: LinePrice = { ...line, list: each(line.list), net: each(line.net) };
  if (line.cost !== undefined) made.cost = each(line.cost);
  return made;
}

/** As overTerm, without the margin. */
export function chargedOver(line: LinePrice, every: Recurrence, term: Term, decimals: number): LinePrice {
  const months = monthsIn(term);
  const [above, below] = [ofWhole(months.times), ofWhole(months.per * every.baseMonths)];
  const charged = (amount: string): Fixed => divided(times(fixed(amount), above), below, decimals);
  const net = charged(line.net);
  const made: LinePrice = {
    ...line,
    list: textOf(charged(line.list)),
    net: textOf(net),
    recurring: {
      baseMonths: every.baseMonths,
      from: term.start,
      to: lastDay(term),
      months: term.months,
      days: term.days,
      ...spreadOverTime(net, term, decimals),
    },
  };
  if (line.cost !== undefined) made.cost = textOf(charged(line.cost));
  return made;
}

/** What a net over a term comes to by the month and in its first year. */
export function spreadOverTime(
  net: Fixed,
  term: Term,
  decimals: number,
): { perMonth: string; firstYear: string } {
  const all = monthsIn(term);
  const over = (part: { times: number; per: number }): string =>
    all.times === 0
      ? '0'
      : textOf(divided(times(net, ofWhole(part.times * all.per)), ofWhole(part.per * all.times), decimals));
  return { perMonth: over({ times: 1, per: 1 }), firstYear: over(monthsIn(beginningOf(term, 12))) };
}
