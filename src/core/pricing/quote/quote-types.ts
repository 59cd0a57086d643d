/** What a quote is priced from, and what comes of it. */
import type { ExactText } from '../../exact';
import type { Texts } from '../../model';
import type { BuildCost } from '../line/cost';
import type { Typed } from '../line/price-figures';
import type { LineRates, PriceEntry } from '../list/methods';
import type { Recurrence, Term } from '../line/recurring';
import type { Taxed } from './tax';
import type { Totals } from './totals';
import type { LinePrice, LineTerms, PricedPart } from '../types';

/** What a line sells: the priced parts of a build, or an item by its entry in the price list. */
export type Offer =
  | { is: 'build'; parts: readonly PricedPart[]; unpriced: readonly string[]; cost?: BuildCost }
  | {
      is: 'item';
      name: Texts;
      /** Absent where the list has none: the item cannot be sold on it. */
      entry?: PriceEntry;
      /** Agreed on the line instead of the entry's. */
      rates?: LineRates;
      /** Typed on the line, for one piece. */
      typed?: ExactText;
      /** Of one piece, in the currency of the list. */
      cost?: ExactText;
      /** What freight to where it goes comes to, for formulas that read it. */
      freight?: FreightRate;
    };

/** What freight comes to: a base and so much for each kg, at least the least; in the currency of the list. */
export interface FreightRate {
  base: ExactText;
  perKg: ExactText;
  least: ExactText;
}

/**
 * A line as it is kept. Lines never change: an edited line is another object, so that what was worked out for
 * the others still holds.
 */
export interface QuoteLine {
  id: string;
  sku: string;
  family: string;
  /** In the totals; an optional or alternative line is not. */
  counts: boolean;
  /** Left as it is by the whole-quote discount. */
  locked: boolean;
  /** Its item may be discounted at all. */
  discountable: boolean;
  offer: Offer;
  terms: LineTerms;
  recurs?: { every: Recurrence; term: Term };
  /** Of one piece, in kg, where it is known. */
  mass?: ExactText;
}

/** What is typed for a whole quote. */
export interface QuoteTerms {
  decimals: number;
  /** Typed for the whole quote. */
  whole?: Typed;
}

/** Why a line cannot be sold, or what was typed cannot be. */
export type PriceProblem =
  | { code: 'line.unpriced'; params: { items: string } }
  | { code: 'line.wantsPrice' | 'line.wantsCost' | 'line.wantsValue'; params: Record<string, never> }
  | { code: 'line.wantsNet'; params: { name: string } }
  | { code: 'line.outside'; params: { quantity: string } }
  | { code: 'line.tooShort'; params: { months: number } }
  | { code: 'line.hand'; params: { why: 'margin' | 'base' | 'cost' } };

/** A line with its price and what is in its way. */
export interface PricedLine {
  id: string;
  price: LinePrice;
  problems: PriceProblem[];
}

/** The whole-quote discount said in all four ways, or why it cannot be. */
export type Whole =
  | {
      is: 'spread';
      /** Net of what may be discounted, before it. */
      base: ExactText;
      /** Share of the base. */
      rate: ExactText;
      amount: ExactText;
      /** Of all that counts. */
      net: ExactText;
      margin?: ExactText;
    }
  | { is: 'impossible'; why: 'margin' | 'base' | 'cost' };

/** All lines with their prices, and what they come to. */
export interface PricedQuote {
  /** In the order given. */
  lines: PricedLine[];
  totals: Totals;
  /** Also where nothing is typed: then nothing is taken off. */
  whole: Whole;
  /** Where the rates of the country are known. */
  tax?: Taxed;
}
