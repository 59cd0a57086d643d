/** Rows and tables of quotes, their revisions, lines and steps. */
import { DataTypes } from 'sequelize';
import type { BuildPrice, LinePrice, LineRates, Taxed, Term, Typed } from '../../core/pricing';
import type { Lost, QuoteLease, RevisionState } from '../../core/quotes';
import type { CustomerClass, AddressRow } from './customers';
import { key, text, int, jsonb, day, instant, ref, bool, money, now, type Define } from './columns';

/** A quote; its version counts its changes. */
export interface QuoteRow {
  id: string;
  number: string;
  title: string;
  customerId: string;
  ownerId: string;
  version: number;
  createdAt?: Date;
  updatedAt: Date;
  updatedBy: string;
}

/** The customer as copied to a revision, so that a later change of address does not change a quote. */
export interface CustomerCopy {
  number: string;
  name: string;
  class: CustomerClass;
  language: string;
  region: string;
  contactName: string;
  contactEmail: string;
  /** Absent on what was copied before there were any. */
  paymentDays?: number;
  /** One of each kind. */
  addresses: Omit<AddressRow, 'id' | 'customerId' | 'position'>[];
}

/** A revision; frozen once it was sent, lost or accepted. */
export interface RevisionRow {
  id: string;
  quoteId: string;
  number: number;
  state: RevisionState;
  priceList: string;
  customer: CustomerCopy;
  validUntil: string;
  /** Typed for the whole quote. */
  whole: Typed | null;
  madeAt?: Date;
  madeBy: string | null;
  /** When it was sent, accepted or lost, and by whom. */
  settledAt: Date | null;
  settledBy: string | null;
  lost: Lost | null;
  /** Tax as it stood when the revision was settled. */
  taxed: Taxed | null;
  /** Offered as a lease beside the price. */
  lease: QuoteLease | null;
  /** Of a dealer's quote: what the dealer adds to the buying price, as a share of it. */
  resale: string | null;
}

/** What lists show of a revision, kept with it by whatever changes it. */
export interface RevisionFactsRow {
  revisionId: string;
  net: string;
  lineCount: number;
  problemCount: number;
  sendable: boolean;
  /** Somebody must sign, or has been asked to. */
  signing: 'needed' | 'asked' | null;
  /** Of what prices are made from, as it was when this was worked out. */
  stamp: string;
}

/** Prices as they stood when the revision was sent or accepted. */
export interface FrozenLine {
  price: LinePrice;
  build?: BuildPrice;
}

/** A line of a revision, as it was typed. */
export interface LineRow {
  id: string;
  revisionId: string;
  position: number;
  buildId: string | null;
  sku: string;
  quantity: number;
  frozen: FrozenLine | null;
  /** Typed on the line: a discount, a net price of one piece or a margin. */
  hand: Typed | null;
  /** Left as it is by the whole-quote discount. */
  locked: boolean;
  /** Offered beside the others, and not in the totals. */
  optional: boolean;
  /** Of what recurs. */
  term: Term | null;
  /** Of what has no price in the list but the one typed here, for one piece. */
  typedPrice: string | null;
  typedCost: string | null;
  /** Of what is used: as agreed for this line, instead of those of the list. */
  rates: LineRates | null;
  /** Of a dealer's quote: for what the dealer sells one piece, where it is not by the share for all. */
  resale: string | null;
  /** Instead of another line: shown, and left out of the totals. */
  alternative: boolean;
  /** The same for lines that are alternatives of one another. */
  alternativeSet: string | null;
  /** The line it was first copied from by a newer revision, else itself: the same line in all revisions. */
  origin: string;
  /** The day of the prices and agreements that it stands on. */
  pricedOn: string;
  /** Lines of one group stand together under its name. */
  groupName: string | null;
}

/** What a change made of a draft, so that it can be taken back and made again. */
export interface QuoteStepRow {
  revisionId: string;
  number: number;
  undone: boolean;
  userId: string;
  change: QuoteStep;
}

/** By id, lines before and after, null where there was or is none; and what was said of the whole quote. */
export interface QuoteStep {
  lines: { id: string; before: LineRow | null; after: LineRow | null }[];
  revision?: { before: Partial<RevisionRow>; after: Partial<RevisionRow> };
  title?: { before: string; after: string };
}

/** Its tables. */
export const quotesRecords = (table: Define) => ({
  quotes: table<QuoteRow>('quotes', {
    id: key(ref),
    number: text,
    title: text,
    customerId: ref,
    ownerId: ref,
    version: int,
    createdAt: now(),
    updatedAt: now(),
    updatedBy: ref,
  }),
  revisions: table<RevisionRow>('quote_revisions', {
    id: key(ref),
    quoteId: ref,
    number: int,
    state: text,
    priceList: text,
    customer: jsonb,
    validUntil: day,
    whole: jsonb,
    madeAt: now(),
    madeBy: ref,
    settledAt: instant,
    settledBy: ref,
    lost: jsonb,
    taxed: jsonb,
    lease: jsonb,
    resale: DataTypes.DECIMAL(9, 6),
  }),
  lines: table<LineRow>('quote_lines', {
    id: key(ref),
    revisionId: ref,
    position: int,
    buildId: ref,
    sku: text,
    quantity: int,
    hand: jsonb,
    locked: bool,
    optional: bool,
    term: jsonb,
    typedPrice: money,
    typedCost: money,
    frozen: jsonb,
    alternative: bool,
    alternativeSet: ref,
    origin: ref,
    pricedOn: day,
    groupName: text,
    rates: jsonb,
    resale: money,
  }),
  revisionFacts: table<RevisionFactsRow>('revision_facts', {
    revisionId: key(ref),
    net: DataTypes.DECIMAL,
    lineCount: int,
    problemCount: int,
    sendable: bool,
    signing: text,
    stamp: DataTypes.BIGINT,
  }),
  quoteSteps: table<QuoteStepRow>('quote_steps', {
    revisionId: key(ref),
    number: key(int),
    undone: bool,
    userId: ref,
    change: jsonb,
  }),
});
