import type { desk } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { search } from '../../../services/desk/search';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const deskHandlers: Handlers<typeof desk> = {
  'GET /search': async ({ actor, query }) => done(await search(actor, query.find)),
};
