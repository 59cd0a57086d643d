/** Open quotes of a person in which a published version of a model leaves something to decide. */
import type { ToDecide } from '../../contract';
import type { Actor } from '../access/actor';
import { reference } from '../settings/reference-data';

const most = 30;

/** A row of `toDecideSql`. */
export type DecideRow = Omit<ToDecide, 'model'> & { modelId: string };

/**
 * Reads them of the person $1: as it was worked out before the version was published, of builds that still stand on
 * another one. What was withdrawn asks for nothing.
 */
export const toDecideSql = `select q.id as "quoteId", q.number, q.title, coalesce(r.customer ->> 'name', '') as customer,
       v.model_id as "modelId", v.number as version, e.in_force::text as "from", e.note,
       (count(*) filter (where i.verdict = 'decide'))::int as decide,
       (count(*) filter (where i.verdict = 'lost'))::int as lost
     from model_drafts d
       join model_versions v on v.id = d.published_id join model_releases e on e.version_id = v.id
       join model_impacts i on i.draft_id = d.id and i.hash = d.impact_hash and i.verdict in ('decide', 'lost')
       join builds b on b.id = (i.row ->> 'build')::uuid and b.model_version_id <> v.id
       join quote_lines l on l.build_id = b.id join quote_revisions r on r.id = l.revision_id
       join quotes q on q.id = r.quote_id
     where e.withdrawn_at is null and q.owner_id = $1 and r.state in ('draft', 'sent')
       and i.row -> 'at' ->> 'is' = 'quote'
       and not exists (select 1 from quote_revisions n where n.quote_id = q.id and n.number > r.number)
       and not exists (
         select 1 from model_versions n join model_releases m on m.version_id = n.id
         where n.model_id = v.model_id and n.number > v.number and m.withdrawn_at is null)
     group by q.id, q.number, q.title, r.customer, v.model_id, v.number, e.in_force, e.note
     order by e.in_force, q.number limit ${String(most)}`;

/** What was read, as it is told to somebody. */
export async function toldToDecide(actor: Actor, rows: readonly DecideRow[]): Promise<ToDecide[]> {
  const { releases } = await reference();
  // What a version says of itself is said among colleagues.
  const inside = actor.role !== 'dealer';
  return rows.map(({ modelId, note, ...row }) => ({
    ...row,
    note: inside ? note : '',
    model: releases.get(modelId)?.[0]?.name ?? {},
  }));
}
