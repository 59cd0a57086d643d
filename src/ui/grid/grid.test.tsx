// @vitest-environment jsdom
/** A grid by keyboard alone, as a screen reader hears it. */
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { Grid, useGrid, type GridColumn, type GridHandle, type Row } from '.';
import { gridWords, grids } from '../gallery/Grids';
import { furnishBrowser } from '../testing';
import { textOf, tableOf } from './clipboard';
import { keyAct } from './keys';

beforeAll(furnishBrowser);
afterEach(cleanup);

function show(name: string) {
  const example = grids.find((each) => each.name === name);
  if (!example) throw new Error(`no grid “${name}”`);
  const Shown = example.shown;
  render(<Shown />);
  return { user: userEvent.setup(), grid: screen.getByRole(name === 'a tree' ? 'treegrid' : 'grid') };
}
const here = (): HTMLElement => {
  const element = document.activeElement;
  if (!(element instanceof HTMLElement)) throw new Error('nothing has the keyboard');
  return element;
};
const rowOf = (element: HTMLElement): string =>
  [...(element.closest('[role=row]')?.querySelectorAll('[role=gridcell]') ?? [])]
    .map(
      (cell) =>
        cell.querySelector('input')?.value ?? cell.querySelector('span[class*=text]')?.textContent ?? '',
    )
    .join('|');
const names = (grid: HTMLElement): string[] =>
  within(grid)
    .getAllByRole('row')
    .slice(1)
    .map((row) => rowOf(row).split('|')[0] ?? '');

describe('a grid by keyboard', () => {
  it('takes one Tab to enter and one to leave, its cells told by place', async () => {
    const { user, grid } = show('a few rows');
    await user.tab();
    expect([here().role || here().getAttribute('role'), here().getAttribute('aria-colindex')]).toEqual([
      'gridcell',
      '2',
    ]);
    expect([grid.getAttribute('aria-rowcount'), grid.getAttribute('aria-colcount')]).toEqual(['5', '6']);
    await user.tab();
    expect(grid.contains(here())).toBe(false);
    expect(
      within(grid)
        .getAllByRole('gridcell')
        .filter((cell) => cell.tabIndex === 0),
    ).toHaveLength(1);
  });

  it('types to replace, Tab goes along, Enter goes on below where the run began', async () => {
    const { user, grid } = show('a few rows');
    await user.tab();
    await user.keyboard('Base plate{Tab}fr{Enter}');
    expect(rowOf(within(grid).getAllByRole('row')[1] as HTMLElement)).toBe('Base plate|frame|4|✓|SILL-00001');
    expect(rowOf(here())).toBe('Side frame|frame|2||SILL-00002');
    expect(here().dataset.column).toBe('0');
  });

  it('edits within by F2, leaves by Escape, empties by Delete, undoes and redoes', async () => {
    const { user } = show('a few rows');
    await user.tab();
    await user.keyboard('{F2} 2{Escape}');
    expect(rowOf(here())).toContain('Deck plate|');
    await user.keyboard('{F2} 2{Enter}{ArrowUp}');
    expect(rowOf(here())).toContain('Deck plate 2|');
    await user.keyboard('{Delete}');
    expect(rowOf(here())).toMatch(/^\|plate/);
    expect(here().getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(here().getAttribute('aria-describedby') ?? '')?.textContent).toBe(
      'Type what the part is called.',
    );
    await user.keyboard('{Control>}z{/Control}');
    expect(rowOf(here())).toContain('Deck plate 2|');
    await user.keyboard('{Control>}zzy{/Control}');
    expect(rowOf(here())).toContain('Deck plate 2|');
  });

  it('keeps what cannot be read with why, and leads to what is to be mended', async () => {
    const { user } = show('a few rows');
    await user.tab();
    await user.keyboard('{ArrowRight}{ArrowRight}many{Enter}');
    const mend = screen.getByRole('button', { name: 'One cell to mend' });
    await user.click(mend);
    expect([rowOf(here()), here().title]).toEqual([
      'Deck plate|plate|many|✓|SILL-00001',
      'Type a whole number, such as 12.',
    ]);
    await user.keyboard('8{Enter}');
    expect(screen.queryByText(/to mend/)).toBeNull();
  });

  it('marks ranges, fills them down and types into all of them', async () => {
    const { user, grid } = show('a few rows');
    await user.tab();
    await user.keyboard('{ArrowRight}{ArrowRight}{Shift>}{ArrowDown}{ArrowDown}{/Shift}');
    expect(screen.getByText('3 cells marked')).toBeTruthy();
    expect(within(grid).getAllByRole('gridcell', { selected: true })).toHaveLength(3);
    await user.keyboard('{Control>}d{/Control}');
    expect(names(grid)).toHaveLength(4);
    expect(
      within(grid)
        .getAllByRole('row')
        .slice(1)
        .map((row) => rowOf(row).split('|')[2]),
    ).toEqual(['4', '4', '4', '12']);
    await user.keyboard('7{Control>}{Enter}{/Control}');
    expect(
      within(grid)
        .getAllByRole('row')
        .slice(1)
        .map((row) => rowOf(row).split('|')[2]),
    ).toEqual(['7', '7', '7', '12']);
  });

  it('turns marks by the space bar, and leaves fixed cells alone', async () => {
    const { user } = show('a few rows');
    await user.tab();
    await user.keyboard('{ArrowRight}{ArrowRight}{ArrowRight} ');
    expect(rowOf(here())).toBe('Deck plate|plate|4||SILL-00001');
    await user.keyboard(' {ArrowRight}X');
    expect(rowOf(here())).toBe('Deck plate|plate|4|✓|SILL-00001');
    expect(here().getAttribute('aria-readonly')).toBe('true');
  });

  it('chooses from a list by arrows', async () => {
    const { user } = show('a few rows');
    await user.tab();
    await user.keyboard('{ArrowRight}{F4}');
    expect(screen.getAllByRole('option').map((each) => each.textContent)).toEqual([
      'plate',
      'frame',
      'cell',
      'cable',
    ]);
    await user.keyboard('{ArrowDown}{ArrowDown}{Enter}{ArrowUp}');
    expect(rowOf(here())).toContain('Deck plate|cell|');
  });

  it('adds, doubles, moves and takes away rows, and the keyboard stays', async () => {
    const { user, grid } = show('a few rows');
    await user.tab();
    await user.keyboard('{Alt>}{ArrowDown}{/Alt}');
    expect(names(grid).slice(0, 2)).toEqual(['Side frame', 'Deck plate']);
    await user.keyboard('{Alt>}{Shift>}{ArrowDown}{/Shift}{/Alt}{Insert}');
    expect(names(grid)).toEqual(['Side frame', 'Deck plate', 'Deck plate', '', 'Load cell', 'Signal cable']);
    await user.keyboard('New{Enter}{Control>}{Delete}{/Control}');
    expect(names(grid)).toEqual(['Side frame', 'Deck plate', 'Deck plate', 'New', 'Signal cable']);
    expect(rowOf(here())).toContain('Signal cable');
    await user.keyboard('{Control>}{End}{/Control}{Home}{Enter}Last{Enter}');
    expect(names(grid).slice(-2)).toEqual(['Last', '']);
    await user.keyboard('{Control>}zzzzzzzz{/Control}');
    expect(names(grid)).toEqual(['Deck plate', 'Side frame', 'Load cell', 'Signal cable']);
  });

  it('begins in a grid without rows', async () => {
    const { user, grid } = show('nothing yet');
    expect(screen.getByText('No rows yet.')).toBeTruthy();
    await user.tab();
    expect(here()).toBe(grid);
    await user.keyboard('First{Enter}');
    expect(names(grid)).toEqual(['First', '']);
  });

  it('copies and pastes as spreadsheets do, and says what had no place', async () => {
    const { user, grid } = show('a few rows');
    await user.tab();
    await user.keyboard('{Shift>}{ArrowRight}{ArrowDown}{/Shift}');
    let text = '';
    const clipboardData = { setData: (_: string, value: string) => (text = value), getData: () => text };
    fireEvent.copy(here(), { clipboardData });
    expect(text).toBe('Deck plate\tplate\nSide frame\tframe');
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}{Home}');
    fireEvent.paste(here(), { clipboardData });
    expect(names(grid)).toEqual(['Deck plate', 'Side frame', 'Load cell', 'Deck plate', 'Side frame']);
    const said = vi.fn();
    window.addEventListener('iunctura:say', said);
    text = 'a\tplate\t1\tx\tn\tz';
    await user.keyboard('{Home}');
    fireEvent.paste(here(), { clipboardData });
    expect((said.mock.calls[0]?.[0] as CustomEvent<{ text: string }>).detail.text).toContain(
      '1 columns had no place',
    );
  });

  it('opens, folds, deepens a tree, and says how deep a row is', async () => {
    const { user, grid } = show('a tree');
    await user.tab();
    expect(
      within(grid)
        .getAllByRole('row')
        .slice(1)
        .map((row) => row.getAttribute('aria-level')),
    ).toEqual(['1', '2', '3', '2', '1']);
    await user.keyboard('{Alt>}{ArrowLeft}{/Alt}');
    expect(names(grid)).toEqual(['Bridge', 'Cabinet']);
    expect(here().closest('[role=row]')?.getAttribute('aria-expanded')).toBe('false');
    await user.keyboard('{ArrowDown}{Alt>}{Shift>}{ArrowRight}{/Shift}{/Alt}');
    expect(names(grid)).toEqual(['Bridge', 'Deck', 'Deck plate', 'Load cell', 'Cabinet']);
    expect(here().closest('[role=row]')?.getAttribute('aria-level')).toBe('2');
    await user.click(screen.getByRole('button', { name: 'Fold Deck' }));
    expect(names(grid)).toEqual(['Bridge', 'Deck', 'Load cell', 'Cabinet']);
  });

  it('draws the rows that are seen and the one with the cursor, of 20,000', async () => {
    const { user, grid } = show('20,000 rows');
    expect(within(grid).getAllByRole('row').length).toBeLessThan(60);
    await user.tab();
    await user.keyboard('{Control>}{End}{/Control}');
    expect(rowOf(here())).toContain('Part 19999|');
    expect(here().closest('[role=row]')?.getAttribute('aria-rowindex')).toBe('20001');
  });

  it('changes nothing where it is fixed', async () => {
    const { user, grid } = show('fixed');
    await user.tab();
    await user.keyboard('X{Delete}{Insert}{Control>}{Delete}{/Control}');
    expect(names(grid)).toEqual(['Deck plate', 'Side frame', 'Load cell', 'Signal cable']);
    expect(screen.queryByRole('button', { name: 'Add a row' })).toBeNull();
  });
});

const name: GridColumn = { id: 'name', title: 'Name', width: 90, read: (kept) => ({ kept }) };
const columns = [name];

describe('a grid for its room', () => {
  it('tells what stands in it, whether it differs from how it began, and begins again', async () => {
    let handle: GridHandle | undefined;
    function Room() {
      const grid = useGrid([{ id: 'a', depth: 0, cells: ['one'] }], { columns, most: 5 });
      handle = grid;
      return <Grid label="Names" grid={grid} words={gridWords} />;
    }
    render(<Room />);
    const user = userEvent.setup();
    expect(handle?.changed).toBe(false);
    await user.tab();
    await user.keyboard('two{Enter}');
    expect([handle?.changed, handle?.rows[0]?.cells]).toEqual([true, ['two']]);
    const kept: Row[] = [{ id: 'k', depth: 4, cells: [] }];
    handle?.session.begin(kept);
    expect(handle?.session.state().rows).toEqual([{ id: 'k', depth: 0, cells: [''] }]);
    expect(handle?.session.changed()).toBe(false);
  });
});

describe('the clipboard', () => {
  it.each([
    [
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
    [
      [
        ['with\ttab', 'with "quotes"'],
        ['two\nlines', ''],
      ],
    ],
    [
      [
        ['', ''],
        ['', 'x'],
      ],
    ],
  ])('%j comes back', (table) => {
    expect(tableOf(textOf(table))).toEqual(table);
  });

  it('reads what spreadsheets write: CRLF, and an end of line behind the last row', () => {
    expect(tableOf('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
  });
});

describe('keys of a grid', () => {
  const key = (given: string, more: object = {}) =>
    keyAct(
      { key: given, code: '', ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...more },
      false,
    );

  it('leave to the page and the browser what is theirs', () => {
    for (const given of ['Tab', 'F1', 'F5', 'Shift', 'Control', 'ContextMenu'])
      expect(key(given)).toBeUndefined();
    for (const given of ['c', 'v', 'x', 'k', 'Enter', 'f'])
      expect(key(given, { ctrlKey: true })).toBeUndefined();
    expect(key('Insert', { shiftKey: true })).toBeUndefined();
  });

  it('letters of any keyboard begin a cell, those with AltGr or an accent too', () => {
    for (const [given, more] of [
      ['é', {}],
      ['€', { ctrlKey: true, altKey: true }],
      ['Dead', {}],
    ] as const)
      expect(key(given, more)).toEqual({ is: 'edit', begin: 'replace' });
  });
});
