import { useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { useLatest } from '../useLatest';
import { cellAct, rowAct } from './acts';
import type { Stored } from './CellEditor';
import { typing } from './cells';
import { keyAct, type KeyAct } from './keys';
import { corner, jumped, rowEnd, stepped } from './moves';
import { inserted } from './rows-acts';
import { folding, redo, undo, type GridState, type Place } from './state';
import { clipboardHandlers, isCell } from './clipboard-handlers';
import { useCursor } from './useCursor';
import { useFocus, type InPage } from './useFocus';
import type { GridHandle } from './useGrid';
import type { GridWords, RowAct } from './words';

/** How high a row is, in pixels. */
export const rowHeight = 27;

/** How a cell is edited: begun anew, within what stands there, or by choosing. */
export type Editing = 'replace' | 'within' | 'choose';

interface Given extends InPage {
  words: GridWords;
  /** Whether somebody else takes a pasted table; else it goes into the cells. */
  onPasting?: ((table: string[][]) => boolean) | undefined;
}

/** What is done in a grid by keys, by the clipboard and by its buttons, and where the keyboard is. */
export function useGridActs(given: Given) {
  const { grid, words } = given;
  const { session } = grid;
  const latest = useLatest(given);
  const [said, setSaid] = useState('');
  const [editing, setEditing] = useState<Editing | null>(null);
  const wantFocus = useFocus(latest, editing !== null, session.state().cursor);
  const cursor = useCursor(grid);
  const edit = (how: Editing): void => {
    if (!mayEdit(grid)) return;
    // Before the key itself arrives, so that the field takes it, whatever letter it makes.
    flushSync(() => setEditing(how));
    given.scroller.current?.querySelector<HTMLInputElement>('[data-cursor] input')?.focus();
  };
  const store = (text: string, where: Stored): void => {
    if (where !== 'here') wantFocus();
    session.act((state) => typing(state, grid.plan, text, where === 'marked' ? 'marked' : 'cursor'));
    setEditing(null);
    if (where === 'down' || where === 'up') cursor.down(where);
    else if (where === 'left' || where === 'right') cursor.tab(where);
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
  const perform = (act: KeyAct): void => {
    if (act.is === 'edit') edit(act.begin);
    else if (act.is === 'rows') rows(act.act);
    else if (act.is === 'do' && act.what === 'undo') back(undo, words.undone);
    else if (act.is === 'do' && act.what === 'redo') back(redo, words.redone);
    else if (act.is === 'do') session.act((now) => cellAct(act.what, now, grid));
    else if (act.is === 'fold') session.act((now) => folding(now, now.cursor.row, act.shut));
    else moveBy(act, session.state(), cursor);
  };
  const toWrong = (): void => {
    const next = nextWrong(grid);
    wantFocus();
    if (next) cursor.go(next, false);
  };
  const leave = (): void => {
    wantFocus();
    setEditing(null);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (editing || !isCell(event.target)) return;
    // Out of a run of cells Tab goes on along the row; else it leaves the grid.
    if (event.key === 'Tab' && cursor.runs() && !event.ctrlKey && !event.altKey) {
      event.preventDefault();
      cursor.tab(event.shiftKey ? 'left' : 'right');
      return;
    }
    const act = actIn(grid, event);
    if (act?.is === 'leave') cursor.stop();
    // What leaves nothing is for the page.
    if (!act || (act.is === 'leave' && !isMarkedMore(session.state()))) return;
    // What begins a cell is typed into it.
    if (!(act.is === 'edit' && act.begin === 'replace')) event.preventDefault();
    event.stopPropagation();
    if (act.is !== 'edit') wantFocus();
    perform(act);
  };
  const handlers = { onKeyDown, ...clipboardHandlers(grid, words, editing !== null, given.onPasting) };
  return { editing, said, edit, store, leave, rows, toWrong, wantFocus, handlers };
}

/** Whether the cell of the cursor can be edited; a grid without rows that grows gets its first. */
function mayEdit({ session, plan, grows }: GridHandle): boolean {
  if (session.state().rows.length === 0 && grows) session.act((state) => inserted(state, plan, 'below'));
  const { rows, cursor } = session.state();
  return rows.length > 0 && plan.columns[cursor.column]?.fixed !== true;
}

/** What a key does in a grid, of what can be done there. */
function actIn({ session, plan, grows, tree }: GridHandle, event: KeyboardEvent): KeyAct | undefined {
  const column = plan.columns[session.state().cursor.column];
  const act = keyAct(event, column?.kind === 'mark' && !column.fixed);
  if (act?.is === 'rows') return grows && (tree || (act.act !== 'in' && act.act !== 'out')) ? act : undefined;
  return act?.is === 'fold' && !tree ? undefined : act;
}

function moveBy(
  act: Exclude<KeyAct, { is: 'edit' | 'rows' | 'do' | 'fold' }>,
  state: GridState,
  cursor: ReturnType<typeof useCursor>,
): void {
  if (act.is === 'step') cursor.go(stepped(state, act.way, act.by), act.extend);
  else if (act.is === 'jump') cursor.go(jumped(state, act.way), act.extend);
  else if (act.is === 'end') cursor.go((act.of === 'row' ? rowEnd : corner)(state, act.end), act.extend);
  else if (act.is === 'next') cursor.down(act.way);
  else cursor.go(state.cursor, false);
}

/** The next cell to mend behind the cursor, else the first. */
function nextWrong({ session, wrong }: GridHandle): Place | undefined {
  const { cursor } = session.state();
  const later = ({ row, column }: Place): boolean =>
    row > cursor.row || (row === cursor.row && column > cursor.column);
  return wrong.find(later) ?? wrong[0];
}

const isMarkedMore = ({ cursor, anchor }: GridState): boolean =>
  cursor.row !== anchor.row || cursor.column !== anchor.column;
