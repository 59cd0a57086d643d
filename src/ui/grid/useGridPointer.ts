import { useEffect, useRef, useState, type PointerEvent, type MouseEvent, type RefObject } from 'react';
import { useLatest } from '../useLatest';
import { continued } from './cells';
import { blockOf, placed } from './rows-acts';
import { folding, marking, movedTo, type GridState, type Place } from './state';
import type { useGridActs } from './useGridActs';
import type { GridHandle } from './useGrid';

interface Given {
  grid: GridHandle;
  scroller: RefObject<HTMLDivElement | null>;
  acts: ReturnType<typeof useGridActs>;
}

/** What the pointer is dragging: a corner of what is marked, whole rows that are marked or moved, the filler. */
type Dragging = 'mark' | 'markRows' | 'rows' | 'fill';

/** Where what is dragged would go: filled on as far as a cell, put before a row. */
interface Target {
  until: Place | null;
  drop: number | null;
}
const nowhere: Target = { until: null, drop: null };

/** What is done in a grid by hand: marking, editing, folding, filling on, and moving rows. */
export function useGridPointer(given: Given) {
  const { begin, target } = useDragging(given);
  const onPointerDown = (event: PointerEvent): void => {
    const { session } = given.grid;
    const over = placeOf(event.target);
    if (!over || event.button !== 0) return;
    if (over.fold) {
      event.preventDefault();
      session.act((now) => folding(now, over.row, !now.folded.has(now.rows[over.row]?.id ?? '')));
      return;
    }
    // A cell that is edited is stored before the cursor leaves it.
    if (given.acts.editing && document.activeElement instanceof HTMLElement) document.activeElement.blur();
    given.acts.wantFocus();
    const { row, column } = over;
    if (column !== null) {
      begin('mark');
      session.act((now) => movedTo(now, { row, column }, event.shiftKey ? 'extend' : 'leave'));
      return;
    }
    const held = isHeld(given.grid, row) && !event.shiftKey;
    begin(held ? 'rows' : 'markRows');
    if (!held) session.act((now) => markingRow(now, row, event.shiftKey));
  };
  const onDoubleClick = (event: MouseEvent): void => {
    const over = placeOf(event.target);
    if (over && over.column !== null && !over.fold) given.acts.edit('within');
  };
  const onFill = (event: PointerEvent): void => {
    event.stopPropagation();
    begin('fill');
  };
  return { ...target, onFill, handlers: { onPointerDown, onDoubleClick } };
}

/** Whether a row is of those that are marked as whole and can be dragged; any other number marks its row. */
function isHeld({ grows, state }: GridHandle, row: number): boolean {
  const { from, to } = blockOf(state);
  const whole = state.anchor.column === 0 && state.cursor.column === state.columns - 1;
  return grows && whole && row >= from && row < to;
}

const markingRow = (now: GridState, row: number, extend: boolean): GridState =>
  marking(now, { row: extend ? now.anchor.row : row, column: 0 }, { row, column: now.columns - 1 });

/** Follows the pointer while something is dragged, wherever it goes, and does what was meant where it ends. */
function useDragging(given: Given) {
  const latest = useLatest(given);
  const dragging = useRef<Dragging | null>(null);
  const [target, setTarget] = useState(nowhere);
  const aim = useRef(nowhere);
  useEffect(() => {
    const show = (next: Target): void => {
      aim.current = next;
      setTarget(next);
    };
    const move = (event: globalThis.PointerEvent): void => {
      const { grid, scroller } = latest.current;
      if (!dragging.current || !scroller.current) return;
      scrollAtEdge(scroller.current, event);
      const over = placeUnder(event.clientX, event.clientY);
      if (over) drag(dragging.current, over, grid, show);
    };
    const end = (): void => {
      const { session, plan } = latest.current.grid;
      const { until, drop } = aim.current;
      if (until) session.act((now) => continued(now, plan, until));
      if (drop !== null) session.act((now) => placed(now, drop));
      if (dragging.current) show(nowhere);
      dragging.current = null;
    };
    window.addEventListener('pointermove', move);
    for (const event of ['pointerup', 'pointercancel'] as const) window.addEventListener(event, end);
    return () => {
      window.removeEventListener('pointermove', move);
      for (const event of ['pointerup', 'pointercancel'] as const) window.removeEventListener(event, end);
    };
  }, [latest]);
  const begin = (what: Dragging): void => {
    dragging.current = what;
  };
  return { begin, target };
}

/** What dragging over a place does, or would do if it ended there. */
function drag(
  what: Dragging,
  over: Under,
  { session, state }: GridHandle,
  show: (target: Target) => void,
): void {
  const { row, column } = over;
  if (what === 'mark')
    session.act((now) => movedTo(now, { row, column: column ?? now.cursor.column }, 'extend'));
  else if (what === 'markRows')
    session.act((now) => movedTo(now, { row, column: now.cursor.column }, 'extend'));
  else if (what === 'fill') show({ until: { row, column: column ?? state.cursor.column }, drop: null });
  else {
    const { from, to } = blockOf(state);
    const before = over.below ? row + 1 : row;
    show({ until: null, drop: before >= from && before <= to ? null : before });
  }
}

interface Under {
  row: number;
  /** Null where the number of a row is. */
  column: number | null;
  fold: boolean;
  /** The lower half. */
  below: boolean;
}

function placeOf(target: EventTarget | null, y = 0): Under | null {
  if (!(target instanceof Element)) return null;
  const row = target.closest<HTMLElement>('[data-row]');
  if (!row) return null;
  const { top, height } = row.getBoundingClientRect();
  const cell = target.closest<HTMLElement>('[data-column]');
  return {
    row: Number(row.dataset.row),
    column: cell ? Number(cell.dataset.column) : null,
    fold: target.closest('[data-fold]') !== null,
    below: y > top + height / 2,
  };
}

const placeUnder = (x: number, y: number): Under | null => placeOf(document.elementFromPoint(x, y), y);

/** Dragging past an edge scrolls on. */
function scrollAtEdge(scroller: HTMLElement, { clientX, clientY }: globalThis.PointerEvent): void {
  const { top, bottom, left, right } = scroller.getBoundingClientRect();
  if (clientY > bottom - 12) scroller.scrollTop += 14;
  else if (clientY < top + 34) scroller.scrollTop -= 14;
  if (clientX > right - 12) scroller.scrollLeft += 14;
  else if (clientX < left + 50) scroller.scrollLeft -= 14;
}
