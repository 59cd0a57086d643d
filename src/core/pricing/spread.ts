/** An amount in parts that sum to it exactly, to the minor unit of the currency. */
import { fixed, textOf, unitsAt, type ExactText, type Fixed } from '../exact';

const away = (value: bigint): bigint => (value < 0n ? -value : value);

/**
 * Spreads an amount, which is whole in minor units, over weights in their proportion, by largest remainder: each part is its share
 * rounded towards zero, and what is left goes, a minor unit each, to those that lost most by it; among equals to the first, by name
 * where they have names. Nothing goes where the weight is zero. With no weight at all every part is zero, which is the caller's to notice.
 */
export function spread(amount: ExactText, weights: readonly ExactText[], decimals: number, names?: readonly string[]): ExactText[] {
  return spreadUnits(unitsAt(fixed(amount), decimals), weights.map(fixed), names).map((part) => textOf({ units: part, scale: decimals }));
}

/** As spread, in minor units. */
export function spreadUnits(units: bigint, weights: readonly Fixed[], names?: readonly string[]): bigint[] {
  const scale = weights.reduce((most, each) => Math.max(most, each.scale), 0);
  const all = weights.map((each) => unitsAt(each, scale));
  let sum = 0n;
  for (const weight of all) sum += weight;
  if (sum === 0n) return all.map(() => 0n);
  const parts: bigint[] = [];
  const lost: bigint[] = [];
  let left = units;
  for (const weight of all) {
    const product = units * weight;
    const part = product / sum;
    parts.push(part);
    lost.push(away(product - part * sum));
    left -= part;
  }
  // Where the nearest numbers differ, so do the exact remainders, in the same direction.
  const roughly = Float64Array.from(lost, Number);
  const exactly = (a: number, b: number): number => ((lost[a] as bigint) > (lost[b] as bigint) ? -1 : (lost[a] as bigint) < (lost[b] as bigint) ? 1 : 0);
  const one = left < 0n ? -1n : 1n;
  for (const at of mostLost(Number(away(left)), all.map((weight) => weight !== 0n), roughly, exactly, names)) parts[at] = (parts[at] as bigint) + one;
  return parts;
}

/** As spreadUnits, for whole numbers whose products are exact as numbers, which takes a fraction of the time; undefined where one may not be. */
export function spreadNumbers(units: number, weights: Float64Array, names: readonly string[]): Float64Array | undefined {
  let [sum, most] = [0, 0];
  for (const weight of weights) {
    sum += weight;
    most = Math.max(most, Math.abs(weight));
  }
  if (!(Math.abs(units) * most <= Number.MAX_SAFE_INTEGER && sum >= 0 && sum <= Number.MAX_SAFE_INTEGER && weights.every((weight) => weight >= 0))) return undefined;
  const parts = new Float64Array(weights.length);
  if (sum === 0) return parts;
  const lost = new Float64Array(weights.length);
  const all = Math.abs(units);
  let left = all;
  for (let at = 0; at < weights.length; at++) {
    const product = all * (weights[at] as number);
    let part = Math.floor(product / sum);
    let rest = product - part * sum;
    // The quotient may have been rounded up to the next whole number.
    if (rest < 0) {
      part -= 1;
      rest += sum;
    }
    parts[at] = part;
    lost[at] = rest;
    left -= part;
  }
  for (const at of mostLost(left, Array.from(weights, (weight) => weight !== 0), lost, () => 0, names)) parts[at] = (parts[at] as number) + 1;
  if (units < 0) for (let at = 0; at < parts.length; at++) parts[at] = -(parts[at] as number);
  return parts;
}

/** Places of those that lost most, as many as are wanted, from the first again where there are not so many. */
function mostLost(many: number, may: readonly boolean[], lost: Float64Array, exactly: (a: number, b: number) => number, names: readonly string[] | undefined): number[] {
  if (many === 0) return [];
  const order = [...may.keys()].filter((at) => may[at]).sort((a, b) => (lost[b] as number) - (lost[a] as number) || exactly(a, b) || (names ? ((names[a] as string) < (names[b] as string) ? -1 : 1) : a - b));
  return Array.from({ length: many }, (_, given) => order[given % order.length] as number);
}
