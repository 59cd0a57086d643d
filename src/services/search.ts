/** What Ctrl+K finds: customers, quotes, orders and items by any part of their names and numbers. */
import type { Texts } from '../core/model';
import type { Actor } from './actor';
import { findCustomers } from './customers';
import { listOrders } from './orders';
import { listQuotes } from './quote-list';
import { reference } from './reference-data';

export interface Hit {
  kind: 'customer' | 'quote' | 'order' | 'item';
  id: string;
  label: string | Texts;
  detail: string;
  model?: string;
}

const mostEach = 5;

export async function search(actor: Actor, text: string): Promise<Hit[]> {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const [customers, quotes, orders, known] = [await findCustomers(actor, text), await listQuotes(actor, { find: text }), await listOrders(actor, { find: text, page: 0 }), await reference()];
  const modelOf = new Map(known.models.map((model) => [model.sku, model.id]));
  const items: Hit[] = [];
  for (const { sku, name, sold } of known.items.values()) {
    const texts = [sku, ...Object.values(name)].map((each) => each.toLowerCase());
    if (!sold || !words.every((word) => texts.some((each) => each.includes(word)))) continue;
    const model = modelOf.get(sku);
    if (items.push({ kind: 'item', id: sku, label: name, detail: sku, ...(model === undefined ? {} : { model }) }) === mostEach) break;
  }
  return [
    ...customers.slice(0, mostEach).map((each): Hit => ({ kind: 'customer', id: each.id, label: each.name, detail: `${each.number} · ${each.town}` })),
    ...quotes.rows.slice(0, mostEach).map((each): Hit => ({ kind: 'quote', id: each.id, label: `${each.number} ${each.title}`.trim(), detail: each.customer })),
    ...orders.rows.slice(0, mostEach).map((each): Hit => ({ kind: 'order', id: each.id, label: each.number, detail: each.customer })),
    ...items,
  ];
}
