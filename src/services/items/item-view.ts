/** An item as whoever keeps it sees it. */
import { Op } from 'sequelize';
import type { ItemView, KeptChange } from '../../contract';
import { roles } from '../../contract';
import { propertiesOf } from '../../core/items';
import { connected } from '../../data';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { nameOf, reference } from '../settings/reference-data';
import { entryOn, fullTariff } from '../settings/tariffs';
import { familiesIn, familyViews, itemOf } from './kept';
import { usesOf } from './where-used';

/** Changes told at most. */
const mostChanges = 100;

/** An item with all that belongs to it. */
export async function seeItem(sku: string): Promise<Result<ItemView>> {
  const known = await reference();
  const row = await connected().records.items.findByPk(sku, { raw: true });
  if (!row) return fail('missing', { code: 'item.unknown', params: { sku } });
  const item = itemOf(row);
  return done({
    item,
    version: row.version,
    properties: propertiesOf(familiesIn(known), item.family),
    families: familyViews(known),
    ...(await choicesOf()),
    uses: await usesOf(sku),
    history: await historyOf(['item.added', 'item.changed'], sku),
    prices: await pricesOf(sku),
    files: await fileNames([item.picture, item.dataSheet].flatMap((id) => id ?? [])),
  });
}

/** What bars and taxes can name. */
async function choicesOf(): Promise<Pick<ItemView, 'classes' | 'regions' | 'roles' | 'taxClasses'>> {
  const known = await reference();
  const customers = await connected().records.customers.findAll({
    attributes: ['region'],
    group: ['region'],
    order: [['region', 'ASC']],
    raw: true,
  });
  return {
    classes: ['direct', 'key', 'dealer', 'public'],
    regions: customers.map(({ region }) => region),
    roles: [...roles],
    taxClasses: [...new Set(['standard', ...known.taxRates.flatMap((rate) => rate.class ?? [])])],
  };
}

/** Who changed something when, and from what to what; the newest first. */
export async function historyOf(actions: readonly string[], subject: string): Promise<KeptChange[]> {
  const known = await reference();
  const rows = await connected().records.audit.findAll({
    where: { action: { [Op.in]: [...actions] }, subject },
    order: [['id', 'DESC']],
    limit: mostChanges,
    raw: true,
  });
  return rows.map(({ at, userId, action, details }) => {
    const { from = {}, to = {} } = details as Record<'from' | 'to', Record<string, unknown> | undefined>;
    return {
      at: (at as Date).toISOString(),
      by: nameOf(known, userId),
      action,
      changes: Object.keys(to).map((field) => ({
        field,
        from: JSON.stringify(from[field] ?? null),
        to: JSON.stringify(to[field] ?? null),
      })),
    };
  });
}

/** What one of it lists at in each list today, and costs in its currency. */
async function pricesOf(sku: string): Promise<ItemView['prices']> {
  const { priceLists } = await reference();
  const told: ItemView['prices'] = [];
  for (const { code, name, currency, decimals } of priceLists) {
    const listed = (await entryOn(code, today()))(sku);
    const { costs } = await fullTariff(code, today());
    if (!listed) continue;
    const { entry } = listed;
    told.push({
      list: code,
      name,
      currency,
      decimals,
      method: entry.method,
      price: entry.method === 'unit' ? entry.price : null,
      cost: costs?.[sku] ?? '0',
    });
  }
  return told;
}

async function fileNames(ids: readonly string[]): Promise<Record<string, string>> {
  if (ids.length === 0) return {};
  const rows = await connected().records.files.findAll({
    where: { id: { [Op.in]: [...ids] } },
    attributes: ['id', 'name'],
    raw: true,
  });
  return Object.fromEntries(rows.map(({ id, name }) => [id, name]));
}
