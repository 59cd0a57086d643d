import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const tests = (place: string): string[] =>
  readdirSync(place, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.test\.tsx?$/.test(file))
    .map((file) => `${place}/${file}`);
const says = (pattern: RegExp) => (file: string) => pattern.test(readFileSync(file, 'utf8'));

const services = [...tests('src/services'), ...tests('src/server')];
// Threads and files are made beside the database, and are the dearest.
const withoutDatabase = services.filter((file) => /\/(threads|files)\//.test(file));
// Tests that say that several things happen at once have several connections, too.
const atOnce = services.filter(says(/(it|describe)\(\s*['"].*(at once|at the same (moment|time)|instances)/));
// The core keeps nothing anywhere, so that its tests share what was loaded once.
const core = ['src/core/**/*.test.ts', 'src/contract/**/*.test.ts', 'src/i18n/**/*.test.ts'];

export default defineConfig({
  resolve: { alias: { '~': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    testTimeout: 300_000,
    hookTimeout: 300_000,
    expect: { poll: { timeout: 60_000 } },
    // As many as there are cores; the runner would leave one of two without work.
    maxWorkers: '100%',
    globalSetup: './vitest.setup.ts',
    projects: [
      { extends: true, test: { name: 'core', include: core, isolate: false } },
      {
        extends: true,
        test: {
          name: 'interface',
          include: ['src/**/*.test.{ts,tsx}'],
          exclude: [...core, ...services, 'src/data/**'],
        },
      },
      {
        extends: true,
        test: {
          // A query that goes past its unit of work would wait here for ever for a second connection.
          name: 'one connection',
          include: services.filter((file) => !withoutDatabase.includes(file)),
          env: { DATABASE_POOL: '1' },
        },
      },
      {
        extends: true,
        test: { name: 'several connections', include: [...new Set([...withoutDatabase, ...atOnce])] },
      },
      { extends: true, test: { name: 'schemas', include: ['src/data/**/*.test.ts'] } },
    ],
  },
});
