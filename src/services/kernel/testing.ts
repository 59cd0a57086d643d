/** For tests of the services: a database of a file's own with the demo in it, and its people. */
import { connected, migrate, openDatabase } from '../../data';
import type { Actor } from '../access/actor';
import { loadDemo } from '../demo/demo';
import { actorOf } from '../access/sessions';

/**
 * Makes the database anew beside the one of DATABASE_URL, whose name must end in "_test", and opens it for
 * this process; the `whole` demo with its pictures, data sheets and quotes in every state where a test needs them.
 */
export async function openDemo(name: string, { whole = false } = {}): Promise<void> {
  const given = new URL(process.env.DATABASE_URL ?? '');
  if (!given.pathname.endsWith('_test'))
    throw new Error('DATABASE_URL must name a database that ends in "_test"; bin/test sets it');
  const own = `${given.pathname.slice(1).replace(/_test$/, '')}_${name}_test`;
  const beside = openDatabase(given.href);
  await beside.sequelize.query(`drop database if exists ${own} with (force)`);
  await beside.sequelize.query(`create database ${own}`);
  await beside.close();
  given.pathname = `/${own}`;
  process.env.DATABASE_URL = given.href;
  await migrate(connected());
  await loadDemo('demo', { plain: !whole });
}

/** One of the demo's people as an actor. */
export async function personOf(email: string): Promise<Actor> {
  const row = await connected().records.users.findOne({ where: { email } });
  if (!row) throw new Error(`${email} is missing`);
  return actorOf(row);
}
