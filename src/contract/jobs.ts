/** Work that is done apart from whoever asked for it: how far it is, stopped, begun again. */
import { object } from 'yup';
import { endpoint, json } from './endpoint';
import { exactly, oneOf, page, type Page, type Sent } from './schema';

/** Where a job is. */
export const jobStates = ['waiting', 'running', 'done', 'failed', 'stopped'] as const;
/** Where a job is. */
export type JobState = (typeof jobStates)[number];

/** Kinds that an administrator may begin; the house begins them by itself too. */
export const houseJobs = ['house.tidy', 'house.facts'] as const;

/** Which jobs are asked for; those in all states where none is said. */
export const jobListInput = object({ state: oneOf(jobStates, 'input.badKind'), page });
/** What passes `jobListInput`. */
export type JobListQuery = Sent<typeof jobListInput>;

/** A kind of work of the house. */
export const beginJobInput = exactly({ kind: oneOf(houseJobs, 'input.badKind').required('input.required') });
/** What passes `beginJobInput`. */
export type BeginJobInput = Sent<typeof beginJobInput>;

/** A job as it stands; moments in ISO form. */
export interface JobView {
  id: string;
  kind: string;
  subject: string | null;
  state: JobState;
  /** Whoever works on it has been told to stop. */
  stopping: boolean;
  /** Who asked for it; null where the house did. */
  by: string | null;
  madeAt: string;
  /** Not before; of one that failed and is tried again, when that is. */
  runAt: string;
  beganAt: string | null;
  endedAt: string | null;
  tries: number;
  mostTries: number;
  /** So many of so many, and what it is at. */
  progress: { done: number; of: number; at?: string } | null;
  /** Why the last try failed. */
  problem: { code: string; params?: Record<string, string | number>; bug?: string } | null;
  /** What came of it, as its kind says; null while it is not done. */
  outcome: Record<string, string | number> | null;
}

/** A page of jobs, and how many there are in each state. */
export interface JobPage extends Page<JobView> {
  counts: Record<JobState, number>;
}

/** Endpoints of jobs. */
export const jobs = {
  'GET /jobs': endpoint({
    says: 'A page of the jobs, the newest first, and how many are in each state.',
    who: 'administer',
    query: jobListInput,
    answers: json<JobPage>('JobPage'),
  }),
  'POST /jobs': endpoint({
    says: 'Begins a job of the house now; one that is not over yet is the one that is answered.',
    who: 'administer',
    input: beginJobInput,
    answers: json<JobView>('JobView'),
  }),
  'GET /jobs/{id}': endpoint({
    says: 'A job that the person asked for; any for those who run the house.',
    who: 'person',
    answers: json<JobView>('JobView'),
  }),
  'POST /jobs/{id}/stop': endpoint({
    says: 'Stops a job: at once where it waits, else as soon as whoever works on it looks.',
    who: 'person',
    answers: json<JobView>('JobView'),
  }),
  'POST /jobs/{id}/again': endpoint({
    says: 'Begins a job again that failed or was stopped; it goes on from what it has kept.',
    who: 'person',
    answers: json<JobView>('JobView'),
  }),
};
