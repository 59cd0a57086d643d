/** Keeping items: new ones, changes of one or many, and taking away what nothing uses. */
import { createHash } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import type { AskedJob, ItemInput, ItemRowsInput, ItemsView, ItemView } from '../../contract';
import { differing, freshItem, itemProblems, tidied, type Around, type Item } from '../../core/items';
import { connected, writeMany, type AuditRow, type ItemRow } from '../../data';
import type { Actor } from '../access/actor';
import { endUse, use } from '../files/files';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { stampPassed } from '../kernel/request';
import { inTransaction, record } from '../kernel/unit-of-work';
import { familiesIn, holdItems, itemOf, seeItems } from './kept';
import { seeItem } from './item-view';
import { usesOf } from './where-used';

/** Kinds of files that an item can have, by the field in which it has them. */
const fileFields = ['picture', 'dataSheet'] as const;

type Change = Partial<Item>;

/** What is different, with how it was and is; null where nothing is. */
function differences(
  before: Item,
  after: Item,
): { from: Record<string, unknown>; to: Record<string, unknown> } | null {
  const fields = differing(before, after);
  return fields.length === 0
    ? null
    : {
        from: Object.fromEntries(fields.map((field) => [field, before[field]])),
        to: Object.fromEntries(fields.map((field) => [field, after[field]])),
      };
}

const said = (change: Record<string, unknown>): Change =>
  Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));

/** All items and families, held still against other changes until the transaction ends. */
async function heldAround(): ReturnType<typeof allAround> {
  await holdItems();
  return allAround();
}

/** All items and families. */
async function allAround(): Promise<{ around: Around; items: ReadonlyMap<string, ItemRow> }> {
  const { records } = connected();
  const items = new Map(
    (await records.items.findAll({ raw: true, order: [['sku', 'ASC']] })).map((row) => [row.sku, row]),
  );
  const families = familiesIn({
    families: await records.families.findAll({ raw: true, order: [['position', 'ASC']] }),
  });
  return { around: { families, items }, items };
}

/** What rows of items come to: what is written, or all that is wrong, each with its row. */
interface Planned {
  kept: ItemRow[];
  entries: AuditRow[];
  wrong: Failure[];
}

/** Rows between two looks at whether somebody else wants to go on. */
const planStep = 200;

/** Holds rows against all there is; `pause` is called now and then with how far it is. */
async function planRows(
  actor: Pick<Actor, 'id'>,
  rows: ItemRowsInput['rows'],
  { around, items }: Awaited<ReturnType<typeof allAround>>,
  pause: (done: number) => Promise<void>,
): Promise<Planned> {
  const all = new Map<string, Pick<Item, 'replacedBy'>>(around.items);
  for (const { sku } of rows) if (!all.has(sku)) all.set(sku, { replacedBy: null });
  const planned: Planned = { kept: [], entries: [], wrong: [] };
  const seen = new Set<string>();
  for (const [at, { sku, version, ...cells }] of rows.entries()) {
    if (at % planStep === planStep - 1) await pause(at);
    const refuse = (failures: readonly Failure[]): void => {
      for (const { field = '', ...failure } of failures)
        planned.wrong.push({ ...failure, field: `rows.${String(at)}.${field}` });
    };
    if (seen.has(sku)) refuse([{ code: 'item.twice', params: { sku }, field: 'sku' }]);
    seen.add(sku);
    const change = changed(items.get(sku), { sku, version, change: said(cells) }, { ...around, items: all });
    if (!change.ok) refuse(change.failures);
    else if (change.value) {
      planned.kept.push(change.value.row);
      planned.entries.push(entryOf(actor, change.value));
    }
  }
  return planned;
}

/** Keeps rows of items, all or none; what is wrong is told with its row. */
export const keepItems = (actor: Actor, { rows }: ItemRowsInput): Promise<Result<ItemsView>> =>
  inTransaction(async () => {
    await holdItems();
    const { kept, entries, wrong } = await planRows(actor, rows, await allAround(), () => Promise.resolve());
    if (wrong.length > 0) return fail(wrong.some(isStale) ? 'conflict' : 'invalid', ...wrong.slice(0, 200));
    await writeItems(kept);
    await connected().records.audit.bulkCreate(entries);
    return done(await seeItems());
  });

/** The same in the background, for very many: looked at row by row, and written at once in the end, all or none. */
export const itemsJob: JobKind<ItemRowsInput, { rows: number }> = {
  kind: 'items.keep',
  tries: 3,
  async work({ rows }, job) {
    const { wrong } = await planRows({ id: job.askedBy ?? '' }, rows, await allAround(), async (far) => {
      await job.progress({ done: far, of: rows.length });
      // Somebody else may have waited while these were looked at.
      await setImmediate();
    });
    const [first] = wrong;
    if (first) throw new JobRefused(first);
    return { rows: rows.length };
  },
  async finish(_, { rows }, { askedBy }) {
    await holdItems();
    const actor = { id: askedBy ?? '' };
    const planned = await planRows(actor, rows, await allAround(), () => setImmediate());
    const [first] = planned.wrong;
    if (first) throw new JobRefused(first);
    await writeItems(planned.kept);
    await writeMany(connected().records.audit, planned.entries);
    return { rows: planned.kept.length };
  },
};

/** Begins to keep rows in the background. */
export const askToKeepItems = (actor: Actor, input: ItemRowsInput): Promise<Result<AskedJob>> =>
  inTransaction(async () => {
    // Asked again while it is at it, the same rows are not kept twice.
    const digest = createHash('sha256').update(JSON.stringify(input)).digest('hex');
    const { id } = await askForJob(itemsJob, input, { by: actor.id, once: `items ${actor.id} ${digest}` });
    return done({ job: id });
  });

const isStale = ({ code }: Failure): boolean => code === 'item.stale' || code === 'item.there';

interface Changed {
  row: ItemRow;
  before: Item | null;
  differs: { from: Record<string, unknown>; to: Record<string, unknown> };
}

/** An item after a change, or what is in the way; null where it changes nothing. */
function changed(
  row: ItemRow | undefined,
  { sku, version, change }: { sku: string; version: number | undefined; change: Change },
  around: Around,
): Result<Changed | null> {
  if (row && version === undefined)
    return fail('conflict', { code: 'item.there', params: { sku }, field: 'sku' });
  if (!row && version !== undefined)
    return fail('conflict', { code: 'item.gone', params: { sku }, field: 'sku' });
  if (row && row.version !== version)
    return fail('conflict', { code: 'item.stale', params: { sku }, field: 'sku' });
  const before = row ? tidied(itemOf(row), around.families) : null;
  const after = tidied({ ...(before ?? freshItem(sku, '')), ...change }, around.families);
  const problems: Failure[] = itemProblems(after, around);
  if (before && before.kind !== after.kind && (before.kind === 'model' || after.kind === 'model'))
    problems.push({ code: 'item.kindStays', params: { sku }, field: 'kind' });
  if (problems.length > 0) return fail('invalid', ...problems);
  const differs = differences(before ?? freshItem(sku, ''), after);
  if (before && !differs) return done(null);
  return done({
    row: { ...after, version: (row?.version ?? 0) + 1 },
    before,
    differs: differs ?? { from: {}, to: {} },
  });
}

const entryOf = (actor: Pick<Actor, 'id'>, { row, before, differs }: Changed): AuditRow => ({
  userId: actor.id,
  action: before ? 'item.changed' : 'item.added',
  subject: row.sku,
  details: before ? differs : { to: differs.to },
});

/** Writes items, however many there are. */
async function writeItems(rows: readonly ItemRow[]): Promise<void> {
  if (rows.length === 0) return;
  await writeMany(connected().records.items, rows, 'sku');
  stampPassed();
}

/** Changes an item. */
export const changeItem = (
  actor: Actor,
  sku: string,
  { version, ...input }: ItemInput,
): Promise<Result<ItemView>> =>
  inTransaction(async () => {
    const { around, items } = await heldAround();
    const row = items.get(sku);
    if (!row) return fail('missing', { code: 'item.unknown', params: { sku } });
    const change = changed(row, { sku, version, change: said(input) }, around);
    if (!change.ok) return change;
    if (change.value) {
      const { row: next, before } = change.value;
      for (const field of fileFields) {
        const file = next[field];
        if (file === null || file === before?.[field]) continue;
        const used = await use(actor, file, 'item', sku);
        if (!used.ok) return fail(used.status, ...used.failures.map((each) => ({ ...each, field })));
        const fits = field === 'dataSheet' ? used.value.kind === 'pdf' : pictures.has(used.value.kind);
        if (!fits) return fail('invalid', { code: `item.${field}Only`, field });
      }
      await writeItems([next]);
      await endUse(
        'item',
        sku,
        fileFields.flatMap((field) => next[field] ?? []),
      );
      await connected().records.audit.bulkCreate([entryOf(actor, change.value)]);
    }
    return seeItem(sku);
  });

const pictures: ReadonlySet<string> = new Set(['png', 'jpeg', 'webp', 'svg']);

/** Takes an item away; not while anything uses it, or has used it. */
export const dropItem = (actor: Actor, sku: string, version: number): Promise<Result<ItemsView>> =>
  inTransaction(async () => {
    await holdItems();
    const row = await connected().records.items.findByPk(sku);
    if (!row) return fail('missing', { code: 'item.unknown', params: { sku } });
    if (row.version !== version) return fail('conflict', { code: 'item.stale', params: { sku } });
    const [first, ...others] = await usesOf(sku, 'all');
    if (first)
      return fail('conflict', {
        code: 'item.inUse',
        params: {
          sku,
          by: Object.values(first.name)[0] ?? '',
          more: others.length,
        },
      });
    await endUse('item', sku);
    await row.destroy();
    stampPassed();
    await record(actor, 'item.removed', sku, { from: itemOf(row.get({ plain: true })) });
    return done(await seeItems());
  });
