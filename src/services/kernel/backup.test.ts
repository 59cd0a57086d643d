/**
 * What is backed up is there again elsewhere, table by table; what is damaged, newer or in the way is
 * refused.
 */
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connected, openDatabase } from '../../data';
import { backUp, CannotRestore, restore } from './backup';
import { openDemo } from './testing';

let folder: string;
let file: string;
let elsewhere: string;

async function emptied(): Promise<string> {
  const url = new URL(process.env.DATABASE_URL ?? '');
  const beside = openDatabase(url.href, { pool: 1 });
  const name = url.pathname.slice(1).replace(/_test$/, '_restored_test');
  await beside.sequelize.query(`drop database if exists ${name} with (force)`);
  await beside.sequelize.query(`create database ${name}`);
  await beside.close();
  url.pathname = `/${name}`;
  return url.href;
}

/** Of each table, how many rows it has and a digest over all of them, and where each sequence is. */
async function contentOf(url: string): Promise<Record<string, string>> {
  const { sequelize, close } = openDatabase(url, { pool: 1 });
  const tables = await sequelize.query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = 'public' order by 1",
    { type: QueryTypes.SELECT },
  );
  const found: Record<string, string> = {};
  for (const { name } of tables) {
    const rows = await sequelize.query<{ row: string }>(`select t::text as row from "${name}" t order by 1`, {
      type: QueryTypes.SELECT,
    });
    found[name] = `${String(rows.length)} ${createHash('sha256')
      .update(rows.map(({ row }) => row).join('\n'))
      .digest('hex')}`;
  }
  const sequences = await sequelize.query<{ name: string }>(
    "select sequence_name as name from information_schema.sequences where sequence_schema = 'public'",
    { type: QueryTypes.SELECT },
  );
  for (const { name } of sequences)
    found[name] = JSON.stringify(
      await sequelize.query(`select last_value, is_called from "${name}"`, { type: QueryTypes.SELECT }),
    );
  await close();
  return found;
}

beforeAll(async () => {
  await openDemo('backup');
  folder = await mkdtemp(join(tmpdir(), 'backup-'));
  file = join(folder, 'all.backup');
  elsewhere = await emptied();
});
afterAll(async () => {
  await connected().close();
  await rm(folder, { recursive: true });
});

describe('a backup', () => {
  it('is the same elsewhere, table by table, with all that the database guards', async () => {
    const url = process.env.DATABASE_URL ?? '';
    await backUp(url, file);
    await restore(file, elsewhere);
    const [before, after] = [await contentOf(url), await contentOf(elsewhere)];
    expect(Object.keys(after).length).toBeGreaterThan(30);
    expect(after).toEqual(before);
    const there = openDatabase(elsewhere, { pool: 1 });
    await expect(there.sequelize.query("update model_versions set hash = 'x'")).rejects.toThrow(
      'never change',
    );
    await there.close();
  });

  it('is not put over what is there', async () => {
    await expect(restore(file, elsewhere)).rejects.toEqual(new CannotRestore('notEmpty'));
  });

  it('that is damaged, newer or none is refused, and leaves nothing', async () => {
    const empty = await emptied();
    const whole = await readFile(file);
    const end = whole.indexOf(10);
    const refused = async (content: Buffer): Promise<unknown> => {
      const other = join(folder, 'other.backup');
      await writeFile(other, content);
      return restore(other, empty).then(
        () => 'restored',
        (thrown: unknown) => (thrown as CannotRestore).problem,
      );
    };
    const flipped = Buffer.from(whole);
    flipped[end + 500] = (flipped[end + 500] as number) ^ 1;
    expect(await refused(flipped)).toBe('damaged');
    expect(await refused(whole.subarray(0, whole.length - 10))).toBe('damaged');
    const header = JSON.parse(whole.subarray(0, end).toString()) as { schema: string[] };
    expect(
      await refused(
        Buffer.concat([
          Buffer.from(JSON.stringify({ ...header, schema: [...header.schema, '9999-later'] })),
          whole.subarray(end),
        ]),
      ),
    ).toBe('newer');
    expect(await refused(Buffer.from('{"other":1}\n'))).toBe('notABackup');
    expect(await refused(Buffer.from('PGDMP'))).toBe('notABackup');
    expect(Object.keys(await contentOf(empty))).toEqual([]);
  });
});
