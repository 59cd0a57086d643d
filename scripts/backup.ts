/**
 * `npm run db:backup -- FILE`: writes all of DATABASE_URL, or of this clone's own database, into one file.
 */
import { backUp } from '../src/services/kernel/backup';
import { databaseUrl } from './database-url';

const [file] = process.argv.slice(2);
if (!file) {
  console.error('usage: npm run db:backup -- FILE');
  process.exit(2);
}
const { bytes, schema, made } = await backUp(databaseUrl(), file);
console.log(`${file}: ${String(bytes)} bytes, schema ${schema[schema.length - 1] ?? ''}, ${made}`);
