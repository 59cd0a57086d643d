/** What a dealer sells for: the buying price and a share on it, or a price of the dealer's own. */
import { exact, fixed, minus, ofWhole, plus, ratio, rounded, textOf, times, type ExactText } from '../exact';
import type { LinePrice } from './index';

export interface Resale {
  /** For one piece, to the minor unit; absent where the price is for all together. */
  unit?: ExactText;
  total: ExactText;
}

/** `own` is the dealer's price of one piece, where it is not by the share. What recurs, or comes once besides, is marked up as a whole. */
export function resaleOf(price: LinePrice, quantity: number, share: ExactText, decimals: number, own?: ExactText | null): Resale {
  const marked = (amount: ExactText) => rounded(times(fixed(amount), plus(ofWhole(1), fixed(share))), decimals);
  const byPiece = price.per !== 'line' && !price.once && !price.recurring && !price.subscriptions && price.share === undefined;
  if (own !== undefined && own !== null) {
    const unit = rounded(fixed(own), decimals);
    if (price.per === 'line') return { unit: textOf(unit), total: textOf(unit) };
    const total = price.recurring && !exact(price.unitNet).isZero() ? rounded(times(fixed(price.net), fixed(ratio(unit, fixed(price.unitNet)))), decimals) : times(unit, ofWhole(quantity));
    return { unit: textOf(unit), total: textOf(total) };
  }
  if (!byPiece) return { ...(price.per === 'line' ? {} : { unit: textOf(marked(price.unitNet)) }), total: textOf(marked(price.net)) };
  const unit = marked(price.unitNet);
  return { unit: textOf(unit), total: textOf(times(unit, ofWhole(quantity))) };
}

/** Of lines that count: what they sell for, what is earned on them, and that as a share of the buying price. */
export function sumResale(lines: readonly { net: ExactText; total: ExactText }[]): { total: ExactText; earned: ExactText; share?: ExactText } {
  let [net, total] = [fixed('0'), fixed('0')];
  for (const line of lines) [net, total] = [plus(net, fixed(line.net)), plus(total, fixed(line.total))];
  const earned = minus(total, net);
  return { total: textOf(total), earned: textOf(earned), ...(net.units === 0n ? {} : { share: ratio(earned, net) }) };
}
