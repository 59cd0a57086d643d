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
