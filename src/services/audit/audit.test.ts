import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { record } from '../kernel/unit-of-work';
import { openDemo, personOf } from '../kernel/testing';
import type { JobAtWork } from '../kernel/jobs/kind';
import { openFile } from '../files/files';
import { listAudit } from './audit';
import { askForAuditFile, auditFile } from './audit-file';

let [ines, mara]: Actor[] = [];
beforeAll(async () => {
  await openDemo('audit');
  [ines, mara] = await Promise.all(['ines', 'mara'].map((name) => personOf(`${name}@harrowmoor.example`)));
});
afterAll(() => connected().close());

/** Writes an entry as it would have been at a moment. */
const at = (moment: string, subject: string): Promise<unknown> =>
  connected().records.audit.create({
    at: new Date(moment),
    userId: ines?.id ?? null,
    action: 'house.tried',
    subject,
    details: {},
  });

describe('who did what', () => {
  it('is found by person and by how its subject begins, the newest first', async () => {
    const { rows, count } = await listAudit({ person: mara?.id ?? '', subject: 'q-26-0' });
    expect(count).toBeGreaterThan(5);
    expect(new Set(rows.map(({ by }) => by))).toEqual(new Set(['Mara Lindqvist']));
    expect(rows.every(({ subject }) => subject.startsWith('Q-26-0'))).toBe(true);
    const moments = rows.map(({ id }) => Number(id));
    expect(moments).toEqual([...moments].sort((a, b) => b - a));
    expect((await listAudit({ subject: 'nothing of that name' })).count).toBe(0);
  });

  it('takes signs of patterns for themselves', async () => {
    await record(ines ?? null, 'house.tried', '100%_of it', {});
    expect((await listAudit({ subject: '100%_' })).count).toBe(1);
    expect((await listAudit({ subject: '%' })).count).toBe(0);
    expect((await listAudit({ subject: '_' })).count).toBe(0);
  });

  it('is of the days of the house, summer or winter', async () => {
    // British summer time: the day begins an hour before that of UTC.
    await at('2025-07-09T22:59:59Z', 'zone before');
    await at('2025-07-09T23:00:00Z', 'zone first');
    await at('2025-07-10T22:59:59Z', 'zone last');
    await at('2025-07-10T23:00:00Z', 'zone after');
    await at('2025-12-10T00:00:00Z', 'zone winter');
    const day = async (from: string, to: string): Promise<string[]> =>
      (await listAudit({ subject: 'zone', from, to })).rows.map(({ subject }) => subject).sort();
    expect(await day('2025-07-10', '2025-07-10')).toEqual(['zone first', 'zone last']);
    expect(await day('2025-12-10', '2025-12-10')).toEqual(['zone winter']);
  });

  it('is turned page by page without any twice or none', async () => {
    const seen = new Set<string>();
    const { count, size } = await listAudit();
    for (let page = 0; page * size < count; page += 1)
      for (const { id } of (await listAudit({ page })).rows) seen.add(id);
    expect(seen.size).toBe(count);
  });

  it('goes out as a file that no spreadsheet takes for formulas', async () => {
    await record(ines ?? null, 'house.tried', '=1+1', { note: '@SUM(A1)' });
    const { text } = await written('=1');
    const [head, row] = text.slice(1).split('\r\n');
    expect(head).toBe('When,Who,What was done,To what,Details');
    expect(row).toContain(`Ines Farrow,house.tried,"'=1+1"`);
  });

  it('goes out whole, some at a time, and tells how far it is', async () => {
    await connected().sequelize.query(
      "insert into audit_entries (user_id, action, subject, details) select null, 'house.tried', 'many ' || n, '{}' from generate_series(1, 2500) n",
    );
    const { text, rows, told } = await written('many');
    const subjects = [...text.matchAll(/many \d+/g)].map(([each]) => each);
    expect([rows, new Set(subjects).size, told]).toEqual([2500, 2500, [0, 1000, 2000]]);
    expect(subjects[0]).toBe('many 2500');
  });

  it('is kept for whoever asked for it, and for nobody else; asked for twice it is one job', async () => {
    const [one, other] = [
      await askForAuditFile(ines as Actor, { subject: 'many' }),
      await askForAuditFile(ines as Actor, { subject: 'many' }),
    ];
    expect(one).toBe(other);
    const made = { text: 'a,b', rows: 1 };
    const job = { ...atWork(() => undefined), askedBy: ines?.id ?? null };
    const outcome = (await connected().transaction(() =>
      auditFile.finish(made, { wanted: { subject: '' }, language: 'en' }, job),
    )) as { file: string };
    const opened = await openFile(ines as Actor, outcome.file, 'whole');
    expect(opened.ok && Buffer.from(opened.value.bytes).toString()).toBe('a,b');
    expect(await openFile(mara as Actor, outcome.file, 'whole')).toMatchObject({ status: 'missing' });
  });
});

/** A job whose progress is heard. */
const atWork = (hear: (done: number) => void): JobAtWork => ({
  id: '',
  askedBy: null,
  signal: new AbortController().signal,
  kept: null,
  progress: ({ done }) => {
    hear(done);
    return Promise.resolve();
  },
  keep: () => Promise.resolve(),
});

/** The file of some entries, and how far it was said to be meanwhile. */
async function written(subject: string): Promise<{ text: string; rows: number; told: number[] }> {
  const told: number[] = [];
  const made = await auditFile.work(
    { wanted: { subject }, language: 'en' },
    atWork((done) => told.push(done)),
  );
  return { ...made, told };
}
