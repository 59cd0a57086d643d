/** Lines of a draft that are alternatives of one another. */
import { randomUUID } from 'node:crypto';
import { against, apart, instead, settledRivals, type Rival } from '../../../core/quotes';
import { type QuoteView, type RivalsInput, type VersionInput } from '../../../contract';
import { connected, type LineRow } from '../../../data';
import type { Actor } from '../../access/actor';
import { done, fail, type Result } from '../../kernel/failure';
import { changeQuote, linesOf, type Draft } from '../quotes';
import { record } from '../../kernel/unit-of-work';

const rivalOf = ({ id, rivals, alternative, optional }: LineRow): Rival => ({
  id,
  rivals,
  alternative,
  optional,
});

/** Writes what a change of sets makes of lines. */
async function write(
  lines: readonly LineRow[],
  change: (rivals: readonly Rival[]) => Rival[],
): Promise<void> {
  for (const [index, { rivals, alternative, optional }] of change(lines.map(rivalOf)).entries()) {
    const row = lines[index];
    if (row && (row.rivals !== rivals || row.alternative !== alternative || row.optional !== optional))
      await connected().records.lines.update({ rivals, alternative, optional }, { where: { id: row.id } });
  }
}

/** Puts the sets of lines right after some of these have gone. */
export const settleRivals = (staying: readonly LineRow[]): Promise<void> => write(staying, settledRivals);

/** Makes lines of a draft alternatives of one another. */
export async function makeRivals(draft: Draft, ids: readonly string[]): Promise<void> {
  await write(await linesOf(draft), (lines) => against(lines, ids, randomUUID()));
}

/** Makes lines alternatives of one another, or has them stand by themselves again. */
export async function rivalLines(
  actor: Actor,
  id: string,
  { version, lines: ids, apart: away }: RivalsInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = draft.state.lines;
    const marked = all.filter((line) => ids.includes(line.id));
    if (marked.length < new Set(ids).size) return fail('missing', { code: 'line.missing' });
    if (!away && marked.length < 2) return fail('invalid', { code: 'line.oneRival', field: 'lines' });
    if (away) await write(all, (lines) => apart(lines, ids));
    else await makeRivals(draft, ids);
    await record(actor, away ? 'lines.apart' : 'lines.rivals', draft.quote.number, {
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
