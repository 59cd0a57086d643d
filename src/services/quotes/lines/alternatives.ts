/** Lines of a draft that are alternatives of one another. */
import { randomUUID } from 'node:crypto';
import { against, apart, instead, settledAlternatives, type Alternative } from '../../../core/quotes';
import { type QuoteView, type AlternativesInput, type VersionInput } from '../../../contract';
import { connected, type LineRow } from '../../../data';
import type { Actor } from '../../access/actor';
import { done, fail, type Result } from '../../kernel/failure';
import { changeQuote, linesOf, type Draft } from '../quotes';
import { record } from '../../kernel/unit-of-work';

const alternativeOf = ({ id, alternativeSet, alternative, optional }: LineRow): Alternative => ({
  id,
  alternativeSet,
  alternative,
  optional,
});

/** Writes what a change of sets makes of lines. */
async function write(
  lines: readonly LineRow[],
  change: (alternatives: readonly Alternative[]) => Alternative[],
): Promise<void> {
  for (const [index, { alternativeSet, alternative, optional }] of change(
    lines.map(alternativeOf),
  ).entries()) {
    const row = lines[index];
    if (
      row &&
      (row.alternativeSet !== alternativeSet || row.alternative !== alternative || row.optional !== optional)
    )
      await connected().records.lines.update(
        { alternativeSet, alternative, optional },
        { where: { id: row.id } },
      );
  }
}

/** Puts the sets of lines right after some of these have gone. */
export const settleAlternatives = (staying: readonly LineRow[]): Promise<void> =>
  write(staying, settledAlternatives);

/** Makes lines of a draft alternatives of one another. */
export async function makeAlternatives(draft: Draft, ids: readonly string[]): Promise<void> {
  await write(await linesOf(draft), (lines) => against(lines, ids, randomUUID()));
}

/** Makes lines alternatives of one another, or has them stand by themselves again. */
export async function alternativeLines(
  actor: Actor,
  id: string,
  { version, lines: ids, apart: away }: AlternativesInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = draft.state.lines;
    const marked = all.filter((line) => ids.includes(line.id));
    if (marked.length < new Set(ids).size) return fail('missing', { code: 'line.missing' });
    if (!away && marked.length < 2) return fail('invalid', { code: 'line.oneAlternative', field: 'lines' });
    if (away) await write(all, (lines) => apart(lines, ids));
    else await makeAlternatives(draft, ids);
    await record(actor, away ? 'lines.apart' : 'lines.alternatives', draft.quote.number, {
      lines: marked.map(({ position }) => position),
    });
    return done(null);
  });
}

/** Takes an alternative in the place of the line that counted so far. */
export async function takeInstead(
  actor: Actor,
  id: string,
  lineId: string,
  { version }: VersionInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = draft.state.lines;
    const line = all.find((each) => each.id === lineId);
    if (!line) return fail('missing', { code: 'line.missing' });
    if (!line.alternative) return fail('conflict', { code: 'line.counts', params: { line: line.position } });
    await write(all, (lines) => instead(lines, lineId));
    await record(actor, 'line.takenInstead', draft.quote.number, { line: line.position });
    return done(null);
  });
}
