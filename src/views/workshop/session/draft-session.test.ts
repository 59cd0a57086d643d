/** The session of a draft under late answers, refusals, and others who edit the same draft. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../../scripts/demo-documents';
import type { ModelDocument } from '../../../core/model';
import { edited, touch, type Edit } from '../../../core/modelling';
import type { DraftView } from '../../../contract';
import { DraftSession } from './draft-session';

const document = demoDocument('tarn');
const name = (language: 'en' | 'de', value: string): Edit => ({
  do: 'set',
  at: [],
  name: `name.${language}`,
  value,
});
const figure = (id: string): Edit => ({
  do: 'add',
  to: ['calculations'],
  part: { id, name: { en: id, de: id }, type: 'number', formula: '1' },
});

/** A draft as the server keeps it, with what others do to it. */
class Server {
  document: ModelDocument = document;
  version = 1;
  readonly log: { version: number; edit: Edit; by: string }[] = [];

  do(edit: Edit, by: string): boolean {
    const result = edited(this.document, edit);
    if (!result.ok) return false;
    this.document = result.document;
    this.version += 1;
    this.log.push({ version: this.version, edit, by });
    return true;
  }

  answer(version: number, edit: Edit) {
    const since = this.log.filter((each) => each.version > version);
    if (since.some((each) => touch(each.edit, edit)) || !this.do(edit, 'me'))
      return { ok: false as const, status: 409, failures: [{ code: 'draft.cameBetween', message: 'no' }] };
    const between = since.map((each) => ({ ...each, number: each.version, at: '', undone: false }));
    return { ok: true as const, value: { version: this.version, between, canUndo: true, canRedo: false } };
  }
}

/** Surroundings of which nothing more is asked in a test. */
const silent = {
  rest: () => Promise.resolve(),
  test: () => Promise.resolve([]),
  look: () => Promise.resolve(null),
  table: () => Promise.resolve(null),
  why: () => Promise.resolve(null),
  example: () => Promise.resolve(null),
};

function sessionOn(server: Server, later: <T>(what: T) => Promise<T>) {
  const view = () => ({ document: server.document, version: server.version, canUndo: true, canRedo: false });
  return new DraftSession(
    { document: server.document, version: server.version, canUndo: false, canRedo: false },
    {
      send: async (version, edit) => {
        await later(null);
        return later(server.answer(version, edit));
      },
      step: () => Promise.reject(new Error('not asked for')),
      pause: () => Promise.resolve(),
      load: async () => later({ ok: true as const, value: view() as DraftView }),
      attempt: async () => later({ problems: [] }),
      ...silent,
      rest: () => later(undefined),
    },
  );
}

describe('a draft that several edit', () => {
  it('ends with what is stored, nothing lost that was not refused, whatever comes when', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.tuple(fc.boolean(), fc.integer({ min: 0, max: 5 })), { minLength: 1, maxLength: 8 }),
        async (scheduler, steps) => {
          const server = new Server();
          const session = sessionOn(server, (what) => scheduler.schedule(Promise.resolve(what)));
          const own: string[] = [];
          for (const [index, [mine, what]] of steps.entries()) {
            const edit =
              what < 2
                ? name(what === 0 ? 'en' : 'de', `${mine ? 'mine' : 'theirs'} ${String(index)}`)
                : figure(`${mine ? 'mine' : 'theirs'}${String(index)}`);
            if (mine) {
              session.edit(edit, what < 2 && index % 3 === 0 ? 'typed' : undefined);
              if (what >= 2) own.push(`mine${String(index)}`);
            } else server.do(edit, 'somebody');
            if (what % 2 === 0 && scheduler.count() > 0) await scheduler.waitNext(1);
          }
          await scheduler.waitFor(session.settled());
          const stand = session.seen();
          if (stand.saving === 'saving') throw new Error('still saving');
          // What is shown is what is stored, but for what others did after the last answer.
          expect(server.document.calculations.map(({ id }) => id)).toEqual(expect.arrayContaining(own));
          await scheduler.waitFor(session.refresh());
          expect(session.seen().document).toEqual(server.document);
          expect(session.seen().version).toBe(server.version);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('stores what is typed key by key as one edit, and what comes beside it as another', async () => {
    const server = new Server();
    const session = sessionOn(server, (what) => Promise.resolve(what));
    for (const text of ['R', 'Ra', 'Ram', 'Ramp']) session.edit(name('en', text), 'name');
    session.edit(figure('beside'));
    session.edit(name('en', 'Ramps'), 'name');
    await session.settled();
    expect(server.log.map(({ edit }) => edit)).toEqual([
      { do: 'several', edits: [name('en', 'Ramp')] },
      figure('beside'),
      name('en', 'Ramps'),
    ]);
    expect(session.seen().document).toEqual(server.document);
  });

  it('says who did something in between, and what was refused', async () => {
    const server = new Server();
    const session = sessionOn(server, (what) => Promise.resolve(what));
    server.do(name('de', 'Andere'), 'Joss');
    expect(session.edit(name('en', 'Mine'))).toBeNull();
    await session.settled();
    expect(session.seen()).toMatchObject({ others: ['Joss'], saving: 'saved' });
    expect(session.seen().document.name).toEqual({ en: 'Mine', de: 'Andere' });
    server.do(name('en', 'Theirs'), 'Joss');
    session.edit(name('en', 'Again'));
    await session.settled();
    expect(session.seen().refusals.map(({ code }) => code)).toEqual(['draft.cameBetween']);
    expect(session.seen().document.name['en']).toBe('Theirs');
    expect(session.edit({ do: 'remove', at: ['rules', 'nobody'] })?.code).toBe('edit.missing');
  });

  it('keeps what could not be sent, and sends it once it can be', async () => {
    const server = new Server();
    let tries = 0;
    const session = new DraftSession(
      { document, version: 1, canUndo: false, canRedo: false },
      {
        send: (version, edit) => {
          tries += 1;
          return Promise.resolve(
            tries < 3 ? { ok: false, status: 0, failures: [] } : server.answer(version, edit),
          );
        },
        step: () => new Promise(() => undefined),
        pause: () => Promise.resolve(),
        load: () => Promise.reject(new Error('not asked for')),
        attempt: () => Promise.resolve({ problems: [] }),
        ...silent,
      },
    );
    session.edit(name('en', 'Kept'));
    await session.settled();
    expect([tries, server.document.name['en'], session.seen().saving]).toEqual([3, 'Kept', 'saved']);
  });

  it('shows the last try alone, and what compiled last while nothing does', async () => {
    const answers: ((tried: { problems: []; seen?: never }) => void)[] = [];
    const session = new DraftSession(
      { document, version: 1, canUndo: false, canRedo: false },
      {
        send: () => new Promise(() => undefined),
        step: () => new Promise(() => undefined),
        pause: () => Promise.resolve(),
        load: () => new Promise(() => undefined),
        attempt: () => new Promise((answer) => answers.push(answer)),
        ...silent,
      },
    );
    const [first, second] = [session.attempt(), session.attempt()];
    answers[1]?.({ problems: [] });
    await second;
    expect(session.seen()).toMatchObject({ trying: false, tried: { problems: [] } });
    answers[0]?.({ problems: [{ path: 'late', code: 'model.shape', params: {} }] as never });
    await first;
    expect(session.seen().tried?.problems).toEqual([]);
  });
});
