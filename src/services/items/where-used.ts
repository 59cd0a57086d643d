/** Where an item is used: models, price lists, grants, other items, quotes and orders. */
import { QueryTypes } from 'sequelize';
import type { ItemUse } from '../../contract';
import type { Texts } from '../../core/model';
import { connected } from '../../data';
import { reference } from '../settings/reference-data';

/** Quotes and orders named at most. */
const mostNamed = 50;

/**
 * All uses, those first that would go on by themselves. Of models the newest version is looked at, or every one: builds
 * of an older version need its items too.
 */
export async function usesOf(sku: string, versions: 'newest' | 'all' = 'newest'): Promise<ItemUse[]> {
  const known = await reference();
  const named = (code: string): Texts => known.items.get(code)?.name ?? { en: code };
  return [
    ...(await modelsWith(sku, versions)),
    ...listsWith(sku, known),
    ...known.grants.flatMap((grant): ItemUse[] =>
      grant.sku === sku ? [{ is: 'grant', name: grant.name, path: '', count: 1 }] : [],
    ),
    ...known.quantityDiscounts.flatMap((discount): ItemUse[] =>
      discount.sku === sku ? [{ is: 'grant', name: discount.name, path: '', count: 1 }] : [],
    ),
    ...[...known.items.values()].flatMap((item): ItemUse[] =>
      item.replacedBy === sku || item.goesWith.includes(sku)
        ? [{ is: 'item', name: named(item.sku), path: `/items/${encodeURIComponent(item.sku)}`, count: 1 }]
        : [],
    ),
    ...(await quotesWith(sku)),
  ];
}

/** Models that are listed by it, and those that have it among their parts or options. */
async function modelsWith(sku: string, versions: 'newest' | 'all'): Promise<ItemUse[]> {
  const rows = await connected().sequelize.query<{ id: string; name: Texts }>(
    `select distinct on (m.id) m.id, v.document -> 'name' as name from models m
     join lateral (
       select document, number from model_versions where model_id = m.id order by number desc limit $3
     ) v on true
     where m.sku = $1 or position($2 in v.document::text) > 0 order by m.id, v.number desc`,
    {
      bind: [sku, JSON.stringify(sku), versions === 'newest' ? 1 : null],
      type: QueryTypes.SELECT,
    },
  );
  return rows.map(({ name }) => ({ is: 'model', name, path: '/models', count: 1 }));
}

/** Price lists with entries of it, or of what is inside it. */
function listsWith(sku: string, { entries, priceLists }: Awaited<ReturnType<typeof reference>>): ItemUse[] {
  return priceLists.flatMap(({ code, name }): ItemUse[] => {
    const count = (entries.get(code) ?? []).filter(
      (entry) => entry.sku === sku || entry.inside === sku,
    ).length;
    return count === 0 ? [] : [{ is: 'list', name, path: '', count }];
  });
}

/** Quotes that have it on a line of their newest revision, and orders that came of them. */
async function quotesWith(sku: string): Promise<ItemUse[]> {
  const rows = await connected().sequelize.query<{
    id: string;
    number: string;
    title: string;
    count: string;
  }>(
    `select q.id, q.number, q.title, count(*) as count from quote_lines l
     join quote_revisions r on r.id = l.revision_id join quotes q on q.id = r.quote_id
     where l.sku = $1 group by q.id, q.number, q.title, q.updated_at order by q.updated_at desc limit ${String(mostNamed)}`,
    { bind: [sku], type: QueryTypes.SELECT },
  );
  return rows.map(({ id, number, title, count }) => ({
    is: 'quote',
    name: { en: `${number} ${title}`.trim() },
    path: `/quotes/${id}`,
    count: Number(count),
  }));
}
