import type { signOffs } from '../../../contract/all';
import { answerSignOff, askSignOff, takeCounter } from '../../../services/quotes/sign-off/sign-offs';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const signOffsHandlers: Handlers<typeof signOffs> = {
  'POST /quotes/{id}/sign-offs': ({ actor, at, input }) => askSignOff(actor, at.id, input),
  'PATCH /quotes/{id}/sign-offs/{signOff}': ({ actor, at, input }) =>
    answerSignOff(actor, at.id, at.signOff, input),
  'POST /quotes/{id}/sign-offs/{signOff}/take': ({ actor, at, input }) =>
    takeCounter(actor, at.id, at.signOff, input),
};
