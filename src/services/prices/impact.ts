/** What a price change would do out there, as a job: to open quotes, freshened on its day, and to what was sold. */
import type { AskedJob, FileAnswer, WhatIfQuery, WhatIfView } from '../../contract';
import { connected, type PriceChangeRow } from '../../data';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { inTransaction } from '../kernel/unit-of-work';
import { seeWhatIf, workOut } from '../what-if/documents';
import { whatIfFile } from '../what-if/what-if-file';
import { findChange, holdDraft } from './kept';

interface Input {
  change: string;
  version: number;
}

/** Works it out. */
export const priceImpactJob: JobKind<Input, { documents: number }> = {
  kind: 'prices.impact',
  tries: 5,
  async work({ change: id, version }, job) {
    const change = await findChange(id);
    if (!change || change.version !== version) throw new JobRefused({ code: 'change.stale' });
    const day = change.inForce > today() ? change.inForce : today();
    const documents = await workOut({ id: job.id, progress: (far) => job.progress(far) }, day, {
      change: { change: id, version },
      orders: true,
    });
    return { documents };
  },
  async finish({ documents }, { change: id, version }, { id: job }) {
    await connected().records.priceChanges.update(
      { impactJob: job, impactVersion: version, impactSeen: false },
      { where: { id, version } },
    );
    return { documents };
  },
};

/** Begins it; for a version for which it was worked out, its job is the one that is given. */
export const askForPriceImpact = (actor: Actor, id: string, version: number): Promise<Result<AskedJob>> =>
  inTransaction(async () => {
    const held = await holdDraft(id, version);
    if (!held.ok) return held;
    const { impactJob, impactVersion, name } = held.value;
    if (impactJob !== null && impactVersion === version) return done({ job: impactJob });
    const { id: job } = await askForJob(
      priceImpactJob,
      { change: id, version },
      { by: actor.id, subject: name, once: `price impact ${id} ${String(version)}` },
    );
    return done({ job });
  });

/** The job that worked it out for a change as it is now, with the change. */
async function workedOut(id: string): Promise<Result<{ job: string; change: PriceChangeRow }>> {
  const change = await findChange(id);
  if (!change) return fail('missing', { code: 'change.missing' });
  const { impactJob, impactVersion, version, state } = change;
  if (impactJob === null || (state === 'draft' && impactVersion !== version))
    return fail('conflict', { code: 'change.noImpact' });
  return done({ job: impactJob, change });
}

/** A page of what was worked out for a change as it is now; whoever reads it has seen it. */
export async function seePriceImpact(id: string, query: WhatIfQuery): Promise<Result<WhatIfView>> {
  const found = await workedOut(id);
  if (!found.ok) return found;
  const { job, change } = found.value;
  if (change.state === 'draft')
    await connected().records.priceChanges.update(
      { impactSeen: true },
      { where: { id, impactVersion: change.version } },
    );
  return done(await seeWhatIf(job, query));
}

/** All of it as a file. */
export async function priceImpactFile(
  actor: Actor,
  id: string,
  format: string,
  query: WhatIfQuery,
): Promise<Result<FileAnswer>> {
  const found = await workedOut(id);
  return found.ok ? whatIfFile(actor, found.value.job, found.value.change.name, format, query) : found;
}
