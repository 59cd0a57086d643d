/** The typed figure: a rate, an amount, a net price or a margin, as people write it and as it is kept. */
import { string, type Schema } from 'yup';
import { exact, plainMoney, plainPercent, readExact, withoutCurrency } from '../core/exact';
import type { Typed } from '../core/pricing';
import { exactly, oneOf, percent, share, type Sent } from './schema';

/** A discount in percent as typed: "3.5" or "3,5". */
export const discountPercent = percent(share, 'discount.range', 'discount.notANumber').required(
  'discount.required',
);

/**
 * An amount of money as typed: "1250", "1250.50", "1.250,50" or "1,250.50", in the currency of the quote,
 * which is not written.
 */
const moneyBelow = (most: string) =>
  string()
    .test(
      'currency',
      'amount.currency',
      (value?: string | null) => withoutCurrency(value ?? '').currency === undefined,
    )
    .test(
      'number',
      'amount.notANumber',
      (value?: string | null) => typeof value !== 'string' || readExact(plainMoney(value)) !== null,
    )
    .test('range', 'amount.range', (value?: string | null) => {
      const read = typeof value === 'string' ? readExact(plainMoney(value)) : null;
      return read === null || (read.gte(0) && read.lt(most));
    });

/** An amount of one line or piece. */
export const typedMoney = moneyBelow('1e12').required('amount.required');
/** Of a whole quote: in a currency without decimals it may be far more than a piece costs. */
const wholeMoney = moneyBelow('1e15').required('amount.required');

/** A margin in percent as typed; all or more of the net price is none. */
export const marginPercent = percent(
  (read) => read.gt(-1000) && read.lt(100),
  'margin.range',
  'margin.notANumber',
).required('margin.required');

/** What may be typed for each of the four. */
export const typedBy = {
  rate: discountPercent,
  amount: typedMoney,
  net: typedMoney,
  margin: marginPercent,
} as const;
const wholeBy = { ...typedBy, amount: wholeMoney, net: wholeMoney } as const;

/** How a figure of a kind is typed; of an unknown kind, which is refused itself, anything. */
const typedIn = (kinds: Readonly<Record<string, Schema>>, by: string | undefined): Schema =>
  Object.hasOwn(kinds, by ?? '') ? (kinds[by ?? ''] as Schema) : string();

const figure = (kinds: Readonly<Record<string, Schema>>) =>
  exactly({
    by: oneOf(['rate', 'amount', 'net', 'margin'], 'input.badKind').required('input.required'),
    value: string()
      .defined()
      .when('by', ([by]: string[]) => typedIn(kinds, by)),
  });

/** On a line; null takes back what was typed. */
export const typedFigure = figure(typedBy).nullable().optional().default(undefined);
/** For a whole quote. */
export const typedForWhole = figure(wholeBy).nullable().optional().default(undefined);

/** A figure as it was typed, and which of the four it is. */
export type TypedInput = NonNullable<Sent<typeof typedFigure>>;

/** What was typed, as it is kept: shares as fractions, amounts as they travel. */
export const typedOf = ({ by, value }: TypedInput): Typed => ({
  by,
  value:
    by === 'rate' || by === 'margin'
      ? exact(plainPercent(value)).div(100).toString()
      : exact(plainMoney(value)).toString(),
});
