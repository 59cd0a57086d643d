/** What came from outside for a person: answers of customers, and mails that came back. */

const most = 30;
/** A mail that did not arrive is told of for so many days, unless another went out about the same since. */
const daysTold = 14;

/** Answers to what is of the person $1, or was shared by them, that nobody saw to yet; a yes first, then the newest. */
export const answeredSql = `select a.id, a.quote_id as "quoteId", s.build_id as "buildId",
       coalesce(q.number, b.outcome ->> 'partNumber', '') as number, coalesce(q.title, '') as title,
       coalesce(r.customer ->> 'name', b.priced_for -> 'customer' ->> 'name', '') as customer, a.answer, a.name, left(a.words, 300) as words,
       to_char(a.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at,
       coalesce(a.outcome ? 'waits', false) as waits
     from share_answers a join shares s on s.id = a.share_id left join quotes q on q.id = a.quote_id
       left join quote_revisions r on r.id = a.revision_id left join builds b on b.id = s.build_id
     where a.done_at is null and coalesce(q.owner_id, s.made_by) = $1
     order by a.answer = 'accepted' desc, a.number desc limit ${String(most)}`;

/** Mails of the person $1 that were refused, came back, or of which nobody knows. */
export const undeliveredSql = `select m.id, m.subject, coalesce(r.customer ->> 'name', c.name, '') as customer, m.state,
       array(select x ->> 'address' from jsonb_array_elements(m.refused || m.returned) x) as returned
     from mails m left join quote_revisions r on r.id = m.revision_id left join customers c on c.id = m.customer_id
     where m.made_by = $1 and m.made_at > now() - interval '${String(daysTold)} days'
       and (m.state in ('refused', 'unmade', 'unsure') or m.refused <> '[]' or m.returned <> '[]')
       and not exists (select 1 from mails n where n.number > m.number and n.made_by = m.made_by
         and n.quote_id is not distinct from m.quote_id and n.build_id is not distinct from m.build_id)
     order by m.number desc limit ${String(most)}`;
