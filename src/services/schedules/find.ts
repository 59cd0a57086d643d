/** Schedules as an actor may see and change them. */
import { QueryTypes } from 'sequelize';
import type { NewScheduleInput, SchedulePage, ScheduleRowView } from '../../contract';
import { connected, type ScheduleRow } from '../../data';
import { may, refusal, type Actor } from '../access/actor';
import { ownCustomers } from '../customers/customers';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { visibleSql } from '../quotes/quote-state';
import { nameOf, reference } from '../settings/reference-data';

const pageSize = 50;

/** A schedule that the actor sees: one of the house's, or a dealer's own. In a unit of work it is held. */
export async function findSchedule(actor: Actor, id: string): Promise<ScheduleRow | null> {
  if (!isReference(id)) return null;
  const [row] = await connected().sequelize.query<{ id: string }>(
    `select s.id from schedules s where s.id = $1 and ${visibleSql(actor, 's.owner_id')}
     ${connected().within() ? 'for update of s' : ''}`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return row ? connected().records.schedules.findByPk(row.id, { raw: true }) : null;
}

/** One that the actor may change, as it was when they saw it; refused with who changed it meanwhile. */
export async function holdSchedule(actor: Actor, id: string, version: number): Promise<Result<ScheduleRow>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const found = await findSchedule(actor, id);
  if (!found) return fail('missing', { code: 'schedule.missing' });
  if (found.version === version) return done(found);
  return fail('conflict', {
    code: found.updatedBy === actor.id ? 'schedule.staleOwn' : 'schedule.stale',
    params: { who: nameOf(await reference(), found.updatedBy) },
  });
}

/** Writes that it is another by now. */
export const touch = (actor: Actor, { id, version }: ScheduleRow, change: Partial<ScheduleRow> = {}) =>
  connected().records.schedules.update(
    { ...change, version: version + 1, updatedAt: new Date(), updatedBy: actor.id },
    { where: { id } },
  );

/** The customer of a schedule, where the actor may sell to them; null for none. */
export async function customerOf(
  actor: Actor,
  id: NewScheduleInput['customer'],
): Promise<Result<string | null>> {
  if (id === null || id === undefined) return done(null);
  const row = await connected().records.customers.findOne({
    where: { id, ...ownCustomers(actor) },
    attributes: ['id'],
    raw: true,
  });
  return row ? done(row.id) : fail('invalid', { code: 'quote.unknownCustomer', field: 'customer' });
}

/** Schedules by any part of their names, sites and customers, the last changed first. */
export async function listSchedules(
  actor: Actor,
  { find = '', page = 0 }: { find?: string; page?: number } = {},
): Promise<SchedulePage> {
  const rows = await connected().sequelize.query<
    Omit<ScheduleRowView, 'updatedAt'> & { updatedAt: Date; all: number }
  >(
    `select s.id, s.name, s.site, coalesce(c.name, '') as customer, u.name as owner, s.updated_at as "updatedAt",
       (select count(*)::int from schedule_positions p where p.schedule_id = s.id) as positions,
       count(*) over ()::int as all
     from schedules s join users u on u.id = s.owner_id left join customers c on c.id = s.customer_id
     where ${visibleSql(actor, 's.owner_id')}
       and ($1 = '' or concat_ws(' ', s.name, s.site, c.name) ilike '%' || $1 || '%')
     order by s.updated_at desc, s.id limit ${String(pageSize)} offset ${String(page * pageSize)}`,
    { bind: [find.trim().replace(/[\\%_]/g, '\\$&')], type: QueryTypes.SELECT },
  );
  return {
    rows: rows.map(({ all: _, ...row }) => ({ ...row, updatedAt: row.updatedAt.toISOString() })),
    page,
    size: pageSize,
    count: rows[0]?.all ?? 0,
  };
}

/** Whether the actor may change schedules at all. */
export const mayKeep = (actor: Actor): boolean => may(actor, 'quotes');
