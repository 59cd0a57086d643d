/** Jobs as people see them: those that they asked for, and all of them for those who run the house. */
import { QueryTypes } from 'sequelize';
import { connected, type JobRow } from '../../data';
import {
  jobListInput,
  jobStates,
  type BeginJobInput,
  type JobListQuery,
  type JobPage,
  type JobState,
  type JobView,
} from '../../contract';
import { may, type Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { askForJob, beginAgain, stopJob } from '../kernel/jobs/queue';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { facts, tidy } from './house';

const pageSize = 50;

type Found = JobRow & { by: string | null };

const jobSql = `select j.id, j.kind, j.subject, j.state, j.stop_asked as "stopAsked", j.asked_by as "askedBy", u.name as by,
  j.made_at as "madeAt", j.run_at as "runAt", j.began_at as "beganAt", j.ended_at as "endedAt", j.tries,
  j.most_tries as "mostTries", j.progress, j.problem, j.outcome
  from jobs j left join users u on u.id = j.asked_by`;

/** All jobs, the newest first, for whoever runs the house. */
export async function listJobs(asked: Partial<JobListQuery> = {}): Promise<JobPage> {
  const { state, page } = jobListInput.cast(asked);
  const { sequelize } = connected();
  const counted = await sequelize.query<{ state: JobState; count: number }>(
    'select state, count(*)::integer as count from jobs group by state',
    { type: QueryTypes.SELECT },
  );
  const rows = await sequelize.query<Found>(
    `${jobSql} where $1::text is null or j.state = $1 order by j.number desc limit $2 offset $3`,
    { bind: [state ?? null, pageSize, page * pageSize], type: QueryTypes.SELECT },
  );
  const counts = Object.fromEntries(
    jobStates.map((each) => [each, counted.find((one) => one.state === each)?.count ?? 0]),
  ) as Record<JobState, number>;
  const count = state ? counts[state] : jobStates.reduce((sum, each) => sum + counts[each], 0);
  return { rows: rows.map(viewOf), page, size: pageSize, count, counts };
}

/** A job that the person asked for, or any for whoever runs the house. */
export async function seeJob(actor: Actor, id: string): Promise<Result<JobView>> {
  const found = await findJob(actor, id);
  return found ? done(viewOf(found)) : missing;
}

/** Begins a job of the house now. */
export const beginJob = (actor: Actor, { kind }: BeginJobInput): Promise<Result<JobView>> =>
  inTransaction(async () => {
    const meant = [tidy, facts].find((each) => each.kind === kind);
    if (!meant) return fail('invalid', { code: 'input.badKind', field: 'kind' });
    const { id } = await askForJob(meant, null, { by: actor.id, once: `house ${kind}` });
    await record(actor, 'job.begin', kind, { id });
    const found = await findJob(actor, id);
    return found ? done(viewOf(found)) : missing;
  });

/** Stops a job that is not over. */
export const stop = (actor: Actor, id: string): Promise<Result<JobView>> =>
  changed(actor, id, 'job.stop', stopJob);

/** Begins a job again that failed or was stopped. */
export const again = (actor: Actor, id: string): Promise<Result<JobView>> =>
  changed(actor, id, 'job.again', beginAgain);

const changed = (
  actor: Actor,
  id: string,
  action: string,
  change: (id: string) => Promise<Result<null>>,
): Promise<Result<JobView>> =>
  inTransaction(async () => {
    const found = await findJob(actor, id);
    if (!found) return missing;
    const result = await change(id);
    if (!result.ok) return result;
    await record(actor, action, found.kind, { id });
    return seeJob(actor, id);
  });

const missing = fail('missing', { code: 'job.missing' });

async function findJob(actor: Actor, id: string): Promise<Found | undefined> {
  if (!isReference(id)) return undefined;
  const [found] = await connected().sequelize.query<Found>(`${jobSql} where j.id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  return found && (found.askedBy === actor.id || may(actor, 'administer')) ? found : undefined;
}

const viewOf = (found: Found): JobView => ({
  id: found.id,
  kind: found.kind,
  subject: found.subject,
  state: found.state,
  stopping: found.state === 'running' && found.stopAsked,
  by: found.by,
  madeAt: found.madeAt.toISOString(),
  runAt: found.runAt.toISOString(),
  beganAt: found.beganAt?.toISOString() ?? null,
  endedAt: found.endedAt?.toISOString() ?? null,
  tries: found.tries,
  mostTries: found.mostTries,
  progress: found.progress,
  problem: found.problem,
  outcome: found.outcome as JobView['outcome'],
});
