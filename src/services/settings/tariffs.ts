import { Exact } from '../../core/exact';
import { tariffFrom, type ListedItem, type Tariff } from '../../core/pricing';
import type { PriceEntryRow, PriceListRow } from '../../data';
import { may, type Actor } from '../access/actor';
import { inForce } from '../../core/terms';
import { workCentresOn } from './in-force';
import { reference, type Reference } from './reference-data';
import { supposedRows, type Supposed } from './supposed';
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

/** With costs; for computation on the server only. With entries that are supposed, as if they were kept. */
export async function fullTariff(list: string, asked: string, supposed?: Supposed): Promise<Tariff> {
  const known = await reference();
  const day = supposed ? asked : sinceWhen(known, list, asked);
  const key = keyOf(known, list, day, supposed);
  const found = made.get(key);
  if (found) return found;
  const head = listOf(known, list);
  const inCurrency = (cost: string): string => new Exact(cost).times(head.costRate).toString();
  const rates = Object.fromEntries(
    workCentresOn(known, day).map((centre) => [centre.code, inCurrency(centre.rate)]),
  );
  const modelOf = new Map(known.models.map(({ id, sku }) => [sku, id]));
  const listed = [...(await entriesOn(known, list, day, supposed)).values()].flatMap((row): ListedItem[] => {
    const item = listedBy(row);
    if (!item) return [];
    return [row.inside === '' ? item : { ...item, inside: modelOf.get(row.inside) ?? row.inside }];
  });
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

/** What an entry says; undefined where it says that the item is priced no more. */
export function listedBy({
  sku,
  entry,
  baseMonths,
  leastMonths,
}: Pick<PriceEntryRow, 'sku' | 'entry' | 'baseMonths' | 'leastMonths'>): ListedItem | undefined {
  if (entry === null) return undefined;
  return {
    sku,
    entry,
    ...(baseMonths === null
      ? {}
      : { every: { baseMonths, ...(leastMonths === null ? {} : { leastMonths }) } }),
  };
}

/** Days on which something of a list's prices begins to hold or holds no more, in their order; of rows that stay the same. */
const turns = new WeakMap<readonly object[], WeakMap<readonly object[], readonly string[]>>();
const ever = '0001-01-01';

function turnsOf({ entries, workCentres }: Reference, list: string): readonly string[] {
  const rows = entries.get(list) ?? none;
  const known = turns.get(rows)?.get(workCentres);
  if (known) return known;
  const days = new Set(
    [...rows, ...workCentres].flatMap(({ validFrom, validTo }) => [
      ...(validFrom === null ? [] : [validFrom]),
      ...(validTo === null ? [] : [dayAfter(validTo)]),
    ]),
  );
  const sorted = [...days].sort();
  turns.set(rows, (turns.get(rows) ?? new WeakMap()).set(workCentres, sorted));
  return sorted;
}
const none: readonly never[] = [];

const dayAfter = (day: string): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + 24 * 60 * 60 * 1000).toISOString().slice(0, 10);

/**
 * The day since which a list is as it is on a day: all days up to the next turn share one tariff, so that quotes of many
 * days do not need as many.
 */
export function sinceWhen(known: Reference, list: string, day: string): string {
  const days = turnsOf(known, list);
  let [from, to] = [0, days.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if ((days[middle] as string) <= day) from = middle + 1;
    else to = middle;
  }
  return days[from - 1] ?? ever;
}

const keyOf = ({ stamp }: Reference, list: string, day: string, supposed?: Supposed): string =>
  `${stamp} ${list} ${day}${supposed ? ` ${supposed.change} ${String(supposed.version)}` : ''}`;

/** Names an item, and where it is priced, within a list. */
export const placeOf = ({ sku, inside }: Pick<PriceEntryRow, 'sku' | 'inside'>): string => `${sku} ${inside}`;

/**
 * The entries of a list that hold on a day: of each item, anywhere and inside each bundle, the newest begun,
 * unless it has ended.
 */
export async function entriesOn(
  known: Reference,
  list: string,
  asked: string,
  supposed?: Supposed,
): Promise<ReadonlyMap<string, PriceEntryRow>> {
  const day = supposed ? asked : sinceWhen(known, list, asked);
  const key = keyOf(known, list, day, supposed);
  const found = held.get(key);
  if (found) return found;
  const kept = known.entries.get(list) ?? [];
  const rows = supposed ? [...kept, ...(await supposedRows(supposed, list))] : kept;
  const newest = inForce(rows, placeOf, day);
  held.set(key, newest, 1);
  return newest;
}

/** How an item is priced by itself in a list on a day, and what of it recurs. */
export async function entryOn(
  list: string,
  day: string,
  supposed?: Supposed,
): Promise<(sku: string) => ListedItem | undefined> {
  const on = await entriesOn(await reference(), list, day, supposed);
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
