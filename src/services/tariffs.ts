import { Op } from 'sequelize';
import { Exact } from '../core/exact';
import { tariffFrom, type ListedItem, type Tariff } from '../core/pricing';
import { connected, type PriceEntryRow } from '../data';
import { may, type Actor } from './actor';

/** What items are needed for besides prices. */
export type ItemFacts = Record<string, { leadDays: number; mass?: string }>;

/** Prices of one list on a day; costs and hourly rates only for those who may see them. */
export async function tariffFor(actor: Actor, list: string, day: string): Promise<Tariff> {
  const full = await fullTariff(list, day);
  if (may(actor, 'costs')) return full;
  const { costs: _costs, rates: _rates, ...open } = full;
  return open;
}

/** With costs; for computation on the server only. */
export async function fullTariff(list: string, day: string): Promise<Tariff> {
  const { priceLists, items, models, workCentres } = connected().records;
  const [head, entries, all, heads, centres] = [
    await priceLists.findByPk(list),
    await entriesOn(list, day, {}),
    await items.findAll({ attributes: ['sku', 'family', 'kind', 'cost'], raw: true }),
    await models.findAll({ raw: true }),
    await workCentres.findAll({ raw: true }),
  ];
  if (!head) throw new Error(`no price list ${list}`);
  const inCurrency = (cost: string): string => new Exact(cost).times(head.costRate).toString();
  const rates = Object.fromEntries(centres.map((centre) => [centre.code, inCurrency(centre.rate)]));
  const modelOf = new Map(heads.map(({ id, sku }) => [sku, id]));
  const listed = entries.map((row): ListedItem => ({ ...listedBy(row), ...(row.inside === '' ? {} : { inside: modelOf.get(row.inside) ?? row.inside }) }));
  return tariffFrom({ list, currency: head.currency, decimals: head.decimals, rates }, listed, all.map(({ sku, family, kind, cost }) => ({ sku, family, kind, cost: inCurrency(cost) })));
}

function listedBy({ sku, entry, baseMonths, leastMonths }: PriceEntryRow): ListedItem {
  return { sku, entry, ...(baseMonths === null ? {} : { every: { baseMonths, ...(leastMonths === null ? {} : { leastMonths }) } }) };
}

/** The entries of a list that hold on a day: of each item, anywhere and inside each bundle, the newest begun, unless it has ended. */
async function entriesOn(list: string, day: string, of: { sku?: string[]; inside?: string }): Promise<PriceEntryRow[]> {
  const rows = await connected().records.priceEntries.findAll({ where: { priceList: list, validFrom: { [Op.lte]: day }, ...of }, order: [['validFrom', 'ASC']], raw: true });
  const newest = new Map(rows.map((row) => [`${row.sku} ${row.inside}`, row]));
  return [...newest.values()].filter(({ validTo }) => validTo === null || validTo >= day);
}

/** How some items are priced in a list on a day, and what of them recurs. */
export async function entriesOf(list: string, day: string, skus: readonly string[]): Promise<Map<string, ListedItem>> {
  return new Map((await entriesOn(list, day, { sku: [...skus], inside: '' })).map((row) => [row.sku, listedBy(row)]));
}

export async function itemFacts(): Promise<ItemFacts> {
  const rows = await connected().records.items.findAll({ attributes: ['sku', 'leadDays', 'mass'], raw: true });
  return Object.fromEntries(rows.map(({ sku, leadDays, mass }) => [sku, { leadDays, ...(mass === null ? {} : { mass: new Exact(mass).toString() }) }]));
}
