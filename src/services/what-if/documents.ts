/** Open quotes and what was sold, as they are on a day and as they would be if something else were in force. */
import { literal, QueryTypes } from 'sequelize';
import type { WhatIfDocument, WhatIfQuery, WhatIfView } from '../../contract';
import { sumLines } from '../../core/pricing';
import { connected, type LineRow } from '../../data';
import type { JobAtWork } from '../kernel/jobs/kind';
import { counted, partsIn, priceAll, type QuoteParts, type Supposing } from '../quotes/figures/quote-pricing';
import { findAnyQuote, stateOf } from '../quotes/quote-state';
import { standingOf, type Measure } from '../quotes/sign-off/standing';
import { nameOf, reference } from '../settings/reference-data';

/** What is supposed: a price change in force, or other limits and policies. */
export interface Supposition extends Supposing {
  measure?: Measure;
}

interface Found {
  is: WhatIfDocument['at']['is'];
  id: string;
  number: string;
  quote: string;
  revision: number;
}

/** So many at once: while one waits for the database or an engine, another is worked out. */
const atOnce = 4;
const pageSize = 100;

const foundSql = `
  select 'quote' as is, q.id, q.number, q.id as quote, r.number as revision from quotes q
    join lateral (select * from quote_revisions v where v.quote_id = q.id order by v.number desc limit 1) r on true
    where r.state in ('draft', 'sent')
  union all
  select 'order', o.id, o.number, o.quote_id, r.number from orders o join quote_revisions r on r.id = o.revision_id
    where o.created_at > now() - interval '12 months'
  order by 1 desc, 3`;

/** Works out all of them on a day, and keeps a row of each under the job. Gives how many there are. */
export async function workOut(
  { id: job, progress }: Pick<JobAtWork, 'id'> & { progress: JobAtWork['progress'] },
  day: string,
  { orders, ...supposition }: Supposition & { orders: boolean },
): Promise<number> {
  const { sequelize, records } = connected();
  const found = (await sequelize.query<Found>(foundSql, { type: QueryTypes.SELECT })).filter(
    ({ is }) => orders || is === 'quote',
  );
  // Of an earlier try that was cut off nothing is left to go on from: prices may have moved on.
  await records.whatIfs.destroy({ where: { job } });
  let [next, count] = [0, 0];
  const work = async (): Promise<void> => {
    for (let at = next++; at < found.length; at = next++) {
      const row = await documentOn(found[at] as Found, day, supposition);
      if (row) await records.whatIfs.create({ job, position: at, verdict: row.is, row });
      count += 1;
      await progress({ done: count, of: found.length });
      // Somebody else may have waited while this one was priced.
      await new Promise((resolve) => setImmediate(resolve));
    }
  };
  await Promise.all(Array.from({ length: atOnce }, work));
  return found.length;
}

interface Side {
  net: string;
  margin: string | null;
  signs: string[];
  unsold: number;
}

async function documentOn(
  { is, id, number, quote: quoteId, revision }: Found,
  day: string,
  { change, measure }: Supposition,
): Promise<WhatIfDocument | null> {
  const quote = await findAnyQuote(quoteId);
  const state = quote && (await stateOf(quote, revision));
  if (!state) return null;
  const kept = await partsIn(state);
  // As if every line were priced on that day, also those that were settled.
  const lines = kept.lines.map((line): LineRow => ({ ...line, pricedOn: day, frozen: null }));
  const parts: QuoteParts = { ...kept, lines };
  const before = await sideOf(parts, {});
  const after = await sideOf(parts, { ...(change ? { change } : {}), ...(measure ? { measure } : {}) });
  const known = await reference();
  const more = after.signs.some((role) => !before.signs.includes(role)) || after.unsold > before.unsold;
  const same =
    before.net === after.net &&
    before.margin === after.margin &&
    before.unsold === after.unsold &&
    before.signs.join() === after.signs.join();
  return {
    is: more ? 'decide' : same ? 'same' : 'other',
    at: { is, id, number, title: kept.quote.title },
    customer: kept.revision.customer.name,
    owner: nameOf(known, kept.quote.ownerId),
    currency: kept.list.currency,
    decimals: kept.list.decimals,
    net: { before: before.net, after: after.net },
    margin: { before: before.margin, after: after.margin },
    signs: { before: before.signs, after: after.signs },
    unsold: { before: before.unsold, after: after.unsold },
  };
}

async function sideOf(parts: QuoteParts, { measure, ...supposing }: Supposition): Promise<Side> {
  const { lines: priced } = await priceAll(parts, supposing);
  const sold = counted(priced);
  const { net, margin } = sumLines(
    sold.map(({ price }) => price),
    parts.list.decimals,
  );
  const { needs } = await standingOf(parts, priced, measure);
  return {
    net,
    margin: margin ?? null,
    signs: needs.filter(({ held }) => !held).map(({ role }) => role),
    unsold: sold.filter(({ problems }) => problems.length > 0).length,
  };
}

/** A page of what a job worked out. */
export async function seeWhatIf(job: string, { is, page }: WhatIfQuery): Promise<WhatIfView> {
  const { records, sequelize } = connected();
  const { rows, count } = await records.whatIfs.findAndCountAll({
    where: { job, ...(is === undefined ? {} : { verdict: is }) },
    // What somebody must decide stands first, and what stays the same last.
    order: [
      [literal("array_position(array['decide', 'other', 'same'], verdict)"), 'ASC'],
      ['position', 'ASC'],
    ],
    limit: pageSize,
    offset: page * pageSize,
    raw: true,
  });
  const counts = { same: 0, other: 0, decide: 0 };
  const counted = await sequelize.query<{ verdict: WhatIfDocument['is']; count: number }>(
    'select verdict, count(*)::integer as count from what_ifs where job = $1 group by verdict',
    { bind: [job], type: QueryTypes.SELECT },
  );
  for (const each of counted) counts[each.verdict] = each.count;
  const sums = await sequelize.query<{ at: string } & WhatIfView['sold'][number]>(
    `select row -> 'at' ->> 'is' as at, row ->> 'currency' as currency, (row ->> 'decimals')::integer as decimals,
       sum((row -> 'net' ->> 'before')::numeric)::text as before, sum((row -> 'net' ->> 'after')::numeric)::text as after
     from what_ifs where job = $1 group by 1, 2, 3 order by 2`,
    { bind: [job], type: QueryTypes.SELECT },
  );
  const sumsOf = (wanted: string) => sums.flatMap(({ at, ...sum }) => (at === wanted ? [sum] : []));
  return {
    rows: rows.map(({ row }) => row as WhatIfDocument),
    page,
    size: pageSize,
    count,
    counts,
    sold: sumsOf('order'),
    open: sumsOf('quote'),
  };
}
