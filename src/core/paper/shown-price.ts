/** The price of a line as its reader is shown it: with discounts at the line, at list prices, or at net alone. */
import { exact, roundHalfUp, type ExactText } from '../exact';
import { across, multiplies, type AcrossRow, type LinePrice } from '../pricing';
import type { LinesChoice } from './composition';

/** A row of a line: how many, at what, which makes how much. */
export interface ShownRow {
  is: AcrossRow['is'];
  quantity?: number;
  /** Of one, where the row multiplies across. */
  unitList?: ExactText;
  unitNet?: ExactText;
  /** Of what is for all at once: its price at list. */
  forAll?: ExactText;
  /** Taken off the list price, as a share. */
  off?: ExactText;
  /** How often the price is charged, where it recurs. */
  periods?: ExactText;
  term?: NonNullable<AcrossRow['term']>;
  amount: ExactText;
}

/** The rows of a line; together they are what `lineAmount` says. */
export function shownRows(
  price: LinePrice,
  quantity: number,
  discounts: LinesChoice['discounts'],
  decimals: number,
  withShare: boolean,
): ShownRow[] {
  return across(shownPrice(price, discounts, decimals), quantity)
    .filter(({ is }) => is !== 'share' || withShare)
    .map((row) => shownRow(row, discounts, decimals));
}

/** A price with nothing in it that is not shown. */
export function shownPrice(
  price: LinePrice,
  discounts: LinesChoice['discounts'],
  decimals: number,
): LinePrice {
  switch (discounts) {
    case 'line':
      return price;
    case 'sum':
      return atList(price, decimals);
    case 'none':
      return atNet(price);
  }
}

/** As if nothing were taken off. */
function atList({ before: _before, share: _share, once, ...price }: LinePrice, decimals: number): LinePrice {
  const own = { ...price, unitNet: price.unitList };
  const subscriptions = price.subscriptions?.map((each) => atList(each, decimals));
  // What is due once comes to the minor unit by itself, and so does each part that recurs.
  const list = roundHalfUp(exact(price.list), decimals).toString();
  return {
    ...own,
    list,
    net: list,
    ...(once ? { once: { list: rounded(once.list, decimals), net: rounded(once.list, decimals) } } : {}),
    ...(subscriptions ? { subscriptions } : {}),
  };
}

/** At what is left to pay, with nothing to see of what was taken off. */
function atNet({ before: _before, share: _share, once, ...price }: LinePrice): LinePrice {
  return {
    ...price,
    unitList: price.unitNet,
    list: price.net,
    ...(once ? { once: { list: once.net, net: once.net } } : {}),
    ...(price.subscriptions ? { subscriptions: price.subscriptions.map(atNet) } : {}),
  };
}

const rounded = (value: ExactText, decimals: number): ExactText =>
  roundHalfUp(exact(value), decimals).toString();

/** Digits behind the point of how often something is charged; with more it is told in words. */
const periodDigits = 4;

function shownRow(row: AcrossRow, discounts: LinesChoice['discounts'], decimals: number): ShownRow {
  const { is, quantity, unitList, unitNet, term, amount } = row;
  const periods = term && term.days === 0 ? exact(term.months).div(term.baseMonths) : undefined;
  const told = periods === undefined || periods.toDecimalPlaces(periodDigits).eq(periods);
  const each =
    quantity !== undefined &&
    unitNet !== undefined &&
    told &&
    (term === undefined || periods !== undefined) &&
    multiplies(row, decimals);
  const off =
    discounts === 'line' && unitList !== undefined && unitNet !== undefined && !exact(unitList).isZero()
      ? exact(unitList).minus(unitNet).div(unitList)
      : exact(0);
  return {
    is,
    amount,
    ...(quantity === undefined ? {} : { quantity }),
    ...(each ? { unitNet, ...(unitList === undefined ? {} : { unitList }) } : {}),
    ...(quantity === undefined && is !== 'once' && unitList !== undefined ? { forAll: unitList } : {}),
    ...(off.abs().lt('0.00005') ? {} : { off: off.toString() }),
    ...(each && periods !== undefined ? { periods: periods.toString() } : {}),
    ...(term ? { term } : {}),
  };
}

/** What a line comes to as it is shown; before a discount on the whole where that is told by itself. */
export function lineAmount(
  price: LinePrice,
  discounts: LinesChoice['discounts'],
  decimals: number,
  withShare: boolean,
): ExactText {
  const shown = shownPrice(price, discounts, decimals);
  return withShare
    ? shown.net
    : exact(shown.net)
        .plus(shown.share ?? '0')
        .toString();
}
