/** Empties the database at the URL given, whose name must end in "_test". */
import pg from 'pg';

const [url = ''] = process.argv.slice(2);
if (!new URL(url).pathname.endsWith('_test')) throw new Error('only a test database is emptied');
const client = new pg.Client({ connectionString: url });
await client.connect();
await client.query('drop schema public cascade; create schema public');
await client.end();
