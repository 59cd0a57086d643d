/** How a document speaks, as far as a text of the house that is tried in the page needs it. */
import type { Words } from '../../../core/paper';
import { date, money, number, own, percent, translator } from '../../../i18n';

/** The words of a language, with amounts in so many decimals; phrases are those of the page's own language. */
export function wordsFor(language: string, decimals: number): Words {
  const t = translator(language);
  return {
    say: (word, params) => t(`paper.${word}`, params),
    amount: (value) => money(value, language, decimals),
    number: (value, most = 3) => number(value, language, most),
    percent: (share) => percent(share, language),
    date: (day) => date(day, language),
    unit: (unit) => unit,
    own: (texts) => own(texts, language),
    yes: language === 'de' ? 'ja' : 'yes',
    no: language === 'de' ? 'nein' : 'no',
  };
}
