/** How paper speaks: texts of the application, and figures as its language writes them. */
import type { Words } from '../core/paper';
import { date, money, number, percent } from './format';
import { hasText, own, translator } from './texts';

/**
 * The words of a language, with amounts in so many decimals. In a page, where one language's texts are loaded, phrases
 * are in that one.
 */
export function paperWords(language: string, decimals: number): Words {
  const t = translator(language);
  return {
    say: (word, params) => t(`paper.${word}`, params),
    amount: (value) => money(value, language, decimals),
    number: (value, most = 3) => number(value, language, most),
    percent: (share) => percent(share, language),
    date: (day) => date(day, language),
    unit: (unit) => (unit === 'pc' || !hasText(`unit.${unit}`) ? '' : t(`unit.${unit}` as 'unit.m')),
    own: (texts) => own(texts, language),
    yes: own({ en: 'yes', de: 'ja' }, language),
    no: own({ en: 'no', de: 'nein' }, language),
  };
}
