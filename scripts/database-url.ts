import { execFileSync } from 'node:child_process';

/** DATABASE_URL, or the database of this clone, whose cluster is started where it is not running. */
export const databaseUrl = (): string =>
  process.env.DATABASE_URL ??
  execFileSync('bin/cluster', ['start', 'iunctura'], { stdio: ['ignore', 'pipe', 'ignore'] })
    .toString()
    .trim();
