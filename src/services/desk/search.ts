/**
 * What Ctrl+K finds: customers, quotes, orders and items by any part of their names and numbers, or by what
 * was probably meant.
 */
import { distance } from 'fastest-levenshtein';
import { QueryTypes } from 'sequelize';
import { isShown } from '../../core/items';
import { wordsOf } from '../../core/finding';
import type { Texts } from '../../core/model';
import type { Hit, ItemFound } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { findCustomers } from '../customers/customers';
import { forgiving, wordConditions, type Likeness } from '../kernel/finding';
import { listOrders } from '../orders/orders';
import { listQuotes } from '../quotes/quote-list';
import { reference } from '../settings/reference-data';

const mostEach = 5;

/** What was found for the words, a few of each kind. */
export async function search(actor: Actor, text: string): Promise<Hit[]> {
  if (wordsOf(text).length === 0) return [];
  // What is only like the words is not shown beside what has them.
  const having = await hitsOf(actor, text, 'part');
  return having.length > 0 ? having : hitsOf(actor, text, 'meant');
}

async function hitsOf(actor: Actor, text: string, likeness: Likeness): Promise<Hit[]> {
  const [customers, quotes, orders, items] = [
    await findCustomers(actor, text, likeness),
    await listQuotes(actor, { find: text }, likeness),
    await listOrders(actor, { find: text, page: 0 }, likeness),
    await findItems(actor, text, mostEach, likeness),
  ];
  return [
    ...customers.slice(0, mostEach).map((each): Hit => ({
      kind: 'customer',
      id: each.id,
      label: each.name,
      detail: `${each.number} · ${each.town}`,
    })),
    ...quotes.rows.slice(0, mostEach).map((each): Hit => ({
      kind: 'quote',
      id: each.id,
      label: `${each.number} ${each.title}`.trim(),
      detail: each.customer,
    })),
    ...orders.rows
      .slice(0, mostEach)
      .map((each): Hit => ({ kind: 'order', id: each.id, label: each.number, detail: each.customer })),
    ...items.map(({ sku, name, model }): Hit => ({
      kind: 'item',
      id: sku,
      label: name,
      detail: sku,
      ...(model === undefined ? {} : { model }),
    })),
  ];
}

/** Items that are sold by themselves, those whose number begins so first, then what is configured. */
export async function findItems(
  actor: Pick<Actor, 'role'>,
  text: string,
  most: number,
  only?: Likeness,
): Promise<ItemFound[]> {
  const { items, models } = await reference();
  const rows = await forgiving(
    text,
    (likeness) => {
      const bind: unknown[] = [`${text.trim()}%`];
      const words = wordConditions(text, likeness, (value) => `$${String(bind.push(value))}`, [
        'sku',
        `(name ->> 'en')`,
        `(name ->> 'de')`,
      ]);
      return connected().sequelize.query<{ sku: string; name: Texts }>(
        `select sku, name from items where sold and active and ${words.join(' and ')} order by sku ilike $1 desc, kind = 'model' desc, greatest(word_similarity($1, name ->> 'en'), word_similarity($1, name ->> 'de'), word_similarity($1, sku)) desc, sku limit ${String(3 * most)}`,
        { bind, type: QueryTypes.SELECT },
      );
    },
    only,
  );
  // What looks like a number stands in the order of the fewest keystrokes to it.
  const typed = text.trim().toUpperCase();
  if (/[\d-]/.test(typed))
    rows.sort(
      (a, b) =>
        Number(b.sku.startsWith(typed)) - Number(a.sku.startsWith(typed)) ||
        distance(typed, a.sku) - distance(typed, b.sku),
    );
  const modelOf = new Map(models.map((model) => [model.sku, model.id]));
  const shown = rows.filter(({ sku }) => {
    const item = items.get(sku);
    return item !== undefined && isShown(item, actor.role);
  });
  return shown.slice(0, most).map(({ sku, name }) => ({
    sku,
    name,
    ...(modelOf.has(sku) ? { model: modelOf.get(sku) } : {}),
  }));
}
