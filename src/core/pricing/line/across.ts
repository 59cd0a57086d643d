/**
 * A line as rows that can be followed with a pencil: how many, at what, which makes how much; together they
 * are its net.
 */
import {
  fixed,
  minus,
  negative,
  ofQuantity,
  rounded,
  textOf,
  times,
  type ExactText,
  type Fixed,
} from '../../exact';
import type { LinePrice } from '../types';
import { monthsIn } from './recurring';
import { sidesOf } from './walk';

/** How many, at what, which makes how much. */
export interface AcrossRow {
  /**
   * pieces: due once, by the piece; all: one price for all of it; once: what is not counted with
   * each piece; term: what recurs, over its term; share: off by the discount on the whole quote.
   */
  is: 'pieces' | 'all' | 'once' | 'term' | 'share';
  /** How many, and at how much each: of pieces, and of what recurs where its price is by the piece. */
  quantity?: number;
  /** At list, and after all that is granted: of one, or of all where the price is for all. */
  unitList?: ExactText;
  unitNet?: ExactText;
  /** Of what recurs: its days, its months, and for how many the price is. */
  term?: { from: string; to: string; months: number; days: number; baseMonths: number };
  amount: ExactText;
}

/** Rows of which the amounts sum to the net of the line, exactly. */
export function across(price: LinePrice, quantity: number): AcrossRow[] {
  return sidesOf(price).flatMap((side): AcrossRow[] => {
    const { recurring, once, share, unitList, unitNet } = side;
    const gross = fixed(side.before ?? side.net);
    // What comes once within what recurs is charged with it, by its term.
    const apart: Fixed = once && !recurring ? fixed(once.net) : fixed('0');
    const forAll = side.per === 'line';
    const amount = textOf(minus(gross, apart));
    const each = { unitList, unitNet, ...(forAll ? {} : { quantity }) };
    const rows: AcrossRow[] = recurring
      ? [
          {
            is: 'term',
            ...(once ? {} : each),
            term: {
              from: recurring.from,
              to: recurring.to,
              months: recurring.months,
              days: recurring.days,
              baseMonths: recurring.baseMonths,
            },
            amount,
          },
        ]
      : [{ is: forAll ? 'all' : 'pieces', ...each, amount }];
    if (apart.units !== 0n) rows.push({ is: 'once', amount: textOf(apart) });
    if (share !== undefined && fixed(share).units !== 0n)
      rows.push({ is: 'share', amount: textOf(negative(fixed(share))) });
    return rows;
  });
}

/** Whether what a row says makes its amount, to the minor unit. */
export function multiplies({ quantity = 1, unitNet, term, amount }: AcrossRow, decimals: number): boolean {
  if (unitNet === undefined) return true;
  const one = times(fixed(unitNet), ofQuantity(quantity));
  if (!term) return textOf(rounded(one, decimals)) === textOf(fixed(amount));
  const months = monthsIn({ start: term.from, months: term.months, days: term.days });
  // Beside each other over a common measure: what is charged, and the price by as many periods.
  const [charged, exactly] = [
    times(fixed(amount), fixed(String(months.per * term.baseMonths))),
    times(one, fixed(String(months.times))),
  ];
  const off = minus(charged, exactly);
  const half = times(fixed(String(months.per * term.baseMonths)), fixed(`0.${'0'.repeat(decimals)}5`));
  return minus(off.units < 0n ? negative(off) : off, half).units <= 0n;
}
