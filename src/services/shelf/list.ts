/** The shelf as people look through it: by customer, by what was made, and whether that moved on since. */
import { QueryTypes } from 'sequelize';
import type { ShelfPage, ShelvedView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { visibleSql } from '../quotes/quote-state';

const pageSize = 50;

interface Found extends Omit<ShelvedView, 'quote' | 'build' | 'schedule' | 'movedOn' | 'madeAt'> {
  quoteId: string | null;
  quoteNumber: string | null;
  revision: number | null;
  newest: number | null;
  buildId: string | null;
  partNumber: string | null;
  buildStand: string | null;
  scheduleId: string | null;
  scheduleName: string | null;
  scheduleStand: string | null;
  stand: string;
  madeAt: Date;
  all: number;
}

/** What stands on the shelf, with what it was made of as that is by now. */
const shelfSql = `select s.id, s.name, s.type, c.size, s.hash, s.kind, s.stand, s.made_at as "madeAt",
    u.name as "madeBy", coalesce(r.customer ->> 'name', k.name, '') as customer,
    q.id as "quoteId", q.number as "quoteNumber", r.number as revision,
    (select max(n.number) from quote_revisions n where n.quote_id = s.quote_id) as newest,
    b.id as "buildId", b.outcome ->> 'partNumber' as "partNumber", 'build ' || b.version as "buildStand",
    h.id as "scheduleId", h.name as "scheduleName", 'schedule ' || h.version as "scheduleStand",
    (select count(*)::int from mail_documents d where d.shelf_id = s.id) as sent,
    count(*) over ()::int as all
  from shelf s join shelf_contents c on c.hash = s.hash join users u on u.id = s.made_by
    left join quotes q on q.id = s.quote_id left join quote_revisions r on r.id = s.revision_id
    left join builds b on b.id = s.build_id left join schedules h on h.id = s.schedule_id
    left join customers k on k.id = s.customer_id`;

/** What somebody sees: what is of a quote or schedule that they see, and else their own. */
const seenSql = (actor: Actor): string =>
  `case when q.id is not null then ${visibleSql(actor)} when h.id is not null then ${visibleSql(actor, 'h.owner_id')}
     else s.made_by = ${connected().sequelize.escape(actor.id)} end`;

const viewOf = (row: Found): ShelvedView => ({
  id: row.id,
  name: row.name,
  type: row.type,
  size: row.size,
  hash: row.hash,
  kind: row.kind,
  customer: row.customer,
  quote:
    row.quoteId === null || row.quoteNumber === null
      ? null
      : { id: row.quoteId, number: row.quoteNumber, revision: row.revision },
  build: row.buildId === null ? null : { id: row.buildId, number: row.partNumber ?? '' },
  schedule: row.scheduleId === null ? null : { id: row.scheduleId, name: row.scheduleName ?? '' },
  madeBy: row.madeBy,
  madeAt: row.madeAt.toISOString(),
  sent: row.sent,
  movedOn: movedOn(row),
});

/** A quotation is of its revision for ever; what was made of a build or a schedule is of it as it stood. */
function movedOn({ kind, stand, revision, newest, buildStand, scheduleStand }: Found): boolean {
  switch (kind) {
    case 'quotation':
      return revision !== null && newest !== null && newest > revision;
    case 'specification':
    case 'drawings':
      return buildStand !== null && stand !== buildStand;
    case 'package':
      return scheduleStand !== null && stand !== scheduleStand;
    default:
      return false;
  }
}

/** All that was made, of a customer where one is named, by any part of its names; the newest first. */
export async function seeShelf(
  actor: Actor,
  { find = '', page = 0, customer }: { find?: string; page?: number; customer?: string | undefined } = {},
): Promise<ShelfPage> {
  const rows = await connected().sequelize.query<Found>(
    `${shelfSql} where ${seenSql(actor)} and ($2::uuid is null or coalesce(q.customer_id, s.customer_id) = $2)
       and ($1 = '' or concat_ws(' ', s.name, r.customer ->> 'name', k.name, q.number, h.name, b.outcome ->> 'partNumber')
         ilike '%' || $1 || '%')
     order by s.made_at desc, s.id limit ${String(pageSize)} offset ${String(page * pageSize)}`,
    { bind: [find.trim().replace(/[\\%_]/g, '\\$&'), customer ?? null], type: QueryTypes.SELECT },
  );
  return { rows: rows.map(viewOf), page, size: pageSize, count: rows[0]?.all ?? 0 };
}

/** One of them, where the actor sees it. */
export async function seeShelved(actor: Actor, id: string): Promise<ShelvedView | null> {
  const [row] = await connected().sequelize.query<Found>(
    `${shelfSql} where s.id = $1 and ${seenSql(actor)}`,
    {
      bind: [id],
      type: QueryTypes.SELECT,
    },
  );
  return row ? viewOf(row) : null;
}

/** What was made of a quote, a build or a schedule, as far as the actor sees it; the newest first. */
export async function madeOf(
  actor: Actor,
  of: 'quote_id' | 'build_id' | 'schedule_id',
  id: string,
): Promise<ShelvedView[]> {
  const rows = await connected().sequelize.query<Found>(
    `${shelfSql} where s.${of} = $1 and ${seenSql(actor)} order by s.made_at desc, s.id limit 200`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows.map(viewOf);
}
