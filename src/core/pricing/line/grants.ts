/** What a customer is granted: by agreement or promotion, for a while, and by quantity. */
import {
  compare,
  exact,
  fixed,
  minus,
  nothing,
  textOf,
  times,
  zero,
  type Exact,
  type ExactText,
  type Fixed,
} from '../../exact';
import type { Texts } from '../../model';

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

/** The grant that counts, and those that lost. */
export interface GrantChoice {
  /**
   * What counts, and what it takes off one piece; none where nothing holds or nothing is better than the
   * price.
   */
  won: { grant: Grant; off: ExactText } | null;
  /** The others, each with why it does not count. */
  lost: { grant: Grant; why: WhyLost; off: ExactText }[];
}

/** Why a grant does not count. */
export type WhyLost = 'notYet' | 'over' | 'worse' | 'fixed' | 'dearer';

/** What a grant takes off a price of one piece; negative where its own price is dearer. */
export const offOf = ({ rate = '0', price }: Grant, unit: Fixed): Fixed =>
  price === undefined ? times(unit, fixed(rate)) : minus(unit, fixed(price));

/**
 * Of what holds on the day, what is best for the customer; a fixed one before any other. Among equals the
 * first.
 */
export function chooseGrant(unitPrice: ExactText, grants: readonly Grant[], day: string): GrantChoice {
  const unit = fixed(unitPrice);
  const best = bestOf(unit, grants, day);
  const won = grants[best];
  return {
    won: won ? { grant: won, off: textOf(offOf(won, unit)) } : null,
    lost: lostTo(best, unit, grants, day, (grant, why, off) => ({ grant, why, off })),
  };
}

/** The place of what wins; -1 where nothing does. */
export function bestOf(unit: Fixed, grants: readonly Grant[], day: string): number {
  let best = -1;
  let most = nothing;
  for (let at = 0; at < grants.length; at++) {
    const grant = grants[at] as Grant;
    if (!holds(grant, day)) continue;
    const fixedYet = grants[best]?.fixed === true;
    const off = offOf(grant, unit);
    if (!grant.fixed && (fixedYet || off.units <= 0n)) continue;
    if (best >= 0 && !(grant.fixed && !fixedYet) && compare(off, most) <= 0) continue;
    best = at;
    most = off;
  }
  return best;
}

/** The others, told each with why it does not count and what it would take off. */
export function lostTo<T>(
  best: number,
  unit: Fixed,
  grants: readonly Grant[],
  day: string,
  tell: (grant: Grant, why: WhyLost, off: ExactText) => T,
): T[] {
  return grants.flatMap((grant, at) => {
    if (at === best) return [];
    const off = offOf(grant, unit);
    return [tell(grant, whyLost(grant, off, grants[best], day), textOf(off))];
  });
}

const holds = ({ from, to }: Grant, day: string): boolean =>
  (from === undefined || from <= day) && (to === undefined || day <= to);

function whyLost(grant: Grant, off: Fixed, won: Grant | undefined, day: string): WhyLost {
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
  let reached = 0;
  for (const { from } of levels) {
    if (compare(pieces, fixed(from)) < 0) break;
    reached += 1;
  }
  if (by === 'whole' || pieces.units === 0n) return levels[reached - 1]?.rate ?? '0';
  const all = exact(quantity);
  // The level from 10 on holds for the tenth piece and those after it: nine are below.
  const first = (from: ExactText): Exact => (exact(from).isZero() ? zero : exact(from).minus(1));
  let sum = zero;
  for (const [index, { from, rate }] of levels.slice(0, reached).entries()) {
    const next = index + 1 < reached ? levels[index + 1] : undefined;
    const held = (next ? first(next.from) : all).minus(first(from));
    sum = sum.plus(held.times(rate));
  }
  return sum.div(all).toString();
}
