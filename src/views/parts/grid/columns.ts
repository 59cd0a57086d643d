/** Columns of grids by what stands in them, each with how it is read, shown and typed in a language. */
import { readDay } from '../../../ui/date-picker';
import { exact, readWritten } from '../../../core/exact';
import { date, money } from '../../../i18n';
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

/**
 * Numbers from nothing on, as one writes them in the language, with so many decimals at most, and shown with so many at
 * least; exact texts are kept.
 */
export const figureColumn = (
  head: Head,
  decimals: number,
  { t, language }: InWords,
  least = 0,
): GridColumn => ({
  kind: 'figure',
  ...head,
  read: (typed) => {
    const written = readWritten(typed, language);
    if (written.is === 'none') return { why: t('grid.noNumber', { value: typed }) };
    const value = written.is === 'number' ? written.value : written.values[0];
    if (exact(value).isNegative()) return { why: t('grid.negative') };
    return written.decimals > decimals
      ? { why: t('grid.tooFine', { count: decimals }) }
      : { kept: exact(value).toString() };
  },
  shown: (kept) => money(kept, language, Math.max(least, exact(kept).decimalPlaces())),
  typed: (kept) => plainlyWritten(kept, language),
});

/** Shares as one writes them in percent, with or without the sign; kept as exact texts: 0.035 is 3.5 %. */
export const shareColumn = (head: Head, { t, language }: InWords): GridColumn => ({
  kind: 'figure',
  ...head,
  read: (typed) => {
    const written = readWritten(typed.replace(/\s*%$/, ''), language);
    if (written.is === 'none') return { why: t('grid.noNumber', { value: typed }) };
    const value = exact(written.is === 'number' ? written.value : written.values[0]).div(100);
    return value.lt(0) || value.gt(1) ? { why: t('grid.noShare') } : { kept: value.toString() };
  },
  shown: (kept) => `${plainlyWritten(exact(kept).times(100).toString(), language)} %`,
});

/** A number as it is typed: without groups, with the sign of the language. */
const plainlyWritten = (kept: string, language: string): string =>
  language === 'de' ? kept.replace('.', ',') : kept;

/** Something that is or is not; '1' is kept where it is. */
export const markColumn = (head: Head): GridColumn => ({
  kind: 'mark',
  ...head,
  read: (typed) => ({ kept: /^(1|x|✓|yes|ja|true)$/i.test(typed) ? '1' : '' }),
  shown: () => '✓',
  typed: () => 'x',
});

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
