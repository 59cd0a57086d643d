/** What is made of a build reaches the server, in whatever way and order its answers come. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BuildContent } from '../../../core/builds';
import { Saver, type BuildLine, type Saved } from './saver';

type Fate = 'well' | 'lost' | 'answerLost' | 'busy' | 'otherPerson';

const content = (on: string): BuildContent => ({ decisions: [{ on, value: true }], passed: [], special: [] });

/** The server as a model: one build, its version and what is decided on it. */
class Server {
  version = 1;
  on = 'first';
  /** Decided by this page, in the order in which it arrived. */
  readonly stored: string[] = [];
}

function lineTo(server: Server, fates: readonly Fate[], schedule: fc.Scheduler): BuildLine {
  let count = 0;
  const later = <T>(value: () => T): Promise<T> => schedule.schedule(Promise.resolve()).then(value);
  return {
    put: ({ version, decisions }) => {
      const fate = fates[count++] ?? 'well';
      return later(() => {
        if (fate === 'lost') return { ok: false, status: 0, failures: [] };
        if (fate === 'busy') return { ok: false, status: 503, failures: [] };
        if (fate === 'otherPerson') {
          server.version += 1;
          server.on = 'theirs';
        }
        if (Number(version) !== server.version)
          return {
            ok: false,
            status: 409,
            failures: [{ code: 'build.stale', message: 'Changed elsewhere.' }],
          };
        server.version += 1;
        server.on = decisions[0]?.on ?? '';
        server.stored.push(server.on);
        if (fate === 'answerLost') return { ok: false, status: 0, failures: [] };
        return { ok: true, value: { version: server.version, partNumber: server.on, complete: true } };
      });
    },
    read: () =>
      later(() => ({
        ok: true,
        value: { build: { id: 'b', version: server.version, letter: 'A' }, content: content(server.on) },
      })),
    pause: () => later(() => undefined),
  };
}

const fate = fc.constantFrom<Fate>('well', 'well', 'lost', 'answerLost', 'busy', 'otherPerson');

describe('what is made of a build', () => {
  it('is stored in its order, the newest last; what somebody else made is never written over', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.integer({ min: 1, max: 6 }),
        fc.array(fate, { maxLength: 8 }),
        async (schedule, steps, fates) => {
          const server = new Server();
          const made = Array.from({ length: steps }, (_, at) => `step ${String(at)}`);
          const told: Saved[] = [];
          const saver = new Saver(lineTo(server, fates, schedule), 1, (found) =>
            ['first', ...made].includes(found.decisions[0]?.on ?? ''),
          );
          // Between two decisions the network has its turns.
          for (const on of made) {
            saver.send(content(on), (saved) => told.push(saved));
            await schedule.waitFor(schedule.schedule(Promise.resolve()));
          }
          const kept = await schedule.waitFor(saver.idle());
          const times = server.stored.map((on) => made.indexOf(on));
          expect(times).toEqual([...times].sort((a, b) => a - b));
          const theirs = fates.includes('otherPerson');
          if (!theirs) expect([kept, server.on, told.at(-1)?.state]).toEqual([true, made.at(-1), 'saved']);
          // Refused, the page says so, and theirs stands.
          if (!kept) expect([theirs, told.at(-1)?.state]).toEqual([true, 'refused']);
          if (kept) expect(server.on).toBe(made.at(-1));
        },
      ),
      { numRuns: 400 },
    );
  });
});
