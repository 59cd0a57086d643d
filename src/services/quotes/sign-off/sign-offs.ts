/**
 * Sign-off: what goes beyond the limits of whoever quotes is asked for, answered, and holds while no figure
 * gets worse.
 */
import { randomUUID } from 'node:crypto';
import { exact, plainPercent } from '../../../core/exact';
import {
  type AnswerSignOffInput,
  type AskSignOffInput,
  type QuoteView,
  type VersionInput,
} from '../../../contract';
import { connected, type Offer, type SignOffRow } from '../../../data';
import { refusal, type Actor } from '../../access/actor';
import { answersAs, signs } from '../../access/deputies';
import { now } from '../../kernel/clock';
import { done, fail, type Result } from '../../kernel/failure';
import { partsIn, priceLines } from '../figures/quote-pricing';
import { changeQuote } from '../quotes';
import { nameOf, reference } from '../../settings/reference-data';
import { linesOf, standingOf } from './standing';
import { record } from '../../kernel/unit-of-work';
import { isReference } from '../../kernel/reference';

/** Asks those who must sign and have not; what was asked of them before stands back. */
export async function askSignOff(
  actor: Actor,
  id: string,
  { version, reason }: AskSignOffInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async ({ quote, revision, state }) => {
    const priced = await priceLines(await partsIn(state));
    const { needs, figures, rows } = await standingOf(state, priced);
    const open = needs.filter(({ held }) => !held);
    if (open.length === 0) return fail('invalid', { code: 'signOff.notNeeded' });
    for (const { role, judged, policies } of open) {
      for (const row of rows)
        if (row.role === role && row.state === 'asked')
          await connected().records.signOffs.update({ state: 'over' }, { where: { id: row.id } });
      const lines = new Set(judged.map(({ line }) => line));
      const asked = figures.filter(({ line }) => lines.has(line));
      await connected().records.signOffs.create({
        id: randomUUID(),
        revisionId: revision.id,
        role: role as SignOffRow['role'],
        reason,
        figures: asked,
        asked,
        askedBy: actor.id,
        state: 'asked',
        answeredBy: null,
        answeredFor: null,
        answeredAt: null,
        comment: '',
        counter: [],
        policies,
      });
    }
    await record(actor, 'signOff.asked', quote.number, { of: open.map(({ role }) => role), reason });
    return done(null);
  });
}

/**
 * Yes, no, or on which discounts it would be yes, in one's own name or in the place of somebody. A yes is for
 * the figures as they are now.
 */
export async function answerSignOff(
  actor: Actor,
  id: string,
  signOffId: string,
  { version, answer, comment, counter }: AnswerSignOffInput,
): Promise<Result<QuoteView>> {
  const known = await reference();
  const refused = signs(known, actor) ? null : refusal(actor, 'sign');
  if (refused) return refused;
  return changeQuote(actor, id, version, async ({ quote, revision, state }) => {
    const row = isReference(signOffId)
      ? await connected().records.signOffs.findOne({ where: { id: signOffId, revisionId: revision.id } })
      : null;
    if (!row) return fail('missing', { code: 'signOff.missing' });
    if (row.state !== 'asked') return fail('conflict', { code: 'signOff.answered' });
    const as = answersAs(known, actor, row, quote.ownerId);
    if (!as) return fail('forbidden', { code: 'signOff.notYours' });
    if (answer === 'counter' && counter.length === 0)
      return fail('invalid', { code: 'signOff.noOffer', field: 'counter' });
    const offers =
      answer === 'counter'
        ? counter.map(({ line, rate }): Offer =>
            rate === undefined
              ? { line, no: true }
              : { line, rate: exact(plainPercent(rate)).div(100).toString() },
          )
        : [];
    const parts = await partsIn(state);
    if (offers.some(({ line }) => !parts.lines.some((each) => each.id === line)))
      return fail('missing', { code: 'line.missing' });
    // What is signed are the figures that would come of it.
    const offered = parts.lines.map((line) => {
      const offer = offers.find((each) => each.line === line.id);
      return offer && 'rate' in offer ? { ...line, hand: { by: 'rate' as const, value: offer.rate } } : line;
    });
    // What is refused is not signed, whatever was asked.
    const refusedLines = new Set(offers.flatMap((each) => ('no' in each ? [each.line] : [])));
    const concerned = new Set(row.figures.map(({ line }) => line));
    const figures = linesOf(await priceLines({ ...parts, lines: offered }), state.revision.whole).filter(
      ({ line }) =>
        !refusedLines.has(line) && (concerned.has(line) || offers.some((each) => each.line === line)),
    );
    const policies =
      (await standingOf(state, await priceLines(parts))).needs.find(({ role }) => role === row.role)
        ?.policies ?? [];
    await row.update({
      state: answer,
      comment,
      counter: offers,
      ...(answer === 'no' ? {} : { figures, policies }),
      answeredBy: actor.id,
      answeredFor: as.id === actor.id ? null : as.id,
      answeredAt: now(),
    });
    await record(actor, 'signOff.answered', quote.number, {
      answer,
      comment,
      counter: offers,
      ...(as.id === actor.id ? {} : { for: nameOf(known, as.id) }),
    });
    return done(null);
  });
}

/** Takes a counter-offer: its discounts are typed on the lines. */
export async function takeCounter(
  actor: Actor,
  id: string,
  signOffId: string,
  { version }: VersionInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async ({ quote, revision }) => {
    const { signOffs, lines } = connected().records;
    const row = isReference(signOffId)
      ? await signOffs.findOne({ where: { id: signOffId, revisionId: revision.id, state: 'counter' } })
      : null;
    if (!row) return fail('missing', { code: 'signOff.missing' });
    for (const each of row.counter)
      if ('rate' in each)
        await lines.update(
          { hand: { by: 'rate', value: each.rate } },
          { where: { id: each.line, revisionId: revision.id } },
        );
    await record(actor, 'signOff.taken', quote.number, { counter: row.counter });
    return done(null);
  });
}
