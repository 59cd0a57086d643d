/** For tests of the services: a database of a file's own with the demo in it, and its people. */
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import pg from 'pg';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { actorOf } from '../access/sessions';

const run = promisify(execFile);
/** What a database says of itself once all of the demo is in it. */
const ready = 'ready to be copied';
/** Held by whoever makes a database that others copy; any numbers that nothing else locks. */
const making = { plain: 4_711_001, whole: 4_711_002 };

/**
 * Makes the database anew beside the one of DATABASE_URL, whose name must end in "_test", and opens it for
 * this process; the `whole` demo with its pictures, data sheets and quotes in every state where a test needs them.
 * The demo is loaded once for a run of tests (`vitest.setup.ts` drops that of the last), and copied from then on.
 */
export async function openDemo(name: string, { whole = false } = {}): Promise<void> {
  const extent = whole ? 'whole' : 'plain';
  await openOwn(name, async (client, given) => {
    const template = `${baseOf(given)}_demo_${extent}_test`;
    // Held for the copy too: a database is not copied while another copy of it is made.
    await client.query('select pg_advisory_lock($1)', [making[extent]]);
    await makeTemplate(client, given, template, extent);
    return `template ${template} strategy file_copy`;
  });
}

/** Makes the database anew beside the one of DATABASE_URL, with nothing in it, and opens it for this process. */
export const openEmpty = (name: string): Promise<void> => openOwn(name, () => Promise.resolve(''));

const baseOf = (url: URL): string => url.pathname.slice(1).replace(/_test$/, '');

/** Makes a database of the name from what is given for it, and lets this process use it. */
async function openOwn(
  name: string,
  from: (client: pg.Client, given: URL) => Promise<string>,
): Promise<void> {
  const given = new URL(process.env.DATABASE_URL ?? '');
  if (!given.pathname.endsWith('_test'))
    throw new Error('DATABASE_URL must name a database that ends in "_test"; bin/test sets it');
  // The same tests may be under way with one connection and with several.
  const own = `${baseOf(given)}_${process.env.DATABASE_POOL === '1' ? 'one_' : ''}${name}_test`;
  const client = new pg.Client({ connectionString: given.href });
  await client.connect();
  try {
    const source = await from(client, given);
    await client.query(`drop database if exists ${own} with (force)`);
    await client.query(`create database ${own} ${source}`);
  } finally {
    await client.end();
  }
  given.pathname = `/${own}`;
  process.env.DATABASE_URL = given.href;
}

/** Loads the demo into the database to copy, where that was not done in this run. */
async function makeTemplate(
  client: pg.Client,
  given: URL,
  name: string,
  extent: keyof typeof making,
): Promise<void> {
  const { rows } = await client.query<{ says: string | null }>(
    `select shobj_description(oid, 'pg_database') as says from pg_database where datname = $1`,
    [name],
  );
  if (rows[0]?.says === ready) return;
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name}`);
  const at = new URL(given);
  at.pathname = `/${name}`;
  // In a process of its own: what this one remembers of prices and people is of its own database alone.
  await run(process.execPath, ['--import', 'tsx', 'scripts/demo-for-tests.ts', extent], {
    env: { ...process.env, DATABASE_URL: at.href },
  });
  await client.query(`comment on database ${name} is '${ready}'`);
}

/** One of the demo's people as an actor. */
export async function personOf(email: string): Promise<Actor> {
  const row = await connected().records.users.findOne({ where: { email } });
  if (!row) throw new Error(`${email} is missing`);
  return actorOf(row);
}
