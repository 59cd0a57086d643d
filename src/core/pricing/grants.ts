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
  const offs = grants.map((grant) => offOf(grant, unit));
  let best = -1;
  for (let at = 0; at < grants.length; at++) {
    const grant = grants[at] as Grant;
    const off = offs[at] as Fixed;
    const bestOff = offs[best];
    const fixedYet = grants[best]?.fixed === true;
    if (!holds(grant, day) || (!grant.fixed && (fixedYet || off.units <= 0n))) continue;
    if (bestOff === undefined || (grant.fixed && !fixedYet) || compare(off, bestOff) > 0) best = at;
  }
  const won = grants[best];
  return {
    won: won ? { grant: won, off: textOf(offs[best] as Fixed) } : null,
    lost: grants.map((grant, at) => ({ grant, why: whyLost(grant, offs[at] as Fixed, won, day), off: textOf(offs[at] as Fixed) })).filter((_, at) => at !== best),
  };
}

const holds = ({ from, to }: Grant, day: string): boolean => (from === undefined || from <= day) && (to === undefined || day <= to);

function whyLost(grant: Grant, off: Fixed, won: Grant | undefined, day: string): GrantChoice['lost'][number]['why'] {
  if (grant.from !== undefined && day < grant.from) return 'notYet';
  if (grant.to !== undefined && grant.to < day) return 'over';
  if (won?.fixed && !grant.fixed) return 'fixed';
  return off.units <= 0n ? 'dearer' : 'worse';
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
