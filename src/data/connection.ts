import { Sequelize, type Transaction } from 'sequelize';
import { Umzug, type UmzugStorage } from 'umzug';
import { migrations } from './migrations';
import { defineRecords, type Records } from './records';

/** An open database: its records and transactions. */
export interface Database {
  sequelize: Sequelize;
  records: Records;
  /** Runs work in a transaction; a throw rolls everything back. */
  transaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

export function openDatabase(url: string): Database {
  const sequelize = new Sequelize(url, { dialect: 'postgres', logging: false, pool: { max: 8 }, define: { timestamps: false, underscored: true } });
  return {
    sequelize,
    records: defineRecords(sequelize),
    transaction: (work) => sequelize.transaction(work),
    close: () => sequelize.close(),
  };
}

/** Brings the schema to its newest state; safe to call from several instances at once. */
export async function migrate(database: Database): Promise<string[]> {
  const { sequelize } = database;
  await sequelize.query('create table if not exists migrations (name text primary key, at timestamptz not null default now())').catch(() => undefined);
  const storage: UmzugStorage = {
    logMigration: async ({ name }) => void (await sequelize.query('insert into migrations (name) values ($1) on conflict do nothing', { bind: [name] })),
    unlogMigration: async ({ name }) => void (await sequelize.query('delete from migrations where name = $1', { bind: [name] })),
    executed: async () => {
      const [rows] = await sequelize.query('select name from migrations order by name');
      return (rows as { name: string }[]).map((row) => row.name);
    },
  };
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up }) => ({
      name,
      up: async () =>
        sequelize.transaction(async (transaction) => {
          // One instance migrates; the others wait here and then find it done.
          await sequelize.query('select pg_advisory_xact_lock(7420618)', { transaction });
          const [done] = await sequelize.query('select 1 from migrations where name = $1', { bind: [name], transaction });
          if (done.length > 0) return;
          await sequelize.query(up, { transaction });
          // Noted under the same lock, so that who waited sees it.
          await sequelize.query('insert into migrations (name) values ($1)', { bind: [name], transaction });
        }),
    })),
    storage,
    logger: undefined,
  });
  const applied = await umzug.up();
  return applied.map((each) => each.name);
}
