/** Quotes: opened, changed line by line, each change against the version the person saw. */
import { randomUUID } from 'node:crypto';
import { literal, Op } from 'sequelize';
import { exact } from '../core/exact';
import { plainMoney, plainPercent, typedOf, type ChangeQuoteInput, type LeaseInput, type NewQuoteInput, type QuoteLease, type QuoteRow as QuoteSummary, type QuoteView, type RevisionState } from '../core/quoting';
import { sumLines } from '../core/pricing';
import { connected, type LineRow, type QuoteRow, type RevisionRow, type Stored } from '../data';
import { may, refusal, type Actor } from './actor';
import { inDays, today } from './clock';
import { copyOf, ownCustomers } from './customers';
import { done, fail, type Result } from './failure';
import { counted, partsOf, priceAll, priceLines } from './quote-pricing';
import { viewOf } from './quote-view';
import { shownAs, signingIn, standingOf } from './standing';
import { remember, draftState } from './steps';
import { inTransaction, record } from './work';
import { isReference } from './reference';

/** How long a quote is valid, as long as nobody says otherwise. */
export const validDays = 60;

/** Opens a quote for a customer: price list, addresses, language and region come along. */
export async function openQuote(actor: Actor, { customerId, title }: NewQuoteInput): Promise<Result<QuoteView>> {
  return inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const { customers, quotes, revisions } = connected().records;
    const customer = await customers.findOne({ where: { id: customerId, ...ownCustomers(actor) } });
    if (!customer) return fail('invalid', { code: 'quote.unknownCustomer', field: 'customerId' });
    const number = await nextNumber('quote_numbers', 'Q');
    const quote = await quotes.create(
      { id: randomUUID(), number, title, customerId, ownerId: actor.id, version: 1, updatedAt: new Date(), updatedBy: actor.id },
    );
    await revisions.create(
      { id: randomUUID(), quoteId: quote.id, number: 1, state: 'draft', priceList: customer.priceList, customer: await copyOf(customer), validUntil: inDays(validDays), whole: null, madeBy: actor.id, settledAt: null, settledBy: null, lost: null, taxed: null, lease: null, resale: may(actor, 'resale') ? (actor.preferences.resale ?? '0') : null },
    );
    await record(actor, 'quote.opened', number, { customer: customer.number });
    return done(await viewOf(actor, quote));
  });
}

/** "Q-26-0042" from a sequence of the database. */
export async function nextNumber(sequence: 'quote_numbers' | 'order_numbers', letter: string): Promise<string> {
  const [rows] = await connected().sequelize.query(`select nextval('${sequence}') as number`);
  const [{ number }] = rows as [{ number: string }];
  return `${letter}-${today().slice(2, 4)}-${number.padStart(4, '0')}`;
}

/** The quotes an actor may see: a dealer's own, or all that are not a dealer's. */
const visible = (actor: Actor): Record<string, unknown> =>
  actor.role === 'dealer' ? { ownerId: actor.id } : { ownerId: { [Op.in]: literal("(select id from users where role <> 'dealer')") } };

/** A quote as an actor may see it; `lock` keeps others from changing it until the unit of work ends. */
export async function findQuote(actor: Actor, id: string, lock = false): Promise<Stored<QuoteRow> | null> {
  if (!isReference(id)) return null;
  return connected().records.quotes.findOne({ where: { id, ...visible(actor) }, ...(lock ? { lock: true } : {}) });
}


/** A quote as an actor may see it, in its newest revision or in the one asked for. */
export async function seeQuote(actor: Actor, id: string, number?: number): Promise<Result<QuoteView>> {
  const quote = await findQuote(actor, id);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  if (number !== undefined && !(await connected().records.revisions.findOne({ where: { quoteId: id, number } }))) return fail('missing', { code: 'revision.missing', params: { number } });
  return done(await viewOf(actor, quote, number));
}

/** What a change to a draft works on, once it may be made. */
export interface Draft {
  quote: QuoteRow;
  revision: RevisionRow;
}

export interface ChangeTerms {
  /** In which the newest revision may be. */
  states?: readonly RevisionState[];
  /** The change can be taken back. */
  steps?: boolean;
}

/** Lines of a draft, in their order. */
export const linesOf = ({ revision }: Draft): Promise<Stored<LineRow>[]> => connected().records.lines.findAll({ where: { revisionId: revision.id }, order: [['position', 'ASC']] });

/**
 * Makes a change to the newest revision of a quote in one transaction; to a draft, unless other states are named. Refused where the
 * actor may not, the revision stands otherwise, or another person changed it since the version given; the refusal names who and when.
 */
export async function changeQuote(
  actor: Actor, id: string, version: number, work: (draft: Draft) => Promise<Result<unknown>>, { states = ['draft'], steps = true }: ChangeTerms = {},
): Promise<Result<QuoteView>> {
  return inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const quote = await findQuote(actor, id, true);
    if (!quote) return fail('missing', { code: 'quote.missing' });
    const revision = await connected().records.revisions.findOne({ where: { quoteId: id }, order: [['number', 'DESC']] });
    if (!revision) throw new Error(`quote ${quote.number} has no revision`);
    const stale = await staleness(quote, version);
    if (!states.includes(revision.state)) return settled(quote, revision);
    if (stale) return stale;
    const before = steps && revision.state === 'draft' ? await draftState(revision.id) : null;
    const result = await work({ quote, revision });
    if (!result.ok) return result;
    if (before) await remember(actor, revision.id, before);
    await quote.update({ version: quote.version + 1, updatedAt: new Date(), updatedBy: actor.id });
    return done(await viewOf(actor, quote));
  });
}

async function settled(quote: QuoteRow, { state, number }: RevisionRow): Promise<Result<never>> {
  if (state !== 'accepted') return fail('conflict', { code: `revision.is.${state}`, params: { number } });
  const order = await connected().records.orders.findOne({ where: { quoteId: quote.id } });
  return fail('conflict', { code: 'quote.alreadyAccepted', params: { number: quote.number, order: order?.number ?? '' } });
}

async function staleness(quote: QuoteRow, version: number): Promise<Result<never> | null> {
  if (quote.version === version) return null;
  const who = await connected().records.users.findByPk(quote.updatedBy);
  return fail('conflict', { code: 'quote.stale', params: { who: who?.name ?? '', at: quote.updatedAt.toISOString() } });
}

const leaseOf = ({ months, yearlyRate, residual, inAdvance }: LeaseInput): QuoteLease => ({
  months, yearlyRate: exact(plainPercent(yearlyRate)).div(100).toString(), inAdvance, ...(residual === undefined ? {} : { residual: exact(plainMoney(residual)).toString() }),
});

/** Changes what is said of the whole quote: a discount, net price or margin, how long it is valid, its title, a lease beside the price. */
export async function changeWhole(actor: Actor, id: string, { version, whole, validUntil, title, lease, resale }: ChangeQuoteInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async ({ quote, revision }) => {
    if (whole && !may(actor, 'discount')) return fail('forbidden', { code: 'refused.permission', params: { permission: 'discount' } });
    if (resale !== undefined && !may(actor, 'resale')) return fail('forbidden', { code: 'refused.permission', params: { permission: 'resale' } });
    if (whole?.by === 'margin' && !may(actor, 'costs')) return fail('forbidden', { code: 'refused.permission', params: { permission: 'costs' } });
    if (validUntil !== undefined && validUntil < today()) return fail('invalid', { code: 'quote.validPast', field: 'validUntil' });
    const to: Partial<RevisionRow> = {
      ...(whole === undefined ? {} : { whole: whole && typedOf(whole) }), ...(validUntil === undefined ? {} : { validUntil }), ...(resale === undefined ? {} : { resale: exact(plainPercent(resale)).div(100).toString() }), ...(lease === undefined ? {} : { lease: lease && leaseOf(lease) }),
    };
    const from = Object.fromEntries(Object.keys(to).map((key) => [key, revision[key as keyof RevisionRow]]));
    if (Object.keys(to).length > 0) await connected().records.revisions.update(to, { where: { id: revision.id } });
    // The next quote begins with it.
    if (resale !== undefined) await connected().records.users.update({ preferences: { ...actor.preferences, resale: to.resale ?? '0' } }, { where: { id: actor.id } });
    if (title !== undefined) await connected().records.quotes.update({ title }, { where: { id: quote.id } });
    const { comes, lines } = await priceAll(await partsOf(quote));
    if (whole !== undefined && comes.is === 'impossible') return fail('invalid', { code: 'quote.whole', params: { why: comes.why }, field: 'whole' });
    const net = counted(lines).reduce((sum, { price }) => sum.plus(price.net), exact(0));
    if (to.lease?.residual !== undefined && net.lt(to.lease.residual)) return fail('invalid', { code: 'lease.residual', field: 'residual' });
    await record(actor, 'quote.changed', quote.number, { from: { ...from, ...(title === undefined ? {} : { title: quote.title }) }, to: { ...to, ...(title === undefined ? {} : { title }) } });
    if (title !== undefined) quote.title = title;
    return done(null);
  });
}

/** Quotes an actor may see, newest change first. */
export async function listQuotes(actor: Actor, limit = 200): Promise<QuoteSummary[]> {
  const { quotes, users } = connected().records;
  const rows = await quotes.findAll({ where: visible(actor), order: [['updatedAt', 'DESC']], limit });
  const names = new Map((await users.findAll({ attributes: ['id', 'name'], raw: true })).map((user) => [user.id, user.name]));
  return Promise.all(
    rows.map(async (quote) => {
      const parts = await partsOf(quote);
      const priced = await priceLines(parts);
      const { revision } = parts;
      const signing = revision.state === 'draft' ? signingIn(await standingOf(quote, revision, priced)) : undefined;
      return {
        id: quote.id, number: quote.number, title: quote.title, customer: revision.customer.name, owner: names.get(quote.ownerId) ?? '', state: shownAs(revision, priced, signing), revision: revision.number,
        net: sumLines(counted(priced).map((each) => each.price), parts.list.decimals).net, currency: parts.list.currency, decimals: parts.list.decimals, lines: priced.length,
        problems: priced.filter((each) => each.problems.length > 0).length, updatedAt: quote.updatedAt.toISOString(), validUntil: revision.validUntil, ...(signing && may(actor, 'costs') ? { signing } : {}),
      };
    }),
  );
}

