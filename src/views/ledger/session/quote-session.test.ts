/**
 * The session of a quote under whatever the network does: answers that come late or not at all, a server that is
 * busy, somebody else who edits, a sign-in that runs out. Schedules are random; the server is a small model.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { QuoteChanges, QuoteView } from '../../../contract';
import type { Edit } from './edit';
import { QuoteSession } from './quote-session';
import type { Line, Raw } from './sender';

/** What becomes of a request on its way. */
type Fate =
  | 'well'
  /** It does not get there. */
  | 'lost'
  /** It is done, and the answer is lost. */
  | 'answerLost'
  | 'busy'
  | 'signedOut'
  /** The person's other window edits before it arrives. */
  | 'otherWindow'
  /** A colleague does. */
  | 'colleague'
  /** The server answers with everything, as it does where it does not know the view. */
  | 'whole';

const fates: readonly Fate[] = [
  'well',
  'well',
  'well',
  'lost',
  'answerLost',
  'busy',
  'signedOut',
  'otherWindow',
  'colleague',
  'whole',
];

/** A quote as the session needs it: its version, its title, and lines by their item. */
const viewOf = (version: number, title: string, skus: readonly string[]): QuoteView =>
  ({
    id: 'q',
    version,
    stand: `s${String(version)}`,
    title,
    lines: skus.map((sku, at) => ({ id: `${sku}-${String(at)}`, sku })),
    revisions: [],
    may: {},
    customer: {},
    whole: { typed: null },
  }) as unknown as QuoteView;

/** The server as a model: what it did, and once for each key. */
class Server {
  version = 1;
  title = 'first';
  skus: string[] = [];
  /** By whom each version was made. */
  private by: 'me' | 'colleague' = 'me';
  private readonly done = new Map<string, Raw>();
  /** Titles and items that were asked for and taken, in their order. */
  readonly taken: string[] = [];

  view = (): QuoteView => viewOf(this.version, this.title, this.skus);

  edited(by: 'me' | 'colleague'): void {
    this.version += 1;
    this.by = by;
  }

  answer(edit: Edit, version: number, headers: Record<string, string>, whole: boolean): Raw {
    const key = headers['idempotency-key'];
    const known = key === undefined ? undefined : this.done.get(key);
    if (known) return known;
    if (version !== this.version) {
      const code = this.by === 'me' ? 'quote.staleOwn' : 'quote.stale';
      return { ok: false, status: 409, failures: [{ code, message: 'Somebody changed it.' }] };
    }
    const before = this.view();
    const { title, sku } = edit.input as { title?: string; sku?: string };
    if (title !== undefined) this.title = title;
    if (sku !== undefined) this.skus.push(sku);
    this.taken.push(title ?? sku ?? '');
    this.edited('me');
    const after = this.view();
    const changes: QuoteChanges = {
      had: headers['quote-stand'] ?? '',
      fields: { title: after.title, version: after.version, stand: after.stand },
      gone: [],
      lines: after.lines.filter(({ id }) => !before.lines.some((line) => line.id === id)),
      order: after.lines.map(({ id }) => id),
    };
    const answer: Raw = {
      ok: true,
      value: whole || headers['quote-stand'] !== before.stand ? after : changes,
    };
    if (key !== undefined) this.done.set(key, answer);
    return answer;
  }
}

const away: Raw = { ok: false, status: 0, failures: [] };

/** The network between them: each request has its fate, and takes as long as the schedule says. */
function lineTo(server: Server, ways: readonly Fate[], schedule: fc.Scheduler): Line {
  let [count, keys] = [0, 0];
  const later = <T>(value: () => T): Promise<T> => schedule.schedule(Promise.resolve()).then(value);
  return {
    send: (edit, version, headers) => {
      // Whatever happens first, in the end it gets through.
      const fate = ways[count++] ?? 'well';
      return later((): Raw => {
        if (fate === 'lost') return away;
        if (fate === 'busy') return { ok: false, status: 503, failures: [] };
        if (fate === 'signedOut') return { ok: false, status: 401, failures: [] };
        if (fate === 'otherWindow') server.edited('me');
        if (fate === 'colleague') server.edited('colleague');
        const answer = server.answer(edit, version, headers, fate === 'whole');
        return fate === 'answerLost' ? away : answer;
      });
    },
    read: () => later(() => ({ ok: true, value: server.view() })),
    pause: () => later(() => undefined),
    newKey: () => `key-${String(++keys)}`,
  };
}

const acts = fc.array(
  fc.oneof(
    fc.record({ is: fc.constant('title' as const), text: fc.stringMatching(/^[a-z]{1,4}$/) }),
    fc.record({ is: fc.constant('add' as const), text: fc.stringMatching(/^[A-Z]{1,4}$/) }),
    fc.record({ is: fc.constant('refresh' as const), text: fc.constant('') }),
  ),
  { maxLength: 8 },
);

describe('whatever the network does, an edit', () => {
  it('is done once, in its order, and the page shows in the end what the server has', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        acts,
        fc.array(fc.constantFrom(...fates), { maxLength: 12 }),
        async (schedule, done, ways) => {
          const server = new Server();
          const session = new QuoteSession(server.view(), lineTo(server, ways, schedule));
          const heard: number[] = [];
          session.subscribe(() => heard.push(session.seen().pending));
          const asked = done.map(async ({ is, text }) => {
            if (is === 'refresh') return session.refresh().then(() => null);
            const answer =
              is === 'title'
                ? await session.change('PATCH /quotes/{id}', { input: { title: text } })
                : await session.change('POST /quotes/{id}/lines', { input: { sku: text, quantity: 1 } });
            return answer.ok ? text : null;
          });
          const edits = done.filter(({ is }) => is !== 'refresh').length;
          expect(session.seen().pending).toBe(edits);
          await schedule.waitFor(Promise.all(asked));
          const accepted = (await Promise.all(asked)).filter((text) => text !== null);
          // What was told to be taken was taken, once and in its order; what was refused is not there.
          // An edit whose answer was lost and that then met a colleague is told as refused, though it was taken.
          const lost = ways.includes('answerLost');
          if (!lost) expect(server.taken).toEqual(accepted);
          const added = done.flatMap(({ is, text }) => (is === 'add' ? [text] : []));
          expect(server.skus.length).toBeLessThanOrEqual(added.length);
          expect(isSubsequence(server.skus, added)).toBe(true);
          expect(session.seen()).toMatchObject({ pending: 0, trouble: null });
          await schedule.waitFor(session.refresh());
          const { view } = session.seen();
          expect([view.version, view.title, view.lines.map(({ sku }) => sku)]).toEqual([
            server.version,
            server.title,
            server.skus,
          ]);
          if (edits > 0) expect(heard.at(-1)).toBe(0);
        },
      ),
      { numRuns: 400 },
    );
  });

  it('says why it is not stored while it is not, and no longer than that', async () => {
    for (const [fate, trouble] of [
      ['lost', 'away'],
      ['busy', 'away'],
      ['signedOut', 'signedOut'],
    ] as const) {
      const server = new Server();
      let on: () => void = () => undefined;
      const told: unknown[] = [];
      const sent: Fate[] = [fate, 'well'];
      const session = new QuoteSession(server.view(), {
        send: (edit, version, headers) => {
          const now = sent.shift();
          if (now === 'well') return Promise.resolve(server.answer(edit, version, headers, false));
          return Promise.resolve({
            ok: false,
            status: now === 'lost' ? 0 : now === 'busy' ? 503 : 401,
            failures: [],
          });
        },
        read: () => Promise.resolve({ ok: true, value: server.view() }),
        pause: () => new Promise((done) => (on = done)),
        newKey: () => 'key',
      });
      session.subscribe(() => told.push(session.seen().trouble));
      const asked = session.change('PATCH /quotes/{id}', { input: { title: 'x' } });
      await expect.poll(() => session.seen().trouble).toBe(trouble);
      expect(session.seen().pending).toBe(1);
      on();
      expect((await asked).ok).toBe(true);
      expect(session.seen()).toMatchObject({ pending: 0, trouble: null });
      expect(told).toContain(trouble);
    }
  });

  it('leaves what it did not touch the same object, so that nothing else is drawn again', async () => {
    const server = new Server();
    server.skus.push('A', 'B');
    const session = new QuoteSession(server.view(), {
      send: (edit, version, headers) => Promise.resolve(server.answer(edit, version, headers, false)),
      read: () => Promise.resolve({ ok: true, value: server.view() }),
      pause: () => Promise.resolve(),
      newKey: () => 'key',
    });
    const before = session.seen().view.lines;
    await session.change('POST /quotes/{id}/lines', { input: { sku: 'C', quantity: 1 } });
    const after = session.seen().view.lines;
    expect(after.map(({ sku }) => sku)).toEqual(['A', 'B', 'C']);
    expect([after[0], after[1]]).toEqual([before[0], before[1]]);
    expect(after[0] === before[0] && after[1] === before[1]).toBe(true);
    expect(session.seen()).toBe(session.seen());
  });
});

/** Whether the one is the other with some left out. */
function isSubsequence(some: readonly string[], all: readonly string[]): boolean {
  let at = 0;
  for (const each of all) if (some[at] === each) at += 1;
  return at === some.length;
}
