/**
 * Exact decimals: the only arithmetic that may reach money, a limit or a rule.
 * Precision and rounding follow FEEL (decimal128: 34 digits, half even).
 */
export { Exact, exact, zero, readExact, roundHalfUp, type ExactText } from './decimal';
export {
  Sum,
  compare,
  divided,
  fixed,
  minus,
  negative,
  nothing,
  ofQuantity,
  ofWhole,
  plus,
  ratio,
  rounded,
  textOf,
  times,
  unitsAt,
  type Fixed,
} from './fixed';

export { plainMoney, plainPercent, withoutCurrency } from './as-typed';
export { readWritten } from './read-written';
export { inUnit, shownUnit, shownValue, type Units } from './measures';
