/**
 * A person of a test's own, like one of the demo's. What a test changes of how somebody likes to see things
 * (language, columns, units, what is folded away) lasts, and other tests work as the demo's people meanwhile.
 */
import { randomUUID } from 'node:crypto';
import pg from 'pg';

/** Adds somebody with the role, language and password of the person named to the database that the tests have. */
export async function ownPerson(like: string): Promise<string> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  try {
    const id = randomUUID();
    // No address of the demo's, so that the sign-in page does not offer it.
    const email = `${id}@example.test`;
    const { rowCount } = await client.query(
      `insert into users select (jsonb_populate_record(person, jsonb_build_object('id', $1::text, 'email', $2::text))).*
       from users person where email = $3`,
      [id, email, like],
    );
    if (rowCount !== 1) throw new Error(`${like} is not one of the demo's people`);
    return email;
  } finally {
    await client.end();
  }
}
