/**
 * Brings the database to its newest schema and loads the demo data where it is empty. Prints the sign-ins.
 */
import { connected, migrate } from '../src/data';
import { demoPassword, loadDemo } from '../src/services/demo/demo';
import { refreshAll } from '../src/services/quotes/figures/quote-facts';

const applied = await migrate(connected());
if (applied.length > 0) console.log(`Schema: ${applied.join(', ')}`);
const { loaded, people } = await loadDemo('demo', { history: true });
if (loaded) console.log('Demo data loaded.');
// What lists show of quotes that were made before it was kept with them.
const refreshed = await refreshAll();
if (refreshed > 0) console.log(`What lists show was worked out for ${String(refreshed)} revisions.`);
console.log(`Demo sign-ins, all with the password "${demoPassword}":`);
for (const { role, email, name } of people) console.log(`  ${role.padEnd(9)} ${email.padEnd(28)} ${name}`);
await connected().close();
