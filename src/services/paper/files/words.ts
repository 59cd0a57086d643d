/** How paper speaks: texts of the application, and figures as its language writes them. */
import type { Words } from '../../../core/paper';
import { date, hasText, money, number, own, percent, translator } from '../../../i18n';

/** The words of a language, with amounts in so many decimals. */
export function wordsIn(language: string, decimals: number): Words {
  const t = translator(language);
  return {
    say: (word, params) => t(`paper.${word}`, params),
    amount: (value) => money(value, language, decimals),
    number: (value, most = 3) => number(value, language, most),
    percent: (share) => percent(share, language),
    date: (day) => date(day, language),
    unit: (unit) => (unit === 'pc' || !hasText(`unit.${unit}`) ? '' : t(`unit.${unit}` as 'unit.m')),
    own: (texts) => own(texts, language),
    yes: t('paper.yes'),
    no: t('paper.no'),
  };
}
