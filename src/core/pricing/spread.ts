/** An amount in parts that sum to it exactly, to the minor unit of the currency. */
import { fixed, textOf, unitsAt, type ExactText, type Fixed } from '../exact';

const away = (value: bigint): bigint => (value < 0n ? -value : value);

/**
 * Spreads an amount, which is whole in minor units, over weights in their proportion, by largest remainder: each part is its share
 * rounded towards zero, and what is left goes, a minor unit each, to those that lost most by it; among equals to the first, by name
 * where they have names. Nothing goes where the weight is zero. With no weight at all every part is zero, which is the caller's to notice.
 */
export function spread(amount: ExactText, weights: readonly (ExactText | Fixed)[], decimals: number, names?: readonly string[]): ExactText[] {
  const read = weights.map((weight) => (typeof weight === 'string' ? fixed(weight) : weight));
  const scale = Math.max(0, ...read.map((each) => each.scale));
  const all = read.map((each) => unitsAt(each, scale));
  const sum = all.reduce((total, each) => total + each, 0n);
  if (sum === 0n) return weights.map(() => '0');
  const units = unitsAt(fixed(amount), decimals);
  const parts = all.map((weight) => (units * weight) / sum);
  const lost = all.map((weight) => away((units * weight) % sum));
  const left = units - parts.reduce((total, each) => total + each, 0n);
  if (left !== 0n) {
    const order = [...all.keys()].filter((at) => all[at] !== 0n).sort((a, b) => {
      const [one, other] = [lost[a] as bigint, lost[b] as bigint];
      return one > other ? -1 : one < other ? 1 : names ? ((names[a] as string) < (names[b] as string) ? -1 : 1) : a - b;
    });
    const one = left < 0n ? -1n : 1n;
    for (let given = 0; given < Number(away(left)); given++) {
      const at = order[given % order.length] as number;
      parts[at] = (parts[at] as bigint) + one;
    }
  }
  return parts.map((part) => textOf({ units: part, scale: decimals }));
}
