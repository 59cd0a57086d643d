/** Bundles the threads before any test runs, so that services have them as they do when they serve. */
import { execFileSync } from 'node:child_process';

export default function setup(): void {
  execFileSync(process.execPath, ['scripts/build-parts.mjs', 'engines', 'papers'], { stdio: 'inherit' });
}
