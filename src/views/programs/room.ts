import type { Room } from '../shell/room';

/** How programs talk to the house. */
export const programs: Room = {
  id: 'programs',
  entry: { href: '/programs', name: 'programs.title', inBar: false, also: 'API' },
  keys: [],
};

/** All components of the interface in every state. */
export const components: Room = {
  id: 'components',
  entry: { href: '/components', name: 'components.title', inBar: false },
  keys: [],
};
