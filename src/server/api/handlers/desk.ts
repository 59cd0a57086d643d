import type { desk as room } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { desk } from '../../../services/desk/desk';
import { search } from '../../../services/desk/search';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const deskHandlers: Handlers<typeof room> = {
  'GET /desk': async ({ actor, query }) => done(await desk(actor, query.whose)),
  'GET /search': async ({ actor, query }) => done(await search(actor, query.find)),
};
