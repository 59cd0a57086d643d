import type { Room } from '../shell/room';

/** Quotes, and the Ledger of one. */
export const ledger: Room = {
  id: 'quotes',
  entry: { href: '/quotes', name: 'place.quotes', shown: 'bar' },
  keys: [
    ['Enter', 'keys.edit'],
    ['F2', 'keys.editCell'],
    ['↑ ↓', 'keys.column'],
    ['← →', 'keys.row'],
    ['Home  End', 'keys.rowEnds'],
    ['Ctrl Home  Ctrl End', 'keys.ends'],
    ['PgUp  PgDn', 'keys.page'],
    ['Alt ↑ ↓', 'keys.moveLine'],
    ['Ctrl D', 'keys.copyLine'],
    ['Ctrl Z', 'keys.undo'],
    ['Ctrl Y', 'keys.redo'],
    ['Ctrl Space', 'keys.markLine'],
    ['Alt → ←', 'keys.parts'],
    ['Esc', 'keys.leave'],
  ],
  texts: ['selling', 'bench', 'sending', 'sheets'],
};
