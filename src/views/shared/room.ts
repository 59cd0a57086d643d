import type { Room } from '../shell/room';

/** What a customer sees behind a share; whoever has the link is in. */
export const shared: Room = { id: 'shared', keys: [], texts: ['shared'] };
