/** Bundles what runs beside the application: the server in front of it, and its threads. */
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const top = fileURLToPath(new URL('..', import.meta.url));
const parts = {
  serve: 'src/server/index.ts',
  engines: 'src/services/kernel/threads/engines.ts',
  papers: 'src/services/kernel/threads/papers.ts',
};
const wanted = process.argv.length > 2 ? process.argv.slice(2) : Object.keys(parts);
await build({
  entryPoints: Object.fromEntries(wanted.map((name) => [name, `${top}${parts[name]}`])),
  outdir: `${top}dist`,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  logLevel: 'error',
});
