/**
 * Pricing: what a build or an item lists at, and the price walk from list to net.
 *
 * Money is an exact decimal in one currency; nothing is rounded before the unit net price, which is rounded
 * half up to the currency's minor unit and then multiplied by the quantity; what a line recurs for over its
 * term, and its share of the whole-quote discount, come to the minor unit as well, and so does what is sold
 * by a measure, such as 12.5 m, so that what is printed adds up.
 */
export { priceBuild } from './list/build-price';
export { monthsOfPart, partOverTerm, usualMonths } from './list/part-term';
export { tariffFrom, type ListedItem } from './list/tariff';
export { factsWithin, itemsNeeded, tariffWithin } from './list/needed';
export { priceTerms } from './list/price-terms';
export { costOf, type BuildCost } from './line/cost';
export { across, multiplies, type AcrossRow } from './line/across';
export { atQuantities } from './line/at-quantities';
export { sidesOf, walk } from './line/walk';
export { overTerm } from './line/over-term';
export { recurringIn, runningIn } from './line/running';
export { sumLines, type Totals } from './quote/totals';
export { pricer, priceQuote } from './quote/quote';
export type {
  Offer,
  PricedLine,
  PricedQuote,
  PriceProblem,
  QuoteLine,
  QuoteTerms,
  Whole,
} from './quote/quote-types';
export { explain, worksOut } from './quote/explain';
export type { ExplainedLine, Explanation, Figure, Operand, QuoteFigure } from './quote/explanation';
export { notesOn } from './line/notes';
export { quoteWalk } from './quote/quote-walk';
export {
  entryProblem,
  listed,
  withRates,
  type Bracket,
  type LineRates,
  type Listed,
  type PriceEntry,
  type Slice,
} from './list/methods';
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
} from './line/recurring';
export { chooseGrant, quantityRate, type Grant, type QuantityDiscount } from './line/grants';
export { priceFiguresOf, markUpOf, type PriceFigures, type Typed } from './line/price-figures';
export { resaleOf, sumResale } from './line/resale';
export {
  policiesHit,
  policyNames,
  priceNames,
  problemsOver,
  type FactsOf,
  type PolicyHit,
} from './quote/quote-formulas';
export { spread } from './quote/spread';
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
} from './limits/limits';
export { atTarget, commission, monthlyRate } from './quote/financing';
export { taxed, taxRate, type Taxed, type TaxRate } from './quote/tax';
export type { Tariff, PricedPart, BuildPrice, LineTerms, WalkStep, LinePrice, LineRecurring } from './types';
