/**
 * For how long what recurs is priced. By itself, so that a page that shows parts of a price need not load how
 * they are worked out.
 */
import { exact, type Exact } from '../../exact';
import type { PricedPart, RecurringPart } from '../types';
import type { Recurrence } from '../line/recurring';

/** For how many months it is sold as long as nobody says otherwise. */
export const usualMonths = ({ baseMonths, leastMonths = 0 }: Recurrence): number =>
  Math.max(baseMonths, leastMonths);

/** Months for which a part that recurs is priced: as its model says, else the usual ones. */
export const monthsOfPart = (recurs: RecurringPart): number => recurs.months ?? usualMonths(recurs);

/** What a part comes to, over its whole term where it recurs. */
export function partOverTerm({ amount, recurs }: PricedPart): Exact {
  return recurs ? exact(amount).times(monthsOfPart(recurs)).div(recurs.baseMonths) : exact(amount);
}

/** The same for parts that recur alike. */
export const termKey = ({ baseMonths, start = '', months }: RecurringPart): string =>
  [String(baseMonths), start, months === undefined ? '' : String(months)].join('_');
