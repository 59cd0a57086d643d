import { exact, Exact, zero, type ExactText } from '../../exact';
import type { Counting } from '../../model';
import type { Making } from '../../production';
import { termKey } from '../list/part-term';
import type { PricedPart, Tariff } from '../types';

/** What a build costs: for each piece, once a line, and for each so many pieces of it, begun ones counted. */
export interface CountedCost {
  unit: ExactText;
  once: ExactText;
  /** By how many pieces it is for. */
  every?: Readonly<Record<string, ExactText>>;
}

/** What a build costs. */
export interface BuildCost extends CountedCost {
  /** Of what recurs, for its base period, by the key of its term. */
  recurring?: Readonly<Record<string, CountedCost>>;
}

/**
 * Material and time of one build at cost, and the software and services sold with it; undefined where the
 * tariff has no costs or one is missing.
 */
export function costOf(
  making: Making,
  parts: readonly PricedPart[],
  { costs, rates, asSold = [] }: Tariff,
): BuildCost | undefined {
  if (!costs || !rates) return undefined;
  const sums = new CountedSums();
  let missing = false as boolean;
  const add = (rate: ExactText | undefined, pieces: ExactText, counts?: Counting, key = ''): void => {
    missing ||= rate === undefined;
    sums.add(key, counts, new Exact(rate ?? 0).times(pieces));
  };
  for (const { item, quantity, counts } of making.materials) add(costs[item], quantity, counts);
  for (const { centre, hours } of making.operations) add(rates[centre], hours);
  const sold = new Set(asSold);
  for (const { item, quantity = '1', counts, recurs } of parts)
    if (item !== undefined && sold.has(item)) add(costs[item], quantity, counts, recurs && termKey(recurs));
  return missing ? undefined : sums.told();
}

/** What a build costs that does not come with each piece, in a line of so many. */
export const apartIn = ({ once, every = {} }: CountedCost, pieces: number): ExactText =>
  Object.entries(every)
    .reduce((sum, [each, cost]) => sum.plus(exact(cost).times(Math.ceil(pieces / Number(each)))), exact(once))
    .toString();

/** Sums by term, and in each by how it is counted. */
class CountedSums {
  private readonly sums = new Map<string, { unit: Exact; once: Exact; every: Map<number, Exact> }>();

  constructor() {
    this.of('');
  }

  private of(key: string) {
    const found = this.sums.get(key) ?? { unit: zero, once: zero, every: new Map<number, Exact>() };
    this.sums.set(key, found);
    return found;
  }

  add(key: string, counts: Counting | undefined, cost: Exact): void {
    const sum = this.of(key);
    if (counts === undefined) sum.unit = sum.unit.plus(cost);
    else if (typeof counts === 'string') sum.once = sum.once.plus(cost);
    else sum.every.set(counts.every, (sum.every.get(counts.every) ?? zero).plus(cost));
  }

  told(): BuildCost {
    const recurring = [...this.sums.keys()].filter((key) => key !== '');
    return {
      ...this.written(''),
      ...(recurring.length > 0
        ? { recurring: Object.fromEntries(recurring.map((key) => [key, this.written(key)])) }
        : {}),
    };
  }

  private written(key: string): CountedCost {
    const { unit, once, every } = this.of(key);
    return {
      unit: unit.toString(),
      once: once.toString(),
      ...(every.size > 0
        ? { every: Object.fromEntries([...every].map(([each, cost]) => [String(each), cost.toString()])) }
        : {}),
    };
  }
}
