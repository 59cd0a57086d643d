/** What a change of a quote would come to, before it is made: another customer, freshening. */
import type { ExactText } from '../core/exact';
import type { Texts } from '../core/model';
import type { LineProblem } from './quote-view';

/** What another customer would change on a quote. */
export interface CustomerChange {
  customer: { name: string; class: string };
  before: QuoteSum;
  after: QuoteSum;
  /** Lines on which money was typed in another currency, which is taken back; 0 for the whole quote. */
  takenBack: number[];
  lines: { position: number; name: Texts; before: ExactText; after: ExactText; problems: LineProblem[] }[];
}

/** What a quote comes to at the prices of a list. */
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

/** What freshening would change, line by line. */
export interface Freshening {
  net: { before: ExactText; after: ExactText };
  lines: FreshLine[];
}
