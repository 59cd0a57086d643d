/** Before any test: threads are bundled, so that services have them as they serve, and no demo of an earlier run is copied. */
import { execFileSync } from 'node:child_process';
import pg from 'pg';

declare global {
  /** Whether this was done in this run; each group of tests asks for it. */
  var hasPrepared: boolean | undefined;
}

export default async function setup(): Promise<void> {
  if (globalThis.hasPrepared) return;
  globalThis.hasPrepared = true;
  execFileSync(process.execPath, ['scripts/build-parts.mjs', 'engines', 'papers'], { stdio: 'inherit' });
  const url = process.env.DATABASE_URL;
  if (!url || !URL.canParse(url)) return;
  const base = new URL(url).pathname.slice(1).replace(/_test$/, '');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    for (const extent of ['plain', 'whole'])
      await client.query(`drop database if exists ${base}_demo_${extent}_test with (force)`);
  } finally {
    await client.end();
  }
}
