import type { Room } from '../shell/room';

/** How programs talk to the house. */
export const programs: Room = {
  id: 'programs',
  entry: { href: '/programs', name: 'place.programs', shown: 'found', also: 'API' },
  keys: [],
  texts: [],
};

/** All components of the interface in every state. */
export const components: Room = {
  id: 'components',
  entry: { href: '/components', name: 'place.components', shown: 'found' },
  keys: [],
  texts: ['house'],
};
