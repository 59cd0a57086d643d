/** The session of a document under random schedules: what is seen last is what is kept last, and its pages are shown. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PaperView } from '../../../contract';
import { plainComposition, type Composition } from '../../../core/paper';
import type { Answer } from '../../api';
import { PaperSession, type PaperStand, type PaperSurroundings } from './paper-session';

const composition = plainComposition({ language: 'en', paper: 'A4' });
const viewAt = (version: number, now: Composition = composition): PaperView => ({
  quote: { id: 'q', number: 'Q-1', title: '', revision: 1, currency: 'GBP' },
  customer: 'Callowhill',
  version,
  changedBy: 'Joss Adeyemi',
  mayEdit: true,
  composition: now,
  usual: composition,
  templates: [],
  texts: [],
  views: [],
  proposed: [],
  warnings: [],
});
const coloured = (colour: string) => (now: Composition) => ({ ...now, colour });
const written = (now: Composition): Uint8Array => new TextEncoder().encode(now.colour);

/** A server that keeps what comes against the version it has. */
class Server {
  version = 0;
  kept = composition;
  sent = 0;
  readonly take = (version: number, now: Composition): Answer<PaperView> => {
    this.sent += 1;
    if (version !== this.version) return { ok: false, status: 409, failures: [] };
    this.version += 1;
    this.kept = now;
    return { ok: true, value: viewAt(this.version, now) };
  };
}

const around = (server: Server, more: Partial<PaperSurroundings> = {}): PaperSurroundings => ({
  keep: (version, now) => Promise.resolve(server.take(version, now)),
  pages: (now) => Promise.resolve({ ok: true, value: written(now) }),
  load: () => Promise.resolve({ ok: true, value: viewAt(server.version, server.kept) }),
  rest: () => Promise.resolve(),
  pause: () => Promise.resolve(),
  ...more,
});
const settled = async (): Promise<void> => {
  for (let turn = 0; turn < 60; turn++) await Promise.resolve();
};
const shown = ({ pages }: Pick<PaperStand, 'pages'>): string =>
  pages ? new TextDecoder().decode(pages.bytes) : '';

describe('a document while it is composed', () => {
  it('ends kept and shown as it is, whatever comes late', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.constantFrom('change', 'undo', 'redo', 'off', 'move'), { minLength: 1, maxLength: 12 }),
        async (scheduler, acts) => {
          const server = new Server();
          const session = new PaperSession(
            viewAt(0),
            around(server, {
              keep: scheduler.scheduleFunction((version: number, now: Composition) =>
                Promise.resolve(server.take(version, now)),
              ),
              pages: scheduler.scheduleFunction((now: Composition) =>
                Promise.resolve({ ok: true as const, value: written(now) }),
              ),
              rest: scheduler.scheduleFunction(() => Promise.resolve()),
            }),
          );
          session.open();
          for (const [at, act] of acts.entries()) {
            if (act === 'change') session.change(coloured(`#00000${String(at % 10)}`), 'lines');
            if (act === 'undo') session.undo();
            if (act === 'redo') session.redo();
            if (act === 'off') session.block('terms', { on: at % 2 === 0 });
            if (act === 'move') session.move('closing', at);
            if (at % 3 === 0 && scheduler.count() > 0) await scheduler.waitNext(1);
          }
          await scheduler.waitIdle();
          const stand = session.seen();
          expect(stand.saving).toBe('saved');
          expect(server.kept).toEqual(stand.composition);
          expect(shown(stand)).toBe(stand.composition.colour);
          expect(stand.view.version).toBe(server.version);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('takes back and makes again, letters typed in one text as one step', async () => {
    const server = new Server();
    const session = new PaperSession(viewAt(0), around(server));
    session.block('closing', { own: [] }, 'text closing');
    session.block('closing', { own: [{ is: 'paragraph', spans: [{ text: 'a' }] }] }, 'text closing');
    session.block('terms', { on: false });
    session.undo();
    expect(session.seen().composition.blocks.find(({ key }) => key === 'terms')?.on).toBe(true);
    session.undo();
    expect([session.seen().composition, session.seen().canUndo]).toEqual([composition, false]);
    session.redo();
    session.redo();
    expect(session.seen().canRedo).toBe(false);
    await settled();
    expect(server.kept.blocks.find(({ key }) => key === 'terms')?.on).toBe(false);
  });

  it('keeps nothing over what somebody else chose until it is said whose choice stands', async () => {
    for (const whose of ['own', 'other'] as const) {
      const server = new Server();
      const session = new PaperSession(viewAt(0), around(server));
      server.take(0, coloured('#ff0000')(composition));
      session.change(coloured('#00ff00'), null);
      await settled();
      expect([session.seen().saving, server.kept.colour]).toEqual(['other', '#ff0000']);
      session.change(coloured('#0000ff'), null);
      await settled();
      expect(server.kept.colour).toBe('#ff0000');
      if (whose === 'own') session.keepOwn();
      else session.takeOther();
      await settled();
      const ends = whose === 'own' ? '#0000ff' : '#ff0000';
      expect([server.kept.colour, session.seen().composition.colour, session.seen().saving]).toEqual([
        ends,
        ends,
        'saved',
      ]);
    }
  });

  it('sends again what was away, and says what was refused', async () => {
    const server = new Server();
    let [away, bad] = [2, false];
    const session = new PaperSession(
      viewAt(0),
      around(server, {
        keep: (version, now) => {
          if (away-- > 0) return Promise.resolve({ ok: false, status: 0, failures: [] });
          if (bad)
            return Promise.resolve({ ok: false, status: 422, failures: [{ code: 'x', message: 'No.' }] });
          return Promise.resolve(server.take(version, now));
        },
      }),
    );
    session.change(coloured('#111111'), null);
    await settled();
    expect([server.kept.colour, session.seen().saving]).toEqual(['#111111', 'saved']);
    bad = true;
    session.change(coloured('#222222'), null);
    await settled();
    expect([session.seen().saving, session.seen().refusals[0]?.message]).toEqual(['refused', 'No.']);
    bad = false;
    session.change(coloured('#333333'), null);
    await settled();
    expect([server.kept.colour, session.seen().saving]).toEqual(['#333333', 'saved']);
  });

  it('is left as it is where it is only looked at', () => {
    const session = new PaperSession({ ...viewAt(3), mayEdit: false }, around(new Server()));
    session.change(coloured('#123123'), null);
    session.move('terms', 0);
    expect(session.seen().composition).toEqual(composition);
  });

  it('begins anew from a template and keeps what goes along', () => {
    const own = { ...composition, annexes: [{ file: 'f', name: 'A', kind: 'pdf' as const }] };
    const session = new PaperSession(viewAt(0, own), around(new Server()));
    const {
      language: _language,
      paper: _paper,
      annexes: _annexes,
      template: _template,
      ...look
    } = composition;
    session.take({
      code: 'tender',
      version: 1,
      content: {
        ...look,
        colour: '#abcdef',
        name: { en: 'T' },
        market: null,
        class: null,
        dealers: 'none',
        language: 'de',
        paper: null,
        mark: null,
      },
    });
    expect(session.seen().composition).toMatchObject({
      template: 'tender',
      colour: '#abcdef',
      language: 'de',
      paper: 'A4',
      annexes: own.annexes,
    });
  });
});
