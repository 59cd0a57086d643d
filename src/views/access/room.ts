import type { Room } from '../shell/room';

/** Where somebody sets their password by a link; nobody goes there otherwise. */
export const password: Room = { id: 'password', keys: [], texts: ['house'] };
