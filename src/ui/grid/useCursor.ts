import { useRef } from 'react';
import { stepped, tabbed } from './moves';
import { isEmpty } from './row';
import { inserted } from './rows-acts';
import { movedTo, type GridState, type Place } from './state';
import type { GridHandle } from './useGrid';

/** Moves the cursor; where a run of Tab began, Enter goes on below. */
export function useCursor(grid: GridHandle) {
  const run = useRef<number | null>(null);
  const { session, plan, grows } = grid;
  return {
    /** Whether Tab is on its way along a row. */
    runs: (): boolean => run.current !== null,
    stop: (): void => {
      run.current = null;
    },
    go: (to: Place, extend: boolean): void => {
      run.current = null;
      session.act((state) => movedTo(state, to, extend ? 'extend' : 'leave'));
    },
    /** From the last row of a grid that grows on to a new one, unless the last is empty. */
    down: (way: 'down' | 'up'): void =>
      session.act((state) => {
        const column = run.current ?? state.cursor.column;
        run.current = null;
        const next = stepped(state, way);
        const last = way === 'down' && next.row === state.cursor.row;
        const grown = last && grows && !isUnused(state) ? inserted(state, plan, 'below') : null;
        return movedTo(grown ?? state, { row: (grown?.cursor ?? next).row, column });
      }),
    tab: (way: 'left' | 'right'): void =>
      session.act((state) => {
        run.current ??= state.cursor.column;
        return movedTo(state, tabbed(state, way));
      }),
  };
}

const isUnused = ({ rows, cursor }: GridState): boolean => rows[cursor.row]?.cells.every(isEmpty) ?? true;
