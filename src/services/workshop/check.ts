/**
 * The check-up of a draft: what does not compile, what an examination finds, which tests are red. It is kept with the
 * draft for its document and the day; of a large model it is a job, with progress and stop, else it is answered at once.
 */
import type { CheckAnswer, DraftInput } from '../../contract';
import { foundTogether, type FoundIn } from '../../core/engine';
import type { ModelDocument } from '../../core/model';
import { connected, type DraftFound, type ModelDraftRow } from '../../data';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { askPatiently } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { inTransaction } from '../kernel/unit-of-work';
import { openDraft } from './draft-row';

interface Input {
  draft: string;
  hash: string;
}

/** Documents longer than this, in characters, are examined as a job. */
const mostAtOnce = 600_000;

const isLong = (document: ModelDocument): boolean => JSON.stringify(document).length > mostAtOnce;

const keptOf = (
  { checked, hash }: Pick<ModelDraftRow, 'checked' | 'hash'>,
  day: string,
): DraftFound | null => (checked?.hash === hash && checked.day === day ? checked.found : null);

/** What is wrong with a draft; made now where it is not known yet, null where that would take long. */
export async function examined(draft: ModelDraftRow): Promise<DraftFound | null> {
  const day = today();
  const known = keptOf(draft, day);
  const { document, hash } = draft;
  if (known || isLong(document)) return known;
  // However many ask at once, one examination answers all.
  const key = `${hash} ${day}`;
  const asked = underWay.get(key) ?? askPatiently('examine', { document, day });
  underWay.set(key, asked);
  try {
    const found = await asked;
    await keep({ draft: draft.id, hash }, day, found);
    return found;
  } finally {
    underWay.delete(key);
  }
}

/** Examinations that this server is at, by document and day. */
const underWay = new Map<string, Promise<DraftFound>>();

/** Of this very document: another may have come meanwhile. */
const keep = ({ draft, hash }: Input, day: string, found: DraftFound): Promise<unknown> =>
  connected().records.modelDrafts.update({ checked: { hash, day, found } }, { where: { id: draft, hash } });

/** Examines a draft as its maker knows it: what was found, or the job that is at it. */
export async function checkDraft(
  actor: Actor,
  id: string,
  { version }: DraftInput,
): Promise<Result<CheckAnswer>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const draft = found.value.get({ plain: true });
  if (draft.version !== version) return fail('conflict', { code: 'draft.stale' });
  const check = await examined(draft);
  if (check) return done({ check: { version, ...check }, job: null });
  const asking = { by: actor.id, once: `check ${id} ${draft.hash} ${today()}` };
  return inTransaction(async () => {
    const { id: job } = await askForJob(checkJob, { draft: id, hash: draft.hash }, asking);
    return done({ check: null, job });
  });
}

/** Examines one context after another; what was examined before a worker was cut off is not examined again. */
export const checkJob: JobKind<
  Input,
  DraftFound & { day: string },
  { findings: number },
  { day: string; found: FoundIn[] }
> = {
  kind: 'model.check',
  tries: 3,
  async work({ draft: id, hash }, job) {
    const draft = await openDraft(id);
    if (!draft.ok || draft.value.hash !== hash)
      throw new JobRefused({ code: draft.ok ? 'draft.stale' : 'draft.missing' });
    const { document } = draft.value;
    const day = job.kept?.day ?? today();
    const { problems, tests, contexts } = await askPatiently('testDraft', { document, day });
    const found = [...(job.kept?.found ?? [])];
    for (const context of contexts.slice(found.length)) {
      await job.progress({ done: found.length, of: contexts.length });
      found.push(await askPatiently('examineIn', { document, context }));
      await job.keep({ day, found });
    }
    return { day, problems, tests, findings: foundTogether(found) };
  },
  async finish({ day, ...found }, input) {
    await keep(input, day, found);
    return { findings: found.findings.length + found.problems.length };
  },
};
