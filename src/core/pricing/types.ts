/** What a price is made of: tariffs, parts of builds, lines and their terms. */
import type { ExactText } from '../exact';
import type { Counting, Texts } from '../model';
import type { Typed } from './line/price-figures';
import type { Grant, GrantChoice, QuantityDiscount } from './line/grants';
import type { PriceEntry, PricedTier } from './list/methods';
import type { Recurrence, Term } from './line/recurring';

/** Prices of one list in one currency. `costs` and `rates` are there only for those who may see them. */
export interface Tariff {
  list: string;
  /** ISO 4217. */
  currency: string;
  /** Minor digits of the currency. */
  decimals: number;
  /** Unit price by item. */
  prices: Readonly<Record<string, ExactText>>;
  /** Of items priced in another way than by the piece; shares name items, not families. */
  entries?: Readonly<Record<string, PriceEntry>>;
  /** Unit prices that items have inside a bundle alone, by the id of its model. */
  inside?: Readonly<Record<string, Readonly<Record<string, ExactText>>>>;
  /** Of items whose price is for a period. */
  recurs?: Readonly<Record<string, Recurrence>>;
  /** Software and services: a build costs what they do, besides what it is made of. */
  asSold?: readonly string[];
  /** Unit cost by item, in the same currency. */
  costs?: Readonly<Record<string, ExactText>>;
  /** Cost of an hour by work centre, in the same currency. */
  rates?: Readonly<Record<string, ExactText>>;
}

/** How a part recurs inside a build; from when and for how many months as the model says, where it does. */
export interface RecurringPart extends Recurrence {
  start?: string;
  months?: number;
}

/** One part of a list price. */
export interface PricedPart {
  id: string;
  /**
   * inside: what a price of its own in the bundle makes, or a share taken off there; rates: what the rates
   * agreed on the line make of the list's.
   */
  kind: 'part' | 'option' | 'inside' | 'surcharge' | 'rates';
  name: Texts;
  item?: string;
  quantity?: ExactText;
  /** Absent where the quantity has one price. */
  unitPrice?: ExactText;
  /** How a price for the quantity came about, and the charge due in any case where it stands instead. */
  tiers?: PricedTier[];
  least?: ExactText;
  /** Of a surcharge or share: 0.06 is 6 %; of what is taken off inside a bundle: 0.1 is 10 % less. */
  rate?: ExactText;
  /** Of what recurs: for its base period. */
  amount: ExactText;
  recurs?: RecurringPart;
  /** Of what is not counted with each piece of the line: then the amount is for each time it is counted. */
  counts?: Counting;
  /** The build inside that it belongs to. */
  place?: string;
  /** Of a price of its own in the bundle: the part that it is for. */
  of?: string;
}

/** What a build lists at, part by part. */
export interface BuildPrice {
  parts: PricedPart[];
  /** Sum of the parts known so far, each that recurs over its term. */
  list: ExactText;
  /** Parts that wait for something open. */
  open: string[];
  /** Items without an entry in the price list: the build cannot be sold on it. */
  unpriced: string[];
}

/** On what terms a line is sold. */
export interface LineTerms {
  quantity: number;
  /** ISO day on which what is granted must hold. */
  day: string;
  /** What the customer or the customer's class has been granted. */
  agreements?: readonly Grant[];
  quantityDiscount?: NamedQuantityDiscount;
  promotions?: readonly Grant[];
  /** Typed on the line, for one piece: a discount, a net price or a margin. */
  hand?: Typed;
  /** For what recurs inside a build whose model does not say its own. */
  term?: Term;
}

/** A discount by quantity, with its name. */
export interface NamedQuantityDiscount extends QuantityDiscount {
  name: Texts;
}

/** rates: agreed on the line instead of the list's; discount: given by hand. */
export type StepKind =
  | 'list'
  | 'inside'
  | 'surcharge'
  | 'rates'
  | 'agreement'
  | 'quantity'
  | 'promotion'
  | 'discount'
  | 'rounding';

/** A step of the walk for one unit. */
export interface WalkStep {
  kind: StepKind;
  /**
   * The surcharge, agreement, quantity discount or promotion; on lines frozen long ago the customer's class.
   */
  name?: Texts | string;
  rate?: ExactText;
  /** Of what is given by hand: as it was typed. */
  typed?: Typed;
  /** Of what is granted: the others, and why they do not count. */
  lost?: { name: Texts; why: GrantChoice['lost'][number]['why']; off: ExactText }[];
  amount: ExactText;
  /** Running total after the step. */
  total: ExactText;
}

/** A line from list to net; money as decimals in its currency. */
export interface LinePrice {
  steps: WalkStep[];
  /** line: one price for all pieces, so that what stands for one unit stands for the line. */
  per?: 'line';
  /** How a price for all pieces came about. */
  tiers?: PricedTier[];
  /** The charge due in any case, where it stands instead of the tiers. */
  least?: ExactText;
  unitList: ExactText;
  /** Rounded to the minor unit. */
  unitNet: ExactText;
  list: ExactText;
  /** Before the line's share of the whole-quote discount; absent where there is none. */
  before?: ExactText;
  /** The line's share of the whole-quote discount. */
  share?: ExactText;
  net: ExactText;
  /** What of these is there once, whatever the quantity; absent where nothing is. */
  once?: { list: ExactText; net: ExactText; cost?: ExactText };
  /**
   * Where the whole line recurs: list, net, cost are over the whole term, the figures for one unit over the
   * base period.
   */
  recurring?: LineRecurring;
  /**
   * What recurs inside a build, one for each base period and term, each walked as a line that recurs. The
   * line's list, net, cost and share are with these; its steps, and its figures for one unit, are of what is
   * due once.
   */
  subscriptions?: LinePrice[];
  /** Only where costs are known. */
  unitCost?: ExactText;
  cost?: ExactText;
  /** (net - cost) / net; absent where net is zero. */
  margin?: ExactText;
}

/** What of a line recurs. */
export interface LineRecurring {
  baseMonths: number;
  /** First and last day of the term. */
  from: string;
  to: string;
  /** Whole months and days of the month begun. */
  months: number;
  days: number;
  /** Of the line's net, rounded to the minor unit. */
  perMonth: ExactText;
  firstYear: ExactText;
}
