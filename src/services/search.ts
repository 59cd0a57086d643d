/** What Ctrl+K finds: customers, quotes, orders and items by any part of their names and numbers. */
import type { Texts } from '../core/model';
import type { Actor } from './actor';
import { catalogue } from './catalogue';
import { findCustomers } from './customers';
import { listOrders } from './orders';
import { listQuotes } from './quotes';

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
  const has = (...fields: string[]) => words.every((word) => fields.some((field) => field.toLowerCase().includes(word)));
  const [customers, quotes, orders, { items }] = [await findCustomers(actor, text), await listQuotes(actor), await listOrders(actor), await catalogue(actor)];
  return [
    ...customers.slice(0, mostEach).map((each): Hit => ({ kind: 'customer', id: each.id, label: each.name, detail: `${each.number} · ${each.town}` })),
    ...quotes.filter((each) => has(each.number, each.title, each.customer)).slice(0, mostEach).map((each): Hit => ({ kind: 'quote', id: each.id, label: `${each.number} ${each.title}`.trim(), detail: each.customer })),
    ...orders.filter((each) => has(each.number, each.customer)).slice(0, mostEach).map((each): Hit => ({ kind: 'order', id: each.id, label: each.number, detail: each.customer })),
    ...items.filter((each) => has(each.sku, ...Object.values(each.name))).slice(0, mostEach).map((each): Hit => ({ kind: 'item', id: each.sku, label: each.name, detail: each.sku, ...(each.model ? { model: each.model } : {}) })),
  ];
}
