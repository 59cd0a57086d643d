/** Makes the database of DATABASE_URL, which is empty, the one that tests copy theirs from: the demo, plain or whole. */
import { connected, migrate } from '../src/data';
import { loadDemo } from '../src/services/demo/demo';

await migrate(connected());
await loadDemo('demo', { plain: process.argv[2] !== 'whole' });
await connected().close();
process.exit(0);
