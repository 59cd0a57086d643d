import { Exact, zero, type ExactText } from '../../exact';
import type { Making } from '../../production';
import { termKey } from '../list/part-term';
import type { PricedPart, Tariff } from '../types';

/** What a build costs: for each piece, and once a line for what does not grow with its quantity. */
export interface BuildCost {
  unit: ExactText;
  once: ExactText;
  /** Of what recurs, for its base period, by the key of its term. */
  recurring?: Readonly<Record<string, { unit: ExactText; once: ExactText }>>;
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
  const sums = new Map<string, { unit: Exact; once: Exact }>([['', { unit: zero, once: zero }]]);
  let missing = false as boolean;
  const add = (
    rate: ExactText | undefined,
    pieces: ExactText,
    grows?: PricedPart['grows'],
    key = '',
  ): void => {
    missing ||= rate === undefined;
    const sum = sums.get(key) ?? { unit: zero, once: zero };
    const field = grows === undefined ? 'unit' : 'once';
    sums.set(key, { ...sum, [field]: sum[field].plus(new Exact(rate ?? 0).times(pieces)) });
  };
  for (const { item, quantity, grows } of making.materials) add(costs[item], quantity, grows);
  for (const { centre, hours } of making.operations) add(rates[centre], hours);
  const sold = new Set(asSold);
  for (const { item, quantity = '1', grows, recurs } of parts)
    if (item !== undefined && sold.has(item)) add(costs[item], quantity, grows, recurs && termKey(recurs));
  if (missing) return undefined;
  const written = ({ unit, once }: { unit: Exact; once: Exact }) => ({
    unit: unit.toString(),
    once: once.toString(),
  });
  const [[, own], ...recurring] = [...sums] as [
    [string, { unit: Exact; once: Exact }],
    ...[string, { unit: Exact; once: Exact }][],
  ];
  return {
    ...written(own),
    ...(recurring.length > 0
      ? { recurring: Object.fromEntries(recurring.map(([key, sum]) => [key, written(sum)])) }
      : {}),
  };
}
