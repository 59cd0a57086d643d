import type { shares } from '../../../contract/all';
import { fail, type Result } from '../../../services/kernel/failure';
import { answerShare } from '../../../services/shares/answer';
import { orderAnswer, replyTo, seeBuildSent, seeQuoteSent } from '../../../services/shares/answers';
import { seeShared, sharedDocument, sharedPicture, sharedScene } from '../../../services/shares/shared';
import { prolongShare, revokeShare, shareBuild, shareQuote } from '../../../services/shares/shares';
import { baseOf } from '../base';
import { spend } from '../../visitors';
import type { Asked, Handlers } from './handler';

/** Whoever comes from outside comes so often at most; the work is not begun for who comes more. */
const within = async <T>(
  { context }: Pick<Asked<string, never>, 'context'>,
  work: () => Promise<Result<T>>,
): Promise<Result<T>> => {
  const wait = await spend(context.locals.client.address);
  return wait === 0 ? work() : fail('tooMany', { code: 'shared.tooOften', retryAfter: wait });
};

/** What answers the endpoints of this room. */
export const sharesHandlers: Handlers<typeof shares> = {
  'GET /quotes/{id}/sent': ({ actor, at }) => seeQuoteSent(actor, at.id),
  'GET /builds/{id}/sent': ({ actor, at }) => seeBuildSent(actor, at.id),
  'POST /quotes/{id}/shares': ({ actor, at, input, context }) =>
    shareQuote(actor, at.id, input, baseOf(context)),
  'POST /builds/{id}/shares': ({ actor, at, input, context }) =>
    shareBuild(actor, at.id, input, baseOf(context)),
  'PUT /shares/{id}/until': ({ actor, at, input }) => prolongShare(actor, at.id, input.until),
  'POST /shares/{id}/revoke': ({ actor, at }) => revokeShare(actor, at.id),
  'POST /answers/{id}/reply': ({ actor, at, input }) => replyTo(actor, at.id, input.words),
  'POST /answers/{id}/order': ({ actor, at }) => orderAnswer(actor, at.id),
  'GET /shared/{token}': (asked) => within(asked, () => seeShared(asked.at.token)),
  'POST /shared/{token}/answers': (asked) =>
    within(asked, () =>
      answerShare(asked.at.token, asked.input, {
        address: asked.context.locals.client.address,
        agent: asked.context.request.headers.get('user-agent') ?? '',
      }),
    ),
  'GET /shared/{token}/documents/{id}': (asked) =>
    within(asked, () => sharedDocument(asked.at.token, asked.at.id)),
  'GET /shared/{token}/pictures/{id}': (asked) =>
    within(asked, () => sharedPicture(asked.at.token, asked.at.id)),
  'GET /shared/{token}/builds/{id}': (asked) => within(asked, () => sharedScene(asked.at.token, asked.at.id)),
};
