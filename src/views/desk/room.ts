import type { Room } from '../shell/room';

/** What waits for a person. */
export const desk: Room = {
  id: 'desk',
  entry: { href: '/', name: 'place.desk', shown: 'bar' },
  keys: [],
  texts: ['selling'],
};
