/** Price changes: made ready by formulas and by hand, published from a day on, withdrawn before it. */
import { QueryTypes } from 'sequelize';
import type {
  ChangeQuery,
  ChangeRowsInput,
  FormulaAnswer,
  FormulaInput,
  PriceChangeEditInput,
  PriceChangeHead,
  PriceChangeInput,
  PriceChangeView,
  PricesView,
} from '../../contract';
import { foundBy } from '../../core/finding';
import { inside as within } from '../../core/items';
import {
  applyFormula,
  formulaProblem,
  readFormula,
  readRow,
  writeFormula,
  type ChangeFormula,
  type ListEntry,
} from '../../core/prices';
import { connected, type PriceChangeEntryRow, type PriceChangeRow, type PriceEntryRow } from '../../data';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { stampPassed } from '../kernel/request';
import { inTransaction, record } from '../kernel/unit-of-work';
import { familiesIn } from '../items/kept';
import { reference, type Reference } from '../settings/reference-data';
import { entriesOn, fullTariff, placeOf } from '../settings/tariffs';
import {
  countChange,
  dayBefore,
  entryOfRow,
  findChange,
  freshChange,
  headOf,
  holdDraft,
  listHeads,
  lookAt,
  nameOfPlace,
  standOfChange,
  writeRows,
} from './kept';
import { entriesFound, listIn, seePrices } from './prices';
import { sheetMeans } from './sheet-means';
import { forgetSteps, remembered, stepsOf, takeStep } from './steps';

const pageSize = 200;

const tooEarly = (inForce: string): boolean => inForce < today();

/** Begins one; without rows yet. */
export const makeChange = (actor: Actor, input: PriceChangeInput): Promise<Result<PriceChangeHead>> =>
  inTransaction(async () => {
    if (tooEarly(input.inForce)) return fail('invalid', { code: 'change.past', field: 'inForce' });
    const row = freshChange(actor.id, input);
    await connected().records.priceChanges.create(row);
    await record(actor, 'prices.begun', row.name, { id: row.id, inForce: row.inForce });
    return done(headOf(row, 0, await reference()));
  });

/** Calls it otherwise, or puts it on another day. */
export const editChange = (
  actor: Actor,
  id: string,
  { version, ...input }: PriceChangeEditInput,
): Promise<Result<PriceChangeView>> =>
  inTransaction(async () => {
    const held = await holdDraft(id, version);
    if (!held.ok) return held;
    if (tooEarly(input.inForce)) return fail('invalid', { code: 'change.past', field: 'inForce' });
    await remembered(actor.id, id, 'edited', 'head', async () => {
      await connected().records.priceChanges.update(input, { where: { id } });
    });
    await countChange(id);
    await record(actor, 'prices.edited', input.name, { id, inForce: input.inForce });
    return seeChange(id);
  });

/** Takes one away that is being made ready. */
export const dropChange = (actor: Actor, id: string, version: number): Promise<Result<PricesView>> =>
  inTransaction(async () => {
    const held = await holdDraft(id, version);
    if (!held.ok) return held;
    await connected().records.priceChanges.destroy({ where: { id } });
    await record(actor, 'prices.dropped', held.value.name, { id });
    return done(await seePrices());
  });

/** Which rows, and how many are passed over. */
type Wanted = Partial<ChangeQuery>;

/** A price change with a page of its rows. */
export async function seeChange(id: string, wanted: Wanted = {}): Promise<Result<PriceChangeView>> {
  const change = await findChange(id);
  if (!change) return fail('missing', { code: 'change.missing' });
  const known = await reference();
  const { rows, sums } = await lookAt(change);
  const { list, family, find = '', only, page = 0 } = wanted;
  const codes = family === undefined ? null : within(familiesIn(known), family);
  const marked = rows.filter(
    (row) =>
      (list === undefined || row.list === list) &&
      (codes === null || codes.has(row.family)) &&
      (only === undefined ||
        (only === 'wrong'
          ? row.wrong !== null || row.problems.length > 0
          : only === 'warned'
            ? row.warnings.length > 0
            : row.formula === null)),
  );
  const found = foundBy(marked, find, ({ sku, name }) => [sku, ...Object.values(name)]);
  const stand = standOfChange(change);
  return done({
    head: headOf(change, rows.length, known),
    sums,
    impact:
      change.impactJob === null
        ? null
        : {
            job: change.impactJob,
            current: change.impactVersion === change.version,
            seen: change.impactSeen && change.impactVersion === change.version,
          },
    may: {
      edit: stand === 'draft',
      publish: stand === 'draft' && rows.length > 0 && sums.wrong === 0 && !tooEarly(change.inForce),
      withdraw: stand === 'ahead',
    },
    steps: stand === 'draft' ? await stepsOf(id) : { undo: null, redo: null },
    lists: await listHeads(known),
    rows: found.slice(page * pageSize, (page + 1) * pageSize),
    page,
    size: pageSize,
    count: found.length,
  });
}

/** Puts rows in as they are typed, and takes others out; all of it or nothing. */
export const setRows = (
  actor: Actor,
  id: string,
  { version, rows, out }: ChangeRowsInput,
): Promise<Result<PriceChangeView>> =>
  inTransaction(async () => {
    const held = await holdDraft(id, version);
    if (!held.ok) return held;
    const known = await reference();
    const means = await sheetMeans(actor.language, known, rows[0]?.list ?? '', held.value.inForce);
    const seen = new Set<string>();
    const wrong: Failure[] = [];
    const kept = rows.flatMap(({ list, sku, inside, cells }, at): PriceChangeEntryRow[] => {
      const read = readRow({ ...cells, list, sku, inside }, at, seen, means);
      if (read.is === 'wrong') {
        for (const [cell, { code, params }] of Object.entries(read.wrong))
          wrong.push({ code, ...(params ? { params } : {}), field: `rows.${String(at)}.${cell}` });
        return [];
      }
      return [rowOf(id, read.place, read.entry, null)];
    });
    if (wrong.length > 0) return fail('invalid', ...wrong.slice(0, 200));
    const { priceChangeRows } = connected().records;
    await remembered(actor.id, id, 'rows', [...out, ...kept.map(({ place }) => place)], async () => {
      if (out.length > 0) await priceChangeRows.destroy({ where: { changeId: id, place: out } });
      await writeRows(kept);
    });
    await countChange(id);
    return seeChange(id);
  });

/** An entry as a row of a change. */
export const rowOf = (
  changeId: string,
  { list, sku, inside }: { list: string; sku: string; inside: string },
  entry: ListEntry | null,
  formula: string | null,
): PriceChangeEntryRow => ({
  changeId,
  place: nameOfPlace(list, sku, inside),
  priceList: list,
  sku,
  inside,
  entry: entry?.entry ?? null,
  baseMonths: entry?.every?.baseMonths ?? null,
  leastMonths: entry?.every?.leastMonths ?? null,
  formula,
  wrong: null,
});

/** Makes entries by a formula over marked ones, from what they are before the day of the change. */
export const applyOver = (actor: Actor, id: string, input: FormulaInput): Promise<Result<FormulaAnswer>> =>
  inTransaction(async () => {
    const held = await holdDraft(id, input.version);
    if (!held.ok) return held;
    const known = await reference();
    if (!listIn(known, input.list)) return fail('invalid', { code: 'list.missing', field: 'list' });
    const read = readFormula(input.formula, actor.language, known.priceLists);
    if (!read.ok)
      return fail('invalid', {
        code: 'changeFormula.notUnderstood',
        params: { part: read.part, at: read.at + 1 },
        field: 'formula',
      });
    const problem = formulaProblem(read.formula);
    if (problem) return fail('invalid', { code: `changeFormula.${problem}`, field: 'formula' });
    const typed = new Set(
      input.typedToo
        ? []
        : (
            await connected().records.priceChangeRows.findAll({
              where: { changeId: id, formula: null },
              attributes: ['place'],
              raw: true,
            })
          ).map(({ place }) => place),
    );
    const made = await madeBy(read.formula, input, held.value, known, typed);
    if (made.rows.length > 0) {
      await remembered(
        actor.id,
        id,
        'formula',
        made.rows.map(({ place }) => place),
        () => writeRows(made.rows),
      );
      await countChange(id);
    }
    await record(actor, 'prices.formula', held.value.name, {
      id,
      list: input.list,
      formula: input.formula,
      rows: made.rows.length,
    });
    const view = await seeChange(id);
    if (!view.ok) return view;
    return done({
      made: made.rows.length,
      left: made.left,
      stuck: [...made.stuck].map(([why, skus]) => ({ why, count: skus.length, skus: skus.slice(0, 5) })),
      change: view.value,
    });
  });

/** What a formula makes of what is marked; figures that were typed are left. */
async function madeBy(
  formula: ChangeFormula,
  { list, family, find, skus }: FormulaInput,
  { id, inForce }: PriceChangeRow,
  known: Reference,
  typed: ReadonlySet<string>,
): Promise<{ rows: PriceChangeEntryRow[]; left: number; stuck: Map<string, string[]> }> {
  const day = dayBefore(inForce);
  const { costs = {}, decimals } = await fullTariff(list, day);
  const first = formula[0]?.does;
  const other =
    formula[0]?.does === 'list'
      ? await entriesOn(known, formula[0].list, day)
      : new Map<string, PriceEntryRow>();
  const text = writeFormula(formula, 'en');
  const places = await placesFor(known, list, day, { family, find, skus }, first, other);
  const rows: PriceChangeEntryRow[] = [];
  const stuck = new Map<string, string[]>();
  let left = 0;
  for (const [at, { sku, inside, row }] of places.entries()) {
    if (at % 1000 === 999) await new Promise((resolve) => setImmediate(resolve));
    const place = { list, sku, inside };
    if (typed.has(nameOfPlace(list, sku, inside))) {
      left += 1;
      continue;
    }
    const before = entryOfRow(row);
    const elsewhere = entryOfRow(other.get(placeOf({ sku, inside })));
    const outcome = applyFormula(formula, before?.entry, {
      decimals,
      cost: costs[sku],
      entryIn: () => elsewhere?.entry,
    });
    if (outcome.ok)
      rows.push(
        rowOf(id, place, { entry: outcome.entry, every: before?.every ?? elsewhere?.every ?? null }, text),
      );
    else stuck.set(outcome.why, [...(stuck.get(outcome.why) ?? []), sku]);
  }
  return { rows, left, stuck };
}

/** What is marked: entries that the list has, and for a formula that makes first prices those that it could have. */
async function placesFor(
  known: Reference,
  list: string,
  day: string,
  { family, find, skus }: Pick<FormulaInput, 'family' | 'find' | 'skus'>,
  first: string | undefined,
  other: ReadonlyMap<string, PriceEntryRow>,
): Promise<{ sku: string; inside: string; row: PriceEntryRow | undefined }[]> {
  const named = skus === null ? null : new Set(skus);
  const found = (await entriesFound(known, list, day, { family, find })).filter(
    ({ sku }) => named?.has(sku) ?? true,
  );
  const places: { sku: string; inside: string; row: PriceEntryRow | undefined }[] = found.map((row) => ({
    sku: row.sku,
    inside: row.inside,
    row,
  }));
  const there = new Set(found.map(placeOf));
  if (first === 'list')
    for (const row of await entriesFound(known, [...other.values()][0]?.priceList ?? list, day, {
      family,
      find,
    }))
      if ((named?.has(row.sku) ?? true) && !there.has(placeOf(row)))
        places.push({ sku: row.sku, inside: row.inside, row: undefined });
  // A price from cost is made for what is named, not for everything that happens to have none.
  if ((first === 'cost' || first === 'margin') && named)
    for (const sku of named)
      if (known.items.has(sku) && !there.has(placeOf({ sku, inside: '' })))
        places.push({ sku, inside: '', row: undefined });
  return places;
}

/** Takes the last step of a change back, or does the one that was taken back again. */
export const stepChange = (
  actor: Actor,
  id: string,
  version: number,
  way: 'undo' | 'redo',
): Promise<Result<PriceChangeView>> =>
  inTransaction(async () => {
    const held = await holdDraft(id, version);
    if (!held.ok) return held;
    const what = await takeStep(id, way);
    if (!what) return fail('conflict', { code: way === 'undo' ? 'change.noUndo' : 'change.noRedo' });
    await countChange(id);
    await record(actor, way === 'undo' ? 'prices.undone' : 'prices.redone', held.value.name, { id, what });
    return seeChange(id);
  });

/** Publishes it: its entries hold from its day on, and are followed by others, never changed. */
export const publishChange = (actor: Actor, id: string, version: number): Promise<Result<PriceChangeView>> =>
  inTransaction(async () => {
    // One after another, so that no two put a price on the same day.
    await connected().sequelize.query('select pg_advisory_xact_lock(hashtext($1))', { bind: ['prices'] });
    const held = await holdDraft(id, version);
    if (!held.ok) return held;
    const change = held.value;
    if (tooEarly(change.inForce)) return fail('conflict', { code: 'change.past' });
    const { rows, sums } = await lookAt(change);
    if (rows.length === 0) return fail('conflict', { code: 'change.noRows' });
    const first = rows.find(({ wrong, problems }) => wrong !== null || problems.length > 0);
    if (first)
      return fail('conflict', { code: 'change.wrong', params: { count: sums.wrong, sku: first.sku } });
    if (change.impactVersion !== change.version || !change.impactSeen)
      return fail('conflict', { code: 'change.impactUnseen' });
    const known = await reference();
    const gone = rows.find(({ sku }) => !known.items.has(sku));
    if (gone) return fail('conflict', { code: 'change.itemGone', params: { sku: gone.sku } });
    const taken = await takenDay(change);
    if (taken) return fail('conflict', taken);
    await connected().sequelize.query(
      `insert into price_entries (price_list, sku, inside, entry, base_months, least_months, valid_from, change_id)
       select r.price_list, r.sku, r.inside, r.entry, r.base_months, r.least_months, c.in_force, c.id
       from price_change_rows r join price_changes c on c.id = r.change_id where c.id = $1`,
      { bind: [id] },
    );
    await settle(actor, id, 'published');
    stampPassed();
    await record(actor, 'prices.published', change.name, { id, inForce: change.inForce, rows: rows.length });
    return seeChange(id);
  });

/** Another entry that begins on the same day, if there is one. */
async function takenDay({ id, inForce }: PriceChangeRow): Promise<Failure | null> {
  const [one] = await connected().sequelize.query<{ sku: string; list: string; name: string | null }>(
    `select e.sku, e.price_list as list, o.name from price_change_rows r
     join price_entries e on e.price_list = r.price_list and e.sku = r.sku and e.inside = r.inside and e.valid_from = $2
     left join price_changes o on o.id = e.change_id where r.change_id = $1 order by e.sku limit 1`,
    { bind: [id, inForce], type: QueryTypes.SELECT },
  );
  return one
    ? { code: 'change.sameDay', params: { sku: one.sku, list: one.list, name: one.name ?? one.list } }
    : null;
}

async function settle(actor: Actor, id: string, state: 'published' | 'withdrawn'): Promise<void> {
  await connected().records.priceChanges.update(
    { state, settledAt: new Date(), settledBy: actor.id },
    { where: { id } },
  );
  await connected().sequelize.query('update price_changes set version = version + 1 where id = $1', {
    bind: [id],
  });
  await forgetSteps(id);
}

/** Withdraws what is published and not in force yet: it is as if it had never been. */
export const withdrawChange = (actor: Actor, id: string, version: number): Promise<Result<PriceChangeView>> =>
  inTransaction(async () => {
    await connected().sequelize.query('select pg_advisory_xact_lock(hashtext($1))', { bind: ['prices'] });
    const change = await findChange(id);
    if (!change) return fail('missing', { code: 'change.missing' });
    if (change.version !== version) return fail('conflict', { code: 'change.stale' });
    if (standOfChange(change) !== 'ahead') return fail('conflict', { code: 'change.notAhead' });
    await connected().records.priceEntries.destroy({ where: { changeId: id } });
    await settle(actor, id, 'withdrawn');
    stampPassed();
    await record(actor, 'prices.withdrawn', change.name, { id });
    return seeChange(id);
  });
