/** Versions of models: published from a draft, in force from a day, withdrawn. */
import { Op } from 'sequelize';
import type { DraftCheck, DraftInput, PublishInput, VersionView, WithdrawInput } from '../../contract';
import type { ModelDocument } from '../../core/model';
import { connected, type ModelDraftRow } from '../../data';
import type { Actor } from '../access/actor';
import { publish } from '../catalogue/models';
import { today } from '../kernel/clock';
import { askPatiently } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { Recent } from '../kernel/threads/recent';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { housePart } from '../settings/house';
import { inForceOn, nameOf, reference } from '../settings/reference-data';
import { isOver, knownDraft, openDraft } from './draft-row';

/** All versions of a model, the newest first. */
export async function versionsOf(modelId: string): Promise<VersionView[]> {
  const facts = await reference();
  const { modelVersions, modelReleases } = connected().records;
  const versions = await modelVersions.findAll({
    where: { modelId },
    attributes: ['id', 'number', 'publishedAt', 'publishedBy'],
    order: [['number', 'DESC']],
    raw: true,
  });
  const releases = await modelReleases.findAll({
    where: { versionId: { [Op.in]: versions.map(({ id }) => id) } },
    raw: true,
  });
  const current = inForceOn(facts, modelId, today());
  return versions.flatMap((version): VersionView[] => {
    const release = releases.find(({ versionId }) => versionId === version.id);
    if (!release) return [];
    return [
      {
        id: version.id,
        number: version.number,
        inForce: release.inForce,
        publishedAt: (version.publishedAt ?? new Date()).toISOString(),
        by: version.publishedBy === null ? null : nameOf(facts, version.publishedBy),
        note: release.note,
        agreedBy: release.agreedBy === null ? null : nameOf(facts, release.agreedBy),
        withdrawn: release.withdrawnAt && {
          at: release.withdrawnAt.toISOString(),
          by: release.withdrawnBy === null ? null : nameOf(facts, release.withdrawnBy),
          note: release.withdrawnNote ?? '',
        },
        current: current?.id === version.id,
      },
    ];
  });
}

/** What is wrong with a draft: what does not compile, what the examination finds, and which tests are red. */
export async function checkDraft(id: string, { version }: DraftInput): Promise<Result<DraftCheck>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  if (found.value.version !== version) return fail('conflict', { code: 'draft.stale' });
  return done({ version, ...(await examined(found.value)) });
}

/** What was found in documents lately, by their hashes and the day. */
const known = new Recent<Awaited<ReturnType<typeof askExamination>>>(50);
const askExamination = (document: ModelDocument, day: string) => askPatiently('examine', { document, day });

/** A document is examined once a day, however often somebody asks. */
async function examined({ document, hash }: Pick<ModelDraftRow, 'document' | 'hash'>) {
  const key = `${today()} ${hash}`;
  const found = known.get(key) ?? (await askExamination(document, today()));
  known.set(key, found, 1);
  return found;
}

/** Findings that nothing may be published with: nobody could build, or what is made could not be told apart. */
const grave: ReadonlySet<string> = new Set(['nothingToBuild', 'contradict', 'givesNothing', 'sameNumber']);

/** Agrees to a draft as it is. Whoever had a hand in it has no second pair of eyes. */
export const agreeTo = (actor: Actor, id: string, { version }: DraftInput): Promise<Result<null>> =>
  inTransaction(async () => {
    const found = await knownDraft(id, version);
    if (!found.ok) return found;
    const draft = found.value;
    const own = await connected().records.modelEdits.count({ where: { draftId: id, by: actor.id } });
    if (own > 0 || draft.madeBy === actor.id) return fail('forbidden', { code: 'draft.ownEyes' });
    await draft.update({ agreedBy: actor.id, agreedHash: draft.hash });
    await record(actor, 'draft.agreed', draft.modelId, { draft: id, name: draft.name });
    return done(null);
  });

/** Publishes a draft as the next version of its model, and closes it. */
export async function publishDraft(
  actor: Actor,
  id: string,
  { version, note, from }: PublishInput,
): Promise<Result<{ id: string; number: number }>> {
  const seen = await openDraft(id);
  if (!seen.ok) return seen;
  if (seen.value.version !== version) return fail('conflict', { code: 'draft.stale' });
  const refused = await notReady(seen.value, from);
  if (refused) return refused;
  return inTransaction(async () => {
    const found = await knownDraft(id, version);
    if (!found.ok) return found;
    const draft = found.value;
    // Of two who publish at once the second finds that it is behind by then.
    await connected().sequelize.query('select pg_advisory_xact_lock(hashtext($1))', {
      bind: [`publish ${draft.modelId}`],
    });
    const newest = await connected().records.modelVersions.findOne({
      where: { modelId: draft.modelId },
      attributes: ['id'],
      order: [['number', 'DESC']],
      raw: true,
    });
    if (newest && (await isBehind(draft, newest.id))) return fail('conflict', { code: 'draft.behind' });
    const made = await publish(draft.document, draft.sku, actor.id, {
      ...(newest ? { inForce: from } : {}),
      note,
      baseId: draft.baseId,
      agreedBy: draft.agreedHash === draft.hash ? draft.agreedBy : null,
    });
    if (made.problems.length > 0)
      return fail('invalid', { code: 'draft.problems', params: { count: made.problems.length } });
    if (made.version === undefined) return fail('conflict', { code: 'draft.unchanged' });
    await draft.update({ closedAt: new Date(), publishedId: made.version });
    const row = await connected().records.modelVersions.findByPk(made.version, {
      attributes: ['number'],
      raw: true,
    });
    const number = row?.number ?? 0;
    await record(actor, 'model.published', draft.modelId, { version: number, from, note, draft: id });
    return done({ id: made.version, number });
  });
}

/** Whether something was published since that the draft does not know of; what was withdrawn is not to be known. */
async function isBehind(draft: ModelDraftRow, newest: string): Promise<boolean> {
  if (draft.baseId === newest) return false;
  const release = await connected().records.modelReleases.findByPk(newest, { raw: true });
  if (release?.withdrawnAt === null) return true;
  const current = inForceOn(await reference(), draft.modelId, '9999-12-31');
  return current !== undefined && current.id !== draft.baseId;
}

async function notReady(draft: ModelDraftRow, from: string): Promise<Result<never> | null> {
  if (isOver(from)) return fail('invalid', { code: 'draft.fromPast', field: 'from' });
  const { problems, findings, tests } = await examined(draft);
  if (problems.length > 0)
    return fail('invalid', { code: 'draft.problems', params: { count: problems.length } });
  const wrong = findings.filter(({ kind }) => grave.has(kind)).length;
  if (wrong > 0) return fail('invalid', { code: 'draft.findings', params: { count: wrong } });
  const red = tests.filter(({ failures }) => failures.length > 0).length;
  if (red > 0) return fail('invalid', { code: 'draft.redTests', params: { count: red } });
  if (draft.baseId !== null && (draft.impactHash !== draft.hash || !draft.impactSeen))
    return fail('conflict', { code: 'draft.impactUnseen' });
  const { secondEyes } = await housePart('workshop');
  return secondEyes && draft.agreedHash !== draft.hash ? fail('conflict', { code: 'draft.notAgreed' }) : null;
}

/** Withdraws a version: from now on the one before is in force again. Builds made meanwhile keep theirs. */
export const withdraw = (actor: Actor, id: string, { note }: WithdrawInput): Promise<Result<null>> =>
  inTransaction(async () => {
    const { modelReleases, modelVersions } = connected().records;
    const release = isReference(id) ? await modelReleases.findByPk(id, { lock: true }) : null;
    const version =
      release && (await modelVersions.findByPk(id, { attributes: ['modelId', 'number'], raw: true }));
    if (!release || !version) return fail('missing', { code: 'version.missing' });
    if (release.withdrawnAt) return fail('conflict', { code: 'version.withdrawn' });
    await release.update({ withdrawnAt: new Date(), withdrawnBy: actor.id, withdrawnNote: note });
    await record(actor, 'model.withdrawn', version.modelId, { version: version.number, note });
    return done(null);
  });
