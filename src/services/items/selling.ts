/** Whether an item may be put on a quote: to its customer, by whoever asks, in that quantity. */
import { exact } from '../../core/exact';
import { isInSteps, refusedIn, successorOf, type Refused, type Sale } from '../../core/items';
import { isWhole } from '../../core/quotes';
import type { ItemRow, RevisionRow } from '../../data';
import { own } from '../../i18n';
import type { Actor } from '../access/actor';
import type { Failure } from '../kernel/failure';

/** By whom, and to whom, a revision sells. */
export const saleOf = (actor: Actor, { customer }: Pick<RevisionRow, 'customer'>): Sale => ({
  class: customer.class,
  region: customer.region,
  role: actor.role,
});

/** What whoever tries is told; the item that is sold in its place is named where there is one. */
export function refusalOf(
  items: ReadonlyMap<string, ItemRow>,
  { sku }: Pick<ItemRow, 'sku'>,
  refused: Refused,
  { language }: Pick<Actor, 'language'>,
): Failure {
  switch (refused.is) {
    case 'inactive': {
      const next = successorOf(items, sku);
      return next === null
        ? { code: 'line.inactive', params: { sku }, field: 'sku' }
        : { code: 'line.replaced', params: { sku, next }, field: 'sku' };
    }
    case 'inside':
      return { code: 'line.notSoldAlone', params: { sku }, field: 'sku' };
    case 'barred':
      return { code: 'line.barred', params: { sku, reason: own(refused.reason, language) }, field: 'sku' };
  }
}

/** What stands in the way of items that come along inside a build: they need not be sold alone. */
export function refusedInside(
  items: ReadonlyMap<string, ItemRow>,
  inside: readonly string[],
  sale: Sale,
  actor: Pick<Actor, 'language'>,
): Failure[] {
  return [...new Set(inside)].flatMap((sku) => {
    const item = items.get(sku);
    const refused = item && refusedIn({ ...item, sold: true }, sale);
    return refused ? [refusalOf(items, item, refused, actor)] : [];
  });
}

/** A quantity that an item is not sold in: with decimals of what is counted, or between its steps. */
export function wrongQuantity(
  { sku, unit, step }: Pick<ItemRow, 'sku' | 'unit'> & { step?: string | null },
  quantity: number,
): Failure | undefined {
  if (!Number.isInteger(quantity) && isWhole(unit))
    return { code: 'quantity.byPiece', params: { sku }, field: 'quantity' };
  return isInSteps({ step: step ?? null }, quantity)
    ? undefined
    : { code: 'quantity.steps', params: { sku, step: exact(step ?? '1').toString() }, field: 'quantity' };
}
