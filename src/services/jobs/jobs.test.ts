import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { JobView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import type { AnyJobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { JobWorker } from '../kernel/jobs/worker';
import type { Result } from '../kernel/failure';
import { log } from '../kernel/log';
import { openDemo, personOf } from '../kernel/testing';
import { facts } from './house';
import { again, beginJob, listJobs, seeJob, stop } from './jobs';
import { kinds } from './running';

let [ines, mara]: Actor[] = [];
beforeAll(async () => {
  log.level = 'silent';
  await openDemo('house_jobs');
  [ines, mara] = await Promise.all(['ines', 'mara'].map((name) => personOf(`${name}@harrowmoor.example`)));
});
afterAll(() => connected().close());
beforeEach(() => connected().records.jobs.destroy({ where: {} }));

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const runAll = async (): Promise<void> => {
  const worker = new JobWorker(kinds as unknown as AnyJobKind[]);
  while (await worker.runNext());
};
const begin = async (kind: 'house.tidy' | 'house.facts'): Promise<JobView> =>
  value(await beginJob(ines as Actor, { kind }));

describe('jobs of the house', () => {
  it('check what lists show against prices, put right what differs, and say so', async () => {
    const { revisionFacts } = connected().records;
    const [one] = await revisionFacts.findAll({ limit: 1 });
    await revisionFacts.update({ net: '1' }, { where: { revisionId: one?.revisionId } });
    const { id } = await begin('house.facts');
    await runAll();
    const job = value(await seeJob(ines as Actor, id));
    expect(job).toMatchObject({ state: 'done', outcome: { wrong: 1 }, by: 'Ines Farrow' });
    expect(job.outcome?.quotes).toMatch(/^Q-26-\d{4}$/);
    expect(job.progress?.of).toBeGreaterThan(10);
    expect((await revisionFacts.findByPk(one?.revisionId ?? ''))?.net).not.toBe('1');
    await begin('house.facts');
    await runAll();
    expect((await listJobs()).rows[0]?.outcome).toEqual({ wrong: 0, quotes: '' });
  });

  it('take away what is over, and leave what is not', async () => {
    const { sessions, users } = connected().records;
    const user = await users.findOne();
    for (const [token, days] of [
      ['over', -1],
      ['open', 1],
    ] as const)
      await sessions.create({
        tokenHash: token,
        userId: user?.id ?? '',
        expiresAt: new Date(Date.now() + days * 86_400_000),
      });
    const { whatIfs } = connected().records;
    const { id } = await begin('house.tidy');
    for (const job of [id, randomUUID()])
      await whatIfs.create({ job, position: 0, verdict: 'same', row: {} });
    await runAll();
    expect(value(await seeJob(ines as Actor, id)).state).toBe('done');
    expect((await whatIfs.findAll({ raw: true })).map(({ job }) => job)).toEqual([id]);
    expect((await sessions.findAll()).map(({ tokenHash }) => tokenHash)).toEqual(['open']);
  });

  it('are one where somebody begins one twice, and can be stopped and begun again', async () => {
    const { id } = await begin('house.facts');
    expect((await begin('house.facts')).id).toBe(id);
    expect(value(await stop(ines as Actor, id)).state).toBe('stopped');
    expect(await stop(ines as Actor, id)).toMatchObject({ ok: false, status: 'conflict' });
    expect(value(await again(ines as Actor, id)).state).toBe('waiting');
    const { counts, count, rows } = await listJobs({ state: 'waiting' });
    expect([counts.waiting, counts.stopped, count, rows.length]).toEqual([1, 0, 1, 1]);
    const written = await connected().records.audit.findAll({ where: { subject: 'house.facts' } });
    expect(written.map(({ action }) => action)).toEqual(
      expect.arrayContaining(['job.begin', 'job.stop', 'job.again']),
    );
  });
});

describe('who sees a job', () => {
  it('is who asked for it, and whoever runs the house; for others it is not there', async () => {
    const own = await askForJob(facts, null, { by: mara?.id });
    const others = await begin('house.tidy');
    expect(value(await seeJob(mara as Actor, own.id)).by).toBe('Mara Lindqvist');
    expect(value(await seeJob(ines as Actor, own.id)).id).toBe(own.id);
    for (const ask of [seeJob, stop, again])
      expect(await ask(mara as Actor, others.id)).toMatchObject({ ok: false, status: 'missing' });
    expect(await seeJob(ines as Actor, 'abc')).toMatchObject({ ok: false, status: 'missing' });
  });
});
