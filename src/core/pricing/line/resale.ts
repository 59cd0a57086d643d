/** What a dealer sells for: the buying price and a share on it, or a price of the dealer's own. */
import {
  exact,
  fixed,
  minus,
  ofQuantity,
  ofWhole,
  plus,
  ratio,
  rounded,
  textOf,
  times,
  type ExactText,
  type Fixed,
} from '../../exact';
import type { LinePrice } from '../types';

/** What a dealer sells a line for, and earns on it. */
export interface Resale {
  /** For one piece, to the minor unit; absent where the price is for all together. */
  unit?: ExactText;
  total: ExactText;
}

/**
 * `own` is the dealer's price of one piece, where it is not by the share. What recurs inside a build, or
 * comes once besides, is no part of
 * a piece: it is marked up by itself, whatever the piece sells for.
 */
export function resaleOf(
  price: LinePrice,
  quantity: number,
  share: ExactText,
  decimals: number,
  own?: ExactText | null,
): Resale {
  const marked = (amount: ExactText) =>
    rounded(times(fixed(amount), plus(ofWhole(1), fixed(share))), decimals);
  // What stands beside the pieces of a line, as it is bought.
  const beside = [
    ...(price.once ? [price.once.net] : []),
    ...(price.subscriptions ?? []).map(({ net }) => net),
  ];
  const withPieces = (unit: Fixed) =>
    textOf(
      beside.reduce(
        (sum, net) => plus(sum, marked(net)),
        rounded(times(unit, ofQuantity(quantity)), decimals),
      ),
    );
  if (own !== undefined && own !== null) {
    const unit = rounded(fixed(own), decimals);
    if (price.per === 'line') return { unit: textOf(unit), total: textOf(unit) };
    if (!price.recurring || exact(price.unitNet).isZero())
      return { unit: textOf(unit), total: withPieces(unit) };
    return {
      unit: textOf(unit),
      total: textOf(rounded(times(fixed(price.net), fixed(ratio(unit, fixed(price.unitNet)))), decimals)),
    };
  }
  if (price.per === 'line') return { total: textOf(marked(price.net)) };
  const unit = marked(price.unitNet);
  // A share of the whole-quote discount is off the line, not off its pieces.
  return {
    unit: textOf(unit),
    total: price.recurring || price.share !== undefined ? textOf(marked(price.net)) : withPieces(unit),
  };
}

/**
 * Of lines that count: what they sell for, what is earned on them, and that as a share of the buying price.
 */
export function sumResale(lines: readonly { net: ExactText; total: ExactText }[]): {
  total: ExactText;
  earned: ExactText;
  share?: ExactText;
} {
  let [net, total] = [fixed('0'), fixed('0')];
  for (const line of lines) [net, total] = [plus(net, fixed(line.net)), plus(total, fixed(line.total))];
  const earned = minus(total, net);
  return {
    total: textOf(total),
    earned: textOf(earned),
    ...(net.units === 0n ? {} : { share: ratio(earned, net) }),
  };
}
