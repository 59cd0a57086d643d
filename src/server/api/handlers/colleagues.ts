import type { colleagues } from '../../../contract/all';
import { handOver } from '../../../services/colleagues/hand-over';
import {
  attach,
  changeFollowUp,
  detach,
  followUp,
  takeBackNote,
  writeNote,
} from '../../../services/colleagues/notes';
import {
  answerColleague,
  askColleague,
  closeRequest,
  seeBuildItems,
  takePart,
} from '../../../services/colleagues/requests';
import { seeColleagues } from '../../../services/colleagues/view';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const colleaguesHandlers: Handlers<typeof colleagues> = {
  'GET /quotes/{id}/colleagues': ({ actor, at }) => seeColleagues(actor, at.id),
  'POST /quotes/{id}/notes': ({ actor, at, input }) => writeNote(actor, at.id, input.words),
  'DELETE /notes/{id}': ({ actor, at }) => takeBackNote(actor, at.id),
  'GET /quotes/{id}/lines/{line}/items': ({ actor, at }) => seeBuildItems(actor, at.id, at.line),
  'POST /quotes/{id}/requests': ({ actor, at, input }) => askColleague(actor, at.id, input),
  'POST /requests/{id}/answer': ({ actor, at, input }) => answerColleague(actor, at.id, input),
  'POST /requests/{id}/take': ({ actor, at }) => takePart(actor, at.id),
  'POST /requests/{id}/close': ({ actor, at }) => closeRequest(actor, at.id),
  'POST /quotes/{id}/follow-ups': ({ actor, at, input }) => followUp(actor, at.id, input),
  'PUT /follow-ups/{id}': ({ actor, at, input }) => changeFollowUp(actor, at.id, input),
  'POST /quotes/{id}/attachments': ({ actor, at, input }) => attach(actor, at.id, input),
  'DELETE /quotes/{id}/attachments/{file}': ({ actor, at }) => detach(actor, at.id, at.file),
  'POST /quotes/{id}/hand-over': ({ actor, at, input }) => handOver(actor, at.id, input),
};
