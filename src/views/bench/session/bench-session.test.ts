/**
 * The session of a build under random schedules: whatever comes when, what is shown belongs together while it
 * goes on, and in the end it is what was decided last, with all that follows from that.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoDocument, demoModel } from '../../../../scripts/demo-documents';
import { effectsOf, pictureOf, sureOf, type BenchMeans, type BuildContent } from '../../../core/builds';
import { createEngine, usualLimits } from '../../../core/engine';
import { sceneOf } from '../../../core/drawing';
import { outlineOf } from '../../../core/model';
import type { BenchView } from '../../../contract';
import { targetsOf } from '../../../core/engine/testing/brute-force';
import { BenchComputation } from '../../../workers/bench/computation';
import { BenchSession, type BenchStand, type Remote } from './bench-session';
import type { BuildLine } from './saver';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261128) });
const model = demoModel('beacon');
const document = demoDocument('beacon');
const context = { date: '2026-11-28', values: { region: 'eu' } };
const tariff = {
  list: 'EU-26',
  currency: 'EUR',
  decimals: 2,
  prices: Object.fromEntries(
    model.picks.flatMap(({ item }, at) => (item ? [[item, String(10 * at + 7)]] : [])),
  ),
};
const terms = { quantity: 1, day: context.date, agreements: [], promotions: [] };
const engine = createEngine(model, context, usualLimits);
const means: BenchMeans = { engine, tariff, terms, facts: {} };
const nothing: BuildContent = { decisions: [], passed: [], special: [] };
const targets = targetsOf(model).slice(0, 24);

/** What follows from a content, worked out alone and in peace; remembered, as the same ones come again and again. */
const followed = new Map<string, ReturnType<typeof followsFrom>>();
function followsFrom(content: BuildContent) {
  const picture = pictureOf(means, content);
  return {
    picture,
    scene: document.drawing ? sceneOf(model, picture.state.values) : null,
    effects: sureOf(effectsOf(means, content, picture, {}, () => true)),
  };
}
function follows(content: BuildContent) {
  const key = JSON.stringify(content.decisions);
  const known = followed.get(key) ?? followsFrom(content);
  followed.set(key, known);
  return known;
}

const start = follows(nothing);
const view = {
  build: { id: 'b', version: 1, letter: 'A' },
  content: nothing,
  asked: [],
  variants: [],
  modelVersion: { number: 1, newest: 1 },
  document,
  outline: outlineOf(model),
  context,
  tariff,
  terms,
  facts: {},
  itemNames: {},
  customer: null,
  mayChange: true,
  delivery: { calendar: { workdays: [1, 2, 3, 4, 5], closed: [] }, made: 'GB', goes: 'GB' },
  today: context.date,
  person: 'Mara Lindqvist',
  may: { special: true, making: true },
  preferences: { foldBarred: false, units: 'metric' },
  picture: start.picture,
  differences: start.effects,
  scene: start.scene,
  leadDays: null,
} satisfies BenchView;

type Later = <T>(value: () => T | Promise<T>) => Promise<T>;
const laterIn =
  (schedule: fc.Scheduler): Later =>
  (value) =>
    schedule.schedule(Promise.resolve()).then(value);

/** A computation in another place: it takes questions in their order, and its answers come some time later. */
function remoteOf(later: Later, open: Set<unknown>): Remote {
  const computation = new BenchComputation();
  let line: Promise<unknown> = Promise.resolve();
  return new Proxy({} as Remote, {
    get:
      (_, name: keyof BenchComputation) =>
      (...args: unknown[]) => {
        if (name === 'rehearse') return Promise.resolve();
        const ask = computation[name].bind(computation) as (...given: unknown[]) => unknown;
        // What crosses between threads is a copy.
        const answer = line.then(() =>
          later(async () => structuredClone(await ask(...structuredClone(args)))),
        );
        line = answer.catch(() => undefined);
        open.add(answer);
        void line.then(() => open.delete(answer));
        return answer;
      },
  });
}

class Server {
  version = 1;
  content: Pick<BuildContent, 'decisions'> = { decisions: [] };
}
type Fate = 'well' | 'lost' | 'answerLost' | 'busy';
function lineTo(server: Server, fates: readonly Fate[], later: Later): BuildLine {
  let count = 0;
  return {
    put: ({ version, decisions }) => {
      const fate = fates[count++] ?? 'well';
      return later(() => {
        if (fate === 'lost' || fate === 'busy')
          return { ok: false, status: fate === 'lost' ? 0 : 503, failures: [] };
        if (Number(version) !== server.version)
          return { ok: false, status: 409, failures: [{ code: 'build.stale', message: 'Changed.' }] };
        server.version += 1;
        server.content = { decisions: [...decisions] };
        if (fate === 'answerLost') return { ok: false, status: 0, failures: [] };
        return { ok: true, value: { version: server.version, partNumber: '', complete: false } };
      });
    },
    read: () =>
      later(() => ({
        ok: true,
        value: {
          build: { id: 'b', version: server.version, letter: 'A' },
          content: { passed: [], special: [], ...server.content },
        },
      })),
    pause: () => later(() => undefined),
  };
}

type Step =
  | { does: 'decide' | 'consider'; at: number }
  | { does: 'release'; at: number }
  | { does: 'undo' | 'redo' | 'wait' };
const at = fc.nat(targets.length - 1);
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 5, arbitrary: at.map((index): Step => ({ does: 'decide', at: index })) },
  { weight: 2, arbitrary: at.map((index): Step => ({ does: 'consider', at: index })) },
  { weight: 1, arbitrary: at.map((index): Step => ({ does: 'release', at: index })) },
  { weight: 3, arbitrary: fc.constantFrom<Step>({ does: 'undo' }, { does: 'redo' }, { does: 'wait' }) },
);

/** What was made, as simply as it can be told: steps, and where one stands among them. */
class Told {
  private steps = [nothing.decisions];
  private at = 0;
  get now() {
    return this.steps[this.at] ?? [];
  }
  do(what: Step): void {
    if (what.does === 'undo') this.at = Math.max(0, this.at - 1);
    else if (what.does === 'redo') this.at = Math.min(this.steps.length - 1, this.at + 1);
    else if (what.does === 'decide' || what.does === 'release') {
      const target = targets[what.at] as (typeof targets)[number];
      const others = this.now.filter(({ on }) => on !== target.on);
      this.steps = [
        ...this.steps.slice(0, this.at + 1),
        what.does === 'decide' ? [...others, target] : others,
      ];
      this.at += 1;
    }
  }
}

function act(session: BenchSession, what: Step): void {
  const target = 'at' in what ? (targets[what.at] as (typeof targets)[number]) : undefined;
  if (what.does === 'decide' && target) void session.decide(target);
  if (what.does === 'consider' && target) session.consider(target);
  if (what.does === 'release' && target) void session.release(target.on);
  if (what.does === 'undo') void session.undo();
  if (what.does === 'redo') void session.redo();
}

/** What is shown at any moment belongs together. */
function fits({ content, picture, waiting, differences: told }: BenchStand): void {
  expect(picture.state.values).toEqual(follows(content).picture.state.values);
  expect(picture.price).toEqual(follows(content).picture.price);
  // What options would do is either said to be under way, or of this very content.
  if (!waiting) expect(Object.assign({}, ...told.values())).toEqual(follows(content).effects);
}

describe('the session of a build', () => {
  it('shows what belongs together, and comes to what was decided last, in whatever order answers come', async () => {
    let [drawn, ahead] = [0, 0];
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(step, { minLength: 1, maxLength: 7 }),
        fc.array(fc.constantFrom<Fate>('well', 'well', 'lost', 'answerLost', 'busy'), { maxLength: 4 }),
        async (schedule, steps, fates) => {
          const later = laterIn(schedule);
          const server = new Server();
          const open = new Set<unknown>();
          const session = new BenchSession(view, {
            line: lineTo(server, fates, later),
            begin: () => ({ remote: remoteOf(later, open), end: () => undefined }),
            painted: () => later(() => undefined),
            atOnce: (change) => change(),
          });
          session.subscribe(() => {
            fits(session.seen());
            drawn += 1;
          });
          const close = session.open();
          const told = new Told();
          for (let what of steps) {
            // Whoever looks at an option for a while may find it worked out.
            if (what.does === 'consider' && what.at % 2 === 0) {
              session.consider(targets[what.at] as (typeof targets)[number]);
              await schedule.waitIdle();
              what = { does: 'decide', at: what.at };
            }
            const before = session.seen();
            act(session, what);
            told.do(what);
            expect(session.now().decisions).toEqual(told.now);
            // What was worked out ahead is shown in the very task of the key.
            if (what.does === 'decide' && session.seen() !== before) ahead += 1;
            if (what.does === 'wait') await schedule.waitFor(later(() => undefined));
          }
          expect(await schedule.waitFor(session.settled())).toBe(true);
          // What takes long breathes in between, on the clock and not on the schedule.
          while (open.size > 0) {
            await new Promise((next) => setTimeout(next));
            await schedule.waitIdle();
          }
          const stand = session.seen();
          expect(stand.content.decisions).toEqual(told.now);
          expect(server.content.decisions).toEqual(told.now);
          const { picture, scene, effects } = follows(stand.content);
          expect(stand.picture).toEqual(picture);
          expect(stand.scene).toEqual(scene);
          expect(stand.waiting).toBe(false);
          expect(Object.assign({}, ...stand.differences.values())).toEqual(effects);
          expect([stand.save, stand.refusals]).toEqual(['saved', []]);
          // Whoever leaves now leaves nothing behind.
          close();
          expect(session.busy()).toBe(false);
        },
      ),
      { numRuns: 60 },
    );
    expect(drawn).toBeGreaterThan(200);
    expect(ahead).toBeGreaterThan(3);
  });
});
