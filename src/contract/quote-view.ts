/** A quote as it travels from the server to the page: its customer, its revisions, its lines. */
import type { ExactText } from '../core/exact';
import type { WarningView } from '../core/builds';
import type { Texts } from '../core/model';
import type {
  BuildPrice,
  LinePrice,
  PriceEntry,
  PriceProblem,
  Slice,
  Taxed,
  Term,
  Totals,
  Typed,
  Whole,
} from '../core/pricing';
import type { LineBasis, Lost, QuoteLease, RevisionState, ShownState } from '../core/quotes';
import type { Address } from './customers';
import type { SignOffsOfQuote } from './sign-off-view';

/** The customer as copied onto a revision, so that later changes of the customer leave it as it was. */
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

/** A line with its price, and what is in its way. */
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
  /** Its item is sold no more, and what is sold in its place; only of what may still be changed. */
  retired?: { next: string | null };
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
  alternativeSet: string | null;
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

/** A revision of a quote as somebody may see it. */
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
  /** Prices are without tax, as is usual where it goes. */
  taxApart: boolean;
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
