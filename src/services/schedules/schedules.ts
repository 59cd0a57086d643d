/** Site schedules: begun, filled, changed, seen. */
import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import {
  freshTags,
  mostPositions,
  positionProblems,
  tagKey,
  type Position,
  type PositionOf,
} from '../../core/schedule';
import type {
  NewScheduleInput,
  PositionsInput,
  ScheduleHeadInput,
  ScheduleLinesInput,
  ScheduleView,
} from '../../contract';
import { connected, writeMany, type SchedulePositionRow, type ScheduleRow } from '../../data';
import { own } from '../../i18n';
import { refusal, type Actor } from '../access/actor';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { findQuote, stateOf, visibleSql } from '../quotes/quote-state';
import { nameOf, reference } from '../settings/reference-data';
import { madeOf } from '../shelf/list';
import { customerOf, findSchedule, holdSchedule, mayKeep, touch } from './find';
import { standingLines, toldPositions } from './told';

const missing = fail('missing', { code: 'schedule.missing' });

/** A schedule with all that its page shows. */
export async function seeSchedule(actor: Actor, id: string): Promise<Result<ScheduleView>> {
  const row = await findSchedule(actor, id);
  return row ? done(await viewOf(actor, row)) : missing;
}

async function viewOf(actor: Actor, row: ScheduleRow): Promise<ScheduleView> {
  const { customers } = connected().records;
  const customer = row.customerId === null ? null : await customers.findByPk(row.customerId, { raw: true });
  const told = await toldPositions(row.id);
  return {
    id: row.id,
    version: row.version,
    name: row.name,
    site: row.site,
    customer: customer && { id: customer.id, name: customer.name },
    owner: nameOf(await reference(), row.ownerId),
    positions: told.map(({ view }) => view),
    quotes: customer ? await quotesOf(actor, customer.id) : [],
    packages: await madeOf(actor, 'schedule_id', row.id),
    may: { edit: mayKeep(actor) },
  };
}

/** Quotes of a customer that the actor sees, the newest first. */
const quotesOf = (actor: Actor, customer: string): Promise<ScheduleView['quotes']> =>
  connected().sequelize.query<ScheduleView['quotes'][number]>(
    `select q.id, q.number, q.title from quotes q where q.customer_id = $1 and ${visibleSql(actor)}
     order by q.created_at desc limit 100`,
    { bind: [customer], type: QueryTypes.SELECT },
  );

/** Begins one; with the lines of a quote, where one is named, whose customer it is for then. */
export const beginSchedule = (actor: Actor, input: NewScheduleInput): Promise<Result<ScheduleView>> =>
  inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const from = input.quote ?? null;
    const quote = from === null ? null : await findQuote(actor, from);
    if (from !== null && !quote) return fail('missing', { code: 'quote.missing' });
    const customer = quote ? done(quote.customerId) : await customerOf(actor, input.customer);
    if (!customer.ok) return customer;
    const row: ScheduleRow = {
      id: randomUUID(),
      name: input.name,
      site: input.site,
      customerId: customer.value,
      ownerId: actor.id,
      version: 1,
      madeAt: new Date(),
      updatedAt: new Date(),
      updatedBy: actor.id,
    };
    await connected().records.schedules.create(row);
    if (quote) {
      const taken = await takeLines(actor, row, quote.id);
      if (!taken.ok) return taken;
    }
    await record(actor, 'schedule.begun', row.name, {});
    return done(await viewOf(actor, row));
  });

/** Changes what is said of the whole. */
export const changeSchedule = (
  actor: Actor,
  id: string,
  { version, name, site, customer }: ScheduleHeadInput,
): Promise<Result<ScheduleView>> =>
  inTransaction(async () => {
    const held = await holdSchedule(actor, id, version);
    if (!held.ok) return held;
    const whose = customer === undefined ? done(held.value.customerId) : await customerOf(actor, customer);
    if (!whose.ok) return whose;
    await touch(actor, held.value, { name, site, customerId: whose.value });
    await record(actor, 'schedule.changed', name, { name: [held.value.name, name], site });
    return seeSchedule(actor, id);
  });

/** Takes one away, with the packages that were made of it. */
export const dropSchedule = (actor: Actor, id: string): Promise<Result<null>> =>
  inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const row = await findSchedule(actor, id);
    if (!row) return missing;
    const [sent] = await connected().sequelize.query(
      'select 1 from shelf s join mail_documents d on d.shelf_id = s.id where s.schedule_id = $1 limit 1',
      { bind: [id], type: QueryTypes.SELECT },
    );
    // What went out stays to be looked up.
    if (sent) return fail('conflict', { code: 'schedule.sent' });
    await connected().records.schedules.destroy({ where: { id } });
    await record(actor, 'schedule.removed', row.name, {});
    return done(null);
  });

/** Keeps all positions in their order, or none and what is wrong with which. */
export const keepPositions = (
  actor: Actor,
  id: string,
  { version, rows }: PositionsInput,
): Promise<Result<ScheduleView>> =>
  inTransaction(async () => {
    const held = await holdSchedule(actor, id, version);
    if (!held.ok) return held;
    const named = await withItems(rows);
    const wrong = [
      ...positionProblems(named).map(({ at, field, code, params }): Failure => ({
        code,
        ...(params ? { params } : {}),
        field: `rows.${String(at)}.${field}`,
      })),
      ...(await unseen(actor, id, named)),
    ];
    if (wrong.length > 0) return fail('invalid', ...wrong.slice(0, 200));
    await connected().records.schedulePositions.destroy({ where: { scheduleId: id } });
    await writeMany(
      connected().records.schedulePositions,
      named.map((row, at) => positionRow(id, at + 1, row)),
    );
    await touch(actor, held.value);
    await record(actor, 'schedule.positions', held.value.name, { rows: named.length });
    return seeSchedule(actor, id);
  });

type Row = Position & { of: PositionOf };

/** Words that are the number of an item are that item. */
async function withItems(rows: readonly Row[]): Promise<Row[]> {
  const { items } = await reference();
  return rows.map((row) => {
    if (row.of.is !== 'words') return row;
    const sku = row.of.text.trim().toUpperCase();
    return items.has(sku) ? { ...row, of: { is: 'item', sku } } : row;
  });
}

/** What rows are of that the actor does not see, or that is not there; what was in the schedule before may be gone. */
async function unseen(actor: Actor, id: string, rows: readonly Row[]): Promise<Failure[]> {
  const before = await toldPositions(id);
  const known = new Set(before.map(({ view }) => JSON.stringify(view.of)));
  const { items } = await reference();
  const fresh = rows.flatMap(({ of }, at) => (known.has(JSON.stringify(of)) ? [] : [{ of, at }]));
  const stands = await standingLines(
    fresh.flatMap(({ of }) => (of.is === 'line' ? of : [])),
    visibleSql(actor),
  );
  const builds = await ownBuilds(
    actor,
    fresh.flatMap(({ of }) => (of.is === 'build' ? of.build : [])),
  );
  const there = (of: PositionOf): boolean =>
    of.is === 'line'
      ? stands(of)
      : of.is === 'build'
        ? builds.has(of.build)
        : of.is === 'words' || items.has(of.sku);
  return fresh.flatMap(({ of, at }) =>
    there(of) ? [] : [{ code: 'schedule.unknown', field: `rows.${String(at)}.of` }],
  );
}

/** Of some builds those that are the actor's own. */
async function ownBuilds(actor: Actor, ids: readonly string[]): Promise<ReadonlySet<string>> {
  const asked = ids.filter(isReference);
  if (asked.length === 0) return new Set();
  const rows = await connected().records.builds.findAll({
    where: { id: asked, ownerId: actor.id },
    attributes: ['id'],
    raw: true,
  });
  return new Set(rows.map(({ id }) => id));
}

const positionRow = (
  scheduleId: string,
  position: number,
  { tag, area, quantity, remark, of }: Row,
): SchedulePositionRow => ({
  id: randomUUID(),
  scheduleId,
  position,
  tag: tag.trim(),
  tagKey: tagKey(tag),
  area: area.trim(),
  quantity,
  remark,
  quoteId: of.is === 'line' ? of.quote : null,
  lineOrigin: of.is === 'line' ? of.line : null,
  buildId: of.is === 'build' ? of.build : null,
  sku: of.is === 'item' ? of.sku : null,
  words: of.is === 'words' ? of.text : '',
});

/** Takes lines of a quote that are no positions yet, each under a tag made of its name. */
export const scheduleLines = (
  actor: Actor,
  id: string,
  { version, quote }: ScheduleLinesInput,
): Promise<Result<ScheduleView>> =>
  inTransaction(async () => {
    const held = await holdSchedule(actor, id, version);
    if (!held.ok) return held;
    const taken = await takeLines(actor, held.value, quote);
    if (!taken.ok) return taken;
    await touch(actor, held.value);
    await record(actor, 'schedule.lines', held.value.name, { lines: taken.value });
    return seeSchedule(actor, id);
  });

async function takeLines(actor: Actor, row: ScheduleRow, quoteId: string): Promise<Result<number>> {
  const quote = await findQuote(actor, quoteId);
  const state = quote && (await stateOf(quote));
  if (!quote || !state) return fail('missing', { code: 'quote.missing' });
  const before = await toldPositions(row.id);
  const there = new Set(
    before.flatMap(({ view: { of } }) => (of.is === 'line' && of.quote === quoteId ? of.line : [])),
  );
  const { items } = await reference();
  // What is done or licensed stands nowhere on a site.
  const stands = (sku: string): boolean => !['service', 'software'].includes(items.get(sku)?.kind ?? '');
  const lines = state.lines.filter(
    ({ origin, alternative, sku }) => !there.has(origin) && !alternative && stands(sku),
  );
  if (before.length + lines.length > mostPositions)
    return fail('invalid', { code: 'schedule.tooMany', params: { most: mostPositions } });
  const tags = before.map(({ view }) => view.tag);
  const rows = lines.map((line, at): SchedulePositionRow => {
    const [word = line.sku] = own(items.get(line.sku)?.name ?? {}, actor.language).split(/[\s,]+/);
    const [tag = ''] = freshTags(word.slice(0, 30) || line.sku, 1, tags);
    tags.push(tag);
    return positionRow(row.id, before.length + at + 1, {
      tag,
      area: line.groupName ?? '',
      quantity: String(line.quantity),
      remark: '',
      of: { is: 'line', quote: quoteId, line: line.origin },
    });
  });
  await writeMany(connected().records.schedulePositions, rows);
  return done(rows.length);
}
