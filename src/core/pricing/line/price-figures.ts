/**
 * PriceFigures ways of saying the same: discount as a share, discount as an amount, net price, margin. One is typed,
 * the others follow.
 */
import { exact, roundHalfUp, type Exact, type ExactText } from '../../exact';

/** Which of the four was typed, and its value. */
export interface Typed {
  by: 'rate' | 'amount' | 'net' | 'margin';
  /** 0.05 is 5 %, of a rate or margin; money else. */
  value: ExactText;
}

/** Discount, amount, net and margin of one piece. */
export interface PriceFigures {
  rate: ExactText;
  amount: ExactText;
  /** Rounded half up to the minor unit. */
  net: ExactText;
  /** (net - cost) / net; absent without a cost, or where the net is zero. */
  margin?: ExactText;
}

/** The four, or why what was typed cannot be. */
export type FiguresAnswer =
  { is: 'figures'; figures: PriceFigures } | { is: 'impossible'; why: 'margin' | 'base' | 'cost' };

/**
 * What follows from the typed one, for a price of `base` before it. Kept is what was typed, so that looking
 * at it in another way never changes it. Impossible: a margin of all or more, or without a cost; more off
 * than there is; another net on a price of nothing.
 */
export function priceFiguresOf(
  base: ExactText,
  typed: Typed,
  decimals: number,
  cost?: ExactText,
): FiguresAnswer {
  const from = exact(base);
  const net = netBy(from, typed, cost);
  if (typeof net === 'string') return { is: 'impossible', why: net };
  const rounded = roundHalfUp(net, decimals);
  const amount = from.minus(rounded);
  if (rounded.isNegative() || (from.isZero() && !amount.isZero())) return { is: 'impossible', why: 'base' };
  const rate = typed.by === 'rate' ? typed.value : from.isZero() ? '0' : amount.div(from).toString();
  return {
    is: 'figures',
    figures: { rate, amount: amount.toString(), net: rounded.toString(), ...marginOf(rounded, cost) },
  };
}

function netBy(base: Exact, { by, value }: Typed, cost: ExactText | undefined): Exact | 'margin' | 'cost' {
  const given = exact(value);
  switch (by) {
    case 'rate':
      return base.minus(base.times(given));
    case 'amount':
      return base.minus(given);
    case 'net':
      return given;
    case 'margin':
      // What costs nothing earns all of whatever it sells for: no price has another margin.
      if (cost === undefined || exact(cost).isZero()) return 'cost';
      return given.gte(1) ? 'margin' : exact(cost).div(exact(1).minus(given));
  }
}

/** (net - cost) / net, where both say something. */
export function marginOf(net: Exact, cost: ExactText | undefined): { margin?: ExactText } {
  return cost === undefined || net.isZero() ? {} : { margin: net.minus(cost).div(net).toString() };
}

/** (net - cost) / cost; undefined where the cost is zero. */
export const markUpOf = (net: ExactText, cost: ExactText): ExactText | undefined =>
  exact(cost).isZero() ? undefined : exact(net).minus(cost).div(cost).toString();
