import { describe, expect, it } from 'vitest';
import type { LineView, QuoteView } from '../../../contract';
import { actsWidth, columnsFor, layOut, positionWidth } from './columns';
import { between, placeBeside, rowsOf } from './rows';

const line = (id: string, group: string | null = null, net = '10', more: Partial<LineView> = {}): LineView =>
  ({
    id,
    group,
    optional: false,
    alternative: false,
    price: { list: net, net, cost: '4' },
    ...more,
  }) as LineView;
const told = (rows: ReturnType<typeof rowsOf>) =>
  rows
    .map((row) =>
      row.is === 'group'
        ? `[${row.name} ${row.totals.net}]`
        : row.is === 'part'
          ? `${row.line.id}.${row.part.id}`
          : row.line.id,
    )
    .join(' ');
const none = new Set<string>();

describe('rows of the Ledger', () => {
  const lines = [
    line('a'),
    line('b', 'Gate', '20'),
    line('c', 'Gate', '5', { optional: true }),
    line('d', 'Yard'),
  ];
  it('have a head before each group, with what its lines come to, optional ones left out', () => {
    expect(told(rowsOf(lines, 2, none, none))).toBe('a [Gate 20] b c [Yard 10] d');
  });
  it('close a group into its head', () => {
    expect(told(rowsOf(lines, 2, new Set(['Gate']), none))).toBe('a [Gate 20] [Yard 10] d');
  });
  it('open a build into its parts, but nothing out of a closed group', () => {
    const build = line('e', 'Gate', '1', {
      build: {
        parts: [
          { id: 'p', kind: 'part', name: {}, amount: '1' },
          { id: 'q', kind: 'part', name: {}, amount: '2' },
        ],
        list: '3',
        open: [],
        unpriced: [],
      },
    });
    expect(told(rowsOf([line('a'), build], 2, none, new Set(['e', 'a'])))).toBe('a [Gate 1] e e.p e.q');
    expect(told(rowsOf([line('a'), build], 2, new Set(['Gate']), new Set(['e'])))).toBe('a [Gate 1]');
  });
});

describe('a place beside a line', () => {
  const lines = ['a', 'b', 'c', 'd'].map((id) => line(id));
  it.each([
    [['d'], 'b', false, 2],
    [['d'], 'b', true, 3],
    [['a'], 'd', true, 4],
    [['a', 'b'], 'c', true, 2],
    [['b', 'c'], 'c', true, 2],
    [['a'], 'a', false, 1],
  ])('%j dropped at %s (after: %s) is %i', (moving, beside, after, place) => {
    expect(placeBeside(lines, moving, beside, after)).toBe(place);
  });
  it('between two are all of them, whichever was pointed at first', () => {
    expect(between(lines, 'c', 'a')).toEqual(['a', 'b', 'c']);
    expect(between(lines, 'gone', 'b')).toEqual(['b']);
  });
});

describe('columns', () => {
  const view = (seeCosts: boolean, share?: string) =>
    ({ may: { seeCosts }, lines: [{ price: share === undefined ? {} : { share } }] }) as unknown as QuoteView;
  const ids = (laid: ReturnType<typeof layOut>) => laid.columns.map(({ id }) => id);
  it('never show what one may not see, whatever was chosen', () => {
    expect(columnsFor({ costs: false, resale: false })).not.toContain('cost');
    expect(
      ids(
        layOut(
          view(false),
          [
            { id: 'cost', pinned: true },
            { id: 'margin', pinned: false },
            { id: 'total', pinned: false },
          ],
          1200,
        ),
      ),
    ).toEqual(['total']);
    expect(ids(layOut(view(false), null, 1200))).not.toContain('margin');
  });
  it('leave out what may be left out where there is little room, but not what was chosen', () => {
    expect(ids(layOut(view(true, '1'), null, 1232))).toContain('share');
    expect(ids(layOut(view(true), null, 1232))).not.toContain('share');
    expect(ids(layOut(view(true, '1'), null, 900))).toEqual([
      'quantity',
      'list',
      'rate',
      'net',
      'margin',
      'total',
    ]);
    expect(
      ids(
        layOut(
          view(true),
          [
            { id: 'amount', pinned: false },
            { id: 'share', pinned: false },
          ],
          500,
        ),
      ),
    ).toEqual(['amount', 'share']);
  });
  it('keep pinned ones together at the left, each beside the one before', () => {
    const { what, columns } = layOut(
      view(true),
      [
        { id: 'list', pinned: false },
        { id: 'total', pinned: true },
        { id: 'quantity', pinned: true },
      ],
      1000,
    );
    expect(columns.map(({ id, held }) => [id, held])).toEqual([
      ['total', positionWidth + what],
      ['quantity', positionWidth + what + (columns[0]?.width ?? 0)],
      ['list', undefined],
    ]);
    expect(what + positionWidth + actsWidth + columns.reduce((sum, { width }) => sum + width, 0)).toBe(1000);
  });
});
