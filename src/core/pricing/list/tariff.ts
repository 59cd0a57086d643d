import { exact, type ExactText } from '../../exact';
import type { Tariff } from '../types';
import { listed, type PriceEntry } from './methods';
import type { Recurrence } from '../line/recurring';

/** What a price list says of an item. */
export interface ListedItem {
  sku: string;
  entry: PriceEntry;
  every?: Recurrence;
  /** The model of the bundle inside which alone it is priced so, by the piece. */
  inside?: string;
}

/** An item as a tariff needs it. `cost` of one piece in the currency of the list, where it is known. */
export interface TariffItem {
  sku: string;
  family: string;
  kind: string;
  cost?: ExactText;
}

/**
 * Makes a tariff of what a list says. Cost-plus comes out as a price by the piece, so that nobody needs costs
 * to price with it; shares of families become shares of their items.
 */
export function tariffFrom(
  head: Pick<Tariff, 'list' | 'currency' | 'decimals' | 'rates'>,
  list: readonly ListedItem[],
  items: readonly TariffItem[],
): Tariff {
  const costs = new Map(
    items.flatMap(({ sku, cost }): [string, ExactText][] => (cost === undefined ? [] : [[sku, cost]])),
  );
  const families = new Map<string, string[]>();
  for (const { sku, family } of items) {
    const own = families.get(family);
    if (own) own.push(sku);
    else families.set(family, [sku]);
  }
  const prices: Record<string, ExactText> = {};
  const entries: Record<string, PriceEntry> = {};
  const recurs: Record<string, Recurrence> = {};
  const within: Record<string, Record<string, ExactText>> = {};
  for (const { sku, entry, every, inside } of list) {
    if (inside !== undefined) {
      if (entry.method === 'unit') (within[inside] ??= {})[sku] = entry.price;
      continue;
    }
    if (every) recurs[sku] = every;
    if (entry.method === 'unit') prices[sku] = entry.price;
    else if (entry.method === 'costPlus') {
      const cost = costs.get(sku);
      const answer = listed(entry, { quantity: '1', ...(cost === undefined ? {} : { cost }) });
      if (answer.is === 'listed') prices[sku] = exact(answer.amount).toString();
    } else
      entries[sku] =
        entry.method === 'share'
          ? { ...entry, of: entry.of.flatMap((name) => families.get(name) ?? [name]) }
          : entry;
  }
  const asSold = items.flatMap(({ sku, kind }) => (kind === 'software' || kind === 'service' ? [sku] : []));
  return {
    ...head,
    prices,
    asSold,
    ...(Object.keys(entries).length > 0 ? { entries } : {}),
    ...(Object.keys(recurs).length > 0 ? { recurs } : {}),
    ...(Object.keys(within).length > 0 ? { inside: within } : {}),
    ...(costs.size > 0 ? { costs: Object.fromEntries(costs) } : {}),
  };
}
