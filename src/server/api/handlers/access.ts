import type { access } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { setPerson } from '../../../services/access/person';
import { signOut } from '../../../services/access/sessions';
import { sessionCookie } from '../../cookies';
import { signInFrom } from '../sign-in';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const accessHandlers: Handlers<typeof access> = {
  'POST /session': async ({ input, context }) => {
    const result = await signInFrom(context, input);
    return result.ok ? done({ name: result.value.name }) : result;
  },
  'DELETE /session': async ({ context: { cookies } }) => {
    const token = cookies.get(sessionCookie)?.value;
    if (token) await signOut(token);
    cookies.delete(sessionCookie, { path: '/' });
    return done(null);
  },
  'PATCH /me': ({ actor, input }) => setPerson(actor, input),
};
