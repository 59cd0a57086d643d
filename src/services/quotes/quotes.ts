/** Quotes: opened, changed line by line, each change against the version the person saw. */
import { randomUUID } from 'node:crypto';
import { exact, plainMoney, plainPercent } from '../../core/exact';
import {
  typedOf,
  type ChangeQuoteInput,
  type LeaseInput,
  type NewQuoteInput,
  type QuoteView,
} from '../../contract';
import { type QuoteLease, type RevisionState } from '../../core/quotes';
import { connected, type LineRow, type RevisionRow } from '../../data';
import { may, refusal, type Actor } from '../access/actor';
import { inDays, today } from '../kernel/clock';
import { copyOf, ownCustomers } from '../customers/customers';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { appraise, factsIn, keepChange, keepFacts, type Appraised } from './figures/quote-facts';
import { counted } from './figures/quote-pricing';
import { findQuote, holdQuote, stateOf, type QuoteBase, type QuoteState } from './quote-state';
import { viewOf } from './quote-view';
import { nameOf, reference } from '../settings/reference-data';
import { remember } from './history/steps';
import { inTransaction, record } from '../kernel/unit-of-work';
import { housePart, marketIn } from '../settings/house';
import { invoicedIn } from '../settings/addressed';
import { nextNumber } from '../settings/numbers';

export { findQuote } from './quote-state';

/** How long a quote is valid, as long as nobody says otherwise. */
export const validDays = 60;

/** Opens a quote for a customer: price list, addresses, language and region come along. */
export async function openQuote(
  actor: Actor,
  { customerId, title }: NewQuoteInput,
): Promise<Result<QuoteView>> {
  const opened = await inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const { customers, quotes, revisions } = connected().records;
    const customer = await customers.findOne({ where: { id: customerId, ...ownCustomers(actor) } });
    if (!customer) return fail('invalid', { code: 'quote.unknownCustomer', field: 'customerId' });
    const copy = await copyOf(customer);
    const { quote: range } = await housePart('numbers');
    const number = await nextNumber('quote', range, (await marketIn(invoicedIn(copy))).code);
    const { id } = await quotes.create({
      id: randomUUID(),
      number,
      title,
      customerId,
      ownerId: actor.id,
      version: 1,
      updatedAt: new Date(),
      updatedBy: actor.id,
    });
    await revisions.create({
      id: randomUUID(),
      quoteId: id,
      number: 1,
      state: 'draft',
      priceList: customer.priceList,
      customer: copy,
      validUntil: inDays(validDays),
      whole: null,
      madeBy: actor.id,
      settledAt: null,
      settledBy: null,
      lost: null,
      taxed: null,
      lease: null,
      resale: may(actor, 'resale') ? (actor.preferences.resale ?? '0') : null,
    });
    await record(actor, 'quote.opened', number, { customer: customer.number });
    const quote = await findQuote(actor, id);
    if (!quote) throw new Error(`quote ${number} is gone`);
    await keepFacts(quote);
    return done(quote);
  });
  // Whoever opens another one waits for its number: it is looked at once that is given.
  return opened.ok ? done(await shownState(actor, opened.value)) : opened;
}

async function shownState(actor: Actor, quote: QuoteBase, number?: number): Promise<QuoteView> {
  const state = await stateOf(quote, number);
  if (!state) throw new Error(`quote ${quote.number} has no revision`);
  return viewOf(actor, state);
}

/** A quote as an actor may see it, in its newest revision or in the one asked for. */
export async function seeQuote(actor: Actor, id: string, number?: number): Promise<Result<QuoteView>> {
  const quote = await findQuote(actor, id);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  const state = await stateOf(quote, number);
  if (!state) return fail('missing', { code: 'revision.missing', params: { number: number ?? 0 } });
  return done(await viewOf(actor, state));
}

/** What a change to a draft works on, once it may be made. */
export interface Draft {
  quote: QuoteBase;
  revision: RevisionRow;
  /** All that is kept of it before the change. */
  state: QuoteState;
}

/** On what terms a quote is changed. */
export interface ChangeTerms {
  /** In which the newest revision may be. */
  states?: readonly RevisionState[];
  /** The change can be taken back. */
  steps?: boolean;
  /** What is wrong with what would come of it; it is not made then. */
  check?: (after: Appraised) => Failure[];
}

/** Lines of a draft, in their order, as they are kept by now. */
export const linesOf = ({ revision }: Pick<Draft, 'revision'>): Promise<LineRow[]> =>
  connected().records.lines.findAll({
    where: { revisionId: revision.id },
    order: [['position', 'ASC']],
    raw: true,
  });

/**
 * Makes a change to the newest revision of a quote in one transaction; to a draft, unless other states are
 * named. Refused where the actor may not, the revision stands otherwise, or another person changed it since
 * the version given; the refusal names who and when.
 */
export async function changeQuote(
  actor: Actor,
  id: string,
  version: number,
  work: (draft: Draft) => Promise<Result<unknown>>,
  { states = ['draft'], steps = true, check }: ChangeTerms = {},
): Promise<Result<QuoteView>> {
  return inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const quote = await holdQuote(actor, id);
    if (!quote) return fail('missing', { code: 'quote.missing' });
    const before = await stateOf(quote);
    if (!before) throw new Error(`quote ${quote.number} has no revision`);
    const { revision } = before;
    const { title } = quote;
    if (!states.includes(revision.state)) return settled(quote, revision);
    const old = await stale(actor, quote, version);
    if (old) return old;
    const result = await work({ quote, revision, state: before });
    if (!result.ok) return result;
    const after = await stateOf(quote);
    if (!after) throw new Error(`quote ${quote.number} lost its revision`);
    const appraised = await appraise(after);
    const wrong = check?.(appraised) ?? [];
    if (wrong.length > 0) return fail('invalid', ...wrong);
    const kept =
      steps &&
      revision.state === 'draft' &&
      (await remember(actor, before, after, { before: title, after: quote.title }));
    quote.updatedAt = await keepChange(quote.id, actor.id, await factsIn(after, appraised));
    quote.version += 1;
    quote.updatedBy = actor.id;
    return done(
      await viewOf(actor, after, { appraised, ...(kept ? { steps: { undo: true, redo: false } } : {}) }),
    );
  });
}

async function settled(quote: QuoteBase, { state, number }: RevisionRow): Promise<Result<never>> {
  if (state !== 'accepted') return fail('conflict', { code: `revision.is.${state}`, params: { number } });
  const order = await connected().records.orders.findOne({ where: { quoteId: quote.id } });
  return fail('conflict', {
    code: 'quote.alreadyAccepted',
    params: { number: quote.number, order: order?.number ?? '' },
  });
}

/**
 * Who changed it meanwhile, and when; what a person did in another window is not said to be somebody else's.
 */
export async function stale(actor: Actor, quote: QuoteBase, version: number): Promise<Result<never> | null> {
  if (quote.version === version) return null;
  return fail('conflict', {
    code: quote.updatedBy === actor.id ? 'quote.staleOwn' : 'quote.stale',
    params: { who: nameOf(await reference(), quote.updatedBy), at: quote.updatedAt.toISOString() },
  });
}

const leaseOf = ({ months, yearlyRate, residual, inAdvance }: LeaseInput): QuoteLease => ({
  months,
  yearlyRate: exact(plainPercent(yearlyRate)).div(100).toString(),
  inAdvance,
  ...(residual === undefined ? {} : { residual: exact(plainMoney(residual)).toString() }),
});

/**
 * Changes what is said of the whole quote: a discount, net price or margin, how long it is valid, its title,
 * a lease beside the price.
 */
export async function changeWhole(
  actor: Actor,
  id: string,
  { version, whole, validUntil, title, lease, resale }: ChangeQuoteInput,
): Promise<Result<QuoteView>> {
  const offered = lease && leaseOf(lease);
  return changeQuote(
    actor,
    id,
    version,
    async ({ quote, revision }) => {
      if (whole && !may(actor, 'discount'))
        return fail('forbidden', { code: 'refused.permission', params: { permission: 'discount' } });
      if (resale !== undefined && !may(actor, 'resale'))
        return fail('forbidden', { code: 'refused.permission', params: { permission: 'resale' } });
      if (whole?.by === 'margin' && !may(actor, 'costs'))
        return fail('forbidden', { code: 'refused.permission', params: { permission: 'costs' } });
      if (validUntil !== undefined && validUntil < today())
        return fail('invalid', { code: 'quote.validPast', field: 'validUntil' });
      const to: Partial<RevisionRow> = {
        ...(whole === undefined ? {} : { whole: whole && typedOf(whole) }),
        ...(validUntil === undefined ? {} : { validUntil }),
        ...(resale === undefined ? {} : { resale: exact(plainPercent(resale)).div(100).toString() }),
        ...(lease === undefined ? {} : { lease: offered ?? null }),
      };
      const from = Object.fromEntries(
        Object.keys(to).map((key) => [key, revision[key as keyof RevisionRow]]),
      );
      if (Object.keys(to).length > 0)
        await connected().records.revisions.update(to, { where: { id: revision.id } });
      // The next quote begins with it.
      if (resale !== undefined)
        await connected().records.users.update(
          { preferences: { ...actor.preferences, resale: to.resale ?? '0' } },
          { where: { id: actor.id } },
        );
      if (title !== undefined)
        await connected().records.quotes.update({ title }, { where: { id: quote.id } });
      await record(actor, 'quote.changed', quote.number, {
        from: { ...from, ...(title === undefined ? {} : { title: quote.title }) },
        to: { ...to, ...(title === undefined ? {} : { title }) },
      });
      if (title !== undefined) quote.title = title;
      return done(null);
    },
    {
      check: ({ quoted: { comes, lines } }) => {
        if (whole !== undefined && comes.is === 'impossible')
          return [{ code: 'quote.whole', params: { why: comes.why }, field: 'whole' }];
        const net = counted(lines).reduce((sum, { price }) => sum.plus(price.net), exact(0));
        return offered?.residual !== undefined && net.lt(offered.residual)
          ? [{ code: 'lease.residual', field: 'residual' }]
          : [];
      },
    },
  );
}
