/** The whole-quote discount: what it comes to, and how it is spread over the lines that may be discounted. */
import {
  compare,
  exact,
  fixed,
  minus,
  nothing,
  ratio,
  rounded,
  Sum,
  textOf,
  times,
  unitsAt,
  type Fixed,
} from '../../exact';
import type { Typed } from '../line/price-figures';
import type { LinePrice } from '../types';
import type { QuoteLine, QuoteTerms, Whole } from './quote-types';
import { spreadNumbers, spreadUnits } from './spread';

/** A line before the whole-quote discount. */
export interface Alone {
  line: QuoteLine;
  alone: { price: LinePrice };
}

/** Lines before the whole-quote discount, with their sums; one may take the place of another. */
export class BeforeWhole {
  private readonly totals = new Sum();
  private readonly bases = new Sum();
  private readonly costs = new Sum();
  private uncosted = 0;
  /** What may be discounted of each, in minor units, as a number: NaN where none holds it. */
  private readonly numbers: Float64Array;
  private readonly names: readonly string[];

  constructor(
    private readonly all: readonly Alone[],
    private readonly decimals: number,
  ) {
    this.numbers = new Float64Array(all.length);
    this.names = all.map(({ line }) => line.id);
    for (let at = 0; at < all.length; at++) this.add(at, all[at] as Alone);
  }

  /** Of the same name. */
  replace(at: number, old: Alone, fresh: Alone): void {
    this.add(at, old, -1);
    this.add(at, fresh);
  }

  private add(at: number, { line, alone }: Alone, times: 1 | -1 = 1): void {
    const { net: text, cost } = alone.price;
    const net = fixed(text);
    const open = isOpen(line);
    this.numbers[at] = open ? numberOf(net, this.decimals) : 0;
    if (!line.counts) return;
    this.totals.add(net, times);
    if (cost === undefined) this.uncosted += times;
    else this.costs.add(fixed(cost), times);
    if (open) this.bases.add(net, times);
  }

  get total(): Fixed {
    return this.totals.value;
  }
  /** Of what may be discounted. */
  get base(): Fixed {
    return this.bases.value;
  }
  get cost(): Fixed | undefined {
    return this.uncosted === 0 ? this.costs.value : undefined;
  }

  /**
   * An amount in minor units, spread over what may be discounted. Among lines that lost the same by rounding
   * the id decides, so that moving lines moves no cent.
   */
  spread(units: bigint): ArrayLike<number | bigint> {
    return (
      spreadNumbers(Number(units), this.numbers, this.names) ??
      spreadUnits(
        units,
        this.all.map(({ line, alone }) => (isOpen(line) ? fixed(alone.price.net) : nothing)),
        this.names,
      )
    );
  }
}

const isOpen = ({ counts, locked, discountable }: QuoteLine): boolean => counts && !locked && discountable;

/** A whole number of minor units as a number; NaN where it is none, or too large. */
function numberOf({ units, scale }: Fixed, decimals: number): number {
  const all = Number(units) * 10 ** (decimals - scale);
  return scale <= decimals && Number.isSafeInteger(all) ? all : NaN;
}

/** `shares` are in minor units, by place among the lines; without them nothing is taken off. */
export function spreadWhole(
  before: BeforeWhole,
  { whole: typed, decimals }: QuoteTerms,
): { whole: Whole; shares?: ArrayLike<number | bigint> } {
  const { total, base, cost } = before;
  const answer = (amount: Fixed, rate?: string): Whole => {
    const net = minus(total, amount);
    return {
      is: 'spread',
      base: textOf(base),
      rate: rate ?? (base.units === 0n ? '0' : exact(textOf(amount)).div(textOf(base)).toString()),
      amount: textOf(amount),
      net: textOf(net),
      ...(cost === undefined || net.units === 0n ? {} : { margin: ratio(minus(net, cost), net) }),
    };
  };
  if (!typed) return { whole: answer(nothing) };
  const wanted = amountOf(typed, total, base, cost);
  if (typeof wanted === 'string') return { whole: { is: 'impossible', why: wanted } };
  const amount = rounded(wanted, decimals);
  // A share of what may not be discounted is promised to nobody.
  const inVain =
    typed.by === 'rate' && fixed(typed.value).units !== 0n && base.units === 0n && total.units !== 0n;
  if (inVain || compare(amount, base) > 0 || (base.units === 0n && amount.units !== 0n))
    return { whole: { is: 'impossible', why: 'base' } };
  const shares = before.spread(unitsAt(amount, decimals));
  return { whole: answer(amount, typed.by === 'rate' ? typed.value : undefined), shares };
}

function amountOf(
  { by, value }: Typed,
  total: Fixed,
  base: Fixed,
  cost: Fixed | undefined,
): Fixed | 'margin' | 'cost' {
  switch (by) {
    case 'rate':
      return times(base, fixed(value));
    case 'amount':
      return fixed(value);
    case 'net':
      return minus(total, fixed(value));
    case 'margin':
      if (cost === undefined || cost.units === 0n) return 'cost';
      return exact(value).gte(1)
        ? 'margin'
        : fixed(
            exact(textOf(total))
              .minus(exact(textOf(cost)).div(exact(1).minus(value)))
              .toString(),
          );
  }
}
