/** An amount in parts that sum to it exactly, to the minor unit of the currency. */
import { fixed, textOf, unitsAt, type ExactText, type Fixed } from '../../exact';

const away = (value: bigint): bigint => (value < 0n ? -value : value);

/**
 * Spreads an amount, which is whole in minor units, over weights in their proportion, by largest remainder:
 * each part is its share rounded towards zero, and what is left goes, a minor unit each, to those that lost
 * most by it; among equals to the first, by name where they have names. Nothing goes where the weight is
 * zero. With no weight at all every part is zero, which is the caller's to notice.
 */
export function spread(
  amount: ExactText,
  weights: readonly ExactText[],
  decimals: number,
  names?: readonly string[],
): ExactText[] {
  return spreadUnits(unitsAt(fixed(amount), decimals), weights.map(fixed), names).map((part) =>
    textOf({ units: part, scale: decimals }),
  );
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
  const exactly = (a: number, b: number): number =>
    (lost[a] as bigint) > (lost[b] as bigint) ? -1 : (lost[a] as bigint) < (lost[b] as bigint) ? 1 : 0;
  const one = left < 0n ? -1n : 1n;
  for (const at of mostLost(Number(away(left)), (at) => all[at] !== 0n, roughly, exactly, names))
    parts[at] = (parts[at] as bigint) + one;
  return parts;
}

/**
 * What a sum may come to where remainders are to be exact as numbers, with bits to spare for a quotient that
 * is off by a few.
 */
const mostSummed = 2 ** 50;

/**
 * As spreadUnits, for whole numbers that are none below zero, which takes a fraction of the time; undefined
 * where one may not be exact.
 */
export function spreadNumbers(
  units: number,
  weights: Float64Array,
  names: readonly string[],
): Float64Array | undefined {
  let sum = 0;
  for (let at = 0; at < weights.length; at++) {
    const weight = weights[at] as number;
    if (!(weight >= 0)) return undefined;
    sum += weight;
  }
  const all = Math.abs(units);
  if (!(sum <= mostSummed && all <= mostSummed)) return undefined;
  const parts = new Float64Array(weights.length);
  if (sum === 0) return parts;
  const lost = new Float64Array(weights.length);
  let left = all;
  for (let at = 0; at < weights.length; at++) {
    const weight = weights[at] as number;
    const product = all * weight;
    let part = Math.floor(product / sum);
    const taken = part * sum;
    // Both products are near each other, so that their difference is exact once what each lost by rounding is
    // added.
    let rest = product - taken + (lostIn(product, all, weight) - lostIn(taken, part, sum));
    for (; rest < 0; rest += sum) part -= 1;
    for (; rest >= sum; rest -= sum) part += 1;
    parts[at] = part;
    lost[at] = rest;
    left -= part;
  }
  giveToMostLost(left, parts, lost, names);
  if (units < 0) for (let at = 0; at < parts.length; at++) parts[at] = -(parts[at] as number);
  return parts;
}

/** One more for each of so many that lost most, who are fewer than all; among equals by name. */
function giveToMostLost(
  many: number,
  parts: Float64Array,
  lost: Float64Array,
  names: readonly string[],
): void {
  if (many === 0) return;
  const cut = Float64Array.from(lost).sort()[lost.length - many] as number;
  let left = many;
  const atCut: number[] = [];
  for (let at = 0; at < lost.length; at++) {
    const each = lost[at] as number;
    if (each === cut) atCut.push(at);
    if (each <= cut) continue;
    parts[at] = (parts[at] as number) + 1;
    left -= 1;
  }
  atCut.sort((a, b) => ((names[a] as string) < (names[b] as string) ? -1 : 1));
  for (const at of atCut.slice(0, left)) parts[at] = (parts[at] as number) + 1;
}

/**
 * What a product of two numbers lost by rounding, exactly (Dekker 1971): each factor in two halves whose
 * products are exact.
 */
function lostIn(product: number, a: number, b: number): number {
  if (product <= Number.MAX_SAFE_INTEGER) return 0;
  const highA = halved * a - (halved * a - a);
  const highB = halved * b - (halved * b - b);
  const [lowA, lowB] = [a - highA, b - highB];
  return lowA * lowB - (product - highA * highB - lowA * highB - highA * lowB);
}
const halved = 2 ** 27 + 1;

/**
 * Places of those that lost most, as many as are wanted, from the first again where there are not so many;
 * none without a weight.
 */
function mostLost(
  many: number,
  may: (at: number) => boolean,
  lost: Float64Array,
  exactly: (a: number, b: number) => number,
  names: readonly string[] | undefined,
): number[] {
  if (many === 0) return [];
  const order: number[] = [];
  for (let at = 0; at < lost.length; at++) if (may(at)) order.push(at);
  order.sort(
    (a, b) =>
      (lost[b] as number) - (lost[a] as number) ||
      exactly(a, b) ||
      (names ? ((names[a] as string) < (names[b] as string) ? -1 : 1) : a - b),
  );
  return Array.from({ length: many }, (_, given) => order[given % order.length] as number);
}
