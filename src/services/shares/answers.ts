/** Answers of customers as the house sees them: listed, replied to, and made an order where they had to wait. */
import { QueryTypes } from 'sequelize';
import type { AnswerView, SentView } from '../../contract';
import { connected, type ShareAnswerRow } from '../../data';
import { may, refusal, type Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { tell } from '../kernel/live';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { acceptQuote } from '../orders/orders';
import { aboutBuild, aboutQuote } from '../outbox/about';
import { mailsOf } from '../outbox/mails';
import { holdQuote } from '../quotes/quote-state';
import { nameOf, reference } from '../settings/reference-data';
import { madeOf } from '../shelf/list';
import { tellReply } from './confirm';
import { openById } from './opened';
import { sharesOf } from './shares';

interface Found extends ShareAnswerRow {
  revision: number | null;
  position: number | null;
  lineItem: string | null;
  orderId: string | null;
  orderNumber: string | null;
  buildId: string | null;
}

const answerSql = `select a.id, a.share_id as "shareId", a.quote_id as "quoteId", a.revision_id as "revisionId", a.answer, a.line_id as "lineId",
    a.line_named as "lineNamed", a.reason, a.words, a.name, a.address, a.agent, a.document, a.at, a.outcome, a.reply,
    a.done_at as "doneAt", a.done_by as "doneBy", r.number as revision, l.position, l.sku as "lineItem",
    o.id as "orderId", o.number as "orderNumber", s.build_id as "buildId"
  from share_answers a join shares s on s.id = a.share_id left join quote_revisions r on r.id = a.revision_id
    left join quote_lines l on l.id = a.line_id left join orders o on o.id = (a.outcome ->> 'order')::uuid`;

async function viewOf(row: Found): Promise<AnswerView> {
  const known = await reference();
  const item = known.items.get(row.lineItem ?? '');
  return {
    id: row.id,
    answer: row.answer,
    revision: row.revision,
    line:
      row.lineNamed === ''
        ? null
        : { position: row.position ?? Number(row.lineNamed), name: item?.name ?? {} },
    reason: row.reason as AnswerView['reason'],
    words: row.words,
    name: row.name,
    from: row.address,
    at: row.at.toISOString(),
    document: row.document,
    order:
      row.orderId === null || row.orderNumber === null ? null : { id: row.orderId, number: row.orderNumber },
    waits:
      row.outcome && 'waits' in row.outcome
        ? row.outcome.waits.map(({ code, params }) => ({ code, ...(params ? { params } : {}) }))
        : [],
    reply: row.reply,
    doneAt: row.doneAt?.toISOString() ?? null,
    doneBy: row.doneBy === null ? null : nameOf(known, row.doneBy),
  };
}

async function answersBy(condition: string, id: string): Promise<AnswerView[]> {
  const rows = await connected().sequelize.query<Found>(
    `${answerSql} where ${condition} order by a.number desc limit 400`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return Promise.all(rows.map(viewOf));
}

/** All that went out of a quote and what came back. */
export async function seeQuoteSent(actor: Actor, id: string): Promise<Result<SentView>> {
  const found = await aboutQuote(actor, id);
  if (!found.ok) return found;
  const { state } = found.value.revision;
  const mine = may(actor, 'quotes');
  return done({
    mails: await mailsOf(actor, 'quote_id', id),
    shares: await sharesOf({ quoteId: id }),
    answers: await answersBy('a.quote_id = $1', id),
    shelf: await madeOf(actor, 'quote_id', id),
    may: { share: mine && (state === 'sent' || state === 'accepted'), mail: mine && state !== 'lost' },
  });
}

/** All that went out of a build and what came back. */
export async function seeBuildSent(actor: Actor, id: string): Promise<Result<SentView>> {
  const found = await aboutBuild(actor, id);
  if (!found.ok) return found;
  const mine = may(actor, 'quotes');
  return done({
    mails: await mailsOf(actor, 'build_id', id),
    shares: await sharesOf({ buildId: id }),
    answers: await answersBy('s.build_id = $1', id),
    shelf: await madeOf(actor, 'build_id', id),
    may: { share: mine, mail: mine },
  });
}

/** An answer to something that the actor sees. */
async function findAnswer(actor: Actor, id: string): Promise<Result<Found>> {
  const missing = fail('missing', { code: 'answer.missing' });
  if (!isReference(id)) return missing;
  const [row] = await connected().sequelize.query<Found>(`${answerSql} where a.id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  if (!row) return missing;
  const sees =
    row.quoteId !== null
      ? (await holdQuote(actor, row.quoteId)) !== null
      : (await aboutBuild(actor, row.buildId ?? '')).ok;
  return sees ? done(row) : missing;
}

/** Says something to an answer, or puts it aside as done. */
export const replyTo = (actor: Actor, id: string, words: string): Promise<Result<AnswerView>> =>
  inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const found = await findAnswer(actor, id);
    if (!found.ok) return found;
    const row = found.value;
    await connected().records.shareAnswers.update(
      { doneAt: new Date(), doneBy: actor.id, ...(words === '' ? {} : { reply: words }) },
      { where: { id } },
    );
    if (words !== '') {
      const opened = await openById(row.shareId);
      if (opened.ok) await tellReply(opened.value, row, words);
    }
    return after(actor, row, words === '' ? 'answer.done' : 'answer.replied');
  });

/** Makes the order of a yes that had to wait: by whoever may, and by the rules as ever. */
export const orderAnswer = (actor: Actor, id: string): Promise<Result<AnswerView>> =>
  inTransaction(async () => {
    const found = await findAnswer(actor, id);
    if (!found.ok) return found;
    const row = found.value;
    const quote = row.quoteId === null ? null : await holdQuote(actor, row.quoteId);
    if (row.answer !== 'accepted' || !quote || row.orderId !== null)
      return fail('conflict', { code: 'answer.noOrder' });
    const ordered = await acceptQuote(actor, quote.id, quote.version);
    if (!ordered.ok) return ordered;
    await connected().records.shareAnswers.update(
      { outcome: { order: ordered.value.orderId }, doneAt: new Date(), doneBy: actor.id },
      { where: { id } },
    );
    return after(actor, row, 'answer.ordered');
  });

async function after(actor: Actor, row: Found, act: string): Promise<Result<AnswerView>> {
  await record(actor, act, row.quoteId ?? row.buildId ?? '', { name: row.name, answer: row.answer });
  await tell([actor.id], { kind: 'desk', quote: row.quoteId });
  const [now] = await connected().sequelize.query<Found>(`${answerSql} where a.id = $1`, {
    bind: [row.id],
    type: QueryTypes.SELECT,
  });
  return now ? done(await viewOf(now)) : fail('missing', { code: 'answer.missing' });
}
