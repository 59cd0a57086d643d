/**
 * The demo's other models: their own tests pass, their check-up is clean, and every rule is shown to fire.
 */
import { describe, expect, it } from 'vitest';
import { demoModel as demo } from '../../../../scripts/demo-documents';
import { checkUp, createEngine, runModelTest, testEngines } from '..';

const date = '2026-06-01';

describe.each(['ridgeback', 'beacon', 'plumb', 'tarn', 'quarryGate', 'farmDriveOver'])('%s', (name) => {
  const model = demo(name);
  const tests = model.document.tests ?? [];
  // On a day far from those that tests name, so that none depends on when it is run.
  const engineFor = testEngines(model, {
    date: '2031-03-03',
    values: Object.fromEntries(model.document.context.map(({ id, values }) => [id, values[0]?.id ?? ''])),
  });

  it.each(tests.map((test) => [test.id, test] as const))('passes its test %s', (_, test) => {
    expect(runModelTest(engineFor(test), test).failures).toEqual([]);
  });

  it('shows every rule firing in one of them', () => {
    const reasons = new Set(tests.flatMap((test) => Object.values(test.expect.reasons ?? {}).flat()));
    const messages = new Set(tests.flatMap((test) => test.expect.messages ?? []));
    const named = new Set(tests.map((test) => test.id));
    const silent = model.document.rules.filter((rule) => {
      if (rule.kind === 'say') return !messages.has(rule.id);
      const proposes = rule.kind === 'usual' || rule.kind === 'show' || (rule.kind === 'set' && !rule.firm);
      return proposes ? !named.has(rule.id) : !reasons.has(rule.id);
    });
    expect(silent.map((rule) => rule.id)).toEqual([]);
  });

  // What bundles have to say of themselves is told by their tests; the models inside have check-ups of their
  // own.
  it.runIf(model.picks.every((pick) => pick.builds.length === 0 || name === 'ridgeback'))(
    'has a check-up without surprises',
    () => {
      const found = checkUp(model, date, () => true).findings.map(({ kind, at }) => `${kind} ${at}`);
      // The length of Ridgeback's frame follows from two other rules.
      expect(
        found.filter((each) => name !== 'ridgeback' || each !== 'repeatsOthers rules.frameLength'),
      ).toEqual([]);
    },
  );

  it.runIf(model.picks.some((pick) => pick.builds.length > 0) && name !== 'ridgeback')(
    'has a number for all goods, those of the builds inside too',
    () => {
      expect(
        checkUp(model, date, () => true).findings.filter(
          ({ kind }) => kind === 'sameNumber' || kind === 'unreadableNumber',
        ),
      ).toEqual([]);
    },
  );
});

it('has rules of every kind', () => {
  expect(new Set(demo('ridgeback').document.rules.map((rule) => rule.kind)).size).toBe(8);
});

it('tells what a failing test found', () => {
  const engine = createEngine(demo('beacon'), { date, values: {} });
  const result = runModelTest(engine, {
    id: 'wrong',
    decisions: { housing: 'stainless' },
    expect: {
      complete: false,
      values: { slots: '3' },
      standings: { 'power.battery': 'free' },
      reasons: { 'power.battery': [] },
      messages: ['touchGloves'],
      partNumber: 'BC',
    },
  });
  expect(result.failures.map(({ at }) => at)).toEqual([
    'complete',
    'values.slots',
    'standings.power.battery',
    'reasons.power.battery',
    'messages',
    'partNumber',
  ]);
  expect(result.failures[2]).toEqual({ at: 'standings.power.battery', expected: 'free', found: 'swap' });
});
