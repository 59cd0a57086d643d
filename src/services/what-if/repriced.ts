/** Open quotes of a person that a published price change leaves with something to decide. */

const most = 30;
/** Quotes are valid for less: what is older has been freshened or is over. */
const daysTold = 120;

/**
 * Reads them of the person $1, as `Repriced`: as it was worked out before the change was published, of quotes that still
 * stand on prices of before.
 */
export const repricedSql = `select q.id as "quoteId", q.number, q.title, coalesce(r.customer ->> 'name', '') as customer, c.id as change, c.name,
       c.in_force::text as "from", (w.row -> 'unsold' ->> 'after')::int as unsold,
       array(select a from json_array_elements_text(w.row -> 'signs' -> 'after') a
         where not exists (select 1 from json_array_elements_text(w.row -> 'signs' -> 'before') b where b = a)) as signs
     from price_changes c join what_ifs w on w.job = c.impact_job and w.verdict = 'decide'
       join quotes q on q.id = (w.row -> 'at' ->> 'id')::uuid
       join lateral (select * from quote_revisions v where v.quote_id = q.id order by v.number desc limit 1) r on true
     where c.state = 'published' and c.in_force > current_date - ${String(daysTold)}
       and w.row -> 'at' ->> 'is' = 'quote' and q.owner_id = $1 and r.state in ('draft', 'sent')
       and exists (select 1 from quote_lines l where l.revision_id = r.id and l.priced_on < c.in_force)
     order by c.in_force, q.number limit ${String(most)}`;
