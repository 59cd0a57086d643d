import type { Room } from '../shell/room';

/** What is granted, limited and charged, for whoever keeps it. */
export const terms: Room = {
  id: 'terms',
  entry: { href: '/terms', name: 'place.terms', shown: 'more', who: 'prices' },
  keys: [],
  texts: ['house', 'prices', 'sheets'],
};
