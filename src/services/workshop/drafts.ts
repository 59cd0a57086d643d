/** Drafts while they are worked on: opened, edited by several, steps taken back, put aside, brought up to date. */
import { QueryTypes } from 'sequelize';
import type {
  CatchUpInput,
  CatchUpView,
  DraftInput,
  DraftView,
  EditedView,
  EditInput,
  EditView,
  ModelsView,
  Page,
  StepView,
} from '../../contract';
import { movedOn, type ModelDocument } from '../../core/model';
import {
  conflictKey,
  differences,
  edited,
  editOf,
  merged,
  touch,
  type Difference,
  type Edit,
} from '../../core/modelling';
import { connected, type ModelDraftRow, type ModelEditRow, type Stored } from '../../data';
import type { Actor } from '../access/actor';
import { usualPriceList } from '../catalogue/catalogue';
import { use } from '../files/files';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { housePart } from '../settings/house';
import { workCentresOn } from '../settings/in-force';
import { inForceOn, reference } from '../settings/reference-data';
import { fullTariff, itemFacts } from '../settings/tariffs';
import { completed } from './begin-draft';
import {
  editView,
  hashOf,
  headOf,
  knownDraft,
  openDraft,
  stepRows,
  stepsOf,
  type DraftFacts,
} from './draft-row';
import { versionsByModel, versionsOf } from './versions';

/** All models with their versions and open drafts; of drafts the last changed first. */
export async function seeModels(): Promise<ModelsView> {
  const known = await reference();
  const rows = await connected().sequelize.query<DraftFacts>(
    `select id, model_id as "modelId", name, version, base_id as "baseId", changed_by as "changedBy", changed_at as "changedAt", document -> 'name' as title
     from model_drafts where closed_at is null order by changed_at desc`,
    { type: QueryTypes.SELECT },
  );
  const heads = rows.map((row) => headOf(known, row));
  const versions = await versionsByModel();
  const models = known.models.map(({ id, sku }) => ({
    id,
    sku,
    name: known.releases.get(id)?.[0]?.name ?? {},
    versions: versions.get(id) ?? [],
    drafts: heads.filter(({ modelId }) => modelId === id),
  }));
  const there = new Set(known.models.map(({ id }) => id));
  return {
    models,
    drafts: heads.filter(({ modelId }) => !there.has(modelId)),
    secondEyes: (await housePart('workshop')).secondEyes,
  };
}

/** A draft as its page opens it. */
export async function seeDraft(actor: Actor, id: string): Promise<Result<DraftView>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const draft = found.value;
  const known = await reference();
  const list = await usualPriceList(actor);
  const base = known.releases.get(draft.modelId)?.find((each) => each.id === draft.baseId);
  return done({
    ...headOf(known, { ...draft.get({ plain: true }), title: { ...draft.document.name } }),
    sku: draft.sku,
    document: draft.document,
    baseWithdrawn: base?.withdrawn === true,
    ...(await stepsOf(id)),
    items: Object.fromEntries([...known.items.values()].map(({ sku, name }) => [sku, name])),
    tariff: await fullTariff(list, today()),
    facts: await itemFacts(),
    centres: workCentresOn(known, today()).map(({ code, name }) => ({ code, name })),
    versions: await versionsOf(draft.modelId),
    impact:
      draft.impactJob !== null && draft.impactHash === draft.hash
        ? { job: draft.impactJob, seen: draft.impactSeen }
        : null,
    agreed: draft.agreedHash === draft.hash,
    secondEyes: (await housePart('workshop')).secondEyes,
    today: today(),
  });
}

const editsAtOnce = 50;
/** A document with all models inside it is so long at most. */
const mostCharacters = 16_000_000;

/** The edits of a draft, the newest first. */
export async function seeEdits(id: string, page: number): Promise<Result<Page<EditView>>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const known = await reference();
  const { rows, count } = await connected().records.modelEdits.findAndCountAll({
    where: { draftId: id },
    order: [['number', 'DESC']],
    limit: editsAtOnce,
    offset: page * editsAtOnce,
    raw: true,
  });
  return done({ rows: rows.map((row) => editView(known, row)), page, size: editsAtOnce, count });
}

/** Does an edit on whatever others made of the draft in between, unless it is about the same as one of theirs. */
export const editDraft = (
  actor: Actor,
  id: string,
  { version, edit }: EditInput,
): Promise<Result<EditedView>> =>
  inTransaction(async () => {
    const found = await openDraft(id, true);
    if (!found.ok) return found;
    const draft = found.value;
    if (version > draft.version) return fail('conflict', { code: 'draft.stale' });
    const since = await editsSince(id, version);
    const theirs = since.find((each) => touch(each.edit, edit));
    const known = await reference();
    if (theirs)
      return fail('conflict', {
        code: 'draft.cameBetween',
        params: { by: editView(known, theirs).by },
      });
    const kept = await doEdit(actor, draft, edit);
    return kept.ok
      ? done({
          version: draft.version,
          between: since.map((row) => editView(known, row)),
          ...(await stepsOf(id)),
        })
      : kept;
  });

/** What was done to a draft since a version, in its order; what was taken back counts as what takes it back. */
async function editsSince(draftId: string, version: number): Promise<ModelEditRow[]> {
  return connected().sequelize.query<ModelEditRow>(
    `select draft_id as "draftId", number, version, edit, inverse, by, at, undone from model_edits where draft_id = $1 and version > $2 order by version`,
    { bind: [draftId, version], type: QueryTypes.SELECT },
  );
}

async function doEdit(actor: Actor, draft: Stored<ModelDraftRow>, edit: Edit): Promise<Result<null>> {
  if (!isAllowed(edit)) return fail('invalid', { code: 'draft.badEdit' });
  const result = edited(draft.document, edit);
  if (!result.ok) return fail('invalid', { code: result.problem.code, params: { ...result.problem.params } });
  const refused = await claimPictures(actor, draft, result.document);
  if (refused) return refused;
  const { modelEdits } = connected().records;
  // What was taken back before is gone for good once something else is done.
  await modelEdits.destroy({ where: { draftId: draft.id, undone: true } });
  const last = await modelEdits.findOne({
    where: { draftId: draft.id },
    attributes: ['number'],
    order: [['number', 'DESC']],
    raw: true,
  });
  const document = await completed(result.document);
  if (JSON.stringify(document).length > mostCharacters) return fail('invalid', { code: 'draft.tooLarge' });
  await keepDocument(actor, draft, document);
  await modelEdits.create({
    draftId: draft.id,
    number: (last?.number ?? 0) + 1,
    version: draft.version,
    edit,
    inverse: result.inverse,
    by: actor.id,
    undone: false,
  });
  return done(null);
}

const picturesIn = ({ features }: ModelDocument): string[] =>
  features.flatMap(({ options }) => options.flatMap(({ picture }) => picture ?? []));

/** Pictures that are new to a draft are its model's from then on; why one cannot be. */
async function claimPictures(
  actor: Actor,
  { document, modelId }: Pick<ModelDraftRow, 'document' | 'modelId'>,
  next: ModelDocument,
): Promise<Result<never> | null> {
  const there = new Set(picturesIn(document));
  for (const id of new Set(picturesIn(next).filter((each) => !there.has(each)))) {
    const file = isReference(id) ? await connected().records.files.findByPk(id, { raw: true }) : null;
    if (file?.about === 'model') continue;
    const used = await use(actor, id, 'model', modelId);
    if (!used.ok) return used;
  }
  return null;
}

/** The id, format and library of a model are not for an edit to set. */
const isAllowed = (edit: Edit): boolean =>
  edit.do === 'several'
    ? edit.edits.every(isAllowed)
    : edit.do !== 'set' || edit.at.length > 0 || !/^(?:id|format|library)(?:\.|$)/.test(edit.name);

/** Keeps a document as the next version of its draft; what was agreed to or seen of another no longer counts. */
async function keepDocument(
  actor: Actor,
  draft: Stored<ModelDraftRow>,
  document: ModelDocument,
): Promise<void> {
  await draft.update({
    document,
    hash: hashOf(document),
    version: draft.version + 1,
    changedBy: actor.id,
    changedAt: new Date(),
  });
}

/** Takes the last edit back. Whoever asks has to know it. */
export const undo = (actor: Actor, id: string, input: DraftInput): Promise<Result<StepView>> =>
  step(actor, id, input, 'undo');

/** Makes again what was taken back last. */
export const redo = (actor: Actor, id: string, input: DraftInput): Promise<Result<StepView>> =>
  step(actor, id, input, 'redo');

const step = (
  actor: Actor,
  id: string,
  { version }: DraftInput,
  which: 'undo' | 'redo',
): Promise<Result<StepView>> =>
  inTransaction(async () => {
    const found = await knownDraft(id, version);
    if (!found.ok) return found;
    const draft = found.value;
    const row = (await stepRows(id))[which];
    if (!row)
      return fail('conflict', { code: which === 'undo' ? 'draft.nothingToUndo' : 'draft.nothingToRedo' });
    const edit = which === 'undo' ? row.inverse : row.edit;
    const result = edited(draft.document, edit);
    if (!result.ok)
      return fail('conflict', { code: result.problem.code, params: { ...result.problem.params } });
    await keepDocument(actor, draft, result.document);
    await row.update({ undone: which === 'undo', version: draft.version });
    return done({ version: draft.version, between: [], edit, ...(await stepsOf(id)) });
  });

/** Puts a draft aside for good. */
export const putAside = (actor: Actor, id: string, { version }: DraftInput): Promise<Result<null>> =>
  inTransaction(async () => {
    const found = await knownDraft(id, version);
    if (!found.ok) return found;
    await found.value.update({ closedAt: new Date() });
    await record(actor, 'draft.aside', found.value.modelId, { draft: id, name: found.value.name });
    return done(null);
  });

/** What differs between a draft and the version that it was made from; of a new model all that is in it. */
export async function draftDifferences(id: string): Promise<Result<Difference[]>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const { baseId, document } = found.value;
  const base = baseId === null ? null : await documentOfVersion(baseId);
  return done(base ? withoutLibrary(differences(base, document)) : []);
}

const withoutLibrary = (all: readonly Difference[]): Difference[] =>
  all.filter((each) => each.is !== 'set' || each.at.length > 0 || !/^(?:library|format)/.test(each.name));

/** The document of a version; null where there is no such version. */
export async function documentOfVersion(id: string): Promise<ModelDocument | null> {
  const row = isReference(id) ? await connected().records.modelVersions.findByPk(id, { raw: true }) : null;
  return row && (movedOn(row.document) as ModelDocument);
}

async function catchingUp(draft: ModelDraftRow) {
  const known = await reference();
  const current = inForceOn(known, draft.modelId, '9999-12-31');
  if (draft.baseId === null || !current || current.id === draft.baseId) return null;
  const [base, theirs] = [await documentOfVersion(draft.baseId), await documentOfVersion(current.id)];
  return base && theirs ? { current, base, theirs } : null;
}

/** What the version in force changed that a draft has not. */
export async function seeCatchUp(id: string): Promise<Result<CatchUpView>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const ahead = await catchingUp(found.value);
  if (!ahead) return fail('conflict', { code: 'draft.upToDate' });
  const { conflicts } = merged(ahead.base, found.value.document, ahead.theirs);
  const changes = withoutLibrary(differences(ahead.base, ahead.theirs)).length;
  return done({ to: ahead.current.number, changes, conflicts: [...conflicts] });
}

/** Brings a draft up to date, as one edit that can be taken back; conflicts are settled by what is taken. */
export const catchUp = (
  actor: Actor,
  id: string,
  { version, take }: CatchUpInput,
): Promise<Result<EditedView>> =>
  inTransaction(async () => {
    const found = await knownDraft(id, version);
    if (!found.ok) return found;
    const draft = found.value;
    const ahead = await catchingUp(draft);
    if (!ahead) return fail('conflict', { code: 'draft.upToDate' });
    const { document, conflicts } = merged(ahead.base, draft.document, ahead.theirs);
    let settled = document;
    for (const conflict of conflicts.filter((each) => take.includes(conflictKey(each)))) {
      const result = edited(settled, editOf(conflict.theirs));
      if (!result.ok)
        return fail('conflict', { code: result.problem.code, params: { ...result.problem.params } });
      settled = result.document;
    }
    const edits = withoutLibrary(differences(draft.document, settled)).map(editOf);
    const kept = await doEdit(actor, draft, { do: 'several', edits });
    if (!kept.ok) return kept;
    await draft.update({ baseId: ahead.current.id });
    await record(actor, 'draft.caughtUp', draft.modelId, { draft: id, to: ahead.current.number });
    return done({ version: draft.version, between: [], ...(await stepsOf(id)) });
  });
