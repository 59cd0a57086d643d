/**
 * A quote as it is kept, read with few queries: of what a server has read before, it only asks whether it is
 * still the same. The database tells so by itself, for each version of a row has a place and a maker of its
 * own, so nothing that changes a row can forget to say it.
 */
import { literal, QueryTypes, type FindOptions } from 'sequelize';
import {
  connected,
  type BuildRow,
  type CustomerClass,
  type LineRow,
  type QuoteRow,
  type RevisionRow,
  type SignOffRow,
  type Table,
} from '../../data';
import type { Actor } from '../access/actor';
import type { Buyer } from '../settings/grants';
import { isReference } from '../kernel/reference';
import { Recent } from '../kernel/threads/recent';

/** A quote, and the dealer whose customer it is for. */
export interface QuoteBase extends QuoteRow {
  updatedAt: Date;
  dealer: { id: string; class: CustomerClass; name: string } | null;
}

/** All that is kept of a quote in one of its revisions. */
export interface QuoteState {
  quote: QuoteBase;
  /** The newest first. */
  revisions: readonly RevisionRow[];
  revision: RevisionRow;
  /** In their order. */
  lines: readonly LineRow[];
  builds: ReadonlyMap<string, BuildRow>;
  signOffs: readonly SignOffRow[];
  /** Tells a row from what it was before, by its id: the same text for the same version of the row. */
  tagOf: (id: string) => string;
}

interface Tagged<T> {
  tag: string;
  row: T;
}

/** Rows by id, as they were read last. */
class Rows<T extends { id: string }> {
  private readonly all = new Map<string, Tagged<T>>();

  constructor(private readonly table: () => Table<T>) {}

  /** Rows of these ids and tags; what is not the same any more is read. */
  async of(tags: readonly { id: string; tag: string }[]): Promise<T[]> {
    const other = tags.filter(({ id, tag }) => this.all.get(id)?.tag !== tag).map(({ id }) => id);
    const fresh = new Map<string, T>();
    if (other.length > 0) {
      const rows = (await this.table().findAll({
        where: { id: other },
        attributes: { include: [[literal(tagSql), 'tag']] },
        raw: true,
      } as unknown as FindOptions)) as unknown as (T & { tag: string })[];
      for (const { tag, ...row } of rows) {
        const kept = row as unknown as T;
        fresh.set(kept.id, kept);
        this.all.set(kept.id, { tag, row: kept });
      }
    }
    const wanted = new Set(tags.map(({ id }) => id));
    for (const id of this.all.keys()) if (!wanted.has(id)) this.all.delete(id);
    // Another request may have let go of a row meanwhile that this one has just read.
    return tags.flatMap(({ id }) => fresh.get(id) ?? this.all.get(id)?.row ?? []);
  }
}

const tagSql = "xmin::text || '.' || ctid::text";

/** Of one revision. */
class KeptRows {
  readonly lines = new Rows<LineRow>(() => connected().records.lines);
  readonly builds = new Rows<BuildRow>(() => connected().records.builds);
  readonly revisions = new Rows<RevisionRow>(() => connected().records.revisions);
  readonly signOffs = new Rows<SignOffRow>(() => connected().records.signOffs);
}

/** By revision; a line counts as one. */
const kept = new Recent<KeptRows>(40_000);

/** SQL by which an actor sees quotes `q`: a dealer's own, or all that are not a dealer's. */
export const visibleSql = (actor: Actor, owner = 'q.owner_id'): string =>
  actor.role === 'dealer'
    ? `${owner} = ${connected().sequelize.escape(actor.id)}`
    : `${owner} in (select id from users where role <> 'dealer')`;

/** A quote by a condition over quotes `q`. */
async function baseBy(condition: string, id: string, lock: boolean): Promise<QuoteBase | null> {
  const [row] = await connected().sequelize.query<
    Omit<QuoteBase, 'dealer'> & { dealerOf: string | null; dealerClass: CustomerClass; dealerName: string }
  >(
    `select q.id, q.number, q.title, q.customer_id as "customerId", q.owner_id as "ownerId", q.version, q.created_at as "createdAt", q.updated_at as "updatedAt", q.updated_by as "updatedBy",
      d.id as "dealerOf", d.class as "dealerClass", d.name as "dealerName"
     from quotes q join customers c on c.id = q.customer_id left join customers d on d.id = c.dealer_id where q.id = $1 and ${condition} ${lock ? 'for update of q' : ''}`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  if (!row) return null;
  const { dealerOf, dealerClass, dealerName, ...quote } = row;
  return {
    ...quote,
    dealer: dealerOf === null ? null : { id: dealerOf, class: dealerClass, name: dealerName },
  };
}

/** A quote as an actor may see it. */
export const findQuote = async (actor: Actor, id: string): Promise<QuoteBase | null> =>
  isReference(id) ? baseBy(visibleSql(actor), id, false) : null;

/** The same, kept from being changed by others until the end of the unit of work. */
export const holdQuote = async (actor: Actor, id: string): Promise<QuoteBase | null> =>
  isReference(id) ? baseBy(visibleSql(actor), id, true) : null;

/** Any quote, for what may be seen of it by whoever may see its order. */
export const findAnyQuote = (id: string): Promise<QuoteBase | null> => baseBy('true', id, false);

/** Any quote, held; for what the server does by itself. */
export const holdAnyQuote = (id: string): Promise<QuoteBase | null> => baseBy('true', id, true);

/** Who buys on a quote: the customer, or the dealer whose customer it is. */
export const buyerOf = ({ customerId, dealer }: QuoteBase, { customer, priceList }: RevisionRow): Buyer =>
  dealer
    ? { id: dealer.id, class: dealer.class, priceList }
    : { id: customerId, class: customer.class, priceList };

interface TagRow {
  kind: 'revision' | 'line' | 'build' | 'signOff';
  id: string;
  at: number;
  tag: string;
}

/**
 * What is kept of a quote, in its newest revision or in the one of a number; null where there is no such
 * revision.
 */
export async function stateOf(quote: QuoteBase, number?: number): Promise<QuoteState | null> {
  const tags = await connected().sequelize.query<TagRow>(
    `with own as (select id from quote_revisions where quote_id = $1 ${number === undefined ? 'order by number desc limit 1' : 'and number = $2'})
     select 'revision' as kind, id, number as at, ${tagSql} as tag from quote_revisions where quote_id = $1
     union all select 'line', l.id, l.position, l.${tagSql.replace('ctid', 'l.ctid')} from quote_lines l join own on own.id = l.revision_id
     union all select 'build', b.id, 0, b.${tagSql.replace('ctid', 'b.ctid')} from builds b join own on own.id = b.revision_id
     union all select 'signOff', s.id, 0, s.${tagSql.replace('ctid', 's.ctid')} from sign_offs s join own on own.id = s.revision_id`,
    { bind: number === undefined ? [quote.id] : [quote.id, number], type: QueryTypes.SELECT },
  );
  const of = (kind: TagRow['kind']) => tags.filter((each) => each.kind === kind);
  const own = of('revision').sort((a, b) => b.at - a.at);
  const head = number === undefined ? own[0] : own.find(({ at }) => at === number);
  if (!head) return null;
  const rows = kept.get(head.id) ?? new KeptRows();
  kept.set(head.id, rows, tags.length + 10);
  const revisions = await rows.revisions.of(own);
  const revision = revisions.find(({ id }) => id === head.id);
  if (!revision) return null;
  const lines = await rows.lines.of(of('line').sort((a, b) => a.at - b.at));
  const builds = await rows.builds.of(of('build'));
  const signOffs = await rows.signOffs.of(of('signOff'));
  const byId = new Map(tags.map(({ id, tag }) => [id, tag]));
  return {
    quote,
    revisions,
    revision,
    lines,
    builds: new Map(builds.map((build) => [build.id, build])),
    signOffs: [...signOffs].sort(
      (a, b) => (a.askedAt?.getTime() ?? 0) - (b.askedAt?.getTime() ?? 0) || (a.id < b.id ? -1 : 1),
    ),
    tagOf: (id) => byId.get(id) ?? '',
  };
}
