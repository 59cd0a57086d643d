/**
 * Numbers as people write them, in their language: 1,250.50 in English, 1.250,50 in German, either with
 * blanks that group.
 *
 * A sign that groups in the language is understood as grouping, and the other one as decimal; a number
 * written in the manner of the other language is understood where it cannot mean anything else. What can mean
 * two things is not guessed.
 */
import type { ExactText } from './decimal';

/** What a written number is: one, none, or one that could mean two. */
export type WrittenNumber =
  /** `decimals`: how many digits stood behind the decimal sign. */
  | { is: 'number'; value: ExactText; decimals: number }
  /**
   * "60.000" in English is sixty, to three decimals, or sixty thousand: the first is by the signs of the
   * language.
   */
  | { is: 'twoWays'; values: readonly [ExactText, ExactText]; decimals: number }
  | { is: 'none' };

const none: WrittenNumber = { is: 'none' };

/** The signs of a language. */
export const signsOf = (language: string): { decimal: ',' | '.'; groups: ',' | '.' } =>
  language === 'de' ? { decimal: ',', groups: '.' } : { decimal: '.', groups: ',' };

/** Blanks of all widths and apostrophes, which group in every language. */
const blank = /[ \u00a0\u2009\u202f'’]/;
const grouped = (sign: string): RegExp => new RegExp(`^\\d{1,3}(?:${sign}\\d{3})+$`);
const byBlanks = /^\d{1,3}(?:[ \u00a0\u2009\u202f'’]\d{3})+(?=[.,]\d|$)/;

/** Reads one number, without a unit. */
export function readWritten(typed: string, language: string): WrittenNumber {
  const [, minus = '', given = ''] = /^\s*([-−+]?)\s*(\S(?:.*\S)?)\s*$/.exec(typed) ?? [];
  if (given.length > 40) return none;
  const signed = (text: string): ExactText => plain(text, minus === '-' || minus === '−');
  const number = (whole: string, behind = ''): WrittenNumber =>
    /^\d{1,15}$/.test(whole) && behind.length <= 12
      ? { is: 'number', value: signed(behind === '' ? whole : `${whole}.${behind}`), decimals: behind.length }
      : none;
  let text = given;
  if (blank.test(text)) {
    const found = byBlanks.exec(text);
    if (!found) return none;
    // What is grouped by blanks has no other groups: a sign behind them is decimal.
    const rest = text.slice(found[0].length);
    const whole = found[0].replace(new RegExp(blank, 'g'), '');
    return rest === '' ? number(whole) : /^[.,]\d+$/.test(rest) ? number(whole, rest.slice(1)) : none;
  }
  if (/^[.,]\d+$/.test(text)) text = `0${text}`;
  if (!/^\d[\d.,]*$/.test(text)) return none;
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
  if (last < 0) return number(text);
  const sign = text[last] as '.' | ',';
  const other = sign === '.' ? ',' : '.';
  const [before, behind] = [text.slice(0, last), text.slice(last + 1)];
  // Of two kinds of sign the last is the decimal one, and the other groups.
  if (text.includes(other))
    return behind !== '' && grouped(escaped(other)).test(before)
      ? number(before.replaceAll(other, ''), behind)
      : none;
  const groups = grouped(escaped(sign)).test(text) && !/^0/.test(text);
  if (before.includes(sign)) return groups ? number(text.replaceAll(sign, '')) : none;
  // "12." is on the way to a decimal number.
  if (!groups) return behind === '' ? number(before) : number(before, behind);
  const whole = before + behind;
  if (sign === signsOf(language).groups) return number(whole);
  return { is: 'twoWays', values: [signed(`${before}.${behind}`), signed(whole)], decimals: behind.length };
}

const escaped = (sign: string): string => `\\${sign}`;

/** A decimal as it travels: without zeros that say nothing. */
function plain(text: string, negative: boolean): ExactText {
  const [whole = '0', behind = ''] = text.split('.');
  const [front, back] = [whole.replace(/^0+(?=\d)/, ''), behind.replace(/0+$/, '')];
  const value = back === '' ? front : `${front}.${back}`;
  return negative && value !== '0' ? `-${value}` : value;
}
