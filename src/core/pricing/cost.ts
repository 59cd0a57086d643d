import { Exact, zero } from '../exact';
import type { Making } from '../production';
import type { Tariff } from './index';

/** What a build costs: for each piece, and once a line for what does not grow with its quantity. */
export interface BuildCost {
  unit: string;
  once: string;
}

/** Material and time of one build at cost; undefined where the tariff has no costs or one is missing. */
export function costOf(making: Making, { costs, rates }: Tariff): BuildCost | undefined {
  if (!costs || !rates) return undefined;
  let [unit, once] = [zero, zero];
  for (const { item, quantity, grows } of making.materials) {
    const cost = costs[item];
    if (cost === undefined) return undefined;
    const amount = new Exact(cost).times(quantity);
    if (grows === undefined) unit = unit.plus(amount) as Exact;
    else once = once.plus(amount) as Exact;
  }
  for (const { centre, hours } of making.operations) {
    const rate = rates[centre];
    if (rate === undefined) return undefined;
    unit = unit.plus(new Exact(rate).times(hours)) as Exact;
  }
  return { unit: unit.toString(), once: once.toString() };
}
