/** Columns that lists of formulas share: names in both languages, formulas, and what they come to. */
import type { InWords } from '../../speech';
import { textAt, type PartColumn } from './part-columns';

/** A name in each language for what has none yet. */
export const named = (id: string): Record<string, string> => ({ en: id, de: id });
/** The language of the reader, then the other. */
export const both = ({ language }: InWords) =>
  language === 'de' ? (['de', 'en'] as const) : (['en', 'de'] as const);

/** The name in the language of the reader, and in the other. */
export function nameColumns(words: InWords): { name: PartColumn; other: PartColumn } {
  const { t } = words;
  const [own, other] = both(words);
  const title = { en: t('draft.rows.english'), de: t('draft.rows.german') };
  return {
    name: textAt(`name.${own}`, { id: 'name', title: t('draft.rows.name'), width: 180 }),
    other: textAt(`name.${other}`, { id: 'name2', title: title[other], width: 160 }),
  };
}

/** What stands in a column that nobody types in: worked out for the part, by its id. */
export const shownColumn = (title: string, width: number, valueOf: (id: string) => string): PartColumn => ({
  column: { id: 'value', title, width, kind: 'figure', fixed: true, read: (typed) => ({ kept: typed }) },
  read: ({ id }) => valueOf(id),
  write: (part) => part,
});

/** A formula: a condition by its name, any value where it is no figure, else a number. */
export const formula = (name: string, title: string, width = 260): PartColumn => ({
  ...textAt(name, { id: name, title, width, kind: 'code' }),
  feel:
    name === 'formula' ? {} : { wanted: name === 'when' ? { is: 'yesno' } : { is: 'number', unit: 'any' } },
});
