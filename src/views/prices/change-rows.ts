/** Rows of a price change as rows of a grid, and what was done to them as what is sent. */
import { cellsOfEntry, priceMethods, type EntryCell, type SheetColumn } from '../../core/prices';
import type { ChangeQuery, ChangeRowView, ListHead } from '../../contract';
import { own } from '../../i18n';
import { isBlank, type Cell, type Row } from '../../ui/grid';
import type { InWords } from '../speech';
import { changeOf, entryText, marginText, percentText } from './entry-words';

/** Which rows are shown. */
export type Shown = Pick<ChangeQuery, 'find' | 'page'> &
  Partial<Pick<ChangeQuery, 'list' | 'family' | 'only'>>;

/** Cells of a row in their order. */
export const changeCells = [
  'sku',
  'name',
  'list',
  'inside',
  'method',
  'is',
  'months',
  'was',
  'change',
  'cost',
  'margin',
  'note',
] as const;
/** The name of a cell. */
export type ChangeCell = (typeof changeCells)[number];

const placeAt = (cell: ChangeCell): number => changeCells.indexOf(cell);

/** The cell of an entry that has what is typed of it, by its method. */
export function figureCellOf(method: string): EntryCell | null {
  switch (method) {
    case 'bracket':
    case 'graduated':
    case 'usage':
      return 'tiers';
    case 'formula':
      return 'formula';
    case 'hand':
    case 'included':
    case 'none':
      return null;
    default:
      return 'price';
  }
}

/** How fine money is in a list. */
export const decimalsIn = (lists: readonly ListHead[], code: string): number =>
  lists.find((list) => list.code === code)?.decimals ?? 2;

/** A row as the grid shows it. */
export function rowOfChange(row: ChangeRowView, lists: readonly ListHead[], words: InWords): Row {
  const { t, language } = words;
  const { place, list, sku, inside, name, before, after, cost, warnings, problems, wrong } = row;
  if (wrong) return wrongRow(row, words);
  const decimals = decimalsIn(lists, list);
  const cells = cellsOfEntry(after, language, decimals);
  const figure = figureCellOf(cells.method);
  const change = changeOf(before, after, cost);
  const [problem] = problems;
  const is: string = figure === null ? '' : cells[figure];
  return {
    id: place,
    depth: 0,
    cells: [
      sku,
      own(name, language),
      list,
      inside,
      cells.method,
      problem ? { typed: is, why: t(problem.code, problem.params) } : is,
      cells.months,
      before ? entryText(before, decimals, words) : '',
      change === null ? '' : percentText(change, language, true),
      cost === '0' ? '' : cost,
      marginText(after, cost, language),
      warnings.map((warning) => t(`change.warning.${warning}`)).join(', '),
    ],
  };
}

/** A way of pricing by its word, as the grid keeps it; as it is typed where it is none. */
const methodIn = (typed: string, t: InWords['t']): string =>
  ([...priceMethods, 'none'] as const).find((method) =>
    [method, t(`prices.method.${method}`)].some((word) => word.toLowerCase() === typed.toLowerCase()),
  ) ?? typed;

/** A row of a file that cannot be read as it stands: what was typed, with why. */
function wrongRow({ place, sku, list, inside, wrong }: ChangeRowView, { t }: InWords): Row {
  const typed = wrong?.typed ?? {};
  const why = wrong?.wrong ?? {};
  const cell = (column: SheetColumn, text: string): Cell => {
    const problem = why[column];
    return problem ? { typed: typed[column] ?? text, why: t(problem.code, problem.params) } : text;
  };
  const figure = (['price', 'tiers', 'formula'] as const).find(
    (column) => why[column] !== undefined || (typed[column] ?? '') !== '',
  );
  return {
    id: place,
    depth: 0,
    cells: [
      cell('sku', sku),
      typed.name ?? '',
      cell('list', list),
      cell('inside', inside),
      cell('method', methodIn(typed.method ?? '', t)),
      figure ? cell(figure, typed[figure] ?? '') : '',
      cell('months', typed.months ?? ''),
      '',
      '',
      '',
      '',
      t('change.row', { row: place.replace('row ', '') }),
    ],
  };
}

/** What is sent of the rows of a grid: those that are new or different, and the names of those that are there no more. */
export interface SentRows {
  rows: { list: string; sku: string; inside: string; cells: Partial<Record<EntryCell, string>> }[];
  out: string[];
}

const textIn = (row: Row, cell: ChangeCell): string => {
  const value = row.cells[placeAt(cell)];
  return typeof value === 'string' ? value : (value?.typed ?? '');
};

/** Whether a row is as it was. */
const alike = (one: Row, other: Row): boolean =>
  one.cells.every((cell, at) => JSON.stringify(cell) === JSON.stringify(other.cells[at] ?? ''));

/** A row as it is sent; what its entry says besides what the grid shows stays with it. */
export function sentRow(
  row: Row,
  known: ChangeRowView | undefined,
  list: string,
  language: string,
): SentRows['rows'][number] {
  const method = textIn(row, 'method');
  const after = known?.after ?? null;
  const before = after ?? known?.before ?? null;
  const kept =
    before && before.entry.method === (method || before.entry.method)
      ? cellsOfEntry(before, language, 2)
      : null;
  const figure = figureCellOf(method || before?.entry.method || 'unit');
  return {
    list: textIn(row, 'list') || list,
    sku: textIn(row, 'sku').toUpperCase(),
    inside: textIn(row, 'inside').toUpperCase(),
    cells: {
      ...(method === '' ? {} : { method }),
      ...(figure === null ? {} : { [figure]: textIn(row, 'is') }),
      ...(kept && kept.least !== '' ? { least: kept.least } : {}),
      ...(kept && kept.of !== '' ? { of: kept.of } : {}),
      months: textIn(row, 'months'),
      ...(kept && kept.leastMonths !== '' && textIn(row, 'months') !== ''
        ? { leastMonths: kept.leastMonths }
        : {}),
    },
  };
}

/** What was done to the rows of a grid since it began. */
export function changesOf(
  first: readonly Row[],
  now: readonly Row[],
  views: ReadonlyMap<string, ChangeRowView>,
  list: string,
  language: string,
): SentRows {
  const before = new Map(first.map((row) => [row.id, row]));
  const there = new Set(now.map(({ id }) => id));
  const rows: SentRows['rows'] = [];
  const out = first.flatMap(({ id }) => (there.has(id) ? [] : [id]));
  for (const row of now) {
    const was = before.get(row.id);
    if (was ? alike(was, row) : isBlank(row)) continue;
    const view = views.get(row.id);
    const sent = sentRow(row, view, list, language);
    rows.push(sent);
    // Put elsewhere, or mended: what stood there before goes.
    if (was && row.id !== `${sent.list} ${sent.sku} ${sent.inside}`) out.push(row.id);
  }
  return { rows, out };
}
