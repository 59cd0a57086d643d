/** Quotes: listed, opened, changed as a whole, sent, revised, lost, accepted. */
import { number, object, string } from 'yup';
import { lostReasons, type Comparison } from '../core/quotes';
import { contactInput, optionalAddress, type KnownAddress, type KnownContact } from './customers';
import { sendVariantsInput } from './builds';
import type { DealView } from './deal';
import { endpoint, json } from './endpoint';
import { changedQuote } from './quote-answer';
import type { CustomerChange, Freshening } from './quote-previews';
import { quoteListInput, type QuotePage } from './quote-rows';
import type { QuoteView } from './quote-view';
import { linesInput } from './lines';
import { revisionQuery } from './revision-query';
import {
  exactly,
  flag,
  id,
  note,
  oneOf,
  optionalDay,
  optionalId,
  percent,
  share,
  version,
  versionInput,
  type Sent,
} from './schema';
import { typedForWhole, typedMoney } from './typed';

const title = string().strict().trim().max(120, 'input.tooLong');

/** A customer to open a quote for. */
export const newQuoteInput = exactly({
  customerId: id.required('quote.noCustomer'),
  title: title.default(''),
});
/** What passes `newQuoteInput`. */
export type NewQuoteInput = Sent<typeof newQuoteInput>;

const lease = exactly({
  months: number()
    .strict()
    .typeError('quantity.notANumber')
    .integer('quantity.whole')
    .min(1, 'lease.months')
    .max(240, 'lease.months')
    .required('input.required'),
  yearlyRate: percent(share, 'lease.rate', 'discount.notANumber').required('discount.required'),
  residual: typedMoney.optional(),
  inAdvance: flag.default(false),
});
/** A lease as it is typed: a rate in percent a year, an amount as people write it. */
export type LeaseInput = Sent<typeof lease>;

/** What is typed for the whole quote; null takes back what was typed. */
export const changeQuoteInput = exactly({
  version,
  whole: typedForWhole,
  validUntil: optionalDay,
  title,
  lease: lease.nullable().optional().default(undefined),
  /** What a dealer adds, in percent; below nothing a dealer sells at a loss, which is the dealer's to decide. */
  resale: percent((read) => read.gte(-100) && read.lte(1000), 'resale.range', 'margin.notANumber'),
});
/** What passes `changeQuoteInput`. */
export type ChangeQuoteInput = Sent<typeof changeQuoteInput>;

const oneGiven = (...given: unknown[]): boolean => given.filter((each) => each !== undefined).length === 1;

/** One of the customer's known addresses, a new one, or that of the invoice. */
export const quoteAddressInput = exactly({
  version,
  kind: oneOf(['invoice', 'delivery'], 'input.badKind').required('input.required'),
  from: optionalId,
  copyInvoice: flag,
  address: optionalAddress,
}).test('one', 'address.one', ({ from, copyInvoice, address }) =>
  oneGiven(from, copyInvoice || undefined, address ?? undefined),
);
/** What passes `quoteAddressInput`. */
export type QuoteAddressInput = Sent<typeof quoteAddressInput>;

/** One of the people known at the customer, or a new one. */
export const quoteContactInput = exactly({
  version,
  from: optionalId,
  contact: contactInput.nullable().optional().default(undefined),
}).test('one', 'contact.one', ({ from, contact }) => oneGiven(from, contact ?? undefined));
/** What passes `quoteContactInput`. */
export type QuoteContactInput = Sent<typeof quoteContactInput>;

/** The customer that a quote is given to. */
export const customerInput = exactly({ version, customerId: id });
/** What passes `customerInput`. */
export type CustomerInput = Sent<typeof customerInput>;

/** The revision to begin from; the newest where none is said. */
export const reviseInput = exactly({
  version,
  from: number().strict().integer('input.badVersion').min(1, 'input.badVersion').max(999, 'input.badVersion'),
});
/** What passes `reviseInput`. */
export type ReviseInput = Sent<typeof reviseInput>;

/** Why a quote was lost; the note is for colleagues. */
export const loseInput = exactly({
  version,
  reason: oneOf(lostReasons, 'lost.noReason').required('lost.noReason'),
  note,
});
/** What passes `loseInput`. */
export type LoseInput = Sent<typeof loseInput>;

const revision = number()
  .transform((value: number) => (Number.isInteger(value) ? value : 0))
  .default(0);

/** The order that was made of a quote. */
export interface MadeOrder {
  orderId: string;
  number: string;
}

/** Endpoints of quotes as a whole. */
export const quotes = {
  'GET /quotes': endpoint({
    says: 'A page of the quotes that the person may see.',
    who: 'person',
    query: quoteListInput,
    answers: json<QuotePage>('QuotePage'),
  }),
  'POST /quotes': endpoint({
    says: 'Opens a quote for a customer.',
    who: 'quotes',
    input: newQuoteInput,
    answers: json<QuoteView>('QuoteView'),
  }),
  'GET /quotes/{id}': endpoint({
    says: 'A quote: its newest revision, or the one asked for.',
    who: 'person',
    query: revisionQuery,
    answers: json<QuoteView>('QuoteView'),
  }),
  'PATCH /quotes/{id}': endpoint({
    says: 'Changes what is typed for the whole quote: figure, title, validity, lease, resale.',
    who: 'quotes',
    input: changeQuoteInput,
    answers: changedQuote,
  }),
  'GET /quotes/{id}/deal': endpoint({
    says: 'What a quote means for who sells it: agreements, quota, commission.',
    who: 'person',
    answers: json<DealView>('DealView'),
  }),
  'GET /quotes/{id}/addresses': endpoint({
    says: 'Where the customer is known to be.',
    who: 'person',
    answers: json<KnownAddress[]>('KnownAddress[]'),
  }),
  'POST /quotes/{id}/addresses': endpoint({
    says: 'Gives a quote another address.',
    who: 'quotes',
    input: quoteAddressInput,
    answers: changedQuote,
  }),
  'GET /quotes/{id}/contacts': endpoint({
    says: 'Who is known at the customer.',
    who: 'person',
    answers: json<KnownContact[]>('KnownContact[]'),
  }),
  'POST /quotes/{id}/contacts': endpoint({
    says: 'Gives a quote another contact.',
    who: 'quotes',
    input: quoteContactInput,
    answers: changedQuote,
  }),
  'GET /quotes/{id}/customer': endpoint({
    says: 'What another customer would change; changes nothing.',
    who: 'quotes',
    query: object({ to: string().default('') }),
    answers: json<CustomerChange>('CustomerChange'),
  }),
  'POST /quotes/{id}/customer': endpoint({
    says: 'Gives a quote to another customer.',
    who: 'quotes',
    input: customerInput,
    answers: changedQuote,
  }),
  'GET /quotes/{id}/freshening': endpoint({
    says: "What today's prices, agreements and model versions would change; changes nothing.",
    who: 'quotes',
    answers: json<Freshening>('Freshening'),
  }),
  'POST /quotes/{id}/freshening': endpoint({
    says: "Freshens lines: today's prices, agreements and model versions.",
    who: 'quotes',
    input: linesInput,
    answers: changedQuote,
  }),
  'GET /quotes/{id}/revisions': endpoint({
    says: 'What differs between two revisions.',
    who: 'person',
    query: object({ before: revision, after: revision }),
    answers: json<Comparison>('Comparison'),
  }),
  'POST /quotes/{id}/revisions': endpoint({
    says: 'Makes a new revision, of the newest or of another.',
    who: 'quotes',
    input: reviseInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/variants': endpoint({
    says: 'Puts variants of one another on the quote, beside one another or as alternatives.',
    who: 'quotes',
    input: sendVariantsInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/send': endpoint({
    says: 'Marks a quote as sent; from then on its revision never changes.',
    who: 'quotes',
    input: versionInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/lose': endpoint({
    says: 'Marks a quote as lost, and why.',
    who: 'quotes',
    input: loseInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/accept': endpoint({
    says: 'Makes an order of a quote, once.',
    who: 'accept',
    input: versionInput,
    answers: json<MadeOrder>('MadeOrder'),
  }),
  'POST /quotes/{id}/undo': endpoint({
    says: 'Takes back the last change of a draft.',
    who: 'quotes',
    input: versionInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/redo': endpoint({
    says: 'Makes again what was taken back.',
    who: 'quotes',
    input: versionInput,
    answers: changedQuote,
  }),
};
