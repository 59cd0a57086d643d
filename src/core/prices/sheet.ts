/** Rows of a spreadsheet as entries of price lists: what each becomes, and what in it cannot be read. */
import type { PriceEntry } from '../pricing';
import { entryCells, readEntryCells, type CellProblem, type EntryCell, type ListEntry } from './cells';

/** Columns of a sheet of entries. */
export const sheetColumns = ['list', 'sku', 'name', 'inside', ...entryCells] as const;
/** The name of a column. */
export type SheetColumn = (typeof sheetColumns)[number];

/** Where an entry stands: in which list, for which item, inside which bundle alone (empty: anywhere). */
export interface EntryPlace {
  list: string;
  sku: string;
  inside: string;
}

/** A row that cannot be read as it stands: all that was typed, so that it is mended and not typed again, and why. */
export interface WrongRow {
  typed: Partial<Record<SheetColumn, string>>;
  wrong: Partial<Record<SheetColumn, CellProblem | PlaceProblem>>;
}

/** Why a row has no place. */
export interface PlaceProblem {
  code: 'cell.noItem' | 'cell.noList' | 'cell.noBundle' | 'cell.rowTwice';
  params?: Record<string, string | number>;
}

/** A row that was read: its entry (null: none any more), or what is wrong in it. */
export type SheetRow = { at: number; place: EntryPlace } & (
  { is: 'entry'; entry: ListEntry | null } | ({ is: 'wrong' } & WrongRow)
);

/** What rows are held against. */
export interface SheetMeans {
  language: string;
  /** The list of rows that name none. */
  list: string;
  /** Titles by which a column is known, as people may write them. */
  titles: Readonly<Record<SheetColumn, readonly string[]>>;
  hasItem: (sku: string) => boolean;
  hasList: (list: string) => boolean;
  isBundle: (sku: string) => boolean;
  before: (place: EntryPlace) => ListEntry | undefined;
  methodOf: (word: string) => PriceEntry['method'] | 'none' | undefined;
}

const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

/** Reads the rows of a sheet one by one. */
export interface SheetReader {
  /** Titles of columns that are none of an entry. */
  unknown: string[];
  /** A row by its number in the sheet; null where nothing stands in it. */
  read: (line: readonly string[], at: number) => SheetRow | null;
}

/** A reader by the titles of a sheet; null where none is that of item numbers. */
export function sheetReader(head: readonly string[], means: SheetMeans): SheetReader | null {
  const byTitle = new Map(
    sheetColumns.flatMap((column) =>
      [column, ...means.titles[column]].map((title): [string, SheetColumn] => [plain(title), column]),
    ),
  );
  const columns = head.map((title) => byTitle.get(plain(title)));
  if (!columns.includes('sku')) return null;
  const seen = new Set<string>();
  return {
    unknown: head.filter((title, at) => !columns[at] && title.trim() !== ''),
    read(line, at) {
      if (line.every((cell) => cell.trim() === '')) return null;
      const cells: Partial<Record<SheetColumn, string>> = {};
      columns.forEach((column, place) => {
        if (column) cells[column] = (line[place] ?? '').trim();
      });
      return readRow(cells, at, seen, means);
    },
  };
}

/** One row; `seen` are the places of those before it. */
export function readRow(
  cells: Partial<Record<SheetColumn, string>>,
  at: number,
  seen: Set<string>,
  means: SheetMeans,
): SheetRow {
  const place: EntryPlace = {
    list: (cells.list ?? '') === '' ? means.list : (cells.list ?? '').toUpperCase(),
    sku: (cells.sku ?? '').toUpperCase(),
    inside: (cells.inside ?? '').toUpperCase(),
  };
  const wrong: WrongRow['wrong'] = {};
  const refuse = (column: SheetColumn, problem: CellProblem | PlaceProblem): void => {
    wrong[column] ??= problem;
  };
  if (!means.hasItem(place.sku)) refuse('sku', { code: 'cell.noItem', params: { value: cells.sku ?? '' } });
  if (!means.hasList(place.list)) refuse('list', { code: 'cell.noList', params: { value: place.list } });
  if (place.inside !== '' && !means.isBundle(place.inside))
    refuse('inside', { code: 'cell.noBundle', params: { value: cells.inside ?? '' } });
  const key = `${place.list} ${place.sku} ${place.inside}`;
  if (seen.has(key)) refuse('sku', { code: 'cell.rowTwice', params: { sku: place.sku } });
  seen.add(key);
  const read = readEntryCells(cells, {
    language: means.language,
    before: means.before(place),
    methodOf: means.methodOf,
  });
  if (read.is === 'wrong')
    for (const [column, problem] of Object.entries(read.wrong)) refuse(column as EntryCell, problem);
  if (Object.keys(wrong).length > 0) return { at, place, is: 'wrong', typed: cells, wrong };
  return { at, place, is: 'entry', entry: read.is === 'entry' ? read.entry : null };
}
