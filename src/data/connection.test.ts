/** What a database that cannot be had just now means, and that nobody waits for it for ever. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isUnavailable, openDatabase, type Database } from './index';

let database: Database;
beforeAll(() => {
  database = openDatabase(process.env.DATABASE_URL ?? '', { pool: 1 });
});
afterAll(() => database.close());

const thrownBy = (work: Promise<unknown>): Promise<unknown> =>
  work.then(
    () => undefined,
    (thrown: unknown) => thrown,
  );

describe('a connection', () => {
  it('is waited for a few seconds, and then not had', async () => {
    let release: () => void = () => undefined;
    const held = new Promise<void>((done) => {
      release = done;
    });
    let begun: () => void = () => undefined;
    const holding = new Promise<void>((done) => {
      begun = done;
    });
    const first = database.transaction(async () => {
      begun();
      await held;
      return null;
    });
    await holding;
    // Asked for outside the unit of work that has the only one.
    const thrown = await thrownBy(database.sequelize.query('select 1'));
    expect(isUnavailable(thrown)).toBe(true);
    release();
    await first;
    expect(await thrownBy(database.sequelize.query('select 1'))).toBeUndefined();
  });

  it('of a unit of work is the one that everything within it goes through, however deep', async () => {
    const pid = async () =>
      (
        (
          await database.sequelize.query(
            'select pg_backend_pid() as pid, txid_current_if_assigned() is not null as inside',
          )
        )[0] as { pid: number; inside: boolean }[]
      )[0];
    await database.transaction(async () => {
      await database.sequelize.query('select txid_current()');
      const all = await Promise.all([
        pid(),
        new Promise((done) => setTimeout(done)).then(pid),
        Promise.resolve()
          .then(() => Promise.all([pid(), pid()]))
          .then(([one]) => one),
      ]);
      expect(new Set(all.map((each) => each?.pid)).size).toBe(1);
      expect(all.every((each) => each?.inside)).toBe(true);
      expect(database.within()).toBe(true);
    });
    expect(database.within()).toBe(false);
  });

  it('to a server that is not there, or going away, is not had; what is wrong with a query is something else', async () => {
    const nobody = openDatabase('postgres://iunctura@127.0.0.1:1/none');
    expect(isUnavailable(await thrownBy(nobody.sequelize.query('select 1')))).toBe(true);
    await nobody.close();
    expect(isUnavailable(await thrownBy(database.sequelize.query('select nothing')))).toBe(false);
    expect(
      isUnavailable(
        await thrownBy(database.sequelize.query('select pg_terminate_backend(pg_backend_pid())')),
      ),
    ).toBe(true);
    expect(
      [
        { code: '57P01' },
        { code: '53300' },
        { code: '40P01' },
        new Error('Connection terminated unexpectedly'),
      ].every(isUnavailable),
    ).toBe(true);
    expect([{ code: '23505' }, new Error('other'), {}].some(isUnavailable)).toBe(false);
  });
});
