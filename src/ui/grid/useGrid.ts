import { useMemo, useState, useSyncExternalStore } from 'react';
import type { GridPlan } from './cells';
import type { GridColumn, Row } from './row';
import { GridSession, wrongCells } from './session';
import type { GridState } from './state';

/** What a grid is made of. */
export interface GridMade {
  /** The same as long as nothing about them changes. */
  columns: readonly GridColumn[];
  /** How many rows there can be; rows are neither added, taken away nor moved where it is not said. */
  most?: number;
  /** Rows can be inside others. */
  tree?: boolean;
  /** Nothing can be changed. */
  fixed?: boolean;
}

/** A grid for its view, and for who keeps what stands in it. */
export interface GridHandle extends Required<Omit<GridMade, 'most' | 'columns'>> {
  session: GridSession;
  plan: GridPlan;
  /** Rows can be added, taken away and moved. */
  grows: boolean;
  state: GridState;
  rows: readonly Row[];
  wrong: ReturnType<typeof wrongCells>;
  /** Whether it is not as it began. */
  changed: boolean;
}

/** A grid that begins with some rows; other rows later are begun with `session.begin`. */
export function useGrid(rows: readonly Row[], made: GridMade): GridHandle {
  const { columns, most, tree = false, fixed = false } = made;
  const [session] = useState(() => new GridSession(rows, columns.length));
  const state = useSyncExternalStore(session.hear, session.state, session.state);
  const plan = useMemo<GridPlan>(
    () => ({
      columns: fixed ? columns.map((column) => ({ ...column, fixed: true })) : columns,
      most: fixed ? 0 : (most ?? 0),
      fresh: session.fresh,
    }),
    [columns, most, fixed, session],
  );
  const wrong = useMemo(() => wrongCells(state.rows, plan.columns), [state.rows, plan.columns]);
  const grows = most !== undefined && !fixed;
  return { session, plan, grows, tree, fixed, state, rows: state.rows, wrong, changed: session.changed() };
}
