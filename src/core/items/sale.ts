/** To whom, and by whom, an item is sold today. */
import { exact } from '../exact';
import type { Texts } from '../model';
import { inSteps } from './check';
import type { Bar, Item } from './types';

/** Who asks, and for whom. */
export interface Sale {
  class: string;
  region: string;
  role: string;
}

/** Why something cannot be put on a new line. */
export type Refused =
  { is: 'inactive'; replacedBy: string | null } | { is: 'inside' } | { is: 'barred'; reason: Texts };

type Sold = Pick<Item, 'active' | 'sold' | 'bars' | 'replacedBy'>;

/** The bar that stands in the way of a sale; null where none does. */
export const barIn = (bars: readonly Bar[], sale: Sale): Bar | null =>
  bars.find((bar) =>
    (['class', 'region', 'role'] as const).every((part) => bar[part] === null || bar[part] === sale[part]),
  ) ?? null;

/** Why an item cannot be sold by itself; null where it can. */
export function refusedIn(item: Sold, sale: Sale): Refused | null {
  if (!item.active) return { is: 'inactive', replacedBy: item.replacedBy };
  if (!item.sold) return { is: 'inside' };
  const bar = barIn(item.bars, sale);
  return bar && { is: 'barred', reason: bar.reason };
}

/** Whether whoever has a role is shown it at all: what is barred for all their customers is not. */
export const isShown = (item: Sold, role: string): boolean =>
  item.active &&
  item.sold &&
  !item.bars.some((bar) => bar.role === role && bar.class === null && bar.region === null);

/** The item that is sold in the place of one that is not any more: the first of those after it that is active. */
export function successorOf(
  items: ReadonlyMap<string, Pick<Item, 'active' | 'replacedBy'>>,
  sku: string,
): string | null {
  const seen = new Set([sku]);
  for (let at = items.get(sku)?.replacedBy ?? null; at !== null && !seen.has(at);) {
    const item = items.get(at);
    if (!item) return null;
    if (item.active) return at;
    seen.add(at);
    at = item.replacedBy;
  }
  return null;
}

/** How many are meant where nobody says it. */
export const usualOf = ({ usualQuantity, step }: Pick<Item, 'usualQuantity' | 'step'>): number =>
  exact(usualQuantity ?? step ?? '1').toNumber();

/** Whether so many can be ordered. */
export const isInSteps = ({ step }: Pick<Item, 'step'>, quantity: number): boolean =>
  inSteps(step, String(quantity));
