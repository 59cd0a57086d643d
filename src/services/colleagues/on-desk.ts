/** What the Desk tells a person of colleagues: what is asked of them, what they were answered, what they meant to do. */

const most = 30;
/** Of what is farther away nobody is told yet. */
const daysAhead = 7;

const position = `(select l.position from quote_lines l join quote_revisions r on r.id = l.revision_id
        where r.quote_id = q.id and l.origin = n.line_origin order by r.number desc limit 1)`;
const about = `q.id as "quoteId", q.number, q.title,
       (select r.customer ->> 'name' from quote_revisions r where r.quote_id = q.id order by r.number desc limit 1) as customer`;

/**
 * What is asked of the person $1, or of whoever has their role, and answers to what they asked that they have not put
 * aside; a question at a line before a look, then the oldest.
 */
export const requestsSql = `select n.id, ${about}, n.kind,
       case when n.answered_at is null then 'open' else 'answered' end as state,
       u.name as who, left(coalesce(n.answer, n.words), 300) as words,
       coalesce(${position}, (n.line_named ->> 'position')::int) as line,
       to_char(coalesce(n.answered_at, n.made_at) at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at
     from quote_requests n join quotes q on q.id = n.quote_id join users u on u.id = coalesce(n.answered_by, n.made_by)
     where n.closed_at is null and case when n.answered_at is null
       then n.made_by <> $1 and (n.asked_of = $1 or n.role = (select role from users where id = $1))
       else n.made_by = $1 end
     order by n.answered_at is null, n.kind desc, n.number limit ${String(most)}`;

/** Days on which the person $1 wanted to come back to a quote, what is overdue first; $2 is today. */
export const followUpsSql = `select f.id, ${about}, to_char(f.day, 'YYYY-MM-DD') as day, f.words
     from follow_ups f join quotes q on q.id = f.quote_id
     where f.for_user = $1 and f.done_at is null and f.day <= $2::date + ${String(daysAhead)}
     order by f.day, f.number limit ${String(most)}`;
