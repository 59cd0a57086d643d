/**
 * Pricing: what a build or an item lists at, and the price walk from list to net.
 *
 * Money is an exact decimal in one currency; nothing is rounded before the unit net price, which is rounded half up to the
 * currency's minor unit and then multiplied by the quantity.
 */
import type { ExactText } from '../exact';
import type { Growth, Texts } from '../model';

export { priceBuild, priceDifferences } from './build-price';
export { priceTerms, type PriceTerm } from './price-terms';
export { costOf, type BuildCost } from './cost';
export { walk } from './walk';
export { sumLines, type Totals } from './totals';
export { entryProblem, listed, type Bracket, type Listed, type PriceAsked, type PriceEntry, type PricedStretch, type Slice, type Stretch } from './methods';
export { addDays, addMonths, chargeOver, lastDay, monthsOf, recurringTotals, termBetween, tooShort, type Recurrence, type RecurringTotals, type Term } from './recurring';
export { chooseGrant, quantityRate, type Grant, type GrantChoice, type QuantityDiscount } from './grants';
export { fourOf, marginOf, markUpOf, type Four, type FourAnswer, type Typed } from './four';
export { spread } from './spread';
export { judge, reachOf, stillHolds, type Judged, type Limit, type LineFigures, type Reach } from './limits';
export { commission, monthlyRate, type CommissionPlan, type Lease } from './financing';
export { taxed, taxRate, type Taxed, type TaxRate } from './tax';

/** Prices of one list in one currency. `costs` and `rates` are there only for those who may see them. */
export interface Tariff {
  list: string;
  /** ISO 4217. */
  currency: string;
  /** Minor digits of the currency. */
  decimals: number;
  /** Unit price by item. */
  prices: Readonly<Record<string, ExactText>>;
  /** Unit cost by item, in the same currency. */
  costs?: Readonly<Record<string, ExactText>>;
  /** Cost of an hour by work centre, in the same currency. */
  rates?: Readonly<Record<string, ExactText>>;
}

/** One part of a list price. */
export interface PricedPart {
  id: string;
  /** inside: taken off for standing inside a bundle. */
  kind: 'part' | 'option' | 'inside' | 'surcharge';
  name: Texts;
  item?: string;
  quantity?: ExactText;
  unitPrice?: ExactText;
  /** Of a surcharge: 0.06 is 6 %; of what is taken off inside a bundle: 0.1 is 10 % less. */
  rate?: ExactText;
  amount: ExactText;
  /** Of what does not grow with the quantity of the line. */
  grows?: Growth;
  /** The build inside that it belongs to. */
  place?: string;
}

export interface BuildPrice {
  parts: PricedPart[];
  /** Sum of the parts known so far. */
  list: ExactText;
  /** Parts that wait for something open. */
  open: string[];
  /** Items without an entry in the price list: the build cannot be sold on it. */
  unpriced: string[];
}

export interface LineTerms {
  quantity: number;
  /** What the customer has been granted: 0.1 is 10 %. */
  agreement?: { rate: ExactText; name: string };
  /** Given by hand: 0.05 is 5 %. */
  discount: ExactText;
}

export type StepKind = 'list' | 'inside' | 'surcharge' | 'agreement' | 'discount' | 'rounding';

/** A step of the walk for one unit. */
export interface WalkStep {
  kind: StepKind;
  /** The surcharge or agreement. */
  name?: Texts | string;
  rate?: ExactText;
  amount: ExactText;
  /** Running total after the step. */
  total: ExactText;
}

export interface LinePrice {
  steps: WalkStep[];
  unitList: ExactText;
  /** Rounded to the minor unit. */
  unitNet: ExactText;
  list: ExactText;
  net: ExactText;
  /** What of these is there once, whatever the quantity; absent where nothing is. */
  once?: { list: ExactText; net: ExactText };
  /** Only where costs are known. */
  unitCost?: ExactText;
  cost?: ExactText;
  /** (net - cost) / net; absent where net is zero. */
  margin?: ExactText;
}
