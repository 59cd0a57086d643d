import { Exact, zero } from '../exact';
import type { Making } from '../production';
import type { Tariff } from './index';

/** Material and time of one build at cost; undefined where the tariff has no costs or one is missing. */
export function costOf(making: Making, tariff: Tariff): string | undefined {
  const { costs, rates } = tariff;
  if (!costs || !rates) return undefined;
  let total = zero;
  for (const { item, quantity } of making.materials) {
    const cost = costs[item];
    if (cost === undefined) return undefined;
    total = total.plus(new Exact(cost).times(quantity)) as Exact;
  }
  for (const { centre, hours } of making.operations) {
    const rate = rates[centre];
    if (rate === undefined) return undefined;
    total = total.plus(new Exact(rate).times(hours)) as Exact;
  }
  return total.toString();
}
