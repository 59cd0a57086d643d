/** What a worker may write of a job: only while it has it. Every statement here is refused for anybody else. */
import { QueryTypes } from 'sequelize';
import { connected, type JobProblem, type JobProgress, type JobRow } from '../../../data';
import { LeaseLost } from './kind';

/** A job that a worker has, at one of its tries. */
export interface Lease {
  readonly id: string;
  readonly worker: string;
  readonly tries: number;
  /** Seconds that it lasts from when it was last renewed. */
  readonly seconds: number;
}

/** The try is named too: a worker that lost a job and got it again is another holder. */
const held = `id = $1 and worker = $2 and tries = $3 and state = 'running'`;

const write = async <T extends object>(
  { id, worker, tries }: Lease,
  set: string,
  returning: string,
  values: readonly unknown[] = [],
): Promise<T> => {
  const [row] = await connected().sequelize.query<T>(
    `update jobs set ${set} where ${held} returning ${returning}`,
    { bind: [id, worker, tries, ...values], type: QueryTypes.SELECT },
  );
  if (!row) throw new LeaseLost();
  return row;
};

/** Takes the next job of these kinds that is due and has its turn; null where there is none. */
export async function takeJob(
  worker: string,
  seconds: number,
  kinds: readonly string[],
): Promise<{ row: JobRow; lease: Lease } | null> {
  const [taken] = await connected().sequelize.query<{ id: string; tries: number }>(
    `update jobs set state = 'running', worker = $1, lease_until = now() + make_interval(secs => $2),
       tries = tries + 1, began_at = coalesce(began_at, now())
     where id = (
       select job.id from jobs job
       where job.kind = any($3) and job.tries < job.most_tries
         and ((job.state = 'waiting' and job.run_at <= now()) or (job.state = 'running' and job.lease_until < now()))
         and not exists (select 1 from jobs earlier where earlier.subject = job.subject
           and earlier.number < job.number and earlier.state in ('waiting', 'running'))
       order by job.run_at, job.number limit 1 for update skip locked)
     returning id, tries`,
    { bind: [worker, seconds, kinds], type: QueryTypes.SELECT },
  );
  if (!taken) return null;
  const row = await connected().records.jobs.findByPk(taken.id);
  return row && { row, lease: { id: taken.id, worker, tries: taken.tries, seconds } };
}

/** Says that the worker is still at it; tells whether it is to stop. */
export async function renew(lease: Lease, progress?: JobProgress): Promise<{ stop: boolean }> {
  const { stop_asked: stop } = await write<{ stop_asked: boolean }>(
    lease,
    `lease_until = now() + make_interval(secs => $4), progress = coalesce($5, progress)`,
    'stop_asked',
    [lease.seconds, progress ? JSON.stringify(progress) : null],
  );
  return { stop };
}

/** Keeps what a later try goes on from. */
export const keepInJob = (lease: Lease, kept: unknown): Promise<object> =>
  write(lease, 'kept = $4', 'id', [JSON.stringify(kept)]);

/**
 * Ends a job with what comes of it, in one transaction: either both are there or neither. While it is open
 * nobody else can take the job, however long it lasts.
 */
export const endWith = (lease: Lease, finish: () => Promise<unknown>): Promise<void> =>
  connected().transaction(async () => {
    await write(lease, 'worker = worker', 'id');
    const outcome = await finish();
    await write(
      lease,
      `state = 'done', outcome = $4, worker = null, lease_until = null, ended_at = now(), kept = null, problem = null`,
      'id',
      [JSON.stringify(outcome ?? null)],
    );
  });

/** Ends a job without what was to come of it. */
export const endAs = (
  lease: Lease,
  state: 'failed' | 'stopped',
  problem: JobProblem | null = null,
): Promise<object> =>
  write(lease, 'state = $4, problem = $5, worker = null, lease_until = null, ended_at = now()', 'id', [
    state,
    problem && JSON.stringify(problem),
  ]);

/** Gives a job back, to be taken again after a pause. A try that was cut off by the worker itself does not count. */
export const giveBack = (
  lease: Lease,
  pause: number,
  { counts, problem }: { counts: boolean; problem: JobProblem | null },
): Promise<object> =>
  write(
    lease,
    `state = 'waiting', worker = null, lease_until = null, run_at = now() + make_interval(secs => $4),
     problem = $5, tries = tries - $6`,
    'id',
    [pause, problem && JSON.stringify(problem), counts ? 0 : 1],
  );

/** Jobs whose workers went away at their last try have failed. */
export async function failLost(): Promise<void> {
  await connected().sequelize.query(
    `update jobs set state = 'failed', problem = '{"code": "job.lost"}', worker = null, lease_until = null, ended_at = now()
     where id in (select id from jobs where state = 'running' and lease_until < now() and tries >= most_tries
       for update skip locked)`,
  );
}
