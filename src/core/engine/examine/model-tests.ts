/** The tests of a model document: decisions, and what must come of them. */
import { featureAt, Reading, type CompiledModel, type ModelTest, type PlainValue } from '../../model';
import { partNumber } from '../../numbering';
import { checkDecisions } from '../answers/decisions';
import type { Context, Decision, State } from '../types';
import type { Engine } from '../engine';

/** What came of a test of a model. */
export interface TestResult {
  id: string;
  /** What came out otherwise than expected; empty where the test passed. */
  failures: { at: string; expected: unknown; found: unknown }[];
}

/**
 * Engines of one model for its tests: by the day and the context, each made once. `usual` is what a test
 * leaves open.
 */
export function enginesFor(
  model: CompiledModel,
  usual: Context,
  make: (model: CompiledModel, context: Context) => Engine,
): (test: ModelTest) => Engine {
  const engines = new Map<string, Engine>();
  return ({ date = usual.date, context }) => {
    const place: Context = { date, values: { ...usual.values, ...context } };
    const key = JSON.stringify(place);
    const engine = engines.get(key) ?? make(model, place);
    engines.set(key, engine);
    return engine;
  };
}

/**
 * Runs one test on an engine in the test's context. What it decides and expects must be there to be decided
 * and expected.
 */
export function runModelTest(engine: Engine, { id, decisions: given, expect }: ModelTest): TestResult {
  const { model } = engine;
  const decisions = Object.entries(given).map(([on, value]): Decision => ({ on, value }));
  const failures: TestResult['failures'] = checkDecisions(model, decisions).map(({ on, code }) => ({
    at: `decisions.${on}`,
    expected: given[on],
    found: code,
  }));
  const state = engine.state({ decisions });
  const same = (at: string, expected: unknown, found: unknown): void => {
    if (JSON.stringify(expected) !== JSON.stringify(found)) failures.push({ at, expected, found });
  };
  if (expect.complete !== undefined) same('complete', expect.complete, state.complete);
  for (const [name, value] of Object.entries(expect.values ?? {}))
    same(`values.${name}`, value, valueOf(model, state, name));
  for (const [option, standing] of Object.entries(expect.standings ?? {})) {
    const [row = '', chosen] = option.split('.');
    same(
      `standings.${option}`,
      standing,
      state.rows[row]?.options?.find((each) => each.id === chosen)?.standing,
    );
  }
  for (const [target, rules] of Object.entries(expect.reasons ?? {})) {
    const causes = engine.reason({ decisions }, targetOf(model, target));
    same(
      `reasons.${target}`,
      [...rules].sort(),
      causes.flatMap((cause) => (cause.kind === 'rule' ? [cause.rule] : [])).sort(),
    );
  }
  if (expect.messages)
    same('messages', [...expect.messages].sort(), state.messages.map((message) => message.rule).sort());
  if (expect.partNumber !== undefined)
    same('partNumber', expect.partNumber, partNumber(model, state.values).text);
  return { id, failures };
}

function valueOf(model: CompiledModel, { values }: State, name: string): PlainValue | undefined {
  if (Object.hasOwn(values, name)) return values[name];
  const value = new Reading(model, values).named(name);
  return typeof value === 'symbol'
    ? undefined
    : value === null || typeof value === 'boolean'
      ? value
      : Array.isArray(value)
        ? value.map(String)
        : String(value);
}

/** "feature.option", or "parameter = value". */
function targetOf(model: CompiledModel, written: string): Decision {
  const [on = '', value] = written.split(' = ');
  if (value !== undefined)
    return {
      on,
      value: value === 'null' ? null : value === 'true' || value === 'false' ? value === 'true' : value,
    };
  const [id = '', option = ''] = on.split('.');
  return (featureAt(model, id)?.most ?? 1) > 1 ? { on, value: true } : { on: id, value: option };
}
