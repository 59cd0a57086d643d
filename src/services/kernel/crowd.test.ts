/**
 * What holds under a crowd: whatever is done to quotes, what lists keep of them is what pricing says, answers
 * tell what changed, work does not grow with what is not touched, and what may come twice is done once.
 */
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changesBetween, withChanges, type QuoteView } from '../../contract';
import { shownState } from '../../core/quotes';
import { seeModels } from '../workshop/drafts';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { saveContent } from '../builds/save';
import { findCustomers } from '../customers/customers';
import { desk } from '../desk/desk';
import { done, fail, type Result } from './failure';
import { changeLine, changeLines, placeLines, removeLines } from '../quotes/lines/lines';
import { acceptQuote, listOrders } from '../orders/orders';
import { addByNumber, addSeveral, copyLine, putOnQuote } from '../quotes/lines/quote-builds';
import { readNumbers } from '../quotes/lines/numbers';
import { refreshAll, wrongFacts } from '../quotes/figures/quote-facts';
import { listQuotes } from '../quotes/quote-list';
import { answerTo } from '../quotes/quote-stands';
import { changeWhole, openQuote, seeQuote } from '../quotes/quotes';
import { duringRequest } from './request';
import { loseQuote, reviseQuote, sendQuote } from '../quotes/history/revisions';
import { alternativeLines } from '../quotes/lines/alternatives';
import { search } from '../desk/search';
import { whoIs } from '../access/sessions';
import { beginSchedule, keepPositions } from '../schedules/schedules';
import { keepJob } from '../shares/keep-job';
import { seeShared } from '../shares/shared';
import { shareQuote } from '../shares/shares';
import { JobWorker } from './jobs/worker';
import { openDemo, personOf } from './testing';
import { step } from '../quotes/history/undo';
import { inTransaction, once } from './unit-of-work';

let mara: Actor;
const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};

async function newQuote(actor: Actor = mara): Promise<QuoteView> {
  const [customer] = await findCustomers(actor, 'callow');
  return value(await openQuote(actor, { customerId: customer?.id ?? '', title: 'crowd' }));
}

async function quoteOf(lines: number): Promise<QuoteView> {
  const quote = await newQuote();
  const items = ['SILL-1212-X', 'SV-COMM', 'YE-KIOSK', 'SV-CALIB', 'BC-IP66'];
  return value(
    await addSeveral(mara, quote.id, {
      version: quote.version,
      rows: Array.from({ length: lines }, (_, at) => ({
        sku: items[at % items.length] as string,
        quantity: 1 + (at % 5),
      })),
    }),
  );
}

beforeAll(async () => {
  await openDemo('crowd');
  mara = await personOf('mara@harrowmoor.example');
});
afterAll(() => connected().close());

/** Something done to a quote, by numbers that say where and how much. */
type Deed = (view: QuoteView, at: number, much: number) => Promise<Result<unknown>>;
const lineAt = ({ lines }: QuoteView, at: number): string =>
  lines[at % Math.max(1, lines.length)]?.id ?? randomUUID();
const deeds: Readonly<Record<string, Deed>> = {
  add: (view, at) =>
    addByNumber(mara, view.id, {
      version: view.version,
      sku: ['YE-KIOSK', 'SV-COMM', 'SV-CALIB', 'SV-FREIGHT'][at % 4] as string,
      quantity: 1 + (at % 9),
    }),
  quantity: (view, at, much) =>
    changeLine(mara, view.id, lineAt(view, at), { version: view.version, quantity: 1 + much }),
  discount: (view, at, much) =>
    changeLine(mara, view.id, lineAt(view, at), {
      version: view.version,
      hand: { by: 'rate', value: String(much % 40) },
    }),
  aside: (view, at, much) =>
    changeLine(mara, view.id, lineAt(view, at), { version: view.version, optional: much % 2 === 0 }),
  lock: (view, at) =>
    changeLines(mara, view.id, {
      version: view.version,
      lines: [lineAt(view, at), lineAt(view, at + 1)],
      locked: at % 2 === 0,
    }),
  whole: (view, at, much) =>
    changeWhole(mara, view.id, {
      version: view.version,
      whole: at % 3 === 0 ? null : { by: 'rate', value: String(much % 30) },
    }),
  move: (view, at) => placeLines(mara, view.id, { version: view.version, lines: [lineAt(view, at)], to: 1 }),
  copy: (view, at) => copyLine(mara, view.id, lineAt(view, at), { version: view.version }),
  remove: (view, at) => removeLines(mara, view.id, { version: view.version, lines: [lineAt(view, at)] }),
  alternatives: (view, at, much) =>
    alternativeLines(mara, view.id, {
      version: view.version,
      lines: [lineAt(view, at), lineAt(view, at + 1)],
      apart: much % 3 === 0,
    }),
  undo: (view) => step(mara, view.id, 'undo', { version: view.version }),
  redo: (view) => step(mara, view.id, 'redo', { version: view.version }),
  send: (view, at) =>
    at % 4 === 0 ? sendQuote(mara, view.id, { version: view.version }) : Promise.resolve(done(null)),
  revise: (view) => reviseQuote(mara, view.id, { version: view.version }),
  lose: (view, at) =>
    at % 7 === 0
      ? loseQuote(mara, view.id, { version: view.version, reason: 'price', note: '' })
      : Promise.resolve(done(null)),
  build: async (view, at) => {
    const made = await beginBuild(mara, { quoteId: view.id, modelId: 'ridgeback' });
    if (!made.ok) return made;
    await saveContent(mara, made.value.id, {
      version: 1,
      decisions: [
        { on: 'vehicle', value: 'articulated' },
        { on: 'length', value: at % 2 === 0 ? 'm12' : 'm18' },
      ],
      passed: [],
      special: [],
    });
    return putOnQuote(mara, made.value.id, { version: view.version, quantity: 1 });
  },
  rebuild: async (view, at) => {
    const buildId = view.lines.find((line) => line.buildId)?.buildId;
    if (!buildId) return done(null);
    const build = await connected().records.builds.findByPk(buildId);
    return saveContent(mara, buildId, {
      version: build?.version ?? 1,
      decisions: [
        { on: 'vehicle', value: at % 3 === 0 ? 'mining' : 'articulated' },
        { on: 'length', value: 'm12' },
      ],
      passed: [],
      special: [],
    });
  },
};

describe('whatever is done to a quote', () => {
  it('lists keep of it what pricing says, and an answer of changes makes the view that a whole answer would be', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom(...Object.keys(deeds)), fc.nat(30), fc.nat(60)), {
          minLength: 4,
          maxLength: 14,
        }),
        async (list) => {
          let before = await quoteOf(4);
          for (const [name, at, much] of list) {
            await (deeds[name] as Deed)(before, at, much);
            const after = value(await seeQuote(mara, before.id));
            const changes = changesBetween(before, after);
            expect(withChanges(structuredClone(before), structuredClone(changes))).toEqual(after);
            before = after;
          }
          const [listed] = (await listQuotes(mara, { find: before.number })).rows;
          expect(listed).toMatchObject({
            net: before.totals.net,
            lines: before.lines.length,
            state: before.revision.shown,
            problems: before.lines.filter((line) => line.problems.length > 0).length,
          });
        },
      ),
      { numRuns: 25 },
    );
    expect(await wrongFacts()).toEqual([]);
  });

  it('the database says as the core how a quote is shown', async () => {
    const quote = await quoteOf(1);
    const set = async (state: string, sendable: boolean, signing: string | null, days: number) => {
      const lost = state === 'lost' ? '{"reason":"price","note":""}' : null;
      await connected().sequelize.query(
        `update quote_revisions set state = $state, lost = $lost, valid_until = current_date + $days::int
         where quote_id = $quote`,
        { bind: { state, lost, days, quote: quote.id } },
      );
      await connected().sequelize.query(
        `update revision_facts set sendable = $sendable, signing = $signing
         where revision_id = (select id from quote_revisions where quote_id = $quote)`,
        { bind: { sendable, signing, quote: quote.id } },
      );
      return (await listQuotes(mara, { find: quote.number })).rows[0];
    };
    const today = new Date().toISOString().slice(0, 10);
    for (const state of ['draft', 'sent', 'lost', 'accepted'] as const)
      for (const sendable of [true, false])
        for (const signing of [null, 'needed', 'asked'] as const)
          for (const days of [-1, 0, 1]) {
            const row = await set(state, sendable, signing, days);
            expect([state, sendable, signing, days, row?.state]).toEqual([
              state,
              sendable,
              signing,
              days,
              shownState(
                {
                  state,
                  validUntil: row?.validUntil ?? '',
                  asked: signing === 'asked',
                  sendable: sendable && signing === null,
                },
                today,
              ),
            ]);
          }
    await set('draft', true, null, 60);
  });

  it('what prices are made from changes, and lists follow: at once what is looked at, the rest behind', async () => {
    const quote = await quoteOf(3);
    const told = async () => (await listQuotes(mara, { find: quote.number })).rows[0]?.net;
    expect(await told()).toBe(quote.totals.net);
    await connected().sequelize.query(
      `update price_entries set entry = jsonb_set(entry, '{price}', '"3000"') where sku = 'SILL-1212-X'`,
    );
    expect(await told()).toBe(value(await seeQuote(mara, quote.id)).totals.net);
    expect(await told()).not.toBe(quote.totals.net);
    await refreshAll();
    expect(await wrongFacts()).toEqual([]);
    // Limits too: what was within them has to be signed now.
    const given = value(
      await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', {
        version: quote.version,
        hand: { by: 'rate', value: '4' },
      }),
    );
    expect((await listQuotes(mara, { find: quote.number })).rows[0]).not.toHaveProperty('signing');
    await connected().sequelize.query(
      `update limits set target = 0, limit_at = 0.01, floor = 0.5 where role = 'engineer' and by = 'discount'`,
    );
    expect((await listQuotes(mara, { find: quote.number })).rows[0]).toMatchObject({
      signing: 'needed',
      state: 'draft',
    });
    expect(given.revision.shown).toBe('ready');
  });
});

/** How many queries something makes, in a request of somebody who is signed in. */
async function queriesOf<T>(work: () => Promise<T>): Promise<[number, T]> {
  const sequelize = connected().sequelize as Sequelize & { options: { logging: (() => void) | false } };
  const [row] = await sequelize.query<{ stamp: string }>('select stamp from reference_stamp', {
    type: QueryTypes.SELECT,
  });
  let count = 0;
  sequelize.options.logging = () => {
    count += 1;
  };
  try {
    const result = await duringRequest(
      { signal: new AbortController().signal, stamp: row?.stamp ?? '' },
      work,
    );
    return [count, result];
  } finally {
    sequelize.options.logging = false;
  }
}

describe('work does not grow with what is not touched', () => {
  it('lists, the Desk and the search make six queries at most', async () => {
    await refreshAll();
    for (const look of [
      () => listQuotes(mara),
      () => listQuotes(mara, { find: 'callow', sort: 'net' }),
      () => listOrders(mara),
      () => desk(mara),
      () => search(mara, 'callow'),
      () => seeModels(),
    ]) {
      const [count] = await queriesOf<unknown>(look);
      // Who asks is one more.
      expect(count + 1).toBeLessThanOrEqual(6);
      expect(count).toBeGreaterThan(0);
    }
  });

  it('an edit of a line makes twelve queries at most, in a quote of ten lines as in one of three hundred, and is answered with what it changed', async () => {
    for (const lines of [10, 300]) {
      let quote = await quoteOf(lines);
      quote = value(
        await changeLine(mara, quote.id, lineAt(quote, 3), { version: quote.version, quantity: 7 }),
      );
      const [count, result] = await queriesOf(() =>
        changeLine(mara, quote.id, lineAt(quote, 3), { version: quote.version, quantity: 8 }),
      );
      expect(count + 1).toBeLessThanOrEqual(12);
      const answer = answerTo(quote.stand, value(result));
      expect(answer).toMatchObject({ had: quote.stand });
      expect((answer as { lines: unknown[] }).lines).toHaveLength(1);
      expect(JSON.stringify(answer).length).toBeLessThan(12_000);
      expect(answerTo('another-1', value(result))).toBe(value(result));
    }
  });

  it('a link that was opened before is opened by three queries', async () => {
    const draft = await quoteOf(2);
    const sent = value(await sendQuote(mara, draft.id, { version: draft.version }));
    const until = new Date(Date.now() + 9 * 86_400_000).toISOString().slice(0, 10);
    const { link } = value(await shareQuote(mara, sent.id, { name: 'Ana', address: '', until }, ''));
    const token = link.split('/s/')[1] ?? '';
    value(await seeShared(token));
    const keeps = await queriesOf(() => seeShared(token));
    // Its quotation is asked for until it is made.
    expect(value(keeps[1]).hash).toBeNull();
    await new JobWorker([keepJob] as never, { pauseAfter: () => 0 }).runNext();
    const [count, again] = await queriesOf(() => seeShared(token));
    expect(value(again).hash).not.toBeNull();
    expect(count).toBe(3);
  });

  it('positions of forty quotes are looked for in as many queries as those of one', async () => {
    const schedule = value(await beginSchedule(mara, { name: 'Of many', site: '' }));
    const counts: number[] = [];
    for (const quotes of [1, 40]) {
      const rows = Array.from({ length: quotes }, (_, at) => ({
        tag: `P ${String(at)}`,
        area: '',
        quantity: '1',
        remark: '',
        of: { is: 'line' as const, quote: randomUUID(), line: randomUUID() },
      }));
      const [count, result] = await queriesOf(() =>
        keepPositions(mara, schedule.id, { version: schedule.version, rows }),
      );
      expect(result.ok || result.failures.map(({ code }) => code)).toEqual(
        rows.map(() => 'schedule.unknown'),
      );
      counts.push(count);
    }
    expect(counts[1]).toBe(counts[0]);
  });

  it('who asks is found by one query', async () => {
    const [count] = await queriesOf(() => whoIs('nobody'));
    expect(count).toBe(1);
  });
});

describe('many at once', () => {
  it('change their quotes, and nobody waits for a connection that another one holds', async () => {
    // Made one after another, so that only the changes have to have a connection in time, however slow the machine is.
    const quotes: QuoteView[] = [];
    while (quotes.length < 24) quotes.push(await quoteOf(2));
    const answers = await Promise.all(
      quotes.map((quote) =>
        changeLine(mara, quote.id, lineAt(quote, 0), { version: quote.version, quantity: 9 }),
      ),
    );
    expect(answers.every(({ ok }) => ok)).toBe(true);
  });

  it('accept one quote: one order, and the others are told so', async () => {
    const quote = await quoteOf(2);
    const answers = await Promise.all(
      Array.from({ length: 20 }, () => acceptQuote(mara, quote.id, quote.version)),
    );
    expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
    expect(
      new Set(answers.flatMap((each) => (each.ok ? [] : each.failures.map(({ code }) => code)))),
    ).toEqual(new Set(['quote.alreadyAccepted']));
    expect(await connected().records.orders.count({ where: { quoteId: quote.id } })).toBe(1);
  });

  it('read a list of ten thousand numbers', async () => {
    const quote = await quoteOf(1);
    const read = value(
      await readNumbers(mara, quote.id, {
        numbers: [...Array.from({ length: 10_000 }, (_, at) => `XX-${String(at)}`), 'YE-KIOSC', 'ye-kiosk'],
      }),
    );
    expect(read).toHaveLength(10_002);
    expect(read[0]).toMatchObject({ is: 'wrong', code: 'line.unknownItem' });
    expect(read[10_000]).toMatchObject({ is: 'wrong', nearest: { number: 'YE-KIOSK' } });
    expect(read[10_001]).toMatchObject({ is: 'item', sku: 'YE-KIOSK' });
  });
});

describe('what may be asked for again', () => {
  it('is done once however many ask at once, and all get the same answer', async () => {
    const quote = await quoteOf(2);
    const accept = () =>
      once({ userId: mara.id, key: `k-${quote.id}`, asked: 'accept' }, () =>
        acceptQuote(mara, quote.id, quote.version),
      );
    const answers = await Promise.all(Array.from({ length: 20 }, accept));
    expect(answers.every(({ ok }) => ok)).toBe(true);
    expect(new Set(answers.map((each) => JSON.stringify(value(each)))).size).toBe(1);
    expect(await connected().records.orders.count({ where: { quoteId: quote.id } })).toBe(1);
  });

  it('under a key that was given to something else is refused, and what was refused may be tried again', async () => {
    const key = randomUUID();
    let tries = 0;
    const ask = (asked: string, result: () => Result<number>) =>
      once({ userId: mara.id, key, asked }, () => {
        tries += 1;
        return Promise.resolve(result());
      });
    expect(await ask('a', () => fail('conflict', { code: 'quote.stale' }))).toMatchObject({
      ok: false,
      failures: [{ code: 'quote.stale' }],
    });
    expect(await ask('a', () => done(7))).toEqual(done(7));
    expect(await ask('a', () => done(8))).toEqual(done(7));
    expect(await ask('b', () => done(9))).toMatchObject({
      ok: false,
      failures: [{ code: 'request.keyReused' }],
    });
    expect(tries).toBe(2);
  });

  it('a unit of work within another is part of it, and goes with it', async () => {
    const number = (await quoteOf(1)).id;
    const gone = await inTransaction(async () => {
      value(await changeWhole(mara, number, { version: 2, title: 'inside' }));
      return fail('invalid', { code: 'quote.empty' });
    });
    expect(gone.ok).toBe(false);
    expect(value(await seeQuote(mara, number)).title).toBe('crowd');
    await expect(
      connected().transaction(() => connected().transaction(() => Promise.resolve(null))),
    ).rejects.toThrow('within another');
  });
});
