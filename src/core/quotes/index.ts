/** What a quote is made of besides its prices: the order of its lines, alternatives, revisions. */
export { grouped, moved } from './arrange';
export { elsewhere, languageIn, marketOf, writingIn, writings, type Market, type Writing } from './markets';
export { byMarket, numberBy, rangeProblem, type NumberRange } from './number-pattern';
export { circleIn, standsInFor, type Deputy } from './deputies';
export type { LineBasis } from './line-basis';
export { isWhole, quantityDecimals, unitOf } from './quantities';
export * from './revisions';
export { against, apart, countsFor, instead, settledAlternatives, type Alternative } from './alternatives';
