/** Undo and redo on a draft. */
import type { QuoteView, VersionInput } from '../../../contract';
import { connected } from '../../../data';
import type { Actor } from '../../access/actor';
import { done, fail, type Result } from '../../kernel/failure';
import { changeQuote } from '../quotes';
import { nextStep } from './steps';
import { record } from '../../kernel/unit-of-work';

/** Takes the last change back, or makes the last one that was taken back again. */
export async function step(
  actor: Actor,
  id: string,
  way: 'undo' | 'redo',
  { version }: VersionInput,
): Promise<Result<QuoteView>> {
  return changeQuote(
    actor,
    id,
    version,
    async ({ quote, revision }) => {
      const { lines, revisions, users } = connected().records;
      const row = await nextStep(revision.id, way);
      if (!row) return fail('invalid', { code: `steps.${way}` });
      if (row.userId !== actor.id)
        return fail('conflict', {
          code: 'steps.notYours',
          params: { who: (await users.findByPk(row.userId))?.name ?? '' },
        });
      const to = way === 'undo' ? 'before' : 'after';
      const wantedBuilds = row.change.lines.flatMap(({ [to]: line }) =>
        line?.buildId ? [line.buildId] : [],
      );
      // A variant that was taken away since cannot stand on a line again.
      if (
        (await connected().records.builds.count({ where: { id: wantedBuilds } })) < new Set(wantedBuilds).size
      )
        return fail('conflict', { code: 'steps.gone' });
      for (const { id: line, [to]: wanted } of row.change.lines) {
        await lines.destroy({ where: { id: line } });
        if (wanted) await lines.create(wanted);
      }
      if (row.change.revision)
        await revisions.update(row.change.revision[to], { where: { id: revision.id } });
      if (row.change.title) {
        await connected().records.quotes.update({ title: row.change.title[to] }, { where: { id: quote.id } });
        quote.title = row.change.title[to];
      }
      await row.update({ undone: way === 'undo' });
      await record(actor, `quote.${way}`, quote.number, { step: row.number, lines: row.change.lines.length });
      return done(null);
    },
    { steps: false },
  );
}
