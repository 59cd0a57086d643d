import type { Room } from '../shell/room';

/** What is done apart from whoever asked for it. */
export const jobs: Room = {
  id: 'jobs',
  entry: { href: '/jobs', name: 'place.jobs', shown: 'more', who: 'administer' },
  keys: [],
  texts: ['house'],
};
