/** Versions of models: published from a draft, in force from a day, withdrawn. */
import { QueryTypes } from 'sequelize';
import type { DraftInput, PublishInput, VersionView, WithdrawInput } from '../../contract';
import { connected, type ModelDraftRow } from '../../data';
import type { Actor } from '../access/actor';
import { publish } from '../catalogue/models';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { housePart } from '../settings/house';
import { inForceOn, reference } from '../settings/reference-data';
import { examined } from './check';
import { isOver, knownDraft, openDraft } from './draft-row';

/** A version as the database tells of it, with its release. */
interface Found extends Omit<VersionView, 'publishedAt' | 'withdrawn' | 'current'> {
  modelId: string;
  publishedAt: Date;
  withdrawnAt: Date | null;
  withdrawnBy: string | null;
  withdrawnNote: string | null;
}

/** All versions of a model, or of every model, the newest first, in one query; by model. */
export async function versionsByModel(modelId?: string): Promise<ReadonlyMap<string, VersionView[]>> {
  const known = await reference();
  const rows = await connected().sequelize.query<Found>(
    `select v.id, v.model_id as "modelId", v.number, r.in_force::text as "inForce", v.published_at as "publishedAt",
       p.name as by, r.note, a.name as "agreedBy", r.withdrawn_at as "withdrawnAt", w.name as "withdrawnBy",
       r.withdrawn_note as "withdrawnNote"
     from model_versions v join model_releases r on r.version_id = v.id left join users p on p.id = v.published_by
       left join users a on a.id = r.agreed_by left join users w on w.id = r.withdrawn_by
     where $1::text is null or v.model_id = $1 order by v.number desc`,
    { bind: [modelId ?? null], type: QueryTypes.SELECT },
  );
  const found = new Map<string, VersionView[]>();
  for (const { modelId: of, publishedAt, withdrawnAt, withdrawnBy, withdrawnNote, ...row } of rows) {
    const own = found.get(of) ?? [];
    own.push({
      ...row,
      publishedAt: publishedAt.toISOString(),
      withdrawn: withdrawnAt && {
        at: withdrawnAt.toISOString(),
        by: withdrawnBy,
        note: withdrawnNote ?? '',
      },
      current: inForceOn(known, of, today())?.id === row.id,
    });
    found.set(of, own);
  }
  return found;
}

/** All versions of a model, the newest first. */
export const versionsOf = async (modelId: string): Promise<VersionView[]> =>
  (await versionsByModel(modelId)).get(modelId) ?? [];

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
      bind: [`publish ${draft.sku}`],
    });
    const newest = await connected().records.modelVersions.findOne({
      where: { modelId: draft.modelId },
      attributes: ['id'],
      order: [['number', 'DESC']],
      raw: true,
    });
    if (newest && (await isBehind(draft, newest.id))) return fail('conflict', { code: 'draft.behind' });
    // A new model may have been given the item of one that was published since it was begun.
    const { models } = connected().records;
    const sold = newest ? null : await models.findOne({ where: { sku: draft.sku }, raw: true });
    if (sold) return fail('conflict', { code: 'draft.skuTaken', params: { sku: draft.sku } });
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
  const check = await examined(draft);
  // What takes long is not done while somebody waits for an answer.
  if (!check) return fail('conflict', { code: 'draft.unchecked' });
  const { problems, findings, tests } = check;
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
