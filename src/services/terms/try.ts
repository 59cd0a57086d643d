/** Limits and policies tried on open quotes before they are kept: who would have to sign what. */
import { createHash, randomUUID } from 'node:crypto';
import type { AskedJob, FileAnswer, TermsInput, WhatIfQuery, WhatIfView } from '../../contract';
import { afterSteps, inForce, termKey, type KeptTerm, type TermKindId } from '../../core/terms';
import { connected, type LimitRow, type PolicyRow } from '../../data';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { isReference } from '../kernel/reference';
import { inTransaction } from '../kernel/unit-of-work';
import { seeWhatIf, workOut } from '../what-if/documents';
import { whatIfFile } from '../what-if/what-if-file';
import { limitsOn, policiesOn } from '../settings/in-force';
import { reference } from '../settings/reference-data';
import { keeping, type KeepingMeans } from './keeping';
import { planned } from './terms';

interface Input {
  kind: TermKindId;
  input: TermsInput;
}

const digest = (kind: TermKindId, input: TermsInput): string =>
  createHash('sha256')
    .update(JSON.stringify([kind, input]))
    .digest('hex');

const noMeans: KeepingMeans = { numberOf: () => '', customerOf: () => null, decimalsOf: () => 2, today: '' };

/** What would hold on a day, as rows of the database. */
function rowsOn<T>(kind: TermKindId, rows: readonly KeptTerm[], day: string): T[] {
  const dated = rows.map((row) => ({ row, validFrom: row.from, validTo: row.to }));
  return [...inForce(dated, ({ row }) => termKey(kind, row, row.id), day).values()].map(
    ({ row }) => ({ id: row.id, ...keeping[kind].rowOf({ ...row.cells }, noMeans) }) as T,
  );
}

/** Works out who would have to sign what. */
export const termsImpactJob: JobKind<Input, { documents: number }> = {
  kind: 'terms.impact',
  tries: 3,
  async work({ kind, input }, job) {
    const plan = await planned(kind, input);
    if (!plan.ok) throw new JobRefused(plan.failures[0] ?? { code: 'term.stale' });
    const rows = afterSteps(plan.value.kept, plan.value.steps, randomUUID);
    const known = await reference();
    const day = input.from > today() ? input.from : today();
    const measure = {
      name: job.id,
      limits: kind === 'limits' ? rowsOn<LimitRow>(kind, rows, day) : limitsOn(known, day),
      policies: kind === 'policies' ? rowsOn<PolicyRow>(kind, rows, day) : policiesOn(known, day),
    };
    const documents = await workOut({ id: job.id, progress: (far) => job.progress(far) }, today(), {
      measure,
      orders: false,
    });
    return { documents };
  },
  finish: ({ documents }) => Promise.resolve({ documents }),
};

/** Begins to work it out. */
export const askForTermsImpact = (
  actor: Actor,
  kind: TermKindId,
  input: TermsInput,
): Promise<Result<AskedJob>> =>
  inTransaction(async () => {
    if (kind !== 'limits' && kind !== 'policies') return fail('invalid', { code: 'term.notTried' });
    const plan = await planned(kind, input);
    if (!plan.ok) return plan;
    const { id } = await askForJob(
      termsImpactJob,
      { kind, input },
      // Asked again while it is worked out, the same is not worked out twice.
      { by: actor.id, once: `terms impact ${actor.id} ${digest(kind, input)}` },
    );
    return done({ job: id });
  });

/** Whether a job tried terms for a person. */
async function isTried(actor: Actor, id: string): Promise<boolean> {
  const job = isReference(id) ? await connected().records.jobs.findByPk(id, { raw: true }) : null;
  return job?.kind === termsImpactJob.kind && job.askedBy === actor.id;
}

/** A page of what a job of the person's worked out. */
export async function seeTermsImpact(
  actor: Actor,
  id: string,
  query: WhatIfQuery,
): Promise<Result<WhatIfView>> {
  if (!(await isTried(actor, id))) return fail('missing', { code: 'job.missing' });
  return done(await seeWhatIf(id, query));
}

/** All of it as a file. */
export async function termsImpactFile(
  actor: Actor,
  id: string,
  format: string,
  query: WhatIfQuery,
): Promise<Result<FileAnswer>> {
  if (!(await isTried(actor, id))) return fail('missing', { code: 'job.missing' });
  return whatIfFile(actor, id, 'Iunctura', format, query);
}
