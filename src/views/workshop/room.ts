import type { Room } from '../shell/room';

/** Models: their versions, and the drafts of those who make them. */
export const models: Room = {
  id: 'models',
  entry: { href: '/models', name: 'place.models', shown: 'bar', who: 'model' },
  keys: [
    ['Ctrl Z', 'keys.undo'],
    ['Ctrl Y', 'keys.redo'],
    ['F6', 'keys.tryOut'],
  ],
  texts: ['house', 'workshop', 'bench', 'sheets'],
};
