import type { Room } from '../shell/room';

/** All that was made for quotes, builds and customers. */
export const shelf: Room = {
  id: 'shelf',
  entry: { href: '/shelf', name: 'place.shelf', shown: 'more', also: 'document pdf archive', who: 'quotes' },
  keys: [],
  texts: ['sending'],
};
