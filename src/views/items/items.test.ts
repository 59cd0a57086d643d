/** Rows of the item master: what was done to them, what is sent, and what a sheet makes of them. */
import { describe, expect, it } from 'vitest';
import type { FamilyView, ItemRowView } from '../../contract';
import type { GridColumn, Row } from '../../ui/grid';
import { choiceColumn, figureColumn, markColumn, textColumn } from '../parts/grid/columns';
import type { InWords } from '../speech';
import { branchesOf, within } from './families';
import { propertyOf, propertyRow, readOptions, writtenOptions } from './family-rows';
import { changesIn, hasWrong, noChanges, rowOf, sentRow } from './item-rows';
import { takenFrom } from './item-sheet';

const item = (sku: string, more: Partial<ItemRowView> = {}): ItemRowView => ({
  sku,
  family: 'yard',
  name: { en: sku, de: sku },
  kind: 'part',
  unit: 'pc',
  cost: '10',
  leadDays: 3,
  mass: null,
  active: true,
  sold: true,
  discountable: true,
  version: 4,
  ...more,
});
const items = new Map(['A-1', 'A-2', 'A-3'].map((sku) => [sku, item(sku)]));
const put = (row: Row, at: number, cell: Row['cells'][number]): Row => ({
  ...row,
  cells: row.cells.map((each, index) => (index === at ? cell : each)),
});
const rows = [...items.values()].map(rowOf);

describe('changes of rows', () => {
  it('are those that differ, those that are new, and those taken away', () => {
    const [one, two] = rows as [Row, Row, Row];
    const fresh: Row = { id: 'new-1', depth: 0, cells: ['B-1', 'New', ...rowOf(item('B-1')).cells.slice(2)] };
    const blank: Row = { id: 'new-2', depth: 0, cells: one.cells.map(() => '') };
    const changes = changesIn(noChanges, rows, [put(one, 6, '12.5'), two, fresh, blank], items);
    expect([...changes.changed.keys()]).toEqual(['A-1', 'new-1']);
    expect([...changes.gone]).toEqual(['A-3']);
    expect(sentRow(changes.changed.get('A-1') as Row, items.get('A-1'))).toEqual({
      sku: 'A-1',
      version: 4,
      cost: '12.5',
    });
    expect(sentRow(fresh, undefined)).toMatchObject({
      sku: 'B-1',
      name: { en: 'New', de: 'B-1' },
      cost: '10',
    });
    // What is changed back is no change.
    expect(changesIn(changes, rows, rows, items).changed.has('A-1')).toBe(false);
  });

  it('stay with rows that are not shown now', () => {
    const [one, two] = rows as [Row, Row, Row];
    const first = changesIn(noChanges, [one], [put(one, 7, '9')], items);
    const then = changesIn(first, [two], [put(two, 7, '8')], items);
    expect([...then.changed.keys()]).toEqual(['A-1', 'A-2']);
    expect(hasWrong(then)).toBe(false);
    expect(hasWrong(changesIn(then, [two], [put(two, 7, { typed: 'x', why: 'No' })], items))).toBe(true);
  });
});

const words: InWords = { t: (key: string) => key, language: 'en' };
const head = (id: string, title: string) => ({ id, title, width: 100 });
const columns: readonly GridColumn[] = [
  { ...head('sku', 'Number'), read: (typed) => ({ kept: typed.toUpperCase() }) },
  textColumn(head('en', 'Name, English'), 200, words),
  textColumn(head('de', 'Name, German'), 200, words),
  choiceColumn(head('family', 'Family'), [{ kept: 'yard', text: 'Yard equipment' }], () => 'no family'),
  choiceColumn(head('kind', 'Kind'), [{ kept: 'part', text: 'Part' }], () => 'no kind'),
  textColumn(head('unit', 'Unit'), 12, words),
  figureColumn(head('cost', 'Cost, EUR'), 6, words),
  figureColumn(head('leadDays', 'Days'), 0, words),
  figureColumn(head('mass', 'Mass, kg'), 6, words),
  markColumn(head('active', 'Active')),
  markColumn(head('sold', 'Alone')),
  markColumn(head('discountable', 'Discount')),
];
const said = {
  twice: (sku: string) => `${sku} twice`,
  twoWays: (one: string, other: string) => `${one} or ${other}`,
  language: 'en',
};
const take = (sheet: string[][]) => {
  const taken = takenFrom(sheet, columns, items, noChanges, said);
  if (typeof taken === 'string') throw new Error(taken);
  return taken;
};

describe('a sheet', () => {
  it('changes what it says and leaves what it does not', () => {
    const { changes, fresh, different, same, unknown } = take([
      ['days', 'NUMBER', 'Colour', 'Family', 'Name, English', 'Discount'],
      ['9', 'a-1', 'red', 'Yard equipment', '', 'x'],
      ['3', 'A-2', 'red', 'yard', '', 'x'],
      ['5', 'B-7', 'blue', 'yard', '', ''],
      ['', '', '', '', '', ''],
    ]);
    expect({ fresh, different, same, unknown }).toEqual({
      fresh: 1,
      different: 1,
      same: 1,
      unknown: ['Colour'],
    });
    const changed = [...changes.changed.values()];
    expect(changed.map((row) => sentRow(row, items.get(row.id)))).toMatchObject([
      { sku: 'A-1', version: 4, leadDays: 9 },
      { sku: 'B-7', family: 'yard', leadDays: 5 },
    ]);
    expect(Object.keys(sentRow(changed[0] as Row, items.get('A-1')))).toEqual(['leadDays', 'sku', 'version']);
  });

  it('has its wrong cells marked: twice, of another kind, or a number that could be two', () => {
    const { changes } = take([
      ['Number', 'Cost, EUR', 'Family'],
      ['A-1', '1.234', 'yard'],
      ['A-2', 'much', 'garden'],
      ['A-1', '5', 'yard'],
    ]);
    const why = [...changes.changed.values()].map(({ cells }) =>
      cells.flatMap((cell) => (typeof cell === 'string' ? [] : [cell.why])),
    );
    expect(why).toEqual([['1.234 or 1234'], ['no family', 'grid.noNumber'], ['A-1 twice']]);
    expect(hasWrong(changes)).toBe(true);
  });

  it('without numbers, or without rows, is none', () => {
    expect(takenFrom([['Name'], ['x']], columns, items, noChanges, said)).toBe('noNumbers');
    expect(takenFrom([['Number'], ['']], columns, items, noChanges, said)).toBe('empty');
    expect(takenFrom([], columns, items, noChanges, said)).toBe('noNumbers');
  });
});

describe('families', () => {
  const family = (code: string, parent: string | null, count: number): FamilyView => ({
    code,
    name: { en: code },
    parent,
    properties: [],
    version: 1,
    items: count,
  });
  const all = [family('a', null, 1), family('b', 'a', 2), family('c', 'b', 4), family('d', null, 8)];

  it('stand after what they are inside of, with all that is in them', () => {
    expect(branchesOf(all).map(({ family: { code }, depth, count }) => [code, depth, count])).toEqual([
      ['a', 0, 7],
      ['b', 1, 6],
      ['c', 2, 4],
      ['d', 0, 8],
    ]);
    expect([...within(all, 'b')]).toEqual(['b', 'c']);
  });

  it('have properties that are written in rows and read back', () => {
    const properties = [
      { id: 'load', name: { en: 'Load', de: 'Last' }, is: 'number', unit: 't', decimals: 1 },
      {
        id: 'cover',
        name: { en: 'Cover' },
        is: 'choice',
        options: [
          { id: 'steel', name: { en: 'Steel', de: 'Stahl' } },
          { id: 'rubber', name: { en: 'Rubber' } },
        ],
      },
      { id: 'wet', name: { en: 'Wet' }, is: 'yesNo' },
      { id: 'make', name: { en: 'Make' }, is: 'text' },
    ] as const;
    for (const property of properties) expect(propertyOf(propertyRow(property))).toEqual(property);
    expect(readOptions('steel; rubber = Rubber / Gummi')).toEqual([
      { id: 'steel', name: { en: 'steel' } },
      { id: 'rubber', name: { en: 'Rubber', de: 'Gummi' } },
    ]);
    expect(readOptions('9 lives')).toBeNull();
    expect(writtenOptions([{ id: 'a', name: { en: 'A', de: 'B' } }])).toBe('a = A / B');
  });
});
