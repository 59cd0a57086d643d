/**
 * Steps of a draft: every change leaves one, which says what of lines, revision and title was otherwise
 * before.
 */
import { connected, type QuoteStep, type QuoteStepRow, type RevisionRow, type Stored } from '../../../data';
import type { Actor } from '../../access/actor';
import type { QuoteState } from '../quote-state';

/** Steps that are kept; older ones can no longer be taken back. */
const most = 50;

const differs = (a: unknown, b: unknown): boolean => a !== b && JSON.stringify(a) !== JSON.stringify(b);

const saidOf = ({ whole, validUntil, lease, resale }: RevisionRow) => ({ whole, validUntil, lease, resale });

function stepBetween(
  before: QuoteState,
  after: QuoteState,
  titles: { before: string; after: string },
): QuoteStep | null {
  const [was, is] = [before, after].map(({ lines }) => new Map(lines.map((line) => [line.id, line]))) as [
    Map<string, QuoteState['lines'][number]>,
    Map<string, QuoteState['lines'][number]>,
  ];
  const lines = [...new Set([...was.keys(), ...is.keys()])].flatMap((id) => {
    const [old, fresh] = [was.get(id) ?? null, is.get(id) ?? null];
    return differs(old, fresh) ? [{ id, before: old, after: fresh }] : [];
  });
  const [said, says] = [saidOf(before.revision), saidOf(after.revision)];
  const revision = differs(said, says) ? { revision: { before: said, after: says } } : {};
  const title = titles.before === titles.after ? {} : { title: titles };
  return lines.length === 0 && !('revision' in revision) && !('title' in title)
    ? null
    : { lines, ...revision, ...title };
}

/**
 * Keeps what a change made; what was taken back before it can no longer be made again. Whether there was
 * anything to keep.
 */
export async function remember(
  actor: Actor,
  before: QuoteState,
  after: QuoteState,
  titles: { before: string; after: string },
): Promise<boolean> {
  const change = stepBetween(before, after, titles);
  if (!change) return false;
  // Numbers go on after those of what was taken back, so that all of it is one statement.
  await connected().sequelize.query(
    `with last as (select coalesce(max(number), 0) as number from quote_steps where revision_id = $1),
      made as (insert into quote_steps (revision_id, number, undone, user_id, change) select $1, number + 1, false, $2, $3::jsonb from last),
      kept as (select number from quote_steps where revision_id = $1 and not undone order by number desc limit ${String(most - 1)})
     delete from quote_steps where revision_id = $1 and (undone or number not in (select number from kept))`,
    { bind: [after.revision.id, actor.id, JSON.stringify(change)] },
  );
  return true;
}

/**
 * Lets go of all steps: what was changed reaches beyond lines, so that earlier steps would not fit any more.
 */
export async function forget(revisionId: string): Promise<void> {
  await connected().records.quoteSteps.destroy({ where: { revisionId } });
}

/** The step that would be taken back, or made again. */
export const nextStep = (revisionId: string, way: 'undo' | 'redo'): Promise<Stored<QuoteStepRow> | null> =>
  connected().records.quoteSteps.findOne({
    where: { revisionId, undone: way === 'redo' },
    order: [['number', way === 'undo' ? 'DESC' : 'ASC']],
  });

/**
 * Whether there is anything of a person's own to take back, and to make again: what somebody else changed is
 * not one's to undo.
 */
export async function stepsOf(actor: Actor, revisionId: string): Promise<{ undo: boolean; redo: boolean }> {
  const rows = await connected().records.quoteSteps.findAll({
    where: { revisionId },
    attributes: ['number', 'undone', 'userId'],
    order: [['number', 'ASC']],
    raw: true,
  });
  return {
    undo: rows.filter(({ undone }) => !undone).pop()?.userId === actor.id,
    redo: rows.find(({ undone }) => undone)?.userId === actor.id,
  };
}
