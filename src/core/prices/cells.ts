/** Entries as cells of a row, as people write them in a spreadsheet and read them in a grid. */
import { exact, readWritten, type ExactText } from '../exact';
import type { PriceEntry, Recurrence } from '../pricing';

/** All ways of pricing, in the order in which they are offered. */
export const priceMethods = [
  'unit',
  'bracket',
  'graduated',
  'usage',
  'costPlus',
  'share',
  'formula',
  'hand',
  'included',
] as const satisfies readonly PriceEntry['method'][];

/** An entry, and for which period it is where it recurs. */
export interface ListEntry {
  entry: PriceEntry;
  every: Recurrence | null;
}

/** Cells of an entry. */
export const entryCells = [
  'method',
  'price',
  'tiers',
  'least',
  'of',
  'formula',
  'months',
  'leastMonths',
] as const;
/** The name of a cell. */
export type EntryCell = (typeof entryCells)[number];

/** Why a cell cannot be read; `params` go into its sentence. */
export interface CellProblem {
  code: 'cell.noNumber' | 'cell.twoWays' | 'cell.noMethod' | 'cell.noTiers' | 'cell.needed' | 'cell.noMonths';
  params?: Record<string, string | number>;
}

/** What cells come to: an entry, none any more, or what is wrong in which of them. */
export type ReadEntry =
  | { is: 'entry'; entry: ListEntry }
  | { is: 'none' }
  | { is: 'wrong'; wrong: Partial<Record<EntryCell, CellProblem>> };

const written = (value: ExactText, language: string, least = 0): string => {
  const number = exact(value);
  const text = number.toFixed(Math.max(least, number.decimalPlaces()));
  return language === 'de' ? text.replace('.', ',') : text;
};
const percent = (value: ExactText, language: string): string =>
  `${written(exact(value).times(100).toString(), language)} %`;

/** An entry as cells; null is one that ends. `decimals`: of money in its list. */
export function cellsOfEntry(
  given: ListEntry | null,
  language: string,
  decimals: number,
): Record<EntryCell, string> {
  const cells: Record<EntryCell, string> = {
    method: given?.entry.method ?? 'none',
    price: '',
    tiers: '',
    least: '',
    of: '',
    formula: '',
    months: given?.every ? String(given.every.baseMonths) : '',
    leastMonths: given?.every?.leastMonths === undefined ? '' : String(given.every.leastMonths),
  };
  if (!given) return cells;
  const { entry } = given;
  switch (entry.method) {
    case 'unit':
      return { ...cells, price: written(entry.price, language, decimals) };
    case 'bracket':
      return {
        ...cells,
        tiers: entry.brackets
          .map(({ from, below, price }) =>
            tierText(from, below, written(price, language, decimals), language),
          )
          .join('; '),
      };
    case 'graduated':
    case 'usage':
      return {
        ...cells,
        tiers: entry.slices
          .map(({ from, below, rate }) => tierText(from, below, written(rate, language, decimals), language))
          .join('; '),
        least:
          entry.method === 'usage' && entry.least !== undefined
            ? written(entry.least, language, decimals)
            : '',
      };
    case 'costPlus':
      return { ...cells, price: percent(entry.markUp, language) };
    case 'share':
      return { ...cells, price: percent(entry.rate, language), of: entry.of.join(', ') };
    case 'formula':
      return { ...cells, formula: entry.formula };
    default:
      return cells;
  }
}

const tierText = (from: ExactText, below: ExactText | undefined, price: string, language: string): string =>
  `${written(from, language)} - ${below === undefined ? '' : `${written(below, language)} `}: ${price}`.replace(
    ' :',
    ':',
  );

/**
 * Reads cells. Where no method is said, it is that of the entry before, else by the piece. `methodOf` reads a method
 * from a word of the language; "none" ends the entry.
 */
export function readEntryCells(
  cells: Partial<Record<EntryCell, string>>,
  {
    language,
    before,
    methodOf,
  }: {
    language: string;
    before: ListEntry | undefined;
    methodOf: (word: string) => PriceEntry['method'] | 'none' | undefined;
  },
): ReadEntry {
  const text = (cell: EntryCell): string => (cells[cell] ?? '').trim();
  const wrong: Partial<Record<EntryCell, CellProblem>> = {};
  const number = (cell: EntryCell, typed: string): ExactText => {
    const read = numberIn(typed, language);
    if (typeof read === 'string') return read;
    wrong[cell] = read;
    return '0';
  };
  const needed = (cell: EntryCell): string => {
    if (text(cell) === '') wrong[cell] = { code: 'cell.needed' };
    return text(cell);
  };
  const method = text('method') === '' ? (before?.entry.method ?? 'unit') : methodOf(text('method'));
  if (method === undefined)
    return { is: 'wrong', wrong: { method: { code: 'cell.noMethod', params: { value: text('method') } } } };
  if (method === 'none') return { is: 'none' };
  const tiers = (): { from: ExactText; below?: ExactText; figure: ExactText }[] => {
    const read = readTiers(needed('tiers'), language);
    if (Array.isArray(read)) return read;
    if (wrong.tiers === undefined) wrong.tiers = read;
    return [];
  };
  const share = (typed: string): ExactText =>
    exact(number('price', typed.replace(/\s*%$/, '')))
      .div(100)
      .toString();
  const made = (): PriceEntry => {
    switch (method) {
      case 'unit':
        return { method, price: number('price', needed('price')) };
      case 'bracket':
        return {
          method,
          brackets: tiers().map(({ figure, ...tier }) => ({ ...tier, price: figure })),
        };
      case 'graduated':
        return { method, slices: tiers().map(({ figure, ...tier }) => ({ ...tier, rate: figure })) };
      case 'usage':
        return {
          method,
          slices: tiers().map(({ figure, ...tier }) => ({ ...tier, rate: figure })),
          ...(text('least') === '' ? {} : { least: number('least', text('least')) }),
        };
      case 'costPlus':
        return { method, markUp: share(needed('price')) };
      case 'share':
        return {
          method,
          rate: share(needed('price')),
          of: needed('of')
            .split(/[,;]/)
            .map((name) => name.trim())
            .filter((name) => name !== ''),
        };
      case 'formula':
        return { method, formula: needed('formula') };
      default:
        return { method };
    }
  };
  const entry = made();
  const months = (cell: 'months' | 'leastMonths'): number | null => {
    const typed = text(cell);
    if (typed === '') return null;
    if (/^\d{1,4}$/.test(typed)) return Number(typed);
    wrong[cell] = { code: 'cell.noMonths', params: { value: typed } };
    return null;
  };
  const [baseMonths, leastMonths] = [months('months'), months('leastMonths')];
  if (Object.keys(wrong).length > 0) return { is: 'wrong', wrong };
  // Where no period is said, it stays that of the entry before.
  const same = text('months') === '' && before?.entry.method === method ? (before.every ?? null) : null;
  const every = baseMonths === null ? same : { baseMonths, ...(leastMonths === null ? {} : { leastMonths }) };
  return { is: 'entry', entry: { entry, every } };
}

function numberIn(typed: string, language: string): ExactText | CellProblem {
  const read = readWritten(typed, language);
  switch (read.is) {
    case 'number':
      return read.value;
    case 'twoWays':
      return { code: 'cell.twoWays', params: { one: read.values[0], other: read.values[1] } };
    case 'none':
      return { code: 'cell.noNumber', params: { value: typed } };
  }
}

/** "1 - 5: 900; 5 -: 1500": from (inclusive) to below (exclusive), and what the tier comes to. */
function readTiers(
  typed: string,
  language: string,
): { from: ExactText; below?: ExactText; figure: ExactText }[] | CellProblem {
  const found: { from: ExactText; below?: ExactText; figure: ExactText }[] = [];
  for (const part of typed.split(/[;\n]/)) {
    if (part.trim() === '') continue;
    const [, from = '', below = '', figure = ''] =
      /^\s*(\S+?)\s*(?:[-–]|to|bis)\s*([^\s:]*)\s*:\s*(\S.*?)\s*$/.exec(part) ?? [];
    const numbers = [from, ...(below === '' ? [] : [below]), figure].map((each) => numberIn(each, language));
    const stuck = numbers.find((each) => typeof each !== 'string');
    if (stuck !== undefined)
      return typeof stuck !== 'string' && stuck.code === 'cell.twoWays'
        ? stuck
        : { code: 'cell.noTiers', params: { value: part.trim() } };
    const read = numbers as ExactText[];
    found.push({
      from: read[0] ?? '0',
      ...(below === '' ? {} : { below: read[1] ?? '0' }),
      figure: read.at(-1) ?? '0',
    });
  }
  return found;
}
