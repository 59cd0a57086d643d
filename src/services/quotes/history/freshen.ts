/**
 * Freshening: lines put on today's prices, agreements and model versions; what would change is seen line by
 * line before it does.
 */
import { sumLines } from '../../../core/pricing';
import { compareLines } from '../../../core/quotes';
import { type Freshening, type FreshLine, type LinesInput, type QuoteView } from '../../../contract';
import { connected } from '../../../data';
import { refusal, type Actor } from '../../access/actor';
import { today } from '../../kernel/clock';
import { done, fail, type Result } from '../../kernel/failure';
import { moveToNewest, type Moved } from '../../builds/moves';
import { counted, partsOf, priceLines, type QuotedLine } from '../figures/quote-pricing';
import { changeQuote, type Draft } from '../quotes';
import { holdQuote } from '../quote-state';
import { sideLines } from './sides';
import { forget } from './steps';
import { record, tryOut } from '../../kernel/unit-of-work';

/** Puts lines on today's; gives what became of their builds. */
async function apply(
  actor: Actor,
  { quote, revision }: Pick<Draft, 'quote' | 'revision'>,
  ids: readonly string[],
): Promise<Map<string, Moved>> {
  const { lines, builds } = connected().records;
  const moved = new Map<string, Moved>();
  for (const line of await lines.findAll({ where: { revisionId: revision.id, id: [...ids] } })) {
    const build = line.buildId === null ? null : await builds.findByPk(line.buildId);
    if (build)
      moved.set(line.id, await moveToNewest(actor, { build, home: { of: 'quote', quote, revision } }));
    await lines.update({ pricedOn: today() }, { where: { id: line.id } });
  }
  return moved;
}

/** What freshening all lines would change, worked out without changing anything. */
export async function seeFreshening(actor: Actor, id: string): Promise<Result<Freshening>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  return tryOut(async () => {
    const quote = await holdQuote(actor, id);
    if (!quote) return fail('missing', { code: 'quote.missing' });
    const parts = await partsOf(quote);
    if (parts.revision.state !== 'draft')
      return fail('conflict', {
        code: `revision.is.${parts.revision.state}`,
        params: { number: parts.revision.number },
      });
    const was = await priceLines(parts);
    const before = await sideLines(was);
    const pricedOn = was.map(({ line }) => line.pricedOn);
    const moved = await apply(
      actor,
      { quote, revision: parts.revision },
      parts.lines.map((line) => line.id),
    );
    const fresh = await priceLines(await partsOf(quote));
    const after = await sideLines(fresh);
    const pairs = compareLines(before, after);
    const net = (priced: readonly QuotedLine[]) =>
      sumLines(
        counted(priced).map((each) => each.price),
        parts.list.decimals,
      ).net;
    return done({
      net: { before: net(was), after: net(fresh) },
      lines: pairs.flatMap((pair, at): FreshLine[] => {
        const quoted = fresh[at];
        if (!quoted || pair.is === 'added' || pair.is === 'removed') return [];
        const move = moved.get(quoted.line.id);
        const newer = move && move.from !== move.to ? { version: { from: move.from, to: move.to } } : {};
        return [
          {
            id: quoted.line.id,
            position: quoted.line.position,
            name: quoted.item.name,
            pricedOn: pricedOn[at] ?? '',
            before: pair.before.net,
            after: pair.after.net,
            choices: pair.choices,
            dropped: move?.dropped ?? [],
            problems: quoted.problems,
            ...newer,
            differs:
              pair.is === 'changed' ||
              'version' in newer ||
              JSON.stringify(was[at]?.problems) !== JSON.stringify(quoted.problems),
          },
        ];
      }),
    });
  });
}

/** Puts the named lines on today's prices, agreements and model versions. */
export async function freshen(
  actor: Actor,
  id: string,
  { version, lines: ids }: LinesInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const own = new Set(
      (
        await connected().records.lines.findAll({
          where: { revisionId: draft.revision.id },
          attributes: ['id'],
          raw: true,
        })
      ).map((line) => line.id),
    );
    if (ids.some((each) => !own.has(each))) return fail('missing', { code: 'line.missing' });
    const moved = await apply(actor, draft, ids);
    await record(actor, 'quote.freshened', draft.quote.number, {
      lines: ids.length,
      builds: moved.size,
      to: today(),
    });
    // A build that moved to a newer model cannot go back with its line.
    if (moved.size > 0) await forget(draft.revision.id);
    return done(null);
  });
}
