import type { Room } from '../shell/room';

/** Price lists and price changes, for whoever keeps them. */
export const prices: Room = {
  id: 'prices',
  entry: { href: '/prices', name: 'place.prices', shown: 'more', who: 'prices' },
  keys: [],
  texts: ['house', 'prices', 'sheets'],
};
