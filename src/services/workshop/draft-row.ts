/** A draft as it is kept: found, held while it is changed, and told of. */
import { createHash } from 'node:crypto';
import type { DraftHead, EditView } from '../../contract';
import type { ModelDocument } from '../../core/model';
import { connected, type ModelDraftRow, type ModelEditRow, type Stored } from '../../data';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { inForceOn, nameOf, type Reference } from '../settings/reference-data';
import { today } from '../kernel/clock';

/** How many edits can be taken back. */
export const mostSteps = 200;

/** Documents that are written alike are one. */
export const hashOf = (document: ModelDocument): string =>
  createHash('sha256').update(JSON.stringify(document)).digest('hex');

/** An open draft; held until the transaction ends where it is to be changed. */
export async function openDraft(id: string, lock = false): Promise<Result<Stored<ModelDraftRow>>> {
  const { modelDrafts } = connected().records;
  const row = isReference(id) ? await modelDrafts.findByPk(id, lock ? { lock: true } : {}) : null;
  if (!row) return fail('missing', { code: 'draft.missing' });
  return row.closedAt === null ? done(row) : fail('conflict', { code: 'draft.closed' });
}

/** An open draft as its reader knew it; refused where it was changed since. */
export async function knownDraft(id: string, version: number): Promise<Result<Stored<ModelDraftRow>>> {
  const found = await openDraft(id, true);
  if (!found.ok || found.value.version === version) return found;
  return fail('conflict', { code: 'draft.stale' });
}

/** What of a draft is told without its document. */
export type DraftFacts = Pick<
  ModelDraftRow,
  'id' | 'modelId' | 'name' | 'version' | 'baseId' | 'changedBy' | 'changedAt'
> & { title: Record<string, string> };

/** A draft as it is told of in lists. */
export function headOf(known: Reference, draft: DraftFacts): DraftHead {
  const base = known.releases.get(draft.modelId)?.find(({ id }) => id === draft.baseId);
  const current = inForceOn(known, draft.modelId, '9999-12-31');
  return {
    id: draft.id,
    modelId: draft.modelId,
    name: draft.name,
    title: draft.title,
    version: draft.version,
    base: base?.number ?? null,
    changedAt: (draft.changedAt ?? new Date()).toISOString(),
    changedBy: nameOf(known, draft.changedBy),
    behind: current !== undefined && current.id !== draft.baseId,
  };
}

/** An edit as it is told of. */
export const editView = (known: Reference, row: ModelEditRow): EditView => ({
  number: row.number,
  version: row.version,
  edit: row.edit,
  by: nameOf(known, row.by),
  at: (row.at ?? new Date()).toISOString(),
  undone: row.undone,
});

/** What can be taken back and made again. */
export async function stepsOf(draftId: string): Promise<{ canUndo: boolean; canRedo: boolean }> {
  const { undo, redo } = await stepRows(draftId);
  return { canUndo: undo !== undefined, canRedo: redo !== undefined };
}

/** The edit that is taken back next, and the one that is made again next. */
export async function stepRows(
  draftId: string,
): Promise<{ undo?: Stored<ModelEditRow>; redo?: Stored<ModelEditRow> }> {
  const rows = await connected().records.modelEdits.findAll({
    where: { draftId },
    order: [['number', 'DESC']],
    limit: mostSteps,
  });
  const undo = rows.find(({ undone }) => !undone);
  // What was taken back last is the oldest of those behind the last that stands.
  const redo = rows.filter(({ undone, number }) => undone && number > (undo?.number ?? 0)).at(-1);
  return { ...(undo ? { undo } : {}), ...(redo ? { redo } : {}) };
}

/** A day that has not begun yet may be chosen; one that is over may not. */
export const isOver = (day: string): boolean => day < today();
