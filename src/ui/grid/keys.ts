/** What a key does in a grid while no cell is edited. */
import type { RowAct } from './words';
import type { Way } from './moves';

/** What is known of a key: as the events of the browser tell it. */
export interface Pressed {
  key: string;
  code: string;
  ctrlKey: boolean;
  metaKey: boolean;
  altKey: boolean;
  shiftKey: boolean;
}

/** Something to do. */
export type KeyAct =
  | { is: 'step'; way: Way; extend: boolean; by: number }
  | { is: 'jump'; way: Way; extend: boolean }
  | { is: 'end'; end: 'first' | 'last'; of: 'row' | 'grid'; extend: boolean }
  | { is: 'next'; way: 'down' | 'up' }
  | { is: 'edit'; begin: 'replace' | 'within' | 'choose' }
  | {
      is: 'do';
      what: 'empty' | 'fillDown' | 'fillRight' | 'undo' | 'redo' | 'all' | 'rows' | 'columns' | 'turn';
    }
  | { is: 'rows'; act: RowAct }
  | { is: 'fold'; shut: boolean }
  | { is: 'leave' };

const ways: Readonly<Record<string, Way>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'left',
  ArrowRight: 'right',
};
const altActs: Readonly<Record<string, KeyAct>> = {
  ArrowUp: { is: 'rows', act: 'up' },
  ArrowDown: { is: 'rows', act: 'down' },
  ArrowLeft: { is: 'fold', shut: true },
  ArrowRight: { is: 'fold', shut: false },
  Insert: { is: 'rows', act: 'above' },
};
const altShiftActs: Readonly<Record<string, KeyAct>> = {
  ArrowLeft: { is: 'rows', act: 'out' },
  ArrowRight: { is: 'rows', act: 'in' },
  ArrowDown: { is: 'rows', act: 'double' },
};
const ctrlActs: Readonly<Record<string, KeyAct>> = {
  a: { is: 'do', what: 'all' },
  d: { is: 'do', what: 'fillDown' },
  r: { is: 'do', what: 'fillRight' },
  y: { is: 'do', what: 'redo' },
  z: { is: 'do', what: 'undo' },
  Delete: { is: 'rows', act: 'remove' },
};
const acts: Readonly<Record<string, KeyAct>> = {
  F2: { is: 'edit', begin: 'within' },
  F4: { is: 'edit', begin: 'choose' },
  Delete: { is: 'do', what: 'empty' },
  Backspace: { is: 'edit', begin: 'replace' },
  Insert: { is: 'rows', act: 'below' },
  Escape: { is: 'leave' },
};

/** Rows on a page up or down. */
const page = 20;

/** What a key does; nothing where it is none of the grid's. `turns`: the column of the cursor has marks. */
export function keyAct(pressed: Pressed, turns: boolean): KeyAct | undefined {
  const { key, code, altKey, shiftKey } = pressed;
  const ctrl = pressed.ctrlKey || pressed.metaKey;
  const way = ways[key];
  // The two together are how some keyboards make their letters.
  if (ctrl && altKey) return typed(key);
  if (altKey) return shiftKey ? altShiftActs[key] : altActs[key];
  if (way) return ctrl ? { is: 'jump', way, extend: shiftKey } : { is: 'step', way, extend: shiftKey, by: 1 };
  if (key === 'PageUp' || key === 'PageDown')
    return { is: 'step', way: key === 'PageUp' ? 'up' : 'down', extend: shiftKey, by: page };
  if (key === 'Home' || key === 'End')
    return { is: 'end', end: key === 'Home' ? 'first' : 'last', of: ctrl ? 'grid' : 'row', extend: shiftKey };
  if (key === 'Enter' && !ctrl) return { is: 'next', way: shiftKey ? 'up' : 'down' };
  if (code === 'Space') return spaced(ctrl, shiftKey, turns);
  if (ctrl) {
    if (shiftKey && key.toLowerCase() === 'z') return { is: 'do', what: 'redo' };
    return ctrlActs[key.length === 1 ? key.toLowerCase() : key];
  }
  // Shift with them pastes and cuts, in some browsers.
  if (shiftKey && (key === 'Insert' || key === 'Delete')) return undefined;
  return acts[key] ?? typed(key);
}

function spaced(ctrl: boolean, shift: boolean, turns: boolean): KeyAct {
  if (ctrl) return { is: 'do', what: 'columns' };
  if (shift) return { is: 'do', what: 'rows' };
  return turns ? { is: 'do', what: 'turn' } : { is: 'edit', begin: 'replace' };
}

/** A letter, or the beginning of one that is put together, begins a cell anew. */
const typed = (key: string): KeyAct | undefined =>
  key.length === 1 || key === 'Dead' || key === 'Process' ? { is: 'edit', begin: 'replace' } : undefined;

/** Keys of what is done to rows, as they are shown. */
export const rowKeys: Readonly<Record<RowAct, string>> = {
  above: 'Alt Insert',
  below: 'Insert',
  double: 'Alt Shift ↓',
  remove: 'Ctrl Delete',
  up: 'Alt ↑',
  down: 'Alt ↓',
  in: 'Alt Shift →',
  out: 'Alt Shift ←',
};
