import type { Room } from '../shell/room';

/** What was accepted. */
export const orders: Room = {
  id: 'orders',
  entry: { href: '/orders', name: 'place.orders', shown: 'bar', who: 'orders' },
  keys: [],
  texts: ['selling'],
};
