import { useEffect, useRef, useState, type PointerEvent, type MouseEvent, type RefObject } from 'react';
import { useLatest } from '../useLatest';
import { continued } from './cells';
import { blockOf, placed } from './rows-acts';
import { folding, marking, movedTo, type Place } from './state';
import type { useGridActs } from './useGridActs';
import type { GridHandle } from './useGrid';

interface Given {
  grid: GridHandle;
  scroller: RefObject<HTMLDivElement | null>;
  acts: ReturnType<typeof useGridActs>;
}

/** What the pointer is dragging: a corner of what is marked, whole rows that are marked or moved, the filler. */
type Dragging = 'mark' | 'markRows' | 'rows' | 'fill';

/** What is done in a grid by hand: marking, editing, folding, filling on, and moving rows. */
export function useGridPointer(given: Given) {
  const latest = useLatest(given);
  const dragging = useRef<Dragging | null>(null);
  const [until, setUntil] = useState<Place | null>(null);
  const [drop, setDrop] = useState<number | null>(null);
  const target = useRef<{ until: Place | null; drop: number | null }>({ until: null, drop: null });

  useEffect(() => {
    const move = (event: globalThis.PointerEvent): void => {
      const { scroller } = latest.current;
      const { session, state } = latest.current.grid;
      const what = dragging.current;
      if (!what || !scroller.current) return;
      scrollAtEdge(scroller.current, event);
      const over = placeUnder(event.clientX, event.clientY);
      if (!over) return;
      if (what === 'mark')
        session.act((now) =>
          movedTo(now, { row: over.row, column: over.column ?? now.cursor.column }, 'extend'),
        );
      if (what === 'markRows')
        session.act((now) => movedTo(now, { row: over.row, column: now.cursor.column }, 'extend'));
      if (what === 'fill')
        setUntil((target.current.until = { row: over.row, column: over.column ?? state.cursor.column }));
      if (what === 'rows') {
        const { from, to } = blockOf(state);
        const before = over.below ? over.row + 1 : over.row;
        setDrop((target.current.drop = before >= from && before <= to ? null : before));
      }
    };
    const end = (): void => {
      const { grid } = latest.current;
      const { until: to, drop: before } = target.current;
      if (dragging.current === 'fill' && to) grid.session.act((now) => continued(now, grid.plan, to));
      if (dragging.current === 'rows' && before !== null) grid.session.act((now) => placed(now, before));
      dragging.current = null;
      target.current = { until: null, drop: null };
      setUntil(null);
      setDrop(null);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', end);
    window.addEventListener('pointercancel', end);
    return () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', end);
      window.removeEventListener('pointercancel', end);
    };
  }, [latest]);

  const onPointerDown = (event: PointerEvent): void => {
    const { session, grows, state } = given.grid;
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
    if (over.column !== null) {
      dragging.current = 'mark';
      session.act((now) =>
        movedTo(now, { row: over.row, column: over.column ?? 0 }, event.shiftKey ? 'extend' : 'leave'),
      );
      return;
    }
    const { from, to } = blockOf(state);
    const last = state.columns - 1;
    const whole = state.anchor.column === 0 && state.cursor.column === last;
    // What is marked as whole rows is dragged; any other number marks its row.
    dragging.current =
      grows && whole && over.row >= from && over.row < to && !event.shiftKey ? 'rows' : 'markRows';
    if (dragging.current === 'markRows')
      session.act((now) =>
        marking(
          now,
          { row: event.shiftKey ? now.anchor.row : over.row, column: 0 },
          { row: over.row, column: last },
        ),
      );
  };
  const onDoubleClick = (event: MouseEvent): void => {
    const over = placeOf(event.target);
    if (over && over.column !== null && !over.fold) given.acts.edit('within');
  };
  return {
    until,
    drop,
    onFill: (event?: { stopPropagation: () => void }): void => {
      event?.stopPropagation();
      dragging.current = 'fill';
    },
    handlers: { onPointerDown, onDoubleClick },
  };
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
