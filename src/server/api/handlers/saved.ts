import type { saved } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { changeSaved, listSaved, removeSaved, saveBuild } from '../../../services/builds/saved-builds';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const savedHandlers: Handlers<typeof saved> = {
  'GET /saved': async ({ actor }) => done(await listSaved(actor)),
  'POST /saved': ({ actor, input }) => saveBuild(actor, input),
  'PATCH /saved/{id}': ({ actor, at, input }) => changeSaved(actor, at.id, input),
  'DELETE /saved/{id}': ({ actor, at }) => removeSaved(actor, at.id),
};
