import { useEffect, useRef, useState, type RefObject } from 'react';
import { placeIn } from './moves';
import { seenIn, type Place } from './state';
import type { GridHandle } from './useGrid';

/** A grid as it stands in the page. */
export interface InPage {
  grid: GridHandle;
  scroller: RefObject<HTMLDivElement | null>;
  /** Scrolls to a row, by its place among those that are seen. */
  show: (at: number) => void;
}

/** Puts the keyboard into the cell of the cursor, where it is in the grid or is wanted there. */
export function useFocus(latest: RefObject<InPage>, editing: boolean, { row, column }: Place) {
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
