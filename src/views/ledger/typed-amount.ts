/** What is typed into the four ways of saying a price, and how they are shown. */
import { ValidationError, type Schema } from 'yup';
import type { Typed } from '../../core/pricing';
import { plainMoney, typedBy, typedMoney, withoutCurrency } from '../../core/quoting';
import { hasText, money, number, shift, type Translate } from '../../i18n';

export type Way = Typed['by'];

const isShare = (by: Way): boolean => by === 'rate' || by === 'margin';
const grouping = (language: string): ',' | '.' => (language === 'de' ? '.' : ',');

/** A share as percent, money with the currency's digits. */
export const shownIn = (by: Way, value: string, language: string, decimals: number): string => (isShare(by) ? number(shift(value, 2), language, 2) : money(value, language, decimals));

/** As it is sent: percent as typed, money without the signs that group. */
export const sendable = (by: Way, typed: string, language: string, currency: string): string => (isShare(by) ? typed.trim() : sendableMoney(typed, language, currency));

/** The quote's own currency may stand beside an amount; another is left for the check to refuse. */
export function sendableMoney(typed: string, language: string, currency: string): string {
  const written = withoutCurrency(typed);
  return written.currency !== undefined && written.currency !== currency ? typed : plainMoney(written.amount, grouping(language));
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
export const wrongBy = (by: Way, typed: string, language: string, currency: string, t: Translate): string | null => (typed.trim() === '' ? null : wrongWith(typedBy[by], sendable(by, typed, language, currency), t));

/** The same for money that stands by itself. */
export const wrongMoney = (typed: string, language: string, currency: string, t: Translate): string | null => (typed.trim() === '' ? null : wrongWith(typedMoney, sendableMoney(typed, language, currency), t));
export const moneyOrNone = (typed: string, language: string, currency: string): string | null => (typed.trim() === '' ? null : sendableMoney(typed, language, currency));
