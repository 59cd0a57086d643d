import { AsyncLocalStorage, AsyncResource } from 'node:async_hooks';
import { ConnectionError, DatabaseError, Sequelize } from 'sequelize';
import { Umzug, type UmzugStorage } from 'umzug';
import { migrations } from './migrations';
import { defineRecords, type Records } from './records';

/** An open database: its records and transactions. */
export interface Database {
  sequelize: Sequelize;
  records: Records;
  /**
   * Runs work in a transaction; a throw rolls everything back. Every query made from within goes through it,
   * however deep in the calls it is made: it travels with the asynchronous context, so that none can go past
   * it and wait for a second connection. One within another is a bug and throws.
   */
  transaction: <T>(work: () => Promise<T>) => Promise<T>;
  /** Whether this is called from within a transaction. */
  within: () => boolean;
  close: () => Promise<void>;
}

/** What travels with the asynchronous context: the transaction that is under way. */
const under = new AsyncLocalStorage<Map<string, unknown>>();

Sequelize.useCLS({
  bind: (work: () => unknown) => AsyncResource.bind(work),
  run: (work: (context: object) => unknown) => under.run(new Map(), () => work({})),
  get: (name: string) => under.getStore()?.get(name),
  set: (name: string, value: unknown) => {
    under.getStore()?.set(name, value);
  },
});

/** How long a connection is waited for, in milliseconds. */
const patience = 5_000;

/** How many connections there may be, and how long one waits. */
export interface ConnectionOptions {
  /** Connections at most. */
  pool?: number;
}

/** Opens a database; queries inside a unit of work go through its transaction. */
export function openDatabase(
  url: string,
  { pool = Number(process.env.DATABASE_POOL) || 8 }: ConnectionOptions = {},
): Database {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: pool, acquire: patience },
    // A statement that runs on, and a transaction that nobody goes on with, are ended by the database itself.
    dialectOptions: {
      connectionTimeoutMillis: patience,
      statement_timeout: 60_000,
      idle_in_transaction_session_timeout: 60_000,
      application_name: 'iunctura',
    },
    define: { timestamps: false, underscored: true },
  });
  const within = () => under.getStore()?.get('transaction') !== undefined;
  return {
    sequelize,
    records: defineRecords(sequelize),
    transaction: async (work) => {
      if (within()) throw new Error('a transaction within another');
      return sequelize.transaction(() => work());
    },
    within,
    close: () => sequelize.close(),
  };
}

/**
 * Codes by which PostgreSQL says that it is going away or cannot serve now, or that two got into each other's
 * way; the same may work a moment later.
 */
const passing = /^(57P0[1-5]|53...|08...|40001|40P01|55P03|25P03)$/;

/** Whether something failed because the database could not be had just now, not because of what was asked. */
export function isUnavailable(thrown: unknown): boolean {
  if (thrown instanceof ConnectionError) return true;
  const { code = '', message = '' } = (thrown instanceof DatabaseError ? thrown.parent : thrown) as {
    code?: string;
    message?: string;
  };
  return (
    passing.test(code) ||
    /^(ECONNRESET|ECONNREFUSED|EPIPE|ETIMEDOUT)$/.test(code) ||
    /Connection terminated|ConnectionManager was closed|Client has encountered a connection error/.test(
      message,
    )
  );
}

/** Names of the steps of the schema that this version knows. */
export const knownMigrations: readonly string[] = migrations.map(({ name }) => name);

/** Brings the schema to its newest state; safe to call from several instances at once. */
export async function migrate(database: Database): Promise<string[]> {
  const { sequelize } = database;
  await sequelize
    .query(
      'create table if not exists migrations (name text primary key, at timestamptz not null default now())',
    )
    .catch(() => undefined);
  const storage: UmzugStorage = {
    logMigration: async ({ name }) => {
      await sequelize.query('insert into migrations (name) values ($1) on conflict do nothing', {
        bind: [name],
      });
    },
    unlogMigration: async ({ name }) => {
      await sequelize.query('delete from migrations where name = $1', { bind: [name] });
    },
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
          const [done] = await sequelize.query('select 1 from migrations where name = $1', {
            bind: [name],
            transaction,
          });
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
