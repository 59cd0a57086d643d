/**
 * Runs a script of this folder bundled: `node scripts/bundled.mjs bench`. The core is fast only as it is
 * shipped, in one piece.
 */
import { mkdirSync } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { buildSync } from 'esbuild';

const [, , name, ...rest] = process.argv;
const top = fileURLToPath(new URL('..', import.meta.url));
mkdirSync(`${top}var`, { recursive: true });
const outfile = `${top}var/${name}.mjs`;
buildSync({
  entryPoints: [`${top}scripts/${name}.ts`],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'error',
});
process.argv = [process.argv[0], outfile, ...rest];
await import(pathToFileURL(outfile).href);
