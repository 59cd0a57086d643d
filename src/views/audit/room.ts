import type { Room } from '../shell/room';

/** Who did what. */
export const audit: Room = {
  id: 'audit',
  entry: { href: '/audit', name: 'place.audit', shown: 'more', who: 'administer' },
  keys: [],
  texts: ['house'],
};
