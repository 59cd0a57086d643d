import type { Room } from '../shell/room';

/** All that is sold. */
export const catalogue: Room = {
  id: 'catalogue',
  entry: { href: '/catalogue', name: 'place.catalogue', shown: 'bar' },
  keys: [],
  texts: ['selling'],
};
