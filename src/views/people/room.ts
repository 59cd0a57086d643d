import type { Room } from '../shell/room';

/** Who signs in, what their roles may, and who stands in for whom. */
export const people: Room = {
  id: 'people',
  entry: { href: '/people', name: 'place.people', shown: 'bar', who: 'administer' },
  keys: [],
  texts: ['house'],
};
