import type { files } from '../../../contract/all';
import { bring, openFile, takeBack } from '../../../services/files/files';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const filesHandlers: Handlers<typeof files> = {
  'POST /files': ({ actor, input, query }) => bring(actor, { name: query.name, bytes: input }),
  'GET /files/{id}': ({ actor, at, query }) => openFile(actor, at.id, query.as),
  'DELETE /files/{id}': ({ actor, at }) => takeBack(actor, at.id),
};
