/** For the tests of the Workshop. */
import { connected } from '../../data';
import type { Result } from '../kernel/failure';
import type { JobAtWork } from '../kernel/jobs/kind';
import { versionById } from '../catalogue/models';

/** What went well came to; fails where something did not. */
export function valueOf<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
}

/** The number of the version that a build is pinned to. */
export async function pinnedNumber(build: string): Promise<number> {
  const row = await connected().records.builds.findByPk(build);
  return (await versionById(row?.modelVersionId ?? '')).number;
}

/** A job that nobody stops, for work that is done at once. */
export const atWork: JobAtWork = {
  id: 'job',
  askedBy: null,
  signal: new AbortController().signal,
  kept: null,
  progress: () => Promise.resolve(),
  keep: () => Promise.resolve(),
};
