/**
 * Pricing: what a build or an item lists at, and the price walk from list to net.
 *
 * Money is an exact decimal in one currency; nothing is rounded before the unit net price, which is rounded
 * half up to the currency's minor unit and then multiplied by the quantity; what a line recurs for over its
 * term, and its share of the whole-quote discount, come to the minor unit as well, and so does what is sold
 * by a measure, such as 12.5 m, so that what is printed adds up.
 */
export { priceBuild } from './build-price';
export { monthsOfPart, partOverTerm, usualMonths } from './part-term';
export { tariffFrom, type ListedItem } from './tariff';
export { priceTerms } from './price-terms';
export { costOf, type BuildCost } from './cost';
export { across, multiplies, type AcrossRow } from './across';
export { sidesOf, walk } from './walk';
export { overTerm } from './over-term';
export { recurringIn, runningIn } from './running';
export { sumLines, type Totals } from './totals';
export { pricer, priceQuote } from './quote';
export type {
  Offer,
  PricedLine,
  PricedQuote,
  PriceProblem,
  QuoteLine,
  QuoteTerms,
  Whole,
} from './quote-types';
export {
  explain,
  worksOut,
  type ExplainedLine,
  type Explanation,
  type Figure,
  type Operand,
  type QuoteFigure,
} from './explain';
export { notesOn } from './notes';
export { quoteWalk } from './quote-walk';
export {
  entryProblem,
  listed,
  withRates,
  type Bracket,
  type LineRates,
  type Listed,
  type PriceEntry,
  type Slice,
} from './methods';
export {
  addMonths,
  chargeOver,
  lastDay,
  monthsOf,
  recurringTotals,
  termBetween,
  tooShort,
  type Recurrence,
  type Term,
} from './recurring';
export { chooseGrant, quantityRate, type Grant, type QuantityDiscount } from './grants';
export { fourOf, markUpOf, type Four, type Typed } from './four';
export { resaleOf, sumResale } from './resale';
export {
  policiesHit,
  policyNames,
  priceNames,
  problemsOver,
  type FactsOf,
  type PolicyHit,
} from './over-quote';
export { spread } from './spread';
export {
  figureAt,
  figuresOf,
  judge,
  limitFor,
  needsOf,
  reachOf,
  stillHolds,
  type Judged,
  type Limit,
  type LineFigures,
  type Need,
  type Reach,
} from './limits';
export { atTarget, commission, monthlyRate } from './financing';
export { taxed, taxRate, type Taxed, type TaxRate } from './tax';
export type { Tariff, PricedPart, BuildPrice, LineTerms, WalkStep, LinePrice, LineRecurring } from './types';
