import { Exact } from '../../core/exact';
import { tariffFrom, type ListedItem, type Tariff } from '../../core/pricing';
import type { PriceEntryRow, PriceListRow } from '../../data';
import { may, type Actor } from '../access/actor';
import { reference, type Reference } from './reference-data';
import { Recent } from '../kernel/threads/recent';

/** What items are needed for besides prices. */
export type ItemFacts = Record<string, { leadDays: number; mass?: string }>;

/** Lists on days, under the stamp of what they were made from. */
const made = new Recent<Tariff>(24);
const held = new Recent<ReadonlyMap<string, PriceEntryRow>>(24);

/** A price list by its code. */
export function listOf({ priceLists }: Reference, code: string): PriceListRow {
  const list = priceLists.find((each) => each.code === code);
  if (!list) throw new Error(`no price list ${code}`);
  return list;
}

/** Prices of one list on a day; costs and hourly rates only for those who may see them. */
export async function tariffFor(actor: Actor, list: string, day: string): Promise<Tariff> {
  const full = await fullTariff(list, day);
  if (may(actor, 'costs')) return full;
  const { costs: _costs, rates: _rates, ...open } = full;
  return open;
}

/** With costs; for computation on the server only. */
export async function fullTariff(list: string, day: string): Promise<Tariff> {
  const known = await reference();
  const key = `${known.stamp} ${list} ${day}`;
  const found = made.get(key);
  if (found) return found;
  const head = listOf(known, list);
  const inCurrency = (cost: string): string => new Exact(cost).times(head.costRate).toString();
  const rates = Object.fromEntries(known.workCentres.map((centre) => [centre.code, inCurrency(centre.rate)]));
  const modelOf = new Map(known.models.map(({ id, sku }) => [sku, id]));
  const listed = [...entriesOn(known, list, day).values()].map((row): ListedItem => ({
    ...listedBy(row),
    ...(row.inside === '' ? {} : { inside: modelOf.get(row.inside) ?? row.inside }),
  }));
  const tariff = tariffFrom(
    { list, currency: head.currency, decimals: head.decimals, rates },
    listed,
    [...known.items.values()].map(({ sku, family, kind, cost }) => ({
      sku,
      family,
      kind,
      cost: inCurrency(cost),
    })),
  );
  made.set(key, tariff, 1);
  return tariff;
}

function listedBy({ sku, entry, baseMonths, leastMonths }: PriceEntryRow): ListedItem {
  return {
    sku,
    entry,
    ...(baseMonths === null
      ? {}
      : { every: { baseMonths, ...(leastMonths === null ? {} : { leastMonths }) } }),
  };
}

/**
 * The entries of a list that hold on a day: of each item, anywhere and inside each bundle, the newest begun,
 * unless it has ended.
 */
function entriesOn(
  { stamp, entries }: Reference,
  list: string,
  day: string,
): ReadonlyMap<string, PriceEntryRow> {
  const key = `${stamp} ${list} ${day}`;
  const found = held.get(key);
  if (found) return found;
  const newest = new Map<string, PriceEntryRow>();
  for (const row of entries.get(list) ?? [])
    if (row.validFrom <= day) newest.set(`${row.sku} ${row.inside}`, row);
  for (const [name, { validTo }] of newest) if (validTo !== null && validTo < day) newest.delete(name);
  held.set(key, newest, 1);
  return newest;
}

/** How an item is priced by itself in a list on a day, and what of it recurs. */
export async function entryOn(list: string, day: string): Promise<(sku: string) => ListedItem | undefined> {
  const on = entriesOn(await reference(), list, day);
  return (sku) => {
    const row = on.get(`${sku} `);
    return row && listedBy(row);
  };
}

/** What is known of items besides prices. */
export async function itemFacts(): Promise<ItemFacts> {
  const { items } = await reference();
  return Object.fromEntries(
    [...items.values()].map(({ sku, leadDays, mass }) => [
      sku,
      { leadDays, ...(mass === null ? {} : { mass: new Exact(mass).toString() }) },
    ]),
  );
}
