import type { Room } from '../shell/room';

/** The document of a quote while it is composed; entered from its quote. */
export const composer: Room = {
  id: 'composer',
  keys: [
    ['Space', 'keys.blockOn'],
    ['Alt ↑ ↓', 'keys.blockMove'],
    ['Ctrl Z', 'keys.undo'],
    ['Ctrl Y', 'keys.redo'],
  ],
  texts: ['selling', 'paper', 'house', 'sheets'],
};

/** Texts and templates of the house. */
export const paper: Room = {
  id: 'paper',
  entry: { href: '/paper', name: 'place.paper', shown: 'more', who: 'paper' },
  keys: [
    ['Space', 'keys.blockOn'],
    ['Alt ↑ ↓', 'keys.blockMove'],
  ],
  texts: ['paper', 'house', 'sheets'],
};
