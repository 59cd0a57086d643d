import { useEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent, type RefObject } from 'react';
import { flushSync } from 'react-dom';
import { say } from '../Toaster';
import { useLatest } from '../useLatest';
import type { Stored } from './CellEditor';
import { copied, emptied, filled, pasted, typing } from './cells';
import { tableOf, textOf } from './clipboard';
import { keyAct, type KeyAct } from './keys';
import { corner, jumped, placeIn, rowEnd, stepped, tabbed } from './moves';
import { isEmpty } from './row';
import { deeper, doubled, inserted, moved, removed, wholeColumns, wholeRows } from './rows-acts';
import { folding, marking, movedTo, redo, seenIn, undo, type GridState, type Place } from './state';
import type { GridHandle } from './useGrid';
import type { GridWords, RowAct } from './words';

/** How high a row is, in pixels. */
export const rowHeight = 27;

/** How a cell is edited: begun anew, within what stands there, or by choosing. */
export type Editing = 'replace' | 'within' | 'choose';

interface Given {
  grid: GridHandle;
  words: GridWords;
  scroller: RefObject<HTMLDivElement | null>;
  /** Scrolls to a row, by its place among those that are seen. */
  show: (at: number) => void;
}

/** What is done in a grid by keys, by the clipboard and by its buttons, and where the keyboard is. */
export function useGridActs(given: Given) {
  const { grid, words } = given;
  const { session } = grid;
  const [editing, setEditing] = useState<Editing | null>(null);
  const [said, setSaid] = useState('');
  const latest = useLatest(given);
  // Where a run of Tab began: Enter goes on below it.
  const run = useRef<number | null>(null);
  const wantFocus = useFocus(latest, editing !== null, session.state().cursor);

  const edit = (how: Editing): void => {
    const { columns } = grid.plan;
    if (session.state().rows.length === 0) grow();
    if (session.state().rows.length === 0 || columns[session.state().cursor.column]?.fixed) return;
    // Before the key itself arrives, so that the field takes it, whatever letter it makes.
    flushSync(() => setEditing(how));
    given.scroller.current?.querySelector<HTMLInputElement>('[data-cursor] input')?.focus();
  };
  const grow = (): void => {
    if (grid.grows) session.act((state) => inserted(state, grid.plan, 'below'));
  };
  const go = (to: Place, extend: boolean): void => {
    run.current = null;
    session.act((state) => movedTo(state, to, extend ? 'extend' : 'leave'));
  };
  const down = (way: 'down' | 'up'): void =>
    session.act((state) => {
      const column = run.current ?? state.cursor.column;
      run.current = null;
      const next = stepped(state, way);
      const last = way === 'down' && next.row === state.cursor.row;
      return last && grid.grows && !isUnused(state)
        ? withColumn(inserted(state, grid.plan, 'below'), column)
        : movedTo(state, { row: next.row, column });
    });
  const tab = (way: 'left' | 'right'): void =>
    session.act((state) => {
      run.current ??= state.cursor.column;
      return movedTo(state, tabbed(state, way));
    });
  const store = (text: string, where: Stored): void => {
    if (where !== 'here') wantFocus();
    session.act((state) => typing(state, grid.plan, text, where === 'marked' ? 'marked' : 'cursor'));
    setEditing(null);
    if (where === 'down' || where === 'up') down(where);
    else if (where === 'left' || where === 'right') tab(where);
  };
  const rows = (act: RowAct): void => {
    wantFocus();
    session.act((state) => rowAct(act, state, grid));
  };
  const back = (next: (state: GridState) => GridState, word: string): void => {
    const before = session.state();
    session.act(next);
    setSaid(before === session.state() ? '' : word);
  };
  const paste = (text: string): void => {
    const outcome = pasted(session.state(), grid.plan, tableOf(text));
    if (outcome.is === 'tooMany') say(words.tooMany(outcome.most), true);
    else {
      session.act(() => outcome.state);
      if (outcome.beside > 0) say(words.beside(outcome.beside));
    }
  };
  const perform = (act: KeyAct): void => {
    const state = session.state();
    if (act.is === 'step') go(stepped(state, act.way, act.by), act.extend);
    else if (act.is === 'jump') go(jumped(state, act.way), act.extend);
    else if (act.is === 'end') go((act.of === 'row' ? rowEnd : corner)(state, act.end), act.extend);
    else if (act.is === 'next') down(act.way);
    else if (act.is === 'edit') edit(act.begin);
    else if (act.is === 'rows') rows(act.act);
    else if (act.is === 'fold') session.act((now) => folding(now, now.cursor.row, act.shut));
    else if (act.is === 'leave') session.act((now) => movedTo(now, now.cursor));
    else if (act.what === 'undo') back(undo, words.undone);
    else if (act.what === 'redo') back(redo, words.redone);
    else session.act((now) => cellAct(act.what, now, grid));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (editing || !isCell(event.target)) return;
    // Out of a run of cells Tab goes on along the row; else it leaves the grid.
    if (event.key === 'Tab' && run.current !== null && !event.ctrlKey && !event.altKey) {
      event.preventDefault();
      tab(event.shiftKey ? 'left' : 'right');
      return;
    }
    const column = grid.plan.columns[session.state().cursor.column];
    const act = keyAct(event, column?.kind === 'mark' && !column.fixed);
    if (!act || (act.is === 'rows' && (!grid.grows || (!grid.tree && isLevel(act.act))))) return;
    if (act.is === 'fold' && !grid.tree) return;
    // What begins a cell is typed into it; what leaves nothing is for the page.
    if (act.is === 'leave') {
      run.current = null;
      if (!isMarkedMore(session.state())) return;
    }
    if (!(act.is === 'edit' && act.begin === 'replace')) event.preventDefault();
    event.stopPropagation();
    if (act.is !== 'edit') wantFocus();
    perform(act);
  };
  const onCopy = (event: ClipboardEvent): void => {
    if (editing || !isCell(event.target)) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', textOf(copied(session.state(), grid.plan)));
    if (event.type === 'cut') session.act((state) => emptied(state, grid.plan));
  };
  const onPaste = (event: ClipboardEvent): void => {
    if (editing || grid.fixed || !isCell(event.target)) return;
    event.preventDefault();
    paste(event.clipboardData.getData('text/plain'));
  };
  const toWrong = (): void => {
    const { cursor } = session.state();
    const later = ({ row, column }: Place): boolean =>
      row > cursor.row || (row === cursor.row && column > cursor.column);
    const next = grid.wrong.find(later) ?? grid.wrong[0];
    wantFocus();
    if (next) go(next, false);
  };
  return {
    editing,
    said,
    edit,
    store,
    leave: (): void => {
      wantFocus();
      setEditing(null);
    },
    rows,
    toWrong,
    wantFocus,
    handlers: { onKeyDown, onCopy, onCut: onCopy, onPaste },
  };
}

/** Puts the keyboard into the cell of the cursor, where it is in the grid or is wanted there. */
function useFocus(latest: RefObject<Given>, editing: boolean, { row, column }: Place) {
  const [wanted, setWanted] = useState(0);
  const given = useRef(0);
  useEffect(() => {
    const { grid, scroller, show } = latest.current;
    const inside = scroller.current?.contains(document.activeElement) ?? false;
    if (editing || !(inside || given.current !== wanted)) return;
    given.current = wanted;
    show(placeIn(seenIn(grid.session.state()), row));
    const cell = scroller.current?.querySelector<HTMLElement>('[data-cursor]') ?? scroller.current;
    cell?.focus({ preventScroll: true });
    if (cell && scroller.current) showColumn(scroller.current, cell);
  }, [latest, editing, row, column, wanted]);
  return (): void => setWanted((before) => before + 1);
}

/** Scrolls sideways until a cell stands wholly beside the numbers of the rows and their first column. */
function showColumn(scroller: HTMLElement, cell: HTMLElement): void {
  const [outer, inner] = [scroller.getBoundingClientRect(), cell.getBoundingClientRect()];
  const widthOf = (part: string): number => scroller.querySelector(part)?.getBoundingClientRect().width ?? 0;
  const first = cell.dataset.column === '0';
  const held = widthOf('[data-head]') + (first ? 0 : widthOf('[data-title="0"]'));
  const [left, right] = [outer.left + held, outer.left + scroller.clientWidth];
  if (inner.left < left) scroller.scrollLeft -= left - inner.left;
  else if (inner.right > right) scroller.scrollLeft += Math.min(inner.right - right, inner.left - left);
}

/** Whether an event came of one of the grid's cells, or of the grid itself where it has none. */
const isCell = (target: EventTarget): boolean =>
  target instanceof HTMLElement &&
  ['gridcell', 'grid', 'treegrid'].includes(target.getAttribute('role') ?? '');

const isLevel = (act: RowAct): boolean => act === 'in' || act === 'out';
const isMarkedMore = ({ cursor, anchor }: GridState): boolean =>
  cursor.row !== anchor.row || cursor.column !== anchor.column;
const isUnused = ({ rows, cursor }: GridState): boolean => rows[cursor.row]?.cells.every(isEmpty) ?? true;
const withColumn = (state: GridState, column: number): GridState =>
  movedTo(state, { row: state.cursor.row, column });

function rowAct(act: RowAct, state: GridState, { plan }: GridHandle): GridState {
  switch (act) {
    case 'above':
    case 'below':
      return inserted(state, plan, act);
    case 'double':
      return doubled(state, plan);
    case 'remove':
      return removed(state);
    case 'up':
    case 'down':
      return moved(state, act);
    case 'in':
    case 'out':
      return deeper(state, act);
  }
}

function cellAct(what: (KeyAct & { is: 'do' })['what'], state: GridState, { plan }: GridHandle): GridState {
  switch (what) {
    case 'empty':
      return emptied(state, plan);
    case 'fillDown':
      return filled(state, plan, 'down');
    case 'fillRight':
      return filled(state, plan, 'right');
    case 'rows':
      return wholeRows(state);
    case 'columns':
      return wholeColumns(state);
    case 'all':
      return marking(state, { row: 0, column: 0 }, corner(state, 'last'));
    case 'turn':
      return typing(
        state,
        plan,
        isEmpty(state.rows[state.cursor.row]?.cells[state.cursor.column]) ? '1' : '',
        'marked',
      );
    default:
      return state;
  }
}
