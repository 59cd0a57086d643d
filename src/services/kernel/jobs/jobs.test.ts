import { spawn, type ChildProcess } from 'node:child_process';
import fc from 'fast-check';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { connected, type JobRow } from '../../../data';
import { log } from '../log';
import { openDemo } from '../testing';
import { JobRefused, type AnyJobKind, type JobAtWork, type JobKind } from './kind';
import { askForJob, beginAgain, dropJobs, jobOf, stopJob } from './queue';
import { keepSchedules, makeDue, nextOf } from './schedule';
import { growingPause, JobWorker } from './worker';

beforeAll(async () => {
  // Jobs that fail here are meant to.
  log.level = 'silent';
  await openDemo('jobs');
  await sql('create table effects (id bigint generated always as identity, name text not null)');
  await sql('create table tried (ends boolean not null)');
});
afterAll(() => connected().close());
beforeEach(async () => {
  await sql('delete from jobs');
  await sql('delete from effects');
  await sql('delete from tried');
  await sql('delete from job_schedules');
});

const sql = <T extends object>(text: string, bind: unknown[] = []): Promise<T[]> =>
  connected().sequelize.query<T>(text, { bind, type: QueryTypes.SELECT });
const effects = async (): Promise<string[]> =>
  (await sql<{ name: string }>('select name from effects order by id')).map(({ name }) => name);
const row = async (id: string): Promise<JobRow> => (await jobOf(id)) as JobRow;
const states = async (): Promise<string[]> =>
  (await sql<{ state: string }>('select state from jobs order by number')).map(({ state }) => state);

/** A kind that does what it is told, and leaves its name as its effect. */
function kindThat(
  work: (job: JobAtWork, input: { name: string }) => Promise<void> = () => Promise.resolve(),
  finish: () => Promise<void> = () => Promise.resolve(),
): JobKind<{ name: string }> {
  return {
    kind: 'told',
    tries: 3,
    work: (input, job) => work(job, input),
    async finish(_made, { name }) {
      await sql('insert into effects (name) values ($1)', [name]);
      await finish();
      return { name };
    },
  };
}
const worker = (kind: JobKind<{ name: string }>, lease = 30): JobWorker =>
  new JobWorker([kind as unknown as AnyJobKind], { lease, heartbeat: 30, pauseAfter: () => 0 });
/** Does all there is to do. */
const runAll = async (one: JobWorker): Promise<void> => {
  while (await one.runNext());
};
/** Something that is waited for, and when to go on. */
const gate = () => {
  let open = (): void => undefined;
  const opened = new Promise<void>((resolve) => (open = resolve));
  return { open, opened };
};

describe('a job', () => {
  it('is done once, and what comes of it is kept with it', async () => {
    const kind = kindThat();
    const { id } = await askForJob(kind, { name: 'a' });
    await runAll(worker(kind));
    expect(await row(id)).toMatchObject({ state: 'done', outcome: { name: 'a' }, tries: 1, worker: null });
    expect(await effects()).toEqual(['a']);
  });

  it('is there only if the unit of work is that asked for it', async () => {
    await expect(
      connected().transaction(async () => {
        await askForJob(kindThat(), { name: 'a' });
        throw new Error('not after all');
      }),
    ).rejects.toThrow('not after all');
    expect(await states()).toEqual([]);
  });

  it('leaves nothing half done where its end fails, and is tried again', async () => {
    let times = 0;
    const kind = kindThat(undefined, () =>
      ++times < 3 ? Promise.reject(new Error('no')) : Promise.resolve(),
    );
    const { id } = await askForJob(kind, { name: 'a' });
    await runAll(worker(kind));
    expect(await row(id)).toMatchObject({ state: 'done', tries: 3, problem: null });
    expect(await effects()).toEqual(['a']);
  });

  it('that always fails has failed after its tries, with why; begun again it has all of them', async () => {
    const kind = kindThat(() => Promise.reject(new Error('the disk is full')));
    const { id } = await askForJob(kind, { name: 'a' });
    await runAll(worker(kind));
    const problem = { code: 'job.bug', bug: 'the disk is full' };
    expect(await row(id)).toMatchObject({ state: 'failed', tries: 3, problem });
    expect((await beginAgain(id)).ok).toBe(true);
    expect(await row(id)).toMatchObject({ state: 'waiting', tries: 0, problem: null });
    await runAll(worker(kindThat()));
    expect(await row(id)).toMatchObject({ state: 'done', tries: 1 });
  });

  it('that is refused is not tried again', async () => {
    const failure = { code: 'item.unknown', params: { sku: 'YE-NONE' } };
    const kind = kindThat(() => Promise.reject(new JobRefused(failure)));
    const { id } = await askForJob(kind, { name: 'a' });
    await runAll(worker(kind));
    expect(await row(id)).toMatchObject({ state: 'failed', tries: 1, problem: failure });
  });

  it('waits longer after each try, an hour at most', () => {
    expect([1, 2, 3, 4, 5, 6].map(growingPause)).toEqual([10, 40, 160, 640, 2560, 3600]);
  });

  it('is one where it is asked for by many at once, and another once it is over', async () => {
    const kind = kindThat();
    const asked = await Promise.all(
      Array.from({ length: 30 }, (_, at) => askForJob(kind, { name: String(at) }, { once: 'facts' })),
    );
    expect(new Set(asked.map(({ id }) => id)).size).toBe(1);
    expect(asked.filter(({ fresh }) => fresh)).toHaveLength(1);
    await runAll(worker(kind));
    expect((await askForJob(kind, { name: 'b' }, { once: 'facts' })).fresh).toBe(true);
  });

  it('goes on from what an earlier try kept', async () => {
    const seen: unknown[] = [];
    const kind = kindThat(async (job) => {
      seen.push(job.kept);
      if (job.kept === null) {
        await job.keep({ row: 17 });
        throw new Error('cut off');
      }
    });
    await askForJob(kind, { name: 'a' });
    await runAll(worker(kind));
    expect(seen).toEqual([null, { row: 17 }]);
  });

  it('is not begun before its time', async () => {
    const kind = kindThat();
    await askForJob(kind, { name: 'a' }, { at: new Date(Date.now() + 3_600_000) });
    expect(await worker(kind).runNext()).toBe(false);
  });

  it('of a kind that an instance does not know is left to others', async () => {
    await askForJob({ kind: 'newer', tries: 1 }, null);
    expect(await worker(kindThat()).runNext()).toBe(false);
  });
});

describe('stopping', () => {
  it('ends one that waits at once, and one that is worked on at its next look', async () => {
    const begun = gate();
    const asked = gate();
    const kind = kindThat(async (job) => {
      begun.open();
      await asked.opened;
      await job.progress({ done: 1, of: 1 });
    });
    const first = await askForJob(kind, { name: 'a' });
    const second = await askForJob(kind, { name: 'b' });
    const running = worker(kind).runNext();
    await begun.opened;
    expect((await stopJob(first.id)).ok).toBe(true);
    expect((await stopJob(second.id)).ok).toBe(true);
    expect(await states()).toEqual(['running', 'stopped']);
    asked.open();
    await running;
    expect(await states()).toEqual(['stopped', 'stopped']);
    expect(await effects()).toEqual([]);
    expect(await stopJob(first.id)).toMatchObject({ ok: false, failures: [{ code: 'job.over' }] });
    expect((await beginAgain(first.id)).ok).toBe(true);
    expect(await beginAgain(first.id)).toMatchObject({ ok: false, failures: [{ code: 'job.notOver' }] });
  });

  it('does not begin one again beside another of the same', async () => {
    const kind = kindThat();
    const { id } = await askForJob(kind, { name: 'a' }, { once: 'facts' });
    await stopJob(id);
    await askForJob(kind, { name: 'b' }, { once: 'facts' });
    expect(await beginAgain(id)).toMatchObject({ ok: false, failures: [{ code: 'job.another' }] });
  });

  it('a worker that is closed gives back what it is at, and the try does not count', async () => {
    const begun = gate();
    const kind = kindThat(async (job) => {
      begun.open();
      await new Promise<void>((resolve) => job.signal.addEventListener('abort', () => resolve()));
    });
    const { id } = await askForJob(kind, { name: 'a' });
    const one = worker(kind);
    const running = one.runNext();
    await begun.opened;
    await one.close();
    await running;
    expect(await row(id)).toMatchObject({ state: 'waiting', tries: 0 });
    await runAll(worker(kindThat()));
    expect(await effects()).toEqual(['a']);
  });
});

describe('several workers', () => {
  it('do the jobs of a subject one after another, and every job once', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 12 }),
        fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
        async (subjects, fails) => {
          await sql('delete from jobs');
          await sql('delete from effects');
          const failed = new Set<string>();
          const kind = kindThat((_job, { name }) => {
            const once = fails[Number(name.split(' ')[1])] && !failed.has(name);
            if (!once) return Promise.resolve();
            failed.add(name);
            return Promise.reject(new Error('once'));
          });
          const names = subjects.map((subject, at) => `${subject} ${String(at)}`);
          for (const [at, name] of names.entries())
            await askForJob(kind, { name }, { subject: subjects[at] });
          while ((await states()).some((state) => state !== 'done'))
            await Promise.all([worker(kind), worker(kind), worker(kind)].map(runAll));
          const made = await effects();
          expect([...made].sort()).toEqual([...names].sort());
          for (const subject of ['a', 'b', 'c'])
            expect(made.filter((name) => name.startsWith(subject))).toEqual(
              names.filter((name) => name.startsWith(subject)),
            );
        },
      ),
      { numRuns: 15 },
    );
  });

  it('one that was too slow to say that it is there has lost its job, and changes nothing any more', async () => {
    const begun = gate();
    const go = gate();
    const slow = kindThat(async () => {
      begun.open();
      await go.opened;
    });
    const { id } = await askForJob(slow, { name: 'a' });
    const late = worker(slow).runNext();
    await begun.opened;
    await sql("update jobs set lease_until = now() - interval '1 second' where id = $1", [id]);
    await runAll(worker(kindThat()));
    expect(await row(id)).toMatchObject({ state: 'done', tries: 2 });
    go.open();
    await late;
    expect(await row(id)).toMatchObject({ state: 'done', tries: 2 });
    expect(await effects()).toEqual(['a']);
  });

  it('a job that takes its worker along each time has failed in the end', async () => {
    const { id } = await askForJob(kindThat(), { name: 'a' });
    await sql(
      "update jobs set state = 'running', worker = 'gone', tries = 3, lease_until = now() - interval '1 minute' where id = $1",
      [id],
    );
    const one = worker(kindThat());
    one.start();
    while ((await row(id)).state === 'running');
    await one.close();
    expect(await row(id)).toMatchObject({ state: 'failed', problem: { code: 'job.lost' } });
  });

  it('a job survives two instances that are killed in the middle of it, and is done once', async () => {
    await sql('insert into tried (ends) values (false)');
    const { id } = await askForJob({ kind: 'slow', tries: 5 }, { name: 'a' });
    for (const tries of [1, 2]) {
      const instance = startInstance();
      await until(async () => (await row(id)).tries === tries);
      await until(async () => (await row(id)).progress !== null);
      await kill(instance);
      expect((await row(id)).state).toBe('running');
    }
    const [last, other] = [startInstance(), startInstance()];
    await sql('update tried set ends = true');
    await until(async () => (await row(id)).state === 'done');
    await Promise.all([kill(last), kill(other)]);
    expect(await row(id)).toMatchObject({ tries: 3, outcome: 'a' });
    expect(await effects()).toEqual(['a']);
  });
});

const startInstance = (): ChildProcess =>
  spawn(process.execPath, ['--import', 'tsx', `${import.meta.dirname}/instance.testing.ts`], {
    stdio: 'ignore',
    env: { ...process.env, DATABASE_URL: process.env.DATABASE_URL },
  });
const kill = (instance: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    instance.once('exit', () => resolve());
    instance.kill('SIGKILL');
  });
const until = async (holds: () => Promise<boolean>): Promise<void> => {
  while (!(await holds())) await new Promise((resolve) => setTimeout(resolve, 50));
};

describe('schedules', () => {
  const nightly = {
    name: 'nightly',
    kind: kindThat() as unknown as AnyJobKind,
    pattern: '30 2 * * *',
    zone: 'Europe/Berlin',
  };

  it('come once a day in the time of their place, however the clocks jump', () => {
    const zones = ['Europe/Berlin', 'Europe/London', 'America/New_York', 'Australia/Lord_Howe', 'UTC'];
    const local = (moment: Date, zone: string): string =>
      new Intl.DateTimeFormat('en-CA', { timeZone: zone, dateStyle: 'short' }).format(moment);
    for (const zone of zones)
      for (const pattern of ['30 2 * * *', '0 0 * * *', '30 1 * * *']) {
        const days: string[] = [];
        let at = new Date('2026-01-01T12:00:00Z');
        for (let count = 0; count < 400; count += 1) {
          at = nextOf(pattern, zone, at);
          days.push(local(at, zone));
        }
        expect([zone, pattern, new Set(days).size]).toEqual([zone, pattern, 400]);
        expect(days).toEqual([...days].sort());
        const span = (Date.parse(days.at(-1) ?? '') - Date.parse(days[0] ?? '')) / 86_400_000;
        expect([zone, pattern, span]).toEqual([zone, pattern, 399]);
      }
  });

  it('make one job, by whichever of many instances looks first; what was missed is made up once', async () => {
    await keepSchedules([nightly], new Date('2026-03-01T12:00:00Z'));
    const later = new Date('2026-03-09T12:00:00Z');
    await Promise.all(Array.from({ length: 6 }, () => makeDue(later)));
    expect(await states()).toEqual(['waiting']);
    await makeDue(later);
    expect(await states()).toEqual(['waiting']);
    const [kept] = await connected().records.jobSchedules.findAll();
    expect(kept?.nextAt.toISOString()).toBe('2026-03-10T01:30:00.000Z');
  });

  it('stay as they are over a start, and go where they are told of no more', async () => {
    await keepSchedules([nightly], new Date('2026-03-01T12:00:00Z'));
    await keepSchedules([nightly], new Date('2026-06-01T12:00:00Z'));
    const [kept] = await connected().records.jobSchedules.findAll();
    expect(kept?.nextAt.toISOString()).toBe('2026-03-02T01:30:00.000Z');
    await keepSchedules([]);
    expect(await connected().records.jobSchedules.count()).toBe(0);
  });
});

it('what ended long ago is taken away, and nothing else', async () => {
  const kind = kindThat();
  await askForJob(kind, { name: 'a' });
  await runAll(worker(kind));
  await askForJob(kind, { name: 'b' });
  await sql("update jobs set ended_at = now() - interval '40 days' where state = 'done'");
  expect(await dropJobs(new Date(Date.now() - 30 * 86_400_000))).toBe(1);
  expect(await states()).toEqual(['waiting']);
});
