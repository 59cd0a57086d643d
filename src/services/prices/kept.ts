/** Price changes as they are kept, and what each of their rows comes to. */
import { randomUUID } from 'node:crypto';
import { addDays, format, parseISO } from 'date-fns';
import { QueryTypes } from 'sequelize';
import type { ChangeRowView, ChangeStand, ChangeSums, ListHead, PriceChangeHead } from '../../contract';
import { exact, type Exact } from '../../core/exact';
import { compileFormula } from '../../core/formula';
import { entryProblems, entryWarnings, leadingPrice, type ListEntry } from '../../core/prices';
import { connected, type PriceChangeEntryRow, type PriceChangeRow, type PriceEntryRow } from '../../data';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { Recent } from '../kernel/threads/recent';
import { nameOf, reference, type Reference } from '../settings/reference-data';
import { entriesOn, fullTariff, listedBy, placeOf } from '../settings/tariffs';

/** Where a price change stands. */
export const standOfChange = ({ state, inForce }: Pick<PriceChangeRow, 'state' | 'inForce'>): ChangeStand =>
  state === 'published' ? (inForce > today() ? 'ahead' : 'inForce') : state;

/** The day before one, in ISO form. */
export const dayBefore = (day: string): string => format(addDays(parseISO(day), -1), 'yyyy-MM-dd');

/** Names a row within its change. */
export const nameOfPlace = (list: string, sku: string, inside: string): string => `${list} ${sku} ${inside}`;

/** An entry of the database as what the core knows; null where the item is priced no more. */
export function entryOfRow(
  row: Pick<PriceEntryRow, 'sku' | 'entry' | 'baseMonths' | 'leastMonths'> | undefined,
): ListEntry | null {
  const listed = row && listedBy(row);
  return listed ? { entry: listed.entry, every: listed.every ?? null } : null;
}

/** A price change by its id. */
export async function findChange(id: string): Promise<PriceChangeRow | null> {
  return isReference(id) ? connected().records.priceChanges.findByPk(id, { raw: true }) : null;
}

/** One that is being made ready, held until the end of the unit of work, if it is as somebody last saw it. */
export async function holdDraft(id: string, version: number): Promise<Result<PriceChangeRow>> {
  const row = isReference(id)
    ? await connected().records.priceChanges.findByPk(id, { raw: true, lock: true })
    : null;
  if (!row) return fail('missing', { code: 'change.missing' });
  if (row.version !== version) return fail('conflict', { code: 'change.stale' });
  return row.state === 'draft' ? done(row) : fail('conflict', { code: 'change.settled' });
}

/** Counts a change of it: what was worked out for it before is of another version. */
export async function countChange(id: string): Promise<void> {
  await connected().sequelize.query(
    'update price_changes set version = version + 1, changed_at = now() where id = $1',
    { bind: [id] },
  );
}

/** A new row as it begins. */
export const freshChange = (
  by: string,
  { name, inForce, note }: { name: string; inForce: string; note: string },
): PriceChangeRow => ({
  id: randomUUID(),
  name,
  inForce,
  note,
  state: 'draft',
  version: 1,
  madeAt: new Date(),
  madeBy: by,
  changedAt: new Date(),
  settledAt: null,
  settledBy: null,
  impactJob: null,
  impactVersion: null,
  impactSeen: false,
});

/** What is told of it where it is not open. */
export function headOf(row: PriceChangeRow, rows: number, known: Reference): PriceChangeHead {
  const { id, name, note, inForce, version, madeBy, changedAt, settledAt, settledBy } = row;
  return {
    id,
    name,
    note,
    inForce,
    stand: standOfChange(row),
    rows,
    version,
    by: nameOf(known, madeBy),
    changedAt: changedAt.toISOString(),
    settled: settledAt ? { at: settledAt.toISOString(), by: nameOf(known, settledBy) } : null,
  };
}

/** All price lists, with how many items they price today. */
export async function listHeads(known: Reference): Promise<ListHead[]> {
  return Promise.all(
    known.priceLists.map(async ({ code, name, currency, decimals }) => ({
      code,
      name,
      currency,
      decimals,
      entries: [...(await entriesOn(known, code, today())).values()].filter(({ entry }) => entry !== null)
        .length,
    })),
  );
}

/** Puts rows into a change, each in the place of one that was there. */
export async function writeRows(rows: readonly PriceChangeEntryRow[]): Promise<void> {
  if (rows.length === 0) return;
  // One statement of one text: twenty thousand rows as so many values take many times as long.
  await connected().sequelize.query(
    `insert into price_change_rows
       (change_id, place, price_list, sku, inside, entry, base_months, least_months, formula, wrong)
     select change_id, place, price_list, sku, inside, nullif(entry, 'null'::jsonb), base_months, least_months, formula,
       nullif(wrong::jsonb, 'null'::jsonb)::json
     from jsonb_to_recordset($1::jsonb) as r(change_id uuid, place text, price_list text, sku text, inside text,
       entry jsonb, base_months int, least_months int, formula text, wrong json)
     on conflict (change_id, place) do update set entry = excluded.entry, base_months = excluded.base_months,
       least_months = excluded.least_months, formula = excluded.formula, wrong = excluded.wrong`,
    {
      bind: [
        JSON.stringify(
          rows.map((row) => ({
            change_id: row.changeId,
            place: row.place,
            price_list: row.priceList,
            sku: row.sku,
            inside: row.inside,
            entry: row.entry,
            base_months: row.baseMonths,
            least_months: row.leastMonths,
            formula: row.formula,
            wrong: row.wrong,
          })),
        ),
      ],
      type: QueryTypes.RAW,
    },
  );
}

/** All rows of a change, each with what it was and comes to, and what they come to together. */
export interface Looked {
  rows: ChangeRowView[];
  sums: ChangeSums;
}

const looked = new Recent<Looked>(120_000);

/** Whether a formula of an entry is one: what it may read depends on the build that it is in. */
function reads(formula: string): boolean {
  const compiled = compileFormula(formula, new Map(), { is: 'number', unit: 'any' });
  return compiled.ok || compiled.problems.every(({ code }) => code === 'formula.unknownName');
}

/** So many rows are looked at before others get their turn. */
const atOnce = 400;

/** What the rows of a change come to; worked out once for a version. */
export async function lookAt(change: PriceChangeRow): Promise<Looked> {
  const known = await reference();
  const key = `${change.id} ${String(change.version)} ${known.stamp}`;
  const had = looked.get(key);
  if (had) return had;
  const rows = await connected().records.priceChangeRows.findAll({
    where: { changeId: change.id },
    order: [
      ['sku', 'ASC'],
      ['priceList', 'ASC'],
      ['inside', 'ASC'],
      ['place', 'ASC'],
    ],
    raw: true,
  });
  const around = await aroundOf(known, change, rows);
  const views: ChangeRowView[] = [];
  for (const [at, row] of rows.entries()) {
    if (at % atOnce === atOnce - 1) await new Promise((resolve) => setImmediate(resolve));
    views.push(viewOfRow(row, around));
  }
  const made = { rows: views, sums: sumsOf(views) };
  looked.set(key, made, rows.length + 1);
  return made;
}

interface Around {
  known: Reference;
  /** By list: what holds on the day before, what one costs, and how fine money is. */
  lists: Map<
    string,
    { before: ReadonlyMap<string, PriceEntryRow>; costs: Readonly<Record<string, string>>; decimals: number }
  >;
  /** Lists in which an item has an entry once the change is in force. */
  listedIn: Map<string, Set<string>>;
}

async function aroundOf(
  known: Reference,
  { inForce }: PriceChangeRow,
  rows: readonly PriceChangeEntryRow[],
): Promise<Around> {
  const lists: Around['lists'] = new Map();
  const listedIn: Around['listedIn'] = new Map();
  const inList = (list: string, sku: string): void => {
    const own = listedIn.get(sku) ?? new Set<string>();
    own.add(list);
    listedIn.set(sku, own);
  };
  for (const { code, decimals } of known.priceLists) {
    const before = await entriesOn(known, code, dayBefore(inForce));
    const { costs = {} } = await fullTariff(code, dayBefore(inForce));
    lists.set(code, { before, costs, decimals });
    for (const { sku, inside, entry } of before.values())
      if (inside === '' && entry !== null) inList(code, sku);
  }
  for (const { priceList, sku, inside, entry } of rows)
    if (inside === '' && entry !== null) inList(priceList, sku);
  return { known, lists, listedIn };
}

function viewOfRow(row: PriceChangeEntryRow, { known, lists, listedIn }: Around): ChangeRowView {
  const { place, priceList: list, sku, inside, formula, wrong } = row;
  const item = known.items.get(sku);
  const own = lists.get(list);
  const before = entryOfRow(own?.before.get(placeOf({ sku, inside })));
  const after = wrong ? null : entryOfRow(row);
  const cost = own?.costs[sku];
  const problems =
    after && item
      ? entryProblems(after.entry, after.every ?? undefined, {
          sku,
          decimals: own?.decimals ?? 2,
          inside: inside !== '',
          known: (name) => known.items.has(name) || known.families.some(({ code }) => code === name),
          reads,
        })
      : [];
  const warnings = wrong
    ? []
    : entryWarnings(
        before ? { entry: before.entry, every: before.every ?? undefined } : undefined,
        after && { entry: after.entry, every: after.every ?? undefined },
        { cost, elsewhere: inside !== '' || (listedIn.get(sku)?.size ?? 0) >= known.priceLists.length },
      );
  return {
    place,
    list,
    sku,
    inside,
    name: item?.name ?? {},
    family: item?.family ?? '',
    before,
    after,
    formula,
    wrong,
    cost: cost ?? '0',
    problems,
    warnings,
  };
}

function sumsOf(rows: readonly ChangeRowView[]): ChangeSums {
  const sums: ChangeSums = {
    rows: rows.length,
    raised: 0,
    lowered: 0,
    same: 0,
    fresh: 0,
    ends: 0,
    wrong: 0,
    belowCost: 0,
    missing: 0,
    typed: 0,
    mean: null,
  };
  let [all, count]: [Exact, number] = [exact(0), 0];
  for (const { before, after, wrong, problems, warnings, formula, cost } of rows) {
    if (wrong || problems.length > 0) sums.wrong += 1;
    if (warnings.includes('belowCost')) sums.belowCost += 1;
    if (warnings.includes('missingElsewhere')) sums.missing += 1;
    if (formula === null) sums.typed += 1;
    if (wrong) continue;
    if (!after) sums.ends += 1;
    else if (!before) sums.fresh += 1;
    else {
      const [was, is] = [leadingPrice(before.entry, cost)?.amount, leadingPrice(after.entry, cost)?.amount];
      const change = was === undefined || is === undefined ? 0 : exact(is).comparedTo(was);
      sums[change > 0 ? 'raised' : change < 0 ? 'lowered' : 'same'] += 1;
      if (was !== undefined && is !== undefined && !exact(was).isZero()) {
        all = all.plus(exact(is).div(was).minus(1));
        count += 1;
      }
    }
  }
  return { ...sums, mean: count === 0 ? null : all.div(count).toDecimalPlaces(6).toString() };
}
