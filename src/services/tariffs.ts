import type { Transaction } from 'sequelize';
import { Exact } from '../core/exact';
import type { PriceEntry, Recurrence, Tariff } from '../core/pricing';
import { connected } from '../data';
import { may, type Actor } from './actor';

/** What items are needed for besides prices. */
export type ItemFacts = Record<string, { leadDays: number; mass?: string }>;

/** Prices of one list; costs and hourly rates only for those who may see them. */
export async function tariffFor(actor: Actor, list: string, transaction?: Transaction): Promise<Tariff> {
  const full = await fullTariff(list, transaction);
  if (may(actor, 'costs')) return full;
  const { costs: _costs, rates: _rates, ...open } = full;
  return open;
}

/** With costs; for computation on the server only. */
export async function fullTariff(list: string, transaction: Transaction | null = null): Promise<Tariff> {
  const { priceLists, priceEntries, items, workCentres } = connected().records;
  const [head, entries, all, centres] = [
    await priceLists.findByPk(list, { transaction }),
    await priceEntries.findAll({ where: { priceList: list }, transaction, raw: true }),
    await items.findAll({ attributes: ['sku', 'cost'], transaction, raw: true }),
    await workCentres.findAll({ transaction, raw: true }),
  ];
  if (!head) throw new Error(`no price list ${list}`);
  const inCurrency = (cost: string): string => new Exact(cost).times(head.costRate).toString();
  return {
    list,
    currency: head.currency,
    decimals: head.decimals,
    prices: Object.fromEntries(entries.flatMap(({ sku, entry }) => (entry.method === 'unit' ? [[sku, entry.price]] : []))),
    costs: Object.fromEntries(all.map((item) => [item.sku, inCurrency(item.cost)])),
    rates: Object.fromEntries(centres.map((centre) => [centre.code, inCurrency(centre.rate)])),
  };
}

/** How some items are priced in a list, and what of them recurs. */
export async function entriesOf(list: string, skus: readonly string[], transaction: Transaction | null = null): Promise<Map<string, { entry: PriceEntry; every?: Recurrence }>> {
  const rows = await connected().records.priceEntries.findAll({ where: { priceList: list, sku: [...skus] }, transaction, raw: true });
  return new Map(rows.map(({ sku, entry, baseMonths, leastMonths }) => [sku, { entry, ...(baseMonths === null ? {} : { every: { baseMonths, ...(leastMonths === null ? {} : { leastMonths }) } }) }]));
}

export async function itemFacts(transaction: Transaction | null = null): Promise<ItemFacts> {
  const rows = await connected().records.items.findAll({ attributes: ['sku', 'leadDays', 'mass'], transaction, raw: true });
  return Object.fromEntries(rows.map(({ sku, leadDays, mass }) => [sku, { leadDays, ...(mass === null ? {} : { mass: new Exact(mass).toString() }) }]));
}
