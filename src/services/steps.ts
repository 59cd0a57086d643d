/** Steps of a draft: every change leaves one, which says what of lines and revision was otherwise before. */
import { Op } from 'sequelize';
import { connected, type LineRow, type QuoteStep, type QuoteStepRow, type RevisionRow, type Stored } from '../data';
import type { Actor } from './actor';

/** Steps that are kept; older ones can no longer be taken back. */
const most = 50;
type Said = 'whole' | 'validUntil' | 'lease' | 'resale';

/** A draft as it stands. */
export interface DraftState {
  lines: Map<string, LineRow>;
  revision: Pick<RevisionRow, Said>;
}

export async function draftState(revisionId: string): Promise<DraftState> {
  const { lines, revisions } = connected().records;
  const rows = await lines.findAll({ where: { revisionId }, raw: true });
  const revision = await revisions.findByPk(revisionId);
  if (!revision) throw new Error(`revision ${revisionId} is gone`);
  const { whole, validUntil, lease, resale } = revision;
  return { lines: new Map(rows.map((row) => [row.id, row])), revision: { whole, validUntil, lease, resale } };
}

const differs = (a: unknown, b: unknown): boolean => JSON.stringify(a) !== JSON.stringify(b);

function stepBetween(before: DraftState, after: DraftState): QuoteStep | null {
  const ids = [...new Set([...before.lines.keys(), ...after.lines.keys()])];
  const lines = ids.flatMap((id) => {
    const [was, is] = [before.lines.get(id) ?? null, after.lines.get(id) ?? null];
    return differs(was, is) ? [{ id, before: was, after: is }] : [];
  });
  const revision = differs(before.revision, after.revision) ? { revision: { before: before.revision, after: after.revision } } : {};
  return lines.length === 0 && !('revision' in revision) ? null : { lines, ...revision };
}

/** Keeps what a change made; what was taken back before it can no longer be made again. */
export async function remember(actor: Actor, revisionId: string, before: DraftState): Promise<void> {
  const change = stepBetween(before, await draftState(revisionId));
  if (!change) return;
  const { quoteSteps } = connected().records;
  await quoteSteps.destroy({ where: { revisionId, undone: true } });
  const last = ((await quoteSteps.max('number', { where: { revisionId } })) as number | null) ?? 0;
  await quoteSteps.create({ revisionId, number: last + 1, undone: false, userId: actor.id, change });
  await quoteSteps.destroy({ where: { revisionId, number: { [Op.lte]: last + 1 - most } } });
}

/** Lets go of all steps: what was changed reaches beyond lines, so that earlier steps would not fit any more. */
export async function forget(revisionId: string): Promise<void> {
  await connected().records.quoteSteps.destroy({ where: { revisionId } });
}

/** The step that would be taken back, or made again. */
export const nextStep = (revisionId: string, way: 'undo' | 'redo'): Promise<Stored<QuoteStepRow> | null> =>
  connected().records.quoteSteps.findOne({ where: { revisionId, undone: way === 'redo' }, order: [['number', way === 'undo' ? 'DESC' : 'ASC']] });

/** Whether there is anything of a person's own to take back, and to make again: what somebody else changed is not one's to undo. */
export async function stepsOf(actor: Actor, revisionId: string): Promise<{ undo: boolean; redo: boolean }> {
  const [undo, redo] = [await nextStep(revisionId, 'undo'), await nextStep(revisionId, 'redo')];
  return { undo: undo?.userId === actor.id, redo: redo?.userId === actor.id };
}
