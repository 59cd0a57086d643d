/** Items as rows of a grid, and what was done to the rows as changes of items. */
import type { ItemRowView } from '../../contract';
import { same } from '../../core/items';
import { isBlank, isWrong, type Row } from '../../ui/grid';

/** Cells of a row in their order. */
export const itemCells = [
  'sku',
  'en',
  'de',
  'family',
  'kind',
  'unit',
  'cost',
  'leadDays',
  'mass',
  'active',
  'sold',
  'discountable',
] as const;

const mark = (is: boolean): string => (is ? '1' : '');

/** An item as a row, named by its number. */
export const rowOf = (item: ItemRowView): Row => ({
  id: item.sku,
  depth: 0,
  cells: [
    item.sku,
    item.name.en ?? '',
    item.name.de ?? '',
    item.family,
    item.kind,
    item.unit,
    item.cost,
    String(item.leadDays),
    item.mass ?? '',
    mark(item.active),
    mark(item.sold),
    mark(item.discountable),
  ],
});

/** A row as it is sent. */
export type SentRow = Partial<Omit<ItemRowView, 'version'>> & { sku: string; version?: number };

/** What was done to the rows: those that are new or different, and the numbers of those taken away. */
export interface RowChanges {
  changed: ReadonlyMap<string, Row>;
  gone: ReadonlySet<string>;
}

/** No changes. */
export const noChanges: RowChanges = { changed: new Map(), gone: new Set() };

/** What was done before and now: `shown` are the rows as they were when the grid began with them. */
export function changesIn(
  before: RowChanges,
  shown: readonly Row[],
  now: readonly Row[],
  items: ReadonlyMap<string, ItemRowView>,
): RowChanges {
  const changed = new Map(before.changed);
  const gone = new Set(before.gone);
  const there = new Set(now.map(({ id }) => id));
  for (const { id } of shown) {
    if (there.has(id)) continue;
    changed.delete(id);
    if (items.has(id)) gone.add(id);
  }
  for (const row of now) {
    gone.delete(row.id);
    const item = items.get(row.id);
    const same = item ? sameCells(rowOf(item), row) : isBlank(row);
    if (same) changed.delete(row.id);
    else changed.set(row.id, row);
  }
  return { changed, gone };
}

const sameCells = (one: Row, other: Row): boolean =>
  one.cells.every((cell, at) => cell === (other.cells[at] ?? ''));

/** Whether something cannot be read in a row that is to be sent. */
export const hasWrong = ({ changed }: RowChanges): boolean =>
  [...changed.values()].some(({ cells }) => cells.some(isWrong));

/** What is sent of a row: all of a new one, and of another one what is different. */
export function sentRow(row: Row, item: ItemRowView | undefined): SentRow {
  const text = (name: (typeof itemCells)[number]): string => {
    const cell = row.cells[itemCells.indexOf(name)];
    return typeof cell === 'string' ? cell : '';
  };
  const names = { en: text('en'), de: text('de') };
  const all: SentRow = {
    sku: item?.sku ?? text('sku').toUpperCase(),
    name: Object.fromEntries(Object.entries(names).filter(([, name]) => name !== '')),
    family: text('family'),
    kind: (text('kind') || 'part') as ItemRowView['kind'],
    unit: text('unit') || 'pc',
    cost: text('cost') || '0',
    leadDays: Number(text('leadDays') || '0'),
    mass: text('mass') || null,
    active: text('active') === '1',
    sold: text('sold') === '1',
    discountable: text('discountable') === '1',
  };
  if (!item) {
    // A new one of which no mark says otherwise is sold, as new ones mostly are.
    const { active, sold, discountable, ...plain } = all;
    return active || sold || discountable ? all : plain;
  }
  const different = Object.entries(all).filter(
    ([field, value]) => !same(value, item[field as keyof ItemRowView]),
  );
  return { ...Object.fromEntries(different), sku: item.sku, version: item.version };
}
