import type { jobs } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { again, beginJob, listJobs, seeJob, stop } from '../../../services/jobs/jobs';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const jobsHandlers: Handlers<typeof jobs> = {
  'GET /jobs': async ({ query }) => done(await listJobs(query)),
  'POST /jobs': ({ actor, input }) => beginJob(actor, input),
  'GET /jobs/{id}': ({ actor, at }) => seeJob(actor, at.id),
  'POST /jobs/{id}/stop': ({ actor, at }) => stop(actor, at.id),
  'POST /jobs/{id}/again': ({ actor, at }) => again(actor, at.id),
};
