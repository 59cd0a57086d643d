/** Jobs asked for, stopped and begun again. */
import { randomUUID } from 'node:crypto';
import { Op, QueryTypes, UniqueConstraintError } from 'sequelize';
import { connected, type JobRow } from '../../../data';
import { done, fail, type Result } from '../failure';
import type { JobKind } from './kind';

/** How a job is asked for. */
export interface Asking {
  /** Who asks; nobody where a schedule does. */
  by?: string | undefined;
  /** Jobs of one subject are done one after another. */
  subject?: string | undefined;
  /** Names the one thing that it is: while such a job is not over, it is the one that is given. */
  once?: string | undefined;
  /** Not before. */
  at?: Date | undefined;
}

/**
 * Asks for a job; within a unit of work it is there only if that succeeds. Gives its id, and whether it is a
 * new one.
 */
export async function askForJob<I>(
  { kind, tries }: Pick<JobKind<I>, 'kind' | 'tries'>,
  input: I,
  { by, subject, once, at }: Asking = {},
): Promise<{ id: string; fresh: boolean }> {
  const { sequelize } = connected();
  for (;;) {
    const [made] = await sequelize.query<{ id: string }>(
      `insert into jobs (id, kind, subject, once, input, asked_by, run_at, most_tries)
       values ($1, $2, $3, $4, $5, $6, coalesce($7, now()), $8)
       on conflict (once) where state in ('waiting', 'running') and once is not null do nothing returning id`,
      {
        bind: [
          randomUUID(),
          kind,
          subject ?? null,
          once ?? null,
          JSON.stringify(input ?? null),
          by ?? null,
          at ?? null,
          tries,
        ],
        type: QueryTypes.SELECT,
      },
    );
    if (made) return { id: made.id, fresh: true };
    const present = await connected().records.jobs.findOne({
      where: { once: once ?? null, state: { [Op.in]: ['waiting', 'running'] } },
    });
    // It may just have ended; then the next try makes a new one.
    if (present) return { id: present.id, fresh: false };
  }
}

/** Stops a job: at once where it waits, and where somebody works on it as soon as they look. */
export async function stopJob(id: string): Promise<Result<null>> {
  const [stopped] = await connected().sequelize.query<{ id: string }>(
    `update jobs set stop_asked = true,
       state = case state when 'waiting' then 'stopped' else state end,
       ended_at = case state when 'waiting' then now() end
     where id = $1 and state in ('waiting', 'running') returning id`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return stopped ? done(null) : fail('conflict', { code: 'job.over' });
}

/** Begins a job again that failed or was stopped; what it has kept it goes on from. */
export async function beginAgain(id: string): Promise<Result<null>> {
  try {
    const [begun] = await connected().sequelize.query<{ id: string }>(
      `update jobs set state = 'waiting', stop_asked = false, tries = 0, run_at = now(), ended_at = null, problem = null
       where id = $1 and state in ('failed', 'stopped') returning id`,
      { bind: [id], type: QueryTypes.SELECT },
    );
    return begun ? done(null) : fail('conflict', { code: 'job.notOver' });
  } catch (thrown) {
    if (thrown instanceof UniqueConstraintError) return fail('conflict', { code: 'job.another' });
    throw thrown;
  }
}

/** Takes away jobs that ended before a moment. */
export const dropJobs = (before: Date): Promise<number> =>
  connected().records.jobs.destroy({ where: { endedAt: { [Op.lt]: before } } });

/** A job as it is kept. */
export const jobOf = async (id: string): Promise<JobRow | null> => connected().records.jobs.findByPk(id);
