/**
 * Quotes as they travel from the server to the page: customers, revisions, lines, sign-offs, and what a
 * change would come to.
 */
import type { ExactText } from '../exact';
import type { Texts } from '../model';
import type {
  BuildPrice,
  Judged,
  Limit,
  LinePrice,
  PriceEntry,
  PriceProblem,
  Slice,
  Taxed,
  Term,
  Totals,
  Typed,
  Whole,
} from '../pricing';
import type { WarningView } from './content';
import type { ContactInput } from './input';
import type { LineBasis } from './line-basis';
import type { Lost, QuoteLease, RevisionState, ShownState } from './revisions';

export interface Address {
  kind: 'invoice' | 'delivery';
  street: string;
  town: string;
  postcode: string;
  country: string;
}

export interface CustomerFound {
  id: string;
  number: string;
  name: string;
  town: string;
  class: string;
  currency: string;
}

/** An address that a customer is known to have. */
export interface KnownAddress extends Address {
  id: string;
}

/** Somebody at a customer, and what they see to. */
export interface KnownContact extends ContactInput {
  id: string;
}

/** What one may choose from for a new customer. */
export interface CustomerMeans {
  priceLists: { code: string; name: Texts; currency: string }[];
  classes: ('direct' | 'key' | 'dealer' | 'public')[];
  regions: string[];
  countries: string[];
}

export interface QuoteCustomer {
  number: string;
  name: string;
  class: string;
  language: string;
  region: string;
  contactName: string;
  contactEmail: string;
  paymentDays?: number;
  addresses: Address[];
}

/** Why a line cannot be sold as it stands. */
export interface LineProblem {
  code: 'line.todo' | 'line.clash' | 'line.warning' | PriceProblem['code'];
  params: Record<string, string | number>;
}

export interface LineView {
  id: string;
  position: number;
  sku: string;
  family: string;
  name: Texts;
  buildId?: string;
  partNumber: string;
  /** The settled choices of a build, for the description. */
  summary?: Texts;
  quantity: number;
  /** In which it is counted or measured. */
  unit: string;
  /** Typed on the line. */
  hand: Typed | null;
  locked: boolean;
  /** Offered beside the others, and not in the totals. */
  optional: boolean;
  /** Its item may be discounted. */
  discountable: boolean;
  /** It recurs, or some of its build does whose model says no term, for so many months at least. */
  recurs?: { baseMonths: number; leastMonths: number; term: Term };
  /** Its price is typed here, since the list has none. */
  typedPrice?: ExactText | null;
  /** And what a piece costs; null where the item's own cost holds. Only for those who see costs. */
  typedCost?: ExactText | null;
  /** How the item is priced in the list, where it is not by the piece. */
  method?: PriceEntry['method'];
  /** Of what is used: its rates, whether the list's or typed on the line. */
  usage?: { slices: readonly Slice[]; least?: ExactText; typed: boolean };
  price: LinePrice;
  /** Priced parts of a build. */
  build?: BuildPrice;
  /** What reaches down to the builds inside, in words, by place: it stands on each part of theirs. */
  reached?: Record<string, Texts>;
  problems: LineProblem[];
  warnings: WarningView[];
  /** Items of which a special part takes the place. */
  special: { item: string; text: string }[];
  /**
   * What covers it from delivery on, such as a warranty: as ordered, or if it were ordered on the day of the
   * quote.
   */
  covers: Covered[];
  /** Instead of another line, and not in the totals. */
  alternative: boolean;
  /** The same for lines that are alternatives of one another; null where it stands by itself. */
  rivals: string | null;
  /** Position of the line that counts where this one is an alternative. */
  insteadOf?: number | undefined;
  /** The same in all revisions. */
  origin: string;
  /** The day of the prices and agreements that it stands on. */
  pricedOn: string;
  /** Name of its group; null where it stands by itself. */
  group: string | null;
  /** Where its country has one for its item. */
  taxRate?: ExactText;
  /**
   * Of a dealer's quote: the dealer's own selling price of one piece; null where it is by the share for all.
   */
  resale?: ExactText | null;
  /** From which the page can price it again; absent on what never changes. */
  basis?: LineBasis;
}

/** From the first to the last day. */
export interface Covered {
  name: Texts;
  from: string;
  to: string;
}

/** A revision in the list of all of a quote. */
export interface RevisionView {
  number: number;
  state: ShownState;
  validUntil: string;
  madeAt: string;
  madeBy: string;
  /** When it was sent, accepted or lost, and by whom. */
  settledAt?: string;
  settledBy?: string;
  lost?: Lost;
}

export interface QuoteView {
  id: string;
  number: string;
  title: string;
  /** Names this very view, so that an answer can tell only what differs from it. */
  stand: string;
  /** Sent back with each change; a change against an older version is refused. */
  version: number;
  revision: { number: number; state: RevisionState; shown: ShownState; validUntil: string; lost?: Lost };
  /** All of them, the newest first. */
  revisions: RevisionView[];
  customer: QuoteCustomer;
  owner: string;
  priceList: string;
  currency: string;
  decimals: number;
  lines: LineView[];
  totals: Totals;
  /** Typed for the whole quote, and what it comes to. */
  whole: { typed: Typed | null; comes: Whole };
  /** By the country that is delivered to, where its rates are known. */
  tax?: Taxed;
  taxCountry: string;
  /** The day on which all of it is delivered: as ordered, or if it were ordered on the day of the quote. */
  delivered: string;
  /** Only for those who may see margins. */
  signOff?: SignOffsOfQuote;
  updatedBy: string;
  updatedAt: string;
  order?: { id: string; number: string };
  /** Of a dealer's quote: the dealer's share on the buying price, and who the dealer is. */
  resale?: { share: ExactText; dealer: string };
  /** Offered as a lease beside the price. */
  lease: QuoteLease | null;
  /** Something to take back, and to make again. */
  steps: { undo: boolean; redo: boolean };
  may: {
    edit: boolean;
    accept: boolean;
    send: boolean;
    revise: boolean;
    lose: boolean;
    agreeRates: boolean;
    discount: boolean;
    seeCosts: boolean;
  };
}

/** A sign-off as it was asked for and answered. */
export interface SignOffView {
  id: string;
  /** Of who signs. */
  role: string;
  reason: string;
  state: 'asked' | 'yes' | 'no' | 'counter' | 'over';
  askedBy: string;
  askedAt: string;
  answeredBy?: string;
  answeredAt?: string;
  comment: string;
  /**
   * Lines concerned, with the figures that were asked for; `offer` is the discount by hand that would be
   * signed, `refused` a line that is not.
   */
  lines: {
    line: string;
    position: number;
    discount: ExactText;
    margin?: ExactText;
    offer?: ExactText;
    refused?: true;
  }[];
}

/** Where a quote stands with the limits of who owns it. */
export interface SignOffsOfQuote {
  limits: Limit[];
  judged: Omit<Judged, 'limit'>[];
  /** By role that must sign: positions of the lines, names of the policies, and whether a sign-off holds. */
  needs: { role: string; lines: number[]; policies: Texts[]; held: boolean }[];
  history: SignOffView[];
  /** Those that the person may answer. */
  mayAnswer: string[];
}

/** A sign-off that waits for an answer. */
export interface AskedSignOff {
  quoteId: string;
  number: string;
  customer: string;
  title: string;
  by: string;
  at: string;
  reason: string;
  lines: number;
}

/** What another customer would change on a quote. */
export interface CustomerChange {
  customer: { name: string; class: string };
  before: QuoteSum;
  after: QuoteSum;
  /** Lines on which money was typed in another currency, which is taken back; 0 for the whole quote. */
  takenBack: number[];
  lines: { position: number; name: Texts; before: ExactText; after: ExactText; problems: LineProblem[] }[];
}

export interface QuoteSum {
  priceList: string;
  currency: string;
  decimals: number;
  net: ExactText;
}

/**
 * What freshening would change on a line: today's prices, agreements and model version instead of those it
 * stands on.
 */
export interface FreshLine {
  id: string;
  position: number;
  name: Texts;
  pricedOn: string;
  before: ExactText;
  after: ExactText;
  /** Of a build: the version of its model, where there is a newer one. */
  version?: { from: number; to: number };
  /** Choices of a build that would be others. */
  choices: { row: string; name: Texts; before?: Texts; after?: Texts }[];
  /** Decisions that the newer version has no place for. */
  dropped: string[];
  /** What would have to be mended. */
  problems: LineProblem[];
  /** Anything at all would be another. */
  differs: boolean;
}

export interface Freshening {
  net: { before: ExactText; after: ExactText };
  lines: FreshLine[];
}

/** What a number of a pasted list is. */
export type ReadNumber =
  | { is: 'item'; sku: string; name: Texts; unit: string }
  /** Read back as a build; `complete` where nothing is left to choose. */
  | { is: 'build'; name: Texts; complete: boolean }
  | {
      is: 'wrong';
      code: string;
      params: Record<string, string | number>;
      nearest?: { number: string; name: Texts };
    };
