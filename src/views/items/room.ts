import type { Room } from '../shell/room';

/** Items and families, for whoever keeps them. */
export const items: Room = {
  id: 'items',
  entry: { href: '/items', name: 'place.items', shown: 'bar', who: 'prices' },
  keys: [['Alt ↵', 'keys.openItem']],
  texts: ['house', 'items', 'sheets'],
};
