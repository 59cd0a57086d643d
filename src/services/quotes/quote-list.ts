/**
 * Lists of quotes: found, sorted and counted by the database, a page at a time, from what is kept with each
 * revision.
 */
import { QueryTypes } from 'sequelize';
import { Exact } from '../../core/exact';
import { quoteListInput, type QuoteListQuery, type QuotePage, type QuoteRow } from '../../contract';
import { type ShownState } from '../../core/quotes';
import { connected } from '../../data';
import { may, type Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { forgiving, wordConditions, type Likeness } from '../kernel/finding';
import { refreshBehind, refreshFacts } from './figures/quote-facts';
import { visibleSql } from './quote-state';
import { nameOf, reference } from '../settings/reference-data';

/** Rows of a page. */
export const pageSize = 100;

/** As `shownState` of the core says, from what is kept; $1 is today. */
const shownSql = `case when r.state = 'draft' then case when f.signing = 'asked' then 'signOff' when f.sendable and f.signing is null then 'ready' else 'draft' end
  when r.state = 'sent' and r.valid_until < $1::date then 'expired' else r.state end`;

/**
 * Quotes `q` with their newest revision `r`, its facts `f`, its list `l` and their owner `o`. Facts are
 * looked up one by one: however few rows a word is thought to find, joining them whole for each row takes
 * seconds where it finds many.
 */
export const quotesSql = `quotes q join lateral (select * from quote_revisions v where v.quote_id = q.id order by v.number desc limit 1) r on true
  left join lateral (select * from revision_facts w where w.revision_id = r.id limit 1) f on true join price_lists l on l.code = r.price_list join users o on o.id = q.owner_id`;

const sortable: Readonly<Record<QuoteListQuery['sort'], string>> = {
  number: 'q.number',
  customer: `r.customer ->> 'name'`,
  title: 'q.title',
  owner: 'o.name',
  state: 'shown',
  lines: 'f.line_count',
  net: 'f.net',
  changed: 'q.updated_at',
};

interface Row extends Omit<QuoteRow, 'updatedAt' | 'owner' | 'signing'> {
  updatedAt: Date;
  ownerId: string;
  signing: 'needed' | 'asked' | null;
  stamp: string | null;
  draft: boolean;
  revisionId: string;
  count: string;
}

/** Quotes an actor may see. */
export async function listQuotes(
  actor: Actor,
  asked: Partial<QuoteListQuery> = {},
  only?: Likeness,
): Promise<QuotePage> {
  const query = quoteListInput.cast(asked);
  const rows = await rowsOf(actor, query, only);
  const known = await reference();
  const stale = rows.filter(({ stamp, draft }) => stamp === null || (draft && stamp !== known.stamp));
  if (stale.length > 0) {
    // Prices or limits changed since: what is shown is put right at once, the rest behind it.
    await refreshFacts(stale.map(({ revisionId, id }) => ({ id: revisionId, quoteId: id })));
    refreshBehind();
    return pageOf(actor, query, await rowsOf(actor, query, only));
  }
  return pageOf(actor, query, rows);
}

async function pageOf(actor: Actor, { page }: QuoteListQuery, rows: readonly Row[]): Promise<QuotePage> {
  const known = await reference();
  return {
    page,
    size: pageSize,
    count: Number(rows[0]?.count ?? 0),
    rows: rows.map(
      ({
        updatedAt,
        ownerId,
        signing,
        stamp: _stamp,
        draft: _draft,
        revisionId: _revision,
        count: _count,
        net,
        ...row
      }): QuoteRow => ({
        ...row,
        net: new Exact(net).toString(),
        owner: nameOf(known, ownerId),
        mine: ownerId === actor.id,
        updatedAt: updatedAt.toISOString(),
        ...(signing && may(actor, 'costs') ? { signing } : {}),
      }),
    ),
  };
}

const rowsOf = (actor: Actor, query: QuoteListQuery, only?: Likeness): Promise<Row[]> =>
  forgiving(query.find, (likeness) => rowsLike(actor, query, likeness), only);

function rowsLike(
  actor: Actor,
  { find, states, mine, sort, descending, page }: QuoteListQuery,
  likeness: Likeness,
): Promise<Row[]> {
  const bind: unknown[] = [today()];
  const bound = (value: unknown): string => `$${String(bind.push(value))}`;
  const where = [
    visibleSql(actor),
    ...(mine ? [`q.owner_id = ${bound(actor.id)}`] : []),
    ...wordConditions(find, likeness, bound, ['q.number', 'q.title', `(r.customer ->> 'name')`, 'o.name']),
    ...(states.length > 0 ? [`${shownSql} = any(${bound(states)}::text[])`] : []),
  ];
  return connected()
    .sequelize.query<Row>(
      `select q.id, q.number, q.title, r.customer ->> 'name' as customer, q.owner_id as "ownerId", ${shownSql} as state, ${shownSql} as shown, r.number as revision, coalesce(f.net, 0) as net, l.currency, l.decimals,
       coalesce(f.line_count, 0) as lines, coalesce(f.problem_count, 0) as problems, f.signing, f.stamp, r.state = 'draft' as draft, r.id as "revisionId", q.updated_at as "updatedAt", r.valid_until::text as "validUntil", count(*) over () as count
     from ${quotesSql} where ${where.join(' and ')} order by ${sortable[sort]} ${descending ? 'desc' : 'asc'} nulls last, q.id limit ${String(pageSize)} offset ${String(page * pageSize)}`,
      { bind, type: QueryTypes.SELECT },
    )
    .then((rows) => rows.map(({ shown: _shown, ...row }: Row & { shown?: ShownState }) => row));
}

/**
 * What of a year's quota is won and open, in EUR, over all quotes: of one owner, or of all that an actor
 * sees.
 */
export async function quotaSums(actor: Actor, owner: string | null): Promise<{ won: Exact; open: Exact }> {
  const [row] = await connected().sequelize.query<{ won: string; open: string }>(
    `select coalesce(sum(f.net / l.cost_rate) filter (where r.state = 'accepted' and r.settled_at >= date_trunc('year', $1::date)), 0) as won,
       coalesce(sum(f.net / l.cost_rate) filter (where ${shownSql} in ('draft', 'signOff', 'ready', 'sent')), 0) as open
     from ${quotesSql} where ${visibleSql(actor)} and ($2::uuid is null or q.owner_id = $2::uuid)`,
    { bind: [today(), owner], type: QueryTypes.SELECT },
  );
  return { won: new Exact(row?.won ?? '0'), open: new Exact(row?.open ?? '0') };
}
