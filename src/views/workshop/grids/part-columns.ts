/** Columns of grids whose rows are parts of a document: what of a part stands in each, and how it is written back. */
import type { FeelType } from '../../../core/formula';
import { valueAt, withValue, type Part } from '../../../core/modelling';
import type { Counting } from '../../../core/model';
import type { GridColumn } from '../../../ui/grid';
import type { InWords } from '../../speech';

/** What a cell holds, where it is a formula: what it must give, or the row that its tests are on. */
export interface Feel {
  wanted?: FeelType;
  /** The row that the tests of a table's cell are on. */
  cell?: string;
}

/** A column over the parts of a list. */
export interface PartColumn {
  column: GridColumn;
  /** There where it holds formulas. */
  feel?: Feel;
  /** What of a part stands there; "" for nothing. */
  read: (part: Part) => string;
  /** The part with something else there; "" takes it away. */
  write: (part: Part, kept: string) => Part;
}

type Head = Pick<GridColumn, 'id' | 'title' | 'width'> &
  Partial<Pick<GridColumn, 'kind' | 'needed' | 'fixed'>>;

/** A text or number at a name of something, as text; "" for anything else. */
export function plainAt(held: Parameters<typeof valueAt>[0], name: string): string {
  const value = valueAt(held, name);
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

/** A text at a name of the part. */
export const textAt = (name: string, head: Head): PartColumn => ({
  column: { ...head, read: (typed) => ({ kept: typed }) },
  read: (part) => plainAt(part, name),
  write: (part, kept) => withValue(part, name, kept === '' ? undefined : kept),
});

/** A whole number at a name of the part. */
export const wholeAt = (name: string, head: Head, { t }: InWords): PartColumn => ({
  column: {
    kind: 'figure',
    ...head,
    read: (typed) =>
      /^\d{1,6}$/.test(typed)
        ? { kept: String(Number(typed)) }
        : { why: t('draft.rows.badNumber', { value: typed }) },
  },
  read: (part) => plainAt(part, name),
  write: (part, kept) => withValue(part, name, kept === '' ? undefined : Number(kept)),
});

/** An item's number at a name of the part, of those that there are. */
export const itemAt = (
  name: string,
  head: Head,
  items: Readonly<Record<string, unknown>>,
  { t }: InWords,
): PartColumn => ({
  ...textAt(name, head),
  column: {
    kind: 'code',
    ...head,
    choices: Object.keys(items),
    read: (typed) => {
      const sku = typed.toUpperCase();
      return Object.hasOwn(items, sku) ? { kept: sku } : { why: t('draft.rows.noItem', { value: typed }) };
    },
  },
});

/** The id of the part: another id is a name that is changed everywhere, so the grid does not write it. */
export const idAt = (head: Head, { t }: InWords): PartColumn => ({
  column: {
    kind: 'code',
    ...head,
    read: (typed) =>
      /^[a-z][A-Za-z0-9]{0,39}$/.test(typed) ? { kept: typed } : { why: t('draft.rows.badId') },
  },
  read: ({ id }) => id,
  write: (part, kept) => (kept === '' ? part : { ...part, id: kept }),
});

/** How something is counted with its line, in words. */
export function countingAt(name: string, head: Head, { t }: InWords): PartColumn {
  const each = t('draft.rows.counted.each');
  const plain = { line: t('draft.rows.counted.line'), typed: t('draft.rows.counted.typed') };
  const every = (count: string): string => t('draft.rows.counted.every', { count });
  const shown = (kept: string): string =>
    kept === 'line' || kept === 'typed' ? plain[kept] : kept === '1' ? each : every(kept);
  const alike = (one: string, other: string): boolean => one.toLowerCase() === other.toLowerCase();
  return {
    column: {
      ...head,
      choices: [each, every('2'), every('4'), plain.line, plain.typed],
      shown,
      read: (typed) => {
        if (alike(typed, each)) return { kept: '1' };
        if (alike(typed, plain.line)) return { kept: 'line' };
        if (alike(typed, plain.typed)) return { kept: 'typed' };
        const [count] = /\d{1,5}/.exec(typed) ?? [];
        return count !== undefined && Number(count) > 0
          ? { kept: String(Number(count)) }
          : { why: t('draft.rows.badCounts') };
      },
    },
    read: (part) => {
      const counting = valueAt(part, name) as Counting | undefined;
      if (counting === undefined) return '';
      return typeof counting === 'string' ? counting : String(counting.every);
    },
    write: (part, kept) => {
      const counting = kept === 'line' || kept === 'typed' ? kept : { every: Number(kept) };
      return withValue(part, name, kept === '' || kept === '1' ? undefined : counting);
    },
  };
}
