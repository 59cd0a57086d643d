/** An amount in parts that sum to it exactly, to the minor unit of the currency. */
import { exact, zero, type Exact, type ExactText } from '../exact';

/**
 * Spreads an amount over weights in their proportion, by largest remainder: each part is its share rounded towards zero, and what is
 * left goes, a minor unit each, to those that lost most by it; among equals to the first. Nothing goes where the weight is zero.
 * With no weight at all every part is zero, which is the caller's to notice.
 */
export function spread(amount: ExactText, weights: readonly ExactText[], decimals: number): ExactText[] {
  const unit = exact(10).pow(-decimals);
  const sum = weights.reduce((all, weight) => all.plus(weight) as Exact, zero);
  if (sum.isZero()) return weights.map(() => '0');
  const units = exact(amount).div(unit);
  const shares = weights.map((weight) => units.times(weight).div(sum));
  const parts = shares.map((share) => share.trunc());
  const left = units.minus(parts.reduce((all, part) => all.plus(part) as Exact, zero));
  const order = shares
    .map((share, index) => ({ index, lost: share.minus(parts[index] as Exact).abs() }))
    .filter(({ index }) => !exact(weights[index] as ExactText).isZero())
    .sort((a, b) => b.lost.cmp(a.lost) || a.index - b.index);
  const one = exact(left.isNegative() ? -1 : 1);
  for (let given = 0; given < left.abs().toNumber(); given++) {
    const at = order[given % order.length]?.index as number;
    parts[at] = (parts[at] as Exact).plus(one) as Exact;
  }
  return parts.map((part) => part.times(unit).toString());
}
