/**
 * `npm run db:restore -- FILE`: puts a backup into DATABASE_URL, which must be empty, or into this clone's
 * own database while that is.
 */
import { CannotRestore, restore } from '../src/services/kernel/backup';
import { databaseUrl } from './database-url';

const [file] = process.argv.slice(2);
if (!file) {
  console.error('usage: npm run db:restore -- FILE');
  process.exit(2);
}
try {
  const { made, schema } = await restore(file, databaseUrl());
  console.log(`Restored as of ${made}, schema ${schema[schema.length - 1] ?? ''}.`);
} catch (thrown) {
  if (!(thrown instanceof CannotRestore)) throw thrown;
  console.error(thrown.message);
  process.exit(1);
}
