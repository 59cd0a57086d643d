/** The command line of a model; see docs/model-format.md. */
import { readFileSync } from 'node:fs';
import { runCommand } from '../src/core/exchange';
import { sentence } from '../src/i18n/sentence';

/** Adds to everything that is wrong its sentence: a problem is whatever has a code and details. */
function inWords(_name: string, value: unknown): unknown {
  if (typeof value === 'bigint') return value.toString();
  const problem = value as { code?: unknown; params?: unknown } | null;
  if (typeof problem !== 'object' || typeof problem?.code !== 'string' || typeof problem.params !== 'object')
    return value;
  return {
    ...problem,
    code: problem.code,
    sentence: sentence('en', problem.code, problem.params as Record<string, string | number>),
  };
}

const { code, out } = runCommand(process.argv.slice(2), {
  read: (path) => readFileSync(path, 'utf8'),
  today: new Date().toISOString().slice(0, 10),
  now: () => performance.now(),
});
process.stdout.write(typeof out === 'string' ? out : `${JSON.stringify(out, inWords, 2)}\n`);
process.exitCode = code;
