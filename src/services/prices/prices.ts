/** Price lists as they are on a day, and where an entry comes from and goes to. */
import { QueryTypes } from 'sequelize';
import type {
  EntriesPage,
  EntriesQuery,
  EntryHistory,
  EntryQuery,
  EntryView,
  FileAnswer,
  PricesView,
} from '../../contract';
import { foundBy } from '../../core/finding';
import { inside as within } from '../../core/items';
import { cellsOfEntry, sheetColumns, type SheetColumn } from '../../core/prices';
import { standOf } from '../../core/terms';
import { connected, type PriceChangeRow, type PriceEntryRow, type PriceListRow } from '../../data';
import { translator, type Translate } from '../../i18n';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { askPapers } from '../kernel/papers';
import { familiesIn } from '../items/kept';
import { nameOf, reference, type Reference } from '../settings/reference-data';
import { entriesOn, fullTariff, placeOf } from '../settings/tariffs';
import { entryOfRow, headOf, listHeads } from './kept';

const pageSize = 200;

/** Lists and changes, those that are made ready first, then the latest. */
export async function seePrices(): Promise<PricesView> {
  const known = await reference();
  const rows = await connected().records.priceChanges.findAll({
    order: [
      ['inForce', 'DESC'],
      ['madeAt', 'DESC'],
    ],
    raw: true,
  });
  const counts = await connected().sequelize.query<{ id: string; rows: number }>(
    'select change_id as id, count(*)::integer as rows from price_change_rows group by change_id',
    { type: QueryTypes.SELECT },
  );
  const countOf = new Map(counts.map((each) => [each.id, each.rows]));
  return {
    lists: await listHeads(known),
    changes: rows.map((row) => headOf(row, countOf.get(row.id) ?? 0, known)),
    families: known.families.map(({ code, name, parent }) => ({ code, name, parent })),
    bundles: bundlesIn(known),
    today: today(),
  };
}

/** Items of models, inside which something may have a price of its own. */
const bundlesIn = ({ models, items }: Reference): PricesView['bundles'] =>
  models.map(({ sku }) => ({ sku, name: items.get(sku)?.name ?? {} }));

/** The list of a code. */
export const listIn = ({ priceLists }: Reference, code: string): PriceListRow | undefined =>
  priceLists.find((each) => each.code === code);

/** The entries of a list on a day that are found by a family and by words. */
export async function entriesFound(
  known: Reference,
  list: string,
  day: string,
  { family, find = '' }: { family?: string | null | undefined; find?: string | undefined },
): Promise<readonly PriceEntryRow[]> {
  const codes = family === undefined || family === null ? null : within(familiesIn(known), family);
  const rows = [...(await entriesOn(known, list, day)).values()].filter(
    ({ entry, sku }) => entry !== null && (codes?.has(known.items.get(sku)?.family ?? '') ?? true),
  );
  rows.sort((a, b) => (a.sku < b.sku ? -1 : a.sku > b.sku ? 1 : a.inside < b.inside ? -1 : 1));
  return foundBy(rows, find, ({ sku }) => [sku, ...Object.values(known.items.get(sku)?.name ?? {})]);
}

/** A page of a list on a day. */
export async function seeEntries(list: string, query: EntriesQuery): Promise<Result<EntriesPage>> {
  const known = await reference();
  if (!listIn(known, list)) return fail('missing', { code: 'list.missing' });
  const day = query.day ?? today();
  const found = await entriesFound(known, list, day, query);
  const { costs = {} } = await fullTariff(list, day);
  const from = query.page * pageSize;
  const rows = found.slice(from, from + pageSize);
  const drafts = await draftsWith(
    list,
    rows.map(({ sku }) => sku),
  );
  const next = nextOf(known, list, day);
  return done({
    day,
    page: query.page,
    size: pageSize,
    count: found.length,
    rows: rows.flatMap((row): EntryView[] => {
      const now = entryOfRow(row);
      const item = known.items.get(row.sku);
      if (!now || !item) return [];
      return [
        {
          sku: row.sku,
          name: item.name,
          family: item.family,
          inside: row.inside,
          now,
          from: row.validFrom,
          cost: costs[row.sku] ?? '0',
          next: next.get(placeOf(row)) ?? null,
          drafts: drafts.get(placeOf(row)) ?? [],
        },
      ];
    }),
  });
}

/** What follows on entries after a day: the first of each. */
function nextOf({ entries }: Reference, list: string, day: string): Map<string, EntryView['next']> {
  const found = new Map<string, EntryView['next']>();
  for (const row of entries.get(list) ?? []) {
    const place = placeOf(row);
    if (row.validFrom <= day || found.has(place)) continue;
    found.set(place, { from: row.validFrom, change: row.changeId ?? '', entry: entryOfRow(row) });
  }
  return found;
}

/** Changes being made ready that have some items of a list, by place. */
async function draftsWith(list: string, skus: readonly string[]): Promise<Map<string, string[]>> {
  if (skus.length === 0) return new Map();
  const rows = await connected().sequelize.query<{ sku: string; inside: string; change: string }>(
    `select r.sku, r.inside, r.change_id as change from price_change_rows r join price_changes c on c.id = r.change_id
     where c.state = 'draft' and r.price_list = $1 and r.sku = any($2)`,
    { bind: [list, skus], type: QueryTypes.SELECT },
  );
  const found = new Map<string, string[]>();
  for (const row of rows) found.set(placeOf(row), [...(found.get(placeOf(row)) ?? []), row.change]);
  return found;
}

/** An entry through time. */
export async function seeEntry({ list, sku, inside }: EntryQuery): Promise<Result<EntryHistory>> {
  const known = await reference();
  const own = (known.entries.get(list) ?? []).filter((row) => row.sku === sku && row.inside === inside);
  if (own.length === 0) return fail('missing', { code: 'entry.missing' });
  const ids = own.flatMap(({ changeId }) => changeId ?? []);
  const changes = new Map<string, PriceChangeRow>(
    (await connected().records.priceChanges.findAll({ where: { id: ids }, raw: true })).map((row) => [
      row.id,
      row,
    ]),
  );
  const day = today();
  return done({
    rows: [...own].reverse().map((row) => {
      const change = changes.get(row.changeId ?? '');
      return {
        from: row.validFrom,
        to: row.validTo,
        entry: entryOfRow(row),
        stand: standOf(row, own, day),
        change: change ? { id: change.id, name: change.name, by: nameOf(known, change.settledBy) } : null,
      };
    }),
  });
}

const media = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;

/** The titles of a sheet of entries in a language. */
export const titleOf = (column: SheetColumn, t: Translate): string =>
  t(`prices.column.${column}` as 'prices.column.sku');

/** A list on a day as a file. */
export async function entriesFile(
  actor: Actor,
  list: string,
  format: string,
  query: EntriesQuery,
): Promise<Result<FileAnswer>> {
  if (format !== 'csv' && format !== 'xlsx') return fail('missing', { code: 'file.format' });
  const known = await reference();
  const head = listIn(known, list);
  if (!head) return fail('missing', { code: 'list.missing' });
  const day = query.day ?? today();
  const t = translator(actor.language);
  const found = await entriesFound(known, list, day, query);
  const rows = found.map((row) => {
    const cells: Record<SheetColumn, string> = {
      ...cellsOfEntry(entryOfRow(row), actor.language, head.decimals),
      list,
      sku: row.sku,
      name: known.items.get(row.sku)?.name[actor.language] ?? '',
      inside: row.inside,
    };
    return sheetColumns.map((column) => cells[column]);
  });
  return done({
    name: `${list}-${day}.${format}`,
    type: media[format],
    bytes: await askPapers('sheet', {
      name: list,
      rows: [sheetColumns.map((column) => titleOf(column, t)), ...rows],
      format,
    }),
  });
}
