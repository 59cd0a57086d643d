/** What is typed into the four ways of saying a price, and how they are shown. */
import { ValidationError, type Schema } from 'yup';
import type { Typed } from '../../../core/pricing';
import { readWritten, withoutCurrency } from '../../../core/exact';
import { isWhole } from '../../../core/quotes';
import { quantity, typedBy, typedMoney } from '../../../contract';
import { hasText, money, number, shift, type Translate } from '../../../i18n';

/** Which of the four. */
export type Way = Typed['by'];

const isShare = (by: Way): boolean => by === 'rate' || by === 'margin';

/** A share as percent, money with the currency's digits. */
export const shownIn = (by: Way, value: string, language: string, decimals: number): string =>
  isShare(by) ? number(shift(value, 2), language, 2) : money(value, language, decimals);

/**
 * As it is sent: a plain decimal, percent or money. What cannot be read, or could mean two things, goes as it
 * is typed and is refused.
 */
export const sendable = (by: Way, typed: string, language: string, currency: string): string =>
  isShare(by) ? sendableShare(typed, language) : sendableMoney(typed, language, currency);

/** A thousand per cent and more is none that anybody means: what could be that is the other. */
function sendableShare(typed: string, language: string): string {
  const read = readWritten(typed.trim().replace(/\s*%$/, ''), language);
  return read.is === 'number' ? read.value : read.is === 'twoWays' ? read.values[0] : typed.trim();
}

/** The quote's own currency may stand beside an amount; another is left for the check to refuse. */
export function sendableMoney(typed: string, language: string, currency: string): string {
  const written = withoutCurrency(typed);
  if (written.currency !== undefined && written.currency !== currency) return typed;
  const read = readWritten(written.amount, language);
  return read.is === 'number' ? read.value : typed;
}

/** Asks back where a number could mean two things; null where it does not. */
export function twoWays(typed: string, language: string, t: Translate): string | null {
  const read = readWritten(typed, language);
  return read.is === 'twoWays'
    ? t('decision.twoWays', {
        typed: typed.trim(),
        one: number(read.values[1], language),
        other: number(read.values[0], language),
      })
    : null;
}

/** How much, as it is sent. */
export function sendableQuantity(typed: string, language: string): string {
  const read = readWritten(typed, language);
  return read.is === 'number' ? read.value : typed.trim();
}
/** `unit`: of what; where it is not said, the server tells whether it must be whole. */
export function wrongQuantity(typed: string, language: string, t: Translate, unit = 'm'): string | null {
  const sent = sendableQuantity(typed, language);
  return (
    twoWays(typed, language, t) ??
    wrongWith(quantity, sent, t) ??
    (isWhole(unit) && !/^\d+$/.test(sent) ? t('quantity.whole') : null)
  );
}

/** The sentence of what is wrong with something typed, or null. */
export function wrongWith(schema: Schema, typed: string, t: Translate): string | null {
  try {
    schema.validateSync(typed);
    return null;
  } catch (failure) {
    const code = failure instanceof ValidationError ? failure.message : '';
    return t(hasText(code) ? code : 'input.invalid');
  }
}

/** Nothing typed takes back what was. */
export const wrongBy = (
  by: Way,
  typed: string,
  language: string,
  currency: string,
  t: Translate,
): string | null =>
  typed.trim() === ''
    ? null
    : ((isShare(by) ? null : twoWays(withoutCurrency(typed).amount, language, t)) ??
      wrongWith(typedBy[by], sendable(by, typed, language, currency), t));

/** The same for money that stands by itself. */
export const wrongMoney = (typed: string, language: string, currency: string, t: Translate): string | null =>
  typed.trim() === ''
    ? null
    : (twoWays(withoutCurrency(typed).amount, language, t) ??
      wrongWith(typedMoney, sendableMoney(typed, language, currency), t));
export const moneyOrNone = (typed: string, language: string, currency: string): string | null =>
  typed.trim() === '' ? null : sendableMoney(typed, language, currency);
