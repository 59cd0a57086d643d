/** Shares: who gets in, what they see, what they answer, and what comes of it. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { answerInput, type AnswerInput, type QuoteView, type SharedView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { handOver } from '../colleagues/hand-over';
import { desk } from '../desk/desk';
import { inDays, today } from '../kernel/clock';
import { endLive, hear, mayHear, type Word } from '../kernel/live';
import { openDemo, personOf } from '../kernel/testing';
import { reviseQuote, sendQuote } from '../quotes/history/revisions';
import { seeQuote } from '../quotes/quotes';
import { codes, readyQuote, value, workAll } from '../outbox/testing';
import { answerShare } from './answer';
import { orderAnswer, replyTo, seeQuoteSent } from './answers';
import { seeShared, sharedDocument, sharedPicture, sharedScene } from './shared';
import { prolongShare, revokeShare, shareBuild, shareQuote } from './shares';

let mara: Actor;
let joss: Actor;
let rhona: Actor;
const base = 'https://scales.example';
const from = { address: '203.0.113.7', agent: 'a phone' };

interface Shared {
  quote: QuoteView;
  token: string;
  id: string;
}

/** A quote that was sent, with a link to it, and its quotation made. */
async function shared(actor = mara, customer = 'C-1001'): Promise<Shared> {
  const draft = await readyQuote(actor, customer);
  const quote = value(await sendQuote(actor, draft.id, { version: draft.version }));
  const made = value(
    await shareQuote(
      actor,
      quote.id,
      { name: 'Ana Kestrel', address: 'ana@kestrel.example', until: inDays(30) },
      base,
    ),
  );
  const token = made.link.split('/s/')[1] ?? '';
  value(await seeShared(token));
  await workAll();
  return { quote, token, id: made.share.id };
}
const answer = (more: Partial<AnswerInput>): AnswerInput => ({
  answer: 'question',
  name: 'Ana Kestrel',
  words: 'Is it galvanised?',
  line: null,
  reason: null,
  document: '',
  agreed: false,
  ...more,
});
const yes = ({ hash }: SharedView): AnswerInput =>
  answer({ answer: 'accepted', words: '', document: hash ?? '', agreed: true });
const seen = async ({ token }: Shared): Promise<SharedView> => value(await seeShared(token));
const say = (share: Shared, input: AnswerInput) => answerShare(share.token, input, from);

beforeAll(async () => {
  await openDemo('shares');
  mara = await personOf('mara@harrowmoor.example');
  joss = await personOf('joss@harrowmoor.example');
  rhona = await personOf('rhona@dunmere.example');
});
afterAll(async () => {
  await endLive();
  await connected().close();
});

describe('a share', () => {
  it('is of what was sent, told once, and kept as a hash', async () => {
    const draft = await readyQuote(mara);
    const asked = { name: '', address: '', until: inDays(30) };
    expect(codes(await shareQuote(mara, draft.id, asked, base))).toEqual(['share.notSent']);
    const { token, id } = await shared();
    const row = await connected().records.shares.findByPk(id, { raw: true });
    expect(JSON.stringify(row)).not.toContain(token);
    expect(codes(await shareQuote(rhona, draft.id, asked, base))).toEqual(['quote.missing']);
    expect(codes(await shareQuote(mara, draft.id, { ...asked, until: inDays(-1) }, base))).toEqual([
      'share.notSent',
    ]);
  });

  it('opens by its token alone, and not once it ended or was revoked', async () => {
    const share = await shared();
    for (const guess of ['', 'x', '../../etc', share.token.slice(1), `${share.token}x`, 'A'.repeat(43)])
      expect(codes(await seeShared(guess))).toEqual(['shared.missing']);
    value(await prolongShare(mara, share.id, today()));
    expect((await seeShared(share.token)).ok).toBe(true);
    await connected().records.shares.update({ until: inDays(-1) }, { where: { id: share.id } });
    expect(codes(await seeShared(share.token))).toEqual(['shared.ended']);
    expect(codes(await say(share, answer({})))).toEqual(['shared.ended']);
    value(await prolongShare(mara, share.id, inDays(3)));
    expect(codes(await revokeShare(rhona, share.id))).toEqual(['share.missing']);
    value(await revokeShare(joss, share.id));
    expect(codes(await seeShared(share.token))).toEqual(['shared.revoked']);
    expect(codes(await prolongShare(mara, share.id, inDays(3)))).toEqual(['share.isRevoked']);
  });

  it('shows the document that was sent, and opens nothing else', async () => {
    const share = await shared();
    const view = await seen(share);
    expect(view).toMatchObject({ of: 'quote', reference: `${share.quote.number} R1`, newer: false });
    expect(view.mayAnswer).toEqual(['accepted', 'declined', 'question', 'change']);
    expect(view.lines.map(({ position }) => position)).toEqual([1, 2]);
    const [document] = view.documents;
    expect(document?.hash).toBe(view.hash);
    expect(value(await sharedDocument(share.token, document?.id ?? '')).type).toBe('application/pdf');
    const other = await shared();
    const foreign = (await seen(other)).documents[0]?.id ?? '';
    expect(codes(await sharedDocument(share.token, foreign))).toEqual(['files.missing']);
    expect(codes(await sharedPicture(share.token, foreign))).toEqual(['files.missing']);
    expect(codes(await sharedScene(share.token, foreign))).toEqual(['drawing.missing']);
    const { seen: times, firstSeenAt } = value(await seeQuoteSent(mara, share.quote.id)).shares[0] ?? {};
    expect([times, firstSeenAt === null]).toEqual([1, false]);
  });

  it('names who answers now, after the quote was handed over', async () => {
    const share = await shared();
    expect((await seen(share)).contact).toEqual({ name: mara.name, email: mara.email });
    const { version } = value(await seeQuote(mara, share.quote.id));
    value(await handOver(mara, share.quote.id, { version, to: joss.id, words: 'On leave from Monday.' }));
    expect((await seen(share)).contact).toEqual({ name: joss.name, email: joss.email });
  });

  it('of a build shows its sheet and drawing without a price, and takes questions', async () => {
    const quote = await readyQuote(mara);
    const { id } = value(await beginBuild(mara, { quoteId: quote.id, modelId: 'ridgeback' }));
    const { link } = value(await shareBuild(mara, id, { name: '', address: '', until: inDays(9) }, base));
    const token = link.split('/s/')[1] ?? '';
    const view = value(await seeShared(token));
    expect(view).toMatchObject({ of: 'build', mayAnswer: ['question'], hash: null, lines: [] });
    expect(JSON.stringify(view)).not.toMatch(/EUR|31\.789/);
    expect(view.builds.map((build) => build.id)).toEqual([id]);
    expect(value(await sharedScene(token, id))).toHaveProperty('solids');
    expect(codes(await answerShare(token, answer({ answer: 'change' }), from))).toEqual([
      'shared.onlyQuestions',
    ]);
    expect(value(await answerShare(token, answer({}), from)).is).toBe('received');
    expect((await desk(mara)).answered.find(({ buildId }) => buildId === id)).toMatchObject({
      answer: 'question',
    });
  });
});

describe('a yes', () => {
  it('becomes an order by the rules that hold for the engineer, with who, when, from where and to what', async () => {
    const share = await shared();
    const view = await seen(share);
    const made = value(await say(share, yes(view)));
    expect(made.is).toBe('order');
    expect(made.view.mayAnswer).toEqual(['question']);
    expect(value(await seeQuote(mara, share.quote.id)).revision.state).toBe('accepted');
    const [told] = value(await seeQuoteSent(mara, share.quote.id)).answers;
    expect(told).toMatchObject({
      answer: 'accepted',
      name: 'Ana Kestrel',
      from: from.address,
      document: view.hash,
      waits: [],
    });
    expect(told?.order?.number).toMatch(/^O-/);
    const entry = await connected().records.audit.findOne({
      where: { action: 'share.accepted', subject: share.quote.number },
      raw: true,
    });
    expect(entry?.details).toMatchObject({ name: 'Ana Kestrel', from: from.address, document: view.hash });
    // Both are told by mail.
    await workAll();
    const confirmed = await connected().records.mails.findOne({
      where: { quoteId: share.quote.id },
      raw: true,
    });
    expect(confirmed?.recipients.map(({ address }) => address)).toEqual(['ana@kestrel.example', mara.email]);
    expect(confirmed?.words).toContain(view.hash);
  });

  it('is one, however often and from however many windows it is said at the same moment', async () => {
    const share = await shared();
    const input = yes(await seen(share));
    const results = await Promise.all(Array.from({ length: 8 }, () => say(share, input)));
    expect(results.filter(({ ok }) => ok)).toHaveLength(1);
    expect(new Set(results.flatMap(codes))).toEqual(new Set(['shared.accepted']));
    expect(await connected().records.orders.count({ where: { quoteId: share.quote.id } })).toBe(1);
  });

  it('is to the document that was shown, and to no other', async () => {
    const share = await shared();
    const input = { ...yes(await seen(share)), document: 'f'.repeat(64) };
    expect(codes(await say(share, input))).toEqual(['shared.otherDocument']);
    await expect(answerInput.validate({ ...input, agreed: false })).rejects.toThrow('shared.notAgreed');
  });

  it('to an older revision waits on the Desk, and the engineer’s new revision stands', async () => {
    const share = await shared();
    const input = yes(await seen(share));
    const revised = value(await reviseQuote(mara, share.quote.id, { version: share.quote.version }));
    expect(value(await seeShared(share.token))).toMatchObject({ newer: true, mayAnswer: ['question'] });
    const kept = value(await say(share, input));
    expect(kept.is).toBe('received');
    const after = value(await seeQuote(mara, share.quote.id));
    expect([after.revision.state, after.version]).toEqual(['draft', revised.version]);
    expect((await desk(mara)).answered.find(({ quoteId }) => quoteId === share.quote.id)).toMatchObject({
      answer: 'accepted',
      waits: true,
    });
    const [told] = value(await seeQuoteSent(mara, share.quote.id)).answers;
    expect(told?.waits).toEqual([{ code: 'shared.waits.newer' }]);
  });

  it('while the engineer begins a revision ends in an order or in a yes that waits, never in both', async () => {
    for (let round = 0; round < 4; round++) {
      const share = await shared();
      const input = yes(await seen(share));
      const [said, revised] = await Promise.all([
        say(share, input),
        reviseQuote(mara, share.quote.id, { version: share.quote.version }),
      ]);
      const order = await connected().records.orders.findOne({
        where: { quoteId: share.quote.id },
        raw: true,
      });
      expect(value(said).is === 'order').toBe(order !== null);
      expect(revised.ok).toBe(order === null);
    }
  });

  it('to a quote that had run out, or of whom may make no orders, waits; somebody who may makes the order', async () => {
    const late = await shared();
    const input = yes(await seen(late));
    await connected().sequelize.query('alter table quote_revisions disable trigger all');
    await connected().records.revisions.update(
      { validUntil: inDays(-1) },
      { where: { quoteId: late.quote.id } },
    );
    await connected().sequelize.query('alter table quote_revisions enable trigger all');
    expect((await seen(late)).mayAnswer).toEqual(['question', 'change']);
    expect(value(await say(late, input)).is).toBe('received');
    const [waiting] = value(await seeQuoteSent(mara, late.quote.id)).answers;
    expect(waiting?.waits.map(({ code }) => code)).toEqual(['shared.waits.expired']);
    // The rules hold for the person too.
    expect(codes(await orderAnswer(mara, waiting?.id ?? ''))).toEqual(['revision.is.expired']);

    const owned = await connected().records.customers.findOne({
      where: { dealerId: rhona.dealerId },
      raw: true,
    });
    const dealers = await shared(rhona, owned?.number);
    expect(value(await say(dealers, yes(await seen(dealers)))).is).toBe('received');
    const [asked] = value(await seeQuoteSent(rhona, dealers.quote.id)).answers;
    expect(asked?.waits.map(({ code }) => code)).toEqual(['shared.waits.orderer']);
    expect(codes(await orderAnswer(rhona, asked?.id ?? ''))).toEqual(['refused.permission']);
    expect((await desk(rhona)).answered.map(({ quoteId }) => quoteId)).toContain(dealers.quote.id);
  });
});

describe('other answers', () => {
  it('are kept as they were said, put aside with a reply, which the customer reads behind the link', async () => {
    const share = await shared();
    const line = share.quote.lines[1]?.id ?? null;
    const words = '<img src=x onerror=alert(1)> could it be "longer"?\n=1+1';
    value(await say(share, answer({ answer: 'change', words, line })));
    value(await say(share, answer({ answer: 'declined', words: '', reason: 'price' })));
    const foreign = (await shared()).quote.lines[0]?.id ?? null;
    expect(codes(await say(share, answer({ answer: 'change', line: foreign })))).toEqual(['shared.noLine']);
    const [no, wish] = value(await seeQuoteSent(mara, share.quote.id)).answers;
    expect(no).toMatchObject({ answer: 'declined', reason: 'price', order: null });
    expect(wish).toMatchObject({ answer: 'change', words, line: { position: 2 } });
    expect(codes(await replyTo(rhona, wish?.id ?? '', 'No'))).toEqual(['answer.missing']);
    value(await replyTo(mara, wish?.id ?? '', 'Yes: a new revision comes today.'));
    expect((await seen(share)).answers[0]).toMatchObject({
      words,
      reply: 'Yes: a new revision comes today.',
    });
    await workAll();
    const mail = await connected().records.mails.findOne({ where: { quoteId: share.quote.id }, raw: true });
    expect(mail).toMatchObject({ state: 'sent' });
    expect(mail?.words).toContain('a new revision comes today');
    expect((await desk(mara)).answered.filter(({ quoteId }) => quoteId === share.quote.id)).toHaveLength(1);
  });

  it('are so many in an hour at most', async () => {
    const share = await shared();
    for (let at = 0; at < 20; at++) value(await say(share, answer({})));
    const refused = await say(share, answer({}));
    expect(refused).toMatchObject({ ok: false, status: 'tooMany', failures: [{ retryAfter: 600 }] });
  });

  it('are heard within a second by whoever’s quote it is, on another connection, and by nobody else', async () => {
    const share = await shared();
    const words: (Word | string)[] = [];
    const others: (Word | string)[] = [];
    const stop = [hear(mara.id, (word) => words.push(word)), hear(rhona.id, (word) => others.push(word))];
    // The line is there once a first word came by it.
    for (let tries = 0; words.length === 0 && tries < 50; tries++) {
      value(await say(share, answer({ words: `Question ${String(tries)}` })));
      await new Promise((resolve) => setTimeout(resolve, 40));
      if (tries === 12) break;
    }
    words.length = 0;
    const at = performance.now();
    value(await say(share, answer({ answer: 'change', words: 'Longer' })));
    while (words.length === 0 && performance.now() - at < 5_000)
      await new Promise((resolve) => setTimeout(resolve, 5));
    expect(words).toContainEqual({ kind: 'answer', quote: share.quote.id });
    expect(others).toEqual([]);
    for (const each of stop) each();
    // As many windows as somebody looks at, and no flood.
    const lines: (() => void)[] = [];
    while (mayHear(joss.id) && lines.length < 100) lines.push(hear(joss.id, () => undefined));
    expect(lines).toHaveLength(20);
    for (const each of lines) each();
    expect(mayHear(joss.id)).toBe(true);
  });
});
