/** Quotes: opened, changed line by line, each change against the version the person saw. */
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { exact } from '../core/exact';
import { plainMoney, typedOf, type ChangeLineInput, type ChangeQuoteInput, type NewQuoteInput, type PlaceLineInput, type QuoteRow as QuoteSummary, type QuoteView } from '../core/quoting';
import { sumLines, tooShort } from '../core/pricing';
import { connected, type LineRow, type QuoteRow, type RevisionRow, type Stored } from '../data';
import { may, refusal, type Actor } from './actor';
import { inDays, today } from './clock';
import { copyOf, ownCustomers } from './customers';
import { done, fail, type Result } from './failure';
import { counted, partsOf, priceAll, priceLines } from './quote-pricing';
import { viewOf } from './quote-view';
import { signingOf } from './standing';
import { entriesOf } from './tariffs';
import { inTransaction, record } from './work';

const validDays = 60;

/** Opens a quote for a customer: price list, addresses, language and region come along. */
export async function openQuote(actor: Actor, { customerId, title }: NewQuoteInput): Promise<Result<QuoteView>> {
  return inTransaction(async (transaction) => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const { customers, quotes, revisions } = connected().records;
    const customer = await customers.findOne({ where: { id: customerId, ...ownCustomers(actor) }, transaction });
    if (!customer) return fail('invalid', { code: 'quote.unknownCustomer', field: 'customerId' });
    const number = await nextNumber('quote_numbers', 'Q', transaction);
    const quote = await quotes.create(
      { id: randomUUID(), number, title, customerId, ownerId: actor.id, version: 1, updatedAt: new Date(), updatedBy: actor.id },
      { transaction },
    );
    await revisions.create(
      { id: randomUUID(), quoteId: quote.id, number: 1, state: 'draft', priceList: customer.priceList, customer: await copyOf(customer), validUntil: inDays(validDays), whole: null },
      { transaction },
    );
    await record(actor, 'quote.opened', number, { customer: customer.number }, transaction);
    return done(await viewOf(actor, quote, transaction));
  });
}

/** "Q-26-0042" from a sequence of the database. */
export async function nextNumber(sequence: 'quote_numbers' | 'order_numbers', letter: string, transaction: Transaction): Promise<string> {
  const [rows] = await connected().sequelize.query(`select nextval('${sequence}') as number`, { transaction });
  const [{ number }] = rows as [{ number: string }];
  return `${letter}-${today().slice(2, 4)}-${number.padStart(4, '0')}`;
}

/** The quotes an actor may see: a dealer's own, or all that are not a dealer's. */
async function visible(actor: Actor): Promise<Record<string, unknown>> {
  if (actor.role === 'dealer') return { ownerId: actor.id };
  const dealers = await connected().records.users.findAll({ where: { role: 'dealer' }, attributes: ['id'], raw: true });
  const ids = new Set(dealers.map((dealer) => dealer.id));
  const all = await connected().records.users.findAll({ attributes: ['id'], raw: true });
  return { ownerId: all.map((user) => user.id).filter((id) => !ids.has(id)) };
}

export async function findQuote(actor: Actor, id: string, transaction: Transaction | null = null, lock = false): Promise<Stored<QuoteRow> | null> {
  if (!uuid.test(id)) return null;
  return connected().records.quotes.findOne({ where: { id, ...(await visible(actor)) }, transaction, ...(lock && transaction ? { lock: transaction.LOCK.UPDATE } : {}) });
}

/** What a reference looks like; the database refuses anything else. */
export const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export async function seeQuote(actor: Actor, id: string): Promise<Result<QuoteView>> {
  const quote = await findQuote(actor, id);
  return quote ? done(await viewOf(actor, quote)) : fail('missing', { code: 'quote.missing' });
}

/** What a change to a draft works on, once it may be made. */
export interface Draft {
  quote: QuoteRow;
  revision: RevisionRow;
}

/**
 * Makes a change to a draft quote in one transaction. Refused where the actor may not, the quote is settled, or another
 * person changed it since the version given; the refusal names who and when.
 */
export async function changeQuote(actor: Actor, id: string, version: number, work: (draft: Draft, transaction: Transaction) => Promise<Result<unknown>>): Promise<Result<QuoteView>> {
  return inTransaction(async (transaction) => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const quote = await findQuote(actor, id, transaction, true);
    if (!quote) return fail('missing', { code: 'quote.missing' });
    const revision = await connected().records.revisions.findOne({ where: { quoteId: id }, order: [['number', 'DESC']], transaction });
    if (!revision) throw new Error(`quote ${quote.number} has no revision`);
    const stale = await staleness(quote, version, transaction);
    if (revision.state !== 'draft') return settled(quote, transaction);
    if (stale) return stale;
    const result = await work({ quote, revision }, transaction);
    if (!result.ok) return result;
    await quote.update({ version: quote.version + 1, updatedAt: new Date(), updatedBy: actor.id }, { transaction });
    return done(await viewOf(actor, quote, transaction));
  });
}

async function settled(quote: QuoteRow, transaction: Transaction): Promise<Result<never>> {
  const order = await connected().records.orders.findOne({ where: { quoteId: quote.id }, transaction });
  return fail('conflict', { code: 'quote.alreadyAccepted', params: { number: quote.number, order: order?.number ?? '' } });
}

async function staleness(quote: QuoteRow, version: number, transaction: Transaction): Promise<Result<never> | null> {
  if (quote.version === version) return null;
  const who = await connected().records.users.findByPk(quote.updatedBy, { transaction });
  return fail('conflict', { code: 'quote.stale', params: { who: who?.name ?? '', at: quote.updatedAt.toISOString() } });
}

export async function appendLine({ revision }: Draft, line: Pick<LineRow, 'sku' | 'quantity' | 'buildId'> & Partial<Omit<LineRow, 'id' | 'revisionId' | 'position' | 'frozen'>>, transaction: Transaction): Promise<LineRow> {
  const { lines } = connected().records;
  const last = (await lines.max('position', { where: { revisionId: revision.id }, transaction })) as number | null;
  return lines.create({ id: randomUUID(), revisionId: revision.id, position: (last ?? 0) + 1, hand: null, locked: false, optional: false, term: null, typedPrice: null, frozen: null, alternative: false, ...line }, { transaction });
}

/** Changes what is typed on a line. */
export async function changeLine(actor: Actor, id: string, lineId: string, { version, quantity, hand, price, ...others }: ChangeLineInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft, transaction) => {
    const line = await lineOf(draft, lineId, transaction);
    if (!line) return fail('missing', { code: 'line.missing' });
    const item = await connected().records.items.findByPk(line.sku, { transaction });
    if (hand && !item?.discountable) return fail('invalid', { code: 'line.notDiscountable', params: { sku: line.sku }, field: 'hand' });
    if (hand?.by === 'margin' && !may(actor, 'costs')) return fail('forbidden', { code: 'refused.permission', params: { permission: 'costs' } });
    const { entry, every } = (await entriesOf(draft.revision.priceList, [line.sku], transaction)).get(line.sku) ?? {};
    if (price !== undefined && (line.buildId !== null || entry?.method !== 'hand')) return fail('invalid', { code: 'line.priceNotTyped', field: 'price' });
    if (others.term && (line.buildId !== null || !every)) return fail('invalid', { code: 'line.notRecurring', field: 'term' });
    if (others.term && every && tooShort(every, others.term)) return fail('invalid', { code: 'line.tooShort', params: { months: every.leastMonths ?? 0 }, field: 'term' });
    const changes: Partial<LineRow> = {
      ...(quantity === undefined ? {} : { quantity }),
      ...(hand === undefined ? {} : { hand: hand && typedOf(hand) }),
      ...(price === undefined ? {} : { typedPrice: exact(plainMoney(price)).toString() }),
      ...Object.fromEntries(Object.entries(others).filter(([, value]) => value !== undefined)),
    };
    const from = Object.fromEntries(Object.keys(changes).map((key) => [key, line[key as keyof LineRow]]));
    await line.update(changes, { transaction });
    // What would be priced, tried on all that the line now says.
    const [refusedPrice] = (await priceLines(await partsOf(draft.quote, transaction), transaction)).filter((each) => each.line.id === line.id).flatMap(({ problems }) => problems.filter(({ code }) => code === 'line.outside' || code === 'line.hand'));
    if (refusedPrice) return fail('invalid', { ...refusedPrice, field: refusedPrice.code === 'line.outside' ? 'quantity' : 'hand' });
    await record(actor, 'line.changed', draft.quote.number, { line: line.position, from, to: { ...changes } }, transaction);
    return done(null);
  });
}

/** Types a discount, net price or margin for the whole quote, or takes it back. */
export async function changeWhole(actor: Actor, id: string, { version, whole }: ChangeQuoteInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async ({ quote, revision }, transaction) => {
    if (whole?.by === 'margin' && !may(actor, 'costs')) return fail('forbidden', { code: 'refused.permission', params: { permission: 'costs' } });
    const typed = whole && typedOf(whole);
    const from = revision.whole;
    await connected().records.revisions.update({ whole: typed }, { where: { id: revision.id }, transaction });
    const { comes } = await priceAll(await partsOf(quote, transaction), transaction);
    if (comes.is === 'impossible') return fail('invalid', { code: 'quote.whole', params: { why: comes.why }, field: 'whole' });
    await record(actor, 'quote.changed', quote.number, { from: { whole: from }, to: { whole: typed } }, transaction);
    return done(null);
  });
}

/** Moves a line to another place, counted from 1; beyond the last it is the last. The others close up. */
export async function placeLine(actor: Actor, id: string, lineId: string, { version, to }: PlaceLineInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft, transaction) => {
    const line = await lineOf(draft, lineId, transaction);
    if (!line) return fail('missing', { code: 'line.missing' });
    const rows = await connected().records.lines.findAll({ where: { revisionId: draft.revision.id }, order: [['position', 'ASC']], transaction });
    const others = rows.filter((row) => row.id !== line.id);
    const order = [...others.slice(0, to - 1), line, ...others.slice(to - 1)];
    await record(actor, 'line.moved', draft.quote.number, { sku: line.sku, from: line.position, to: order.indexOf(line) + 1 }, transaction);
    for (const [index, row] of order.entries()) if (row.position !== index + 1) await row.update({ position: index + 1 }, { transaction });
    return done(null);
  });
}

export async function removeLine(actor: Actor, id: string, lineId: string, version: number): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft, transaction) => {
    const line = await lineOf(draft, lineId, transaction);
    if (!line) return fail('missing', { code: 'line.missing' });
    await line.destroy({ transaction });
    await record(actor, 'line.removed', draft.quote.number, { sku: line.sku, quantity: line.quantity }, transaction);
    return done(null);
  });
}

export async function lineOf({ revision }: Draft, lineId: string, transaction: Transaction) {
  return uuid.test(lineId) ? connected().records.lines.findOne({ where: { id: lineId, revisionId: revision.id }, transaction }) : null;
}

/** Quotes an actor may see, newest change first. */
export async function listQuotes(actor: Actor, limit = 200): Promise<QuoteSummary[]> {
  const { quotes, users } = connected().records;
  const rows = await quotes.findAll({ where: await visible(actor), order: [['updatedAt', 'DESC']], limit });
  const names = new Map((await users.findAll({ attributes: ['id', 'name'], raw: true })).map((user) => [user.id, user.name]));
  return Promise.all(
    rows.map(async (quote) => {
      const parts = await partsOf(quote);
      const priced = await priceLines(parts);
      const signing = parts.revision.state === 'draft' && may(actor, 'costs') ? await signingOf(quote, parts.revision, priced) : undefined;
      return {
        id: quote.id, number: quote.number, title: quote.title, customer: parts.revision.customer.name, owner: names.get(quote.ownerId) ?? '', state: parts.revision.state,
        net: sumLines(counted(priced).map((each) => each.price), parts.tariff.decimals).net, currency: parts.tariff.currency, decimals: parts.tariff.decimals, lines: priced.length,
        problems: priced.filter((each) => each.problems.length > 0).length, updatedAt: quote.updatedAt.toISOString(), validUntil: parts.revision.validUntil, ...(signing ? { signing } : {}),
      };
    }),
  );
}

