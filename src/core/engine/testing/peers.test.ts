/** Standings of larger models against another solver. */
import { describe, expect, it } from 'vitest';
import { askMinisat } from '../../../../scripts/peers';
import { compileModel } from '../../model';
import { generatedModel, randomFrom, type Size } from './generated-models';
import { cnfOf, createEngine, type Decision, type Engine } from '..';

const context = { date: '2026-06-01', values: {} };

function prepared(size: Size) {
  const result = compileModel(generatedModel(size));
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  const cnf = cnfOf(result.model, context);
  if (!cnf) throw new Error('a generated model needs no arithmetic');
  return { engine: createEngine(result.model, context), cnf };
}

/**
 * Free values by "on = value", as the state tells; none for rows that carry a decision or may be hidden,
 * which are told otherwise.
 */
function freeValues(engine: Engine, decisions: Decision[]): Map<string, boolean> {
  const found = new Map<string, boolean>();
  const decided = new Set(decisions.map((decision) => decision.on));
  const { rows } = engine.state({ decisions });
  for (const feature of engine.model.document.features) {
    for (const option of rows[feature.id]?.options ?? []) {
      const many = feature.most > 1;
      if (!decided.has(many ? `${feature.id}.${option.id}` : feature.id))
        found.set(
          many ? `${feature.id}.${option.id} = true` : `${feature.id} = ${option.id}`,
          option.standing === 'free',
        );
    }
  }
  return found;
}

describe('standings against MiniSat', () => {
  it.each([
    { features: 30, options: 160, rules: 180, seed: 11 },
    { features: 40, options: 260, rules: 260, seed: 12 },
    { features: 60, options: 420, rules: 330, seed: 13 },
  ])('agree on $features features, $options options and $rules rules, decision after decision', (size) => {
    const { engine, cnf } = prepared(size);
    const random = randomFrom(size.seed);
    const hideable = new Set(
      engine.model.document.rules.flatMap((rule) => (rule.kind === 'show' ? [rule.of] : [])),
    );
    let decisions: Decision[] = [];
    let compared = 0;
    for (let step = 0; step < 3; step++) {
      const assume = decisions.map(
        (decision) =>
          cnf.values.find((value) => value.on === decision.on && value.value === String(decision.value))
            ?.literal as number,
      );
      const { free } = askMinisat(cnf, assume);
      const ours = freeValues(engine, decisions);
      for (const { on, value, literal } of cnf.values) {
        const mine = ours.get(`${on} = ${value}`);
        if (mine === undefined) continue;
        compared++;
        expect([on, value, mine]).toEqual([on, value, free.has(literal)]);
      }
      for (let more = 0; more < 6; more++) {
        // A decision on a row that may vanish would be at rest with it, which clauses alone do not say.
        const candidates = [...freeValues(engine, decisions)]
          .filter(([name, isFree]) => isFree && !hideable.has(name.split(/[. ]/)[0] as string))
          .map(([name]) => name);
        const [on = '', value = ''] = (candidates[random(candidates.length)] as string).split(' = ');
        decisions = [...decisions, { on, value: value === 'true' ? true : value }];
      }
    }
    expect(compared).toBeGreaterThan(2 * size.options);
  });
});
