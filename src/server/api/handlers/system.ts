import answered from '../../../contract/answers.json';
import { openApi, rooms, type system } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { ready } from '../../../services/kernel/health';
import { json } from '../answer';
import type { Handlers } from './handler';

/** Made once: whoever asks costs the server no more than sending it. */
const document = openApi(rooms, answered);

/** What answers the endpoints of this room. */
export const systemHandlers: Handlers<typeof system> = {
  'GET /alive': () => Promise.resolve(done({ alive: true as const })),
  'GET /health': async () => {
    const serves = await ready();
    return json({ ready: serves }, serves ? 200 : 503);
  },
  'GET /openapi.json': () => Promise.resolve(done(document)),
};
