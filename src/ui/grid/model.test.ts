/** The grid by random commands: beside a plain array of texts, back and forth, and as a tree. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { continued, copied, emptied, filled, pasted, typing, type GridPlan } from './cells';
import { corner, jumped, markedCount, rowEnd, stepped, tabbed } from './moves';
import { holderOf, isOutline, seenRows } from './outline';
import { isWrong, typedIn, wrongIn, type GridColumn, type Row } from './row';
import { deeper, doubled, inserted, moved, placed, removed, tidied } from './rows-acts';
import { series } from './series';
import {
  areaOf,
  changed,
  folding,
  gridOf,
  marking,
  movedTo,
  redo,
  seenIn,
  undo,
  type GridState,
} from './state';
import { applied, inverse, stepBetween } from './step';

const plain = (id: string, more: Partial<GridColumn> = {}): GridColumn => ({
  id,
  title: id,
  width: 100,
  read: (typed) => ({ kept: typed }),
  ...more,
});
/** Kept with a point, typed with a comma. */
const figure = plain('figure', {
  kind: 'figure',
  read: (typed) =>
    /^-?\d+(?:,\d+)?$/.test(typed) ? { kept: typed.replace(',', '.') } : { why: `${typed} is no number.` },
  shown: (kept) => kept.replace('.', ','),
});
const columns = [plain('name'), figure, plain('fixed', { fixed: true }), plain('note')];
const planOf = (of: readonly GridColumn[] = columns, most = 60): GridPlan => {
  let next = 0;
  return { columns: of, most, fresh: () => `n${String((next += 1))}` };
};
const rowsOf = (texts: readonly (readonly string[])[], depths: readonly number[] = []): Row[] =>
  texts.map((cells, at) => ({ id: `r${String(at)}`, depth: depths[at] ?? 0, cells }));
const textsIn = ({ rows }: GridState): string[][] =>
  rows.map((row) => row.cells.map((cell) => (isWrong(cell) ? `?${cell.typed}` : cell)));

const text = fc.constantFrom('', 'a', 'b', '1', '1,5', '2', '-3', 'x y');
const place = fc.record({ row: fc.nat(14), column: fc.nat(3) });
const command = fc.oneof(
  fc.record({ is: fc.constant('mark' as const), from: place, to: place }),
  fc.record({ is: fc.constant('type' as const), text, all: fc.boolean() }),
  fc.record({ is: fc.constant('empty' as const) }),
  fc.record({ is: fc.constant('fill' as const), way: fc.constantFrom('down' as const, 'right' as const) }),
  fc.record({
    is: fc.constant('paste' as const),
    table: fc.array(fc.array(text, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 4 }),
  }),
  fc.record({
    is: fc.constant('insert' as const),
    where: fc.constantFrom('above' as const, 'below' as const),
  }),
  fc.record({ is: fc.constant('remove' as const) }),
  fc.record({ is: fc.constant('double' as const) }),
  fc.record({ is: fc.constant('move' as const), way: fc.constantFrom('up' as const, 'down' as const) }),
  fc.record({ is: fc.constant('place' as const), to: fc.nat(14) }),
  fc.record({ is: fc.constant('undo' as const) }),
  fc.record({ is: fc.constant('redo' as const) }),
);
type Command = typeof command extends fc.Arbitrary<infer C> ? C : never;

function run(state: GridState, plan: GridPlan, does: Command): GridState {
  switch (does.is) {
    case 'mark':
      return marking(state, does.from, does.to);
    case 'type':
      return typing(state, plan, does.text, does.all ? 'marked' : 'cursor');
    case 'empty':
      return emptied(state, plan);
    case 'fill':
      return filled(state, plan, does.way);
    case 'paste': {
      const outcome = pasted(state, plan, does.table);
      return outcome.is === 'done' ? outcome.state : state;
    }
    case 'insert':
      return inserted(state, plan, does.where);
    case 'remove':
      return removed(state);
    case 'double':
      return doubled(state, plan);
    case 'move':
      return moved(state, does.way);
    case 'place':
      return placed(state, Math.min(does.to, state.rows.length));
    case 'undo':
      return undo(state);
    case 'redo':
      return redo(state);
  }
}

/** The same done to an array of arrays, in the plainest way; null where it is not for this model. */
class PlainGrid {
  private past: string[][][] = [];
  private future: string[][][] = [];
  constructor(public texts: string[][]) {}

  private read(typed: string, column: number): string {
    const trimmed = typed.trim();
    if (column !== 1 || trimmed === '') return trimmed;
    return /^-?\d+(,\d+)?$/.test(trimmed) ? trimmed.replace(',', '.') : `?${trimmed}`;
  }
  private typedAt(row: number, column: number): string {
    const shown = this.texts[row]?.[column] ?? '';
    return column === 1 ? shown.replace(/^\?/, '').replace('.', ',') : shown;
  }
  private set(texts: string[][], row: number, column: number, typed: string): void {
    const at = texts[row];
    if (at && column < 4 && column !== 2) at[column] = this.read(typed, column);
  }
  private next(texts: string[][]): void {
    if (JSON.stringify(texts) === JSON.stringify(this.texts)) return;
    this.past.push(this.texts);
    this.future = [];
    this.texts = texts;
  }
  do(does: Command, { cursor, anchor }: Pick<GridState, 'cursor' | 'anchor'>, most: number): void {
    const { top, bottom, left, right } = areaOf({ cursor, anchor });
    const next = this.texts.map((row) => [...row]);
    const each = (body: (row: number, column: number) => void): void => {
      for (let row = top; row <= bottom; row += 1)
        for (let column = left; column <= right; column += 1) body(row, column);
    };
    const { length } = next;
    const taken = next.slice(top, bottom + 1);
    const rest = [...next.slice(0, top), ...next.slice(bottom + 1)];
    const put = (at: number) => [...rest.slice(0, at), ...taken, ...rest.slice(at)];
    switch (does.is) {
      case 'mark':
        return;
      case 'undo':
      case 'redo': {
        const [from, to] = does.is === 'undo' ? [this.past, this.future] : [this.future, this.past];
        const then = from.pop();
        if (!then) return;
        to.push(this.texts);
        this.texts = then;
        return;
      }
      case 'type':
        if (does.all) each((row, column) => this.set(next, row, column, does.text));
        else this.set(next, cursor.row, cursor.column, does.text);
        break;
      case 'empty':
        each((row, column) => this.set(next, row, column, ''));
        break;
      case 'fill': {
        const down = does.way === 'down';
        const from = down ? (top === bottom ? top - 1 : top) : left === right ? left - 1 : left;
        if (from < 0) return;
        each((row, column) => {
          if (down && next[row] && column !== 2) next[row][column] = this.texts[from]?.[column] ?? '';
          if (!down) this.set(next, row, column, this.typedAt(row, from));
        });
        break;
      }
      case 'paste': {
        const width = Math.max(...does.table.map((row) => row.length));
        const [tall, wide] = [(bottom - top + 1) / does.table.length, (right - left + 1) / width];
        const again = length > 0 && Number.isInteger(tall) && Number.isInteger(wide);
        const height = does.table.length * (again ? tall : 1);
        const first = length === 0 ? 0 : top;
        if (Math.max(length, first + height) > most) return;
        while (next.length < first + height) next.push(['', '', '', '']);
        for (let row = 0; row < height; row += 1)
          for (let column = 0; column < width * (again ? wide : 1); column += 1)
            this.set(
              next,
              first + row,
              left + column,
              does.table[row % does.table.length]?.[column % width] ?? '',
            );
        break;
      }
      case 'insert':
        if (length >= most) return;
        next.splice(length === 0 ? 0 : does.where === 'above' ? top : bottom + 1, 0, ['', '', '', '']);
        // A new row is a change, whatever stands in it.
        this.past.push(this.texts);
        this.future = [];
        this.texts = next;
        return;
      case 'remove':
        if (length === 0) return;
        this.past.push(this.texts);
        this.future = [];
        this.texts = rest;
        return;
      case 'double':
        if (length === 0 || length + taken.length > most) return;
        next.splice(bottom + 1, 0, ...taken.map((row) => [...row]));
        this.past.push(this.texts);
        this.future = [];
        this.texts = next;
        return;
      case 'move':
      case 'place': {
        if (length === 0) return;
        const to = does.is === 'place' ? Math.min(does.to, length) : does.way === 'up' ? top - 1 : bottom + 2;
        if (to < 0 || to > length || (to >= top && to <= bottom + 1)) return;
        this.past.push(this.texts);
        this.future = [];
        this.texts = put(to < top ? to : to - taken.length);
        return;
      }
    }
    this.next(next);
  }
}

const table = fc.array(fc.tuple(text, fc.constantFrom('', '1', '2.5'), text, text), { maxLength: 8 });

describe('a grid', () => {
  it('does what is done to a plain array, by any commands, and takes all of it back and forth', () => {
    fc.assert(
      fc.property(table, fc.array(command, { maxLength: 30 }), (texts, commands) => {
        const plan = planOf(columns, 12);
        const start = gridOf(rowsOf(texts), columns.length);
        const other = new PlainGrid(texts.map((row) => [...row]));
        let state = start;
        for (const does of commands) {
          other.do(does, state, plan.most);
          state = run(state, plan, does);
          expect(textsIn(state)).toEqual(other.texts);
          expect(state.cursor.row).toBeLessThanOrEqual(Math.max(0, state.rows.length - 1));
          expect(new Set(state.rows.map(({ id }) => id)).size).toBe(state.rows.length);
        }
        while (state.undone.length > 0) state = redo(state);
        const end = state.rows;
        const steps = state.done.length;
        for (let at = 0; at < steps; at += 1) state = undo(state);
        expect(state.rows).toEqual(start.rows);
        while (state.undone.length > 0) state = redo(state);
        expect(state.rows).toEqual(end);
      }),
      { numRuns: 400 },
    );
  });

  it('pastes what it copies, wherever it stood, cells that cannot be read among it', () => {
    fc.assert(
      fc.property(
        table.filter((rows) => rows.length > 0),
        place,
        place,
        (texts, from, to) => {
          const [plan, start] = [planOf(), gridOf(rowsOf(texts), columns.length)];
          const state = marking(start, from, to);
          const outcome = pasted(state, plan, copied(state, plan));
          expect(outcome).toMatchObject({ is: 'done', beside: 0, state: { rows: state.rows } });
        },
      ),
    );
  });

  it('a step is taken back by its inverse, and covers what differs', () => {
    fc.assert(
      fc.property(table, table, (one, other) => {
        const [before, after] = [rowsOf(one), rowsOf(other)];
        const step = stepBetween(before, after);
        expect(step ? applied(before, step) : before).toEqual(after);
        if (step) expect(applied(after, inverse(step))).toEqual(before);
      }),
    );
    expect(() =>
      applied(rowsOf([['a']]), { at: 0, removed: [{ id: 'z', depth: 0, cells: [] }], added: [] }),
    ).toThrow();
  });

  it('keeps what cannot be read, says why, and needs what a row in use must have', () => {
    const needed = plain('name', { needed: 'Type a name.' });
    const plan = planOf([needed, figure]);
    const state = typing(
      movedTo(
        gridOf(
          rowsOf([
            ['', ''],
            ['', ''],
          ]),
          2,
        ),
        { row: 0, column: 1 },
      ),
      plan,
      'twelve',
    );
    const [row, blank] = state.rows;
    expect(row && wrongIn(figure, row, row.cells[1])).toBe('twelve is no number.');
    expect(row && typedIn(figure, row.cells[1])).toBe('twelve');
    expect(row && wrongIn(needed, row, row.cells[0])).toBe('Type a name.');
    expect(blank && wrongIn(needed, blank, blank.cells[0])).toBeNull();
  });

  it('refuses more rows than there can be, and tells of columns beside the last', () => {
    const [plan, start] = [planOf(columns, 5), gridOf(rowsOf([['a', '', '', '']]), 4)];
    const many = Array.from({ length: 6 }, () => ['x']);
    expect(pasted(start, plan, many)).toEqual({ is: 'tooMany', most: 5 });
    expect(pasted(movedTo(start, { row: 0, column: 3 }), plan, [['x', 'y', 'z']])).toMatchObject({
      is: 'done',
      beside: 2,
    });
    expect(inserted(gridOf(rowsOf(many), 4), plan, 'below').rows).toHaveLength(6);
  });

  it('a paste of 10,000 rows by 50 columns is read once a cell and taken back as one', () => {
    let read = 0;
    const wide = Array.from({ length: 12 }, (_, at) =>
      plain(`c${String(at)}`, { read: (typed) => ((read += 1), { kept: typed }) }),
    );
    const plan = planOf(wide, 20_000);
    const start = gridOf(rowsOf([wide.map(() => '')]), wide.length);
    const big = Array.from({ length: 10_000 }, (_, row) =>
      Array.from({ length: 50 }, (__, at) => `${String(row)}.${String(at)}`),
    );
    const outcome = pasted(start, plan, big);
    expect(outcome).toMatchObject({ is: 'done', beside: 38 });
    if (outcome.is !== 'done') return;
    expect([outcome.state.rows.length, read, outcome.state.done.length]).toEqual([10_000, 120_000, 1]);
    expect(undo(outcome.state).rows).toEqual(start.rows);
  });
});

describe('filling on', () => {
  it.each([
    [
      ['1', '2'],
      ['3', '4', '5'],
    ],
    [
      ['10', '7.5'],
      ['5', '2.5', '0'],
    ],
    [
      ['-0.1', '0'],
      ['0.1', '0.2', '0.3'],
    ],
    [
      ['1', '2', '4'],
      ['1', '2', '4'],
    ],
    [
      ['5', '5'],
      ['5', '5', '5'],
    ],
    [['7'], ['7', '7', '7']],
    [
      ['a', 'b'],
      ['a', 'b', 'a'],
    ],
    [
      ['1', ''],
      ['1', '', '1'],
    ],
  ])('%j goes on with %j', (cells, expected) => {
    const next = series(cells);
    expect(expected.map((_, nth) => next(nth))).toEqual(expected);
  });

  it('goes the way that leads further, and marks what it filled', () => {
    const plan = planOf([figure, figure, figure]);
    const start = gridOf(
      rowsOf([
        ['1', '', ''],
        ['2', '', ''],
        ['', '', ''],
        ['', '', ''],
      ]),
      3,
    );
    const marked = marking(start, { row: 0, column: 0 }, { row: 1, column: 0 });
    const down = continued(marked, plan, { row: 3, column: 1 });
    expect(textsIn(down).map(([first]) => first)).toEqual(['1', '2', '3', '4']);
    expect(areaOf(down)).toEqual({ top: 0, bottom: 3, left: 0, right: 0 });
    const right = continued(marked, plan, { row: 1, column: 2 });
    expect(textsIn(right).slice(0, 2)).toEqual([
      ['1', '1', '1'],
      ['2', '2', '2'],
    ]);
    expect(continued(marked, plan, { row: 0, column: 0 })).toBe(marked);
  });
});

describe('the cursor', () => {
  const start = gridOf(
    rowsOf([
      ['a', 'b', '', ''],
      ['a', '', '', 'd'],
      ['', '', '', ''],
      ['a', '', '', ''],
    ]),
    4,
  );
  const at = (row: number, column: number) => movedTo(start, { row, column });

  it('jumps to the end of what is filled, or to the next of it', () => {
    expect(jumped(at(0, 0), 'down').row).toBe(1);
    expect(jumped(at(1, 0), 'down').row).toBe(3);
    expect(jumped(at(3, 0), 'up').row).toBe(1);
    expect(jumped(at(0, 1), 'right').column).toBe(3);
    expect(jumped(at(1, 0), 'right').column).toBe(3);
  });

  it('stops at the edges, goes on to the next row by Tab, and knows the corners', () => {
    expect(stepped(at(0, 0), 'up')).toEqual({ row: 0, column: 0 });
    expect(stepped(at(2, 2), 'down', 10)).toEqual({ row: 3, column: 2 });
    expect(tabbed(at(0, 3), 'right')).toEqual({ row: 1, column: 0 });
    expect(tabbed(at(1, 0), 'left')).toEqual({ row: 0, column: 3 });
    expect(tabbed(at(3, 3), 'right')).toEqual({ row: 3, column: 3 });
    expect([rowEnd(at(1, 2), 'last'), corner(start, 'last')]).toEqual([
      { row: 1, column: 3 },
      { row: 3, column: 3 },
    ]);
    expect(markedCount(marking(start, { row: 0, column: 0 }, { row: 1, column: 2 }))).toBe(6);
  });
});

const depths = fc.array(fc.nat(3), { minLength: 1, maxLength: 12 }).map((wanted) =>
  tidied(
    rowsOf(
      wanted.map((depth) => [String(depth)]),
      wanted,
    ),
    1,
  ),
);
/** By row, the one that it is inside of. */
const holders = (rows: readonly Row[]): Map<string, string | undefined> =>
  new Map(rows.map(({ id }, at) => [id, rows[holderOf(rows, at)]?.id]));

describe('a tree', () => {
  it('is one whatever comes from elsewhere', () => {
    fc.assert(fc.property(depths, isOutline));
  });

  it('stays one by any acts on rows, and no row but those moved comes to be inside another', () => {
    const acts = fc.constantFrom(
      (state: GridState) => moved(state, 'up'),
      (state: GridState) => moved(state, 'down'),
      (state: GridState) => deeper(state, 'in'),
      (state: GridState) => deeper(state, 'out'),
      (state: GridState) => placed(state, 2),
      (state: GridState) => placed(state, state.rows.length),
    );
    fc.assert(
      fc.property(
        depths,
        fc.nat(11),
        fc.nat(2),
        fc.array(acts, { maxLength: 8 }),
        (rows, from, more, does) => {
          let state = marking(gridOf(rows, 1), { row: from, column: 0 }, { row: from + more, column: 0 });
          for (const act of does) {
            const next = act(state);
            expect(isOutline(next.rows)).toBe(true);
            expect(next.rows.map(({ id }) => id).sort()).toEqual(state.rows.map(({ id }) => id).sort());
            const { top, bottom } = areaOf(next);
            const were = holders(state.rows);
            holders(next.rows).forEach((holder, id) => {
              const place = next.rows.findIndex((row) => row.id === id);
              if (place < top || place > bottom) expect([id, holder]).toEqual([id, were.get(id)]);
            });
            state = next;
          }
        },
      ),
      { numRuns: 500 },
    );
  });

  it('stays one where rows are added, doubled and taken away', () => {
    fc.assert(
      fc.property(depths, fc.nat(11), fc.nat(3), fc.nat(3), (rows, from, more, which) => {
        const plan = planOf([plain('name')]);
        const state = marking(gridOf(rows, 1), { row: from, column: 0 }, { row: from + more, column: 0 });
        const next = [
          () => inserted(state, plan, 'above'),
          () => inserted(state, plan, 'below'),
          () => doubled(state, plan),
          () => removed(state),
        ][which]?.();
        expect(next && isOutline(next.rows)).toBe(true);
        expect(next && undo(next).rows).toEqual(rows);
      }),
    );
  });

  const small = tidied(rowsOf([['a'], ['b'], ['c'], ['d'], ['e']], [0, 1, 2, 1, 0]), 1);

  it('folds: what is inside is not seen, not passed by arrows, not changed by cells, and opened by the cursor', () => {
    const shut = folding(movedTo(gridOf(small, 1), { row: 2, column: 0 }), 0, true);
    expect([seenIn(shut), shut.cursor.row]).toEqual([[0, 4], 0]);
    expect(seenRows(small, new Set(['r1']))).toEqual([0, 1, 3, 4]);
    expect(stepped(shut, 'down').row).toBe(4);
    const all = marking(shut, { row: 0, column: 0 }, { row: 4, column: 0 });
    expect(textsIn(emptied(all, planOf([plain('name')])))).toEqual([[''], ['b'], ['c'], ['d'], ['']]);
    expect(seenIn(movedTo(shut, { row: 2, column: 0 }))).toEqual([0, 1, 2, 3, 4]);
    expect(folding(shut, 0, true)).toBe(shut);
  });

  it('takes a row away with all that is inside it', () => {
    const one = movedTo(gridOf(small, 1), { row: 1, column: 0 });
    expect(textsIn(removed(one)).flat()).toEqual(['a', 'd', 'e']);
    expect(textsIn(moved(one, 'down')).flat()).toEqual(['a', 'd', 'b', 'c', 'e']);
    expect(deeper(one, 'out').rows.map(({ depth }) => depth)).toEqual([0, 1, 0, 1, 0]);
  });

  it('a change that changes nothing is none', () => {
    const state = gridOf(small, 1);
    expect(changed(state, [...small], state).done).toEqual([]);
  });
});
