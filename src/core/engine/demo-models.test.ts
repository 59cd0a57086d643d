/** The demo's other models: their own tests pass, their check-up is clean, and every rule is shown to fire. */
import { describe, expect, it } from 'vitest';
import { demoModel as demo } from '../../../scripts/demo-documents';
import { checkUp, createEngine, runModelTest } from './index';

const date = '2026-06-01';

describe.each(['beacon', 'plumb'])('%s', (name) => {
  const model = demo(name);
  const tests = model.document.tests ?? [];
  const engine = createEngine(model, { date, values: {} });

  it.each(tests.map((test) => [test.id, test] as const))('passes its test %s', (_, test) => {
    expect(runModelTest(engine, test).failures).toEqual([]);
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

  it('has a clean check-up', () => {
    expect(checkUp(model, date, () => true).findings).toEqual([]);
  });
});

it('tells what a failing test found', () => {
  const engine = createEngine(demo('beacon'), { date, values: {} });
  const result = runModelTest(engine, { id: 'wrong', decisions: { housing: 'stainless' }, expect: { complete: false, values: { slots: '3' }, standings: { 'power.battery': 'free' }, reasons: { 'power.battery': [] }, messages: ['touchGloves'], partNumber: 'BC' } });
  expect(result.failures.map(({ at }) => at)).toEqual(['complete', 'values.slots', 'standings.power.battery', 'reasons.power.battery', 'messages', 'partNumber']);
  expect(result.failures[2]).toEqual({ at: 'standings.power.battery', expected: 'free', found: 'swap' });
});
