import type { Room } from '../shell/room';

/** Who the house is, when it works, how it counts, where it sells. */
export const house: Room = {
  id: 'house',
  entry: { href: '/house', name: 'place.house', shown: 'bar', who: 'administer' },
  keys: [],
  texts: ['house', 'sheets'],
};
