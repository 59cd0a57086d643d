import type { outbox } from '../../../contract/all';
import {
  changeMailServer,
  giveBack,
  hasArrived,
  listMails,
  messageFile,
  seeMail,
  seeMailServer,
  seenMail,
  sendAgain,
} from '../../../services/outbox/mails';
import { mailBuild, mailQuote, seeBuildSending, seeQuoteSending } from '../../../services/outbox/sending';
import { done } from '../../../services/kernel/failure';
import { baseOf } from '../base';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const outboxHandlers: Handlers<typeof outbox> = {
  'GET /quotes/{id}/sending': ({ actor, at }) => seeQuoteSending(actor, at.id),
  'POST /quotes/{id}/mails': ({ actor, at, input, context }) =>
    mailQuote(actor, at.id, input, baseOf(context)),
  'GET /builds/{id}/sending': ({ actor, at }) => seeBuildSending(actor, at.id),
  'POST /builds/{id}/mails': ({ actor, at, input, context }) =>
    mailBuild(actor, at.id, input, baseOf(context)),
  'GET /mails': async ({ actor, query }) => done(await listMails(actor, query)),
  'GET /mails/{id}': ({ actor, at }) => seeMail(actor, at.id),
  'GET /mails/{id}/seen': ({ actor, at }) => seenMail(actor, at.id),
  'GET /mails/{id}/message.eml': ({ actor, at }) => messageFile(actor, at.id),
  'POST /mails/{id}/again': ({ actor, at }) => sendAgain(actor, at.id),
  'POST /mails/{id}/arrived': ({ actor, at }) => hasArrived(actor, at.id),
  'GET /mail-server': async () => done(await seeMailServer()),
  'PUT /mail-server': ({ actor, input }) => changeMailServer(actor, input.down),
  'POST /mail-server/returns': ({ actor, input }) => giveBack(actor, input),
};
