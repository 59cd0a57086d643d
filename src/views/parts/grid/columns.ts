/** Columns of grids by what stands in them, each with how it is read, shown and typed in a language. */
import { readDay } from '../../../ui/date-picker';
import { date } from '../../../i18n';
import type { GridColumn } from '../../../ui/grid';
import type { InWords } from '../../speech';

/** What every column has. */
type Head = Pick<GridColumn, 'id' | 'title' | 'width' | 'needed'>;

/** Texts of so many characters at most. */
export const textColumn = (head: Head, most: number, { t }: InWords): GridColumn => ({
  ...head,
  read: (typed) => (typed.length > most ? { why: t('input.tooLong') } : { kept: typed }),
});

/** Days, typed as one writes them; kept in ISO form. */
export const dayColumn = (head: Head, { t, language }: InWords): GridColumn => ({
  ...head,
  read: (typed) => {
    const day = readDay(typed, language, new Date());
    return day === null ? { why: t('day.notADay', { value: typed }) } : { kept: day };
  },
  shown: (day) => date(day, language),
});

/** Countries, by name or by their two letters, which are kept. `near`: those that are proposed. */
export function countryColumn(head: Head, near: readonly string[], { t, language }: InWords): GridColumn {
  const names = new Intl.DisplayNames([language], { type: 'region', fallback: 'none' });
  const nameOf = (code: string): string => names.of(code) ?? code;
  const known = new Map(near.map((code) => [nameOf(code).toLowerCase(), code]));
  return {
    ...head,
    choices: near.map(nameOf),
    read: (typed) => {
      const code =
        known.get(typed.toLowerCase()) ?? (/^[A-Za-z]{2}$/.test(typed) ? typed.toUpperCase() : null);
      return code !== null && names.of(code) !== undefined
        ? { kept: code }
        : { why: t('grid.noCountry', { value: typed }) };
    },
    shown: nameOf,
  };
}

/** A few things to choose from, by what is read or by what is kept. */
export function choiceColumn(
  head: Head,
  choices: readonly { kept: string; text: string }[],
  why: (typed: string) => string,
): GridColumn {
  const textOf = new Map(choices.map(({ kept, text }) => [kept, text]));
  const alike = (one: string, other: string): boolean => one.toLowerCase() === other.trim().toLowerCase();
  return {
    ...head,
    choices: choices.map(({ text }) => text),
    read: (typed) => {
      const found = choices.find(({ kept, text }) => alike(text, typed) || alike(kept, typed));
      return found ? { kept: found.kept } : { why: why(typed) };
    },
    shown: (kept) => textOf.get(kept) ?? kept,
  };
}

/** Several countries, by names or letters, set apart by commas; their letters are kept. */
export function countriesColumn(head: Head, near: readonly string[], words: InWords): GridColumn {
  const one = countryColumn(head, near, words);
  return {
    ...head,
    read: (typed) => {
      const kept: string[] = [];
      for (const each of typed.split(/[,;]+|\s+(?=[A-Za-z]{2}(?:\s|$))/).map((part) => part.trim())) {
        if (each === '') continue;
        const read = one.read(each);
        if (!('kept' in read)) return read;
        if (!kept.includes(read.kept)) kept.push(read.kept);
      }
      return { kept: kept.join(', ') };
    },
  };
}
