import type { people } from '../../../contract/all';
import { seeLink, setPassword } from '../../../services/access/password-links';
import {
  changePerson,
  linkFor,
  makePerson,
  putAside,
  seePeople,
  setDeputies,
} from '../../../services/access/people';
import { done } from '../../../services/kernel/failure';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const peopleHandlers: Handlers<typeof people> = {
  'GET /people': async () => done(await seePeople()),
  'POST /people': ({ actor, input }) => makePerson(actor, input),
  'PUT /people/{id}': ({ actor, at, input }) => changePerson(actor, at.id, input),
  'PUT /people/{id}/aside': ({ actor, at, input }) => putAside(actor, at.id, input),
  'PUT /people/{id}/deputies': ({ actor, at, input }) => setDeputies(actor, at.id, input),
  'POST /people/{id}/link': ({ actor, at }) => linkFor(actor, at.id),
  'POST /password/link': ({ input }) => seeLink(input.token),
  'POST /password': ({ input }) => setPassword(input),
};
