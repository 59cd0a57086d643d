/** What is done to a grid, by what it is called in keys and menus. */
import { emptied, filled, typing } from './cells';
import type { KeyAct } from './keys';
import { corner } from './moves';
import { isEmpty } from './row';
import { deeper, doubled, inserted, moved, removed, wholeColumns, wholeRows } from './rows-acts';
import { marking, type GridState } from './state';
import type { GridHandle } from './useGrid';
import type { RowAct } from './words';

/** What an act makes of whole rows. */
export function rowAct(act: RowAct, state: GridState, { plan }: GridHandle): GridState {
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

/** What an act makes of the marked cells, or of what is marked. */
export function cellAct(
  what: (KeyAct & { is: 'do' })['what'],
  state: GridState,
  { plan }: GridHandle,
): GridState {
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
