import type { shelf } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { makeAgain } from '../../../services/shelf/again';
import { seeShelf } from '../../../services/shelf/list';
import { openShelved } from '../../../services/shelf/shelf';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const shelfHandlers: Handlers<typeof shelf> = {
  'GET /shelf': async ({ actor, query }) => done(await seeShelf(actor, query)),
  'GET /shelf/{id}': ({ actor, at }) => openShelved(actor, at.id),
  'POST /shelf/{id}/again': ({ actor, at }) => makeAgain(actor, at.id),
};
