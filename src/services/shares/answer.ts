/** What a customer answers behind a share: written down as it was said, told to the engineer at once. */
import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import type { AnsweredView, AnswerInput } from '../../contract';
import { waitsFor, type Wait } from '../../core/sending';
import { connected, type AnswerOutcome, type JobProblem, type ShareAnswerRow } from '../../data';
import { may } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { tell } from '../kernel/live';
import { inTransaction, record } from '../kernel/unit-of-work';
import { acceptQuote } from '../orders/orders';
import { obstacles } from '../quotes/history/revisions';
import { partsIn, priceAll } from '../quotes/figures/quote-pricing';
import { holdQuote, stateOf, type QuoteBase } from '../quotes/quote-state';
import { shelved } from '../shelf/shelf';
import { confirm } from './confirm';
import { openShare, type Opened } from './opened';
import { viewOf } from './shared';

/** From where somebody answers. */
export interface From {
  address: string;
  agent: string;
}

/** Answers behind one share at most: in an hour, and in all. */
const most = { hour: 20, all: 200 };

/** Answers. What is said here stands as it was said; what comes of it is told. */
export async function answerShare(
  token: string,
  input: AnswerInput,
  from: From,
): Promise<Result<AnsweredView>> {
  const result = await inTransaction(async () => {
    const before = await openShare(token);
    if (!before.ok) return before;
    const { owner, quote } = before.value;
    // Who changes the quote meanwhile is waited for, and then it stands as they left it.
    const held = quote ? await holdQuote(owner, quote.id) : null;
    if (quote && !held) return fail('missing', { code: 'shared.missing' });
    const opened = await openShare(token);
    if (!opened.ok) return opened;
    const tooMany = await tooManyOf(opened.value);
    if (tooMany) return tooMany;
    const kept = await keepAnswer(opened.value, input, from);
    if (!kept.ok) return kept;
    const row = kept.value;
    const outcome = row.answer === 'accepted' && held ? await orderOf(opened.value, held) : null;
    if (outcome) await connected().records.shareAnswers.update({ outcome }, { where: { id: row.id } });
    if (outcome && 'order' in outcome)
      await connected().records.shareAnswers.update(
        { doneAt: new Date(), doneBy: null },
        { where: { id: row.id } },
      );
    await record(
      owner,
      `share.${row.answer}`,
      quote?.number ?? opened.value.build?.outcome.partNumber ?? '',
      {
        name: row.name,
        from: row.address,
        ...(row.document === null ? {} : { document: row.document }),
        ...(row.reason === null ? {} : { reason: row.reason }),
      },
    );
    await confirm(opened.value, row, outcome);
    await tell([...new Set([owner.id, opened.value.share.madeBy])], {
      kind: 'answer',
      quote: quote?.id ?? null,
    });
    return done(outcome && 'order' in outcome ? ('order' as const) : ('received' as const));
  });
  if (!result.ok) return result;
  const opened = await openShare(token);
  if (!opened.ok) return opened;
  const view = await viewOf(opened.value);
  return view.ok ? done({ is: result.value, view: view.value }) : view;
}

async function tooManyOf({ share }: Opened): Promise<Result<never> | null> {
  const [row] = await connected().sequelize.query<{ hour: number; all: number }>(
    `select count(*) filter (where at > now() - interval '1 hour')::int as hour, count(*)::int as all
     from share_answers where share_id = $1`,
    { bind: [share.id], type: QueryTypes.SELECT },
  );
  return (row?.hour ?? 0) >= most.hour || (row?.all ?? 0) >= most.all
    ? fail('tooMany', { code: 'shared.tooMany', retryAfter: 600 })
    : null;
}

async function keepAnswer(
  { share, quote, revision }: Opened,
  { answer, name, words, line, reason, document }: AnswerInput,
  from: From,
): Promise<Result<ShareAnswerRow>> {
  const { shareAnswers, lines } = connected().records;
  if (!revision && answer !== 'question') return fail('conflict', { code: 'shared.onlyQuestions' });
  if (revision && answer !== 'question') {
    const yes = await shareAnswers.findOne({
      where: { revisionId: revision.id, answer: 'accepted' },
      raw: true,
    });
    if (yes)
      return fail('conflict', {
        code: 'shared.accepted',
        params: { name: yes.name, at: yes.at.toISOString() },
      });
    if (revision.state === 'accepted') return fail('conflict', { code: 'shared.ordered' });
    if (revision.state === 'lost') return fail('conflict', { code: 'shared.settled' });
  }
  if (answer === 'accepted' && revision) {
    const quotation = await shelved({ revisionId: revision.id, kind: 'quotation', type: 'application/pdf' });
    if (quotation?.hash !== document) return fail('conflict', { code: 'shared.otherDocument' });
  }
  const meant =
    line === null || !revision
      ? null
      : await lines.findOne({ where: { id: line, revisionId: revision.id }, raw: true });
  if (line !== null && !meant) return fail('invalid', { code: 'shared.noLine', field: 'line' });
  const made = await shareAnswers.create({
    id: randomUUID(),
    shareId: share.id,
    quoteId: quote?.id ?? null,
    revisionId: revision?.id ?? null,
    answer,
    lineId: meant?.id ?? null,
    lineNamed: meant ? String(meant.position) : '',
    reason: answer === 'declined' ? reason : null,
    words,
    name,
    address: from.address,
    agent: from.agent.slice(0, 300),
    document: answer === 'accepted' ? document : null,
    at: new Date(),
    outcome: null,
    reply: null,
    doneAt: null,
    doneBy: null,
  });
  return done(made.get({ plain: true }));
}

const asProblem = ({ code, params }: Failure): JobProblem => ({ code, ...(params ? { params } : {}) });

/** The order of a yes, by the rules that hold for the engineer; or what it waits for. */
async function orderOf({ owner, revision, newer }: Opened, quote: QuoteBase): Promise<AnswerOutcome> {
  if (!revision) return { waits: [{ code: 'shared.waits.settled' }] };
  const state = await stateOf(quote, revision.number);
  const wrong = state && !newer ? await obstacles(state, await priceAll(await partsIn(state))) : [];
  const waits = waitsFor({
    state: revision.state,
    newest: !newer,
    expired: revision.validUntil < today(),
    mayOrder: may(owner, 'accept'),
    obstacles: wrong.map(({ code }) => code),
  });
  if (waits.length > 0) return { waits: waits.flatMap((wait) => problemsOf(wait, wrong)) };
  const ordered = await acceptQuote(owner, quote.id, quote.version);
  return ordered.ok ? { order: ordered.value.orderId } : { waits: ordered.failures.map(asProblem) };
}

const problemsOf = (wait: Wait, wrong: readonly Failure[]): JobProblem[] =>
  wait.why === 'obstacles' ? wrong.map(asProblem) : [{ code: `shared.waits.${wait.why}` }];
