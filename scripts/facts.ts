/**
 * `npm run facts`: checks what lists show of quotes against pricing anew, and names what differs; `npm run
 * facts -- mend` works out what is stale.
 */
import { connected } from '../src/data';
import { refreshAll, wrongFacts } from '../src/services/quotes/figures/quote-facts';
import { databaseUrl } from './database-url';

process.env.DATABASE_URL = databaseUrl();
if (process.argv.includes('mend')) console.log(`${String(await refreshAll())} worked out anew.`);
const wrong = await wrongFacts();
for (const { number, revision, kept, now } of wrong)
  console.log(`${number} R${String(revision)}: kept ${JSON.stringify(kept)}, now ${JSON.stringify(now)}`);
console.log(wrong.length === 0 ? 'All as pricing says.' : `${String(wrong.length)} differ.`);
await connected().close();
process.exit(wrong.length === 0 ? 0 : 1);
