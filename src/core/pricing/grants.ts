/** What a customer is granted: by agreement or promotion, for a while, and by quantity. */
import { compare, exact, fixed, minus, nothing, textOf, times, zero, type Exact, type ExactText, type Fixed } from '../exact';
import type { Texts } from '../model';

/** A share off, or a price of its own for one piece. */
export interface Grant {
  id: string;
  name: Texts;
  /** 0.08 is 8 % off. */
  rate?: ExactText;
  price?: ExactText;
  /** First and last day on which it holds; without one, always so far or from then on. */
  from?: string;
  to?: string;
  /** It counts even where another would be better for the customer. */
  fixed?: boolean;
}

export interface GrantChoice {
  /** What counts, and what it takes off one piece; none where nothing holds or nothing is better than the price. */
  won: { grant: Grant; off: ExactText } | null;
  /** The others, each with why it does not count. */
  lost: { grant: Grant; why: 'notYet' | 'over' | 'worse' | 'fixed' | 'dearer'; off: ExactText }[];
}

/** What a grant takes off a price of one piece; negative where its own price is dearer. */
const offOf = ({ rate = '0', price }: Grant, unit: Fixed): Fixed => (price === undefined ? times(unit, fixed(rate)) : minus(unit, fixed(price)));

/** Of what holds on the day, what is best for the customer; a fixed one before any other. Among equals the first. */
export function chooseGrant(unitPrice: ExactText, grants: readonly Grant[], day: string): GrantChoice {
  const unit = fixed(unitPrice);
  const all = grants.map((grant) => ({ grant, off: offOf(grant, unit) }));
  const holds = ({ grant: { from, to } }: { grant: Grant }) => (from === undefined || from <= day) && (to === undefined || day <= to);
  const held = all.filter(holds);
  const firm = held.filter(({ grant }) => grant.fixed);
  const among = firm.length > 0 ? firm : held.filter(({ off }) => off.units > 0n);
  const won = among.reduce<(typeof among)[number] | null>((best, each) => (best === null || compare(each.off, best.off) > 0 ? each : best), null);
  const why = (each: (typeof all)[number]): GrantChoice['lost'][number]['why'] => {
    const { from, to } = each.grant;
    if (from !== undefined && day < from) return 'notYet';
    if (to !== undefined && to < day) return 'over';
    if (won?.grant.fixed && !each.grant.fixed) return 'fixed';
    return each.off.units <= 0n ? 'dearer' : 'worse';
  };
  return {
    won: won && { grant: won.grant, off: textOf(won.off) },
    lost: all.filter((each) => each !== won).map((each) => ({ grant: each.grant, why: why(each), off: textOf(each.off) })),
  };
}

/** Shares off by quantity: `from` ascending. */
export interface QuantityDiscount {
  /** whole: the level reached holds for every piece; slice: each slice of the quantity has its own level. */
  by: 'whole' | 'slice';
  levels: readonly { from: ExactText; rate: ExactText }[];
}

/** The share that a quantity discount takes off the whole quantity: of slices their mean. */
export function quantityRate({ by, levels }: QuantityDiscount, quantity: ExactText): ExactText {
  const pieces = fixed(quantity);
  const reached = levels.filter(({ from }) => compare(pieces, fixed(from)) >= 0);
  if (by === 'whole' || compare(pieces, nothing) === 0) return reached[reached.length - 1]?.rate ?? '0';
  const all = exact(quantity);
  // The level from 10 on holds for the tenth piece and those after it: nine are below.
  const first = (from: ExactText): Exact => (exact(from).isZero() ? zero : (exact(from).minus(1) as Exact));
  let sum = zero;
  for (const [index, { from, rate }] of reached.entries()) {
    const next = reached[index + 1];
    const held = (next ? first(next.from) : all).minus(first(from));
    sum = sum.plus(held.times(rate)) as Exact;
  }
  return sum.div(all).toString();
}
