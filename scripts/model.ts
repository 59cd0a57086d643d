/** The command line of a model; see docs/model-format.md. */
import { readFileSync } from 'node:fs';
import { runCommand } from '../src/core/exchange';

const { code, out } = runCommand(process.argv.slice(2), {
  read: (path) => readFileSync(path, 'utf8'),
  today: new Date().toISOString().slice(0, 10),
  now: () => performance.now(),
});
process.stdout.write(typeof out === 'string' ? out : `${JSON.stringify(out, (_, value: unknown) => (typeof value === 'bigint' ? value.toString() : value), 2)}\n`);
process.exitCode = code;
