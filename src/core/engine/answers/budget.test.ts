/** What an engine says when it may not go on: nothing that is not so, and what it could not decide. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileModel } from '../../model';
import { generatedModel } from '../testing/generated-models';
import { createEngine, OutOfBudget, type Decision, type State } from '..';
import { modelArb } from '../testing/random-models';
import { targetsOf } from '../testing/brute-force';

const context = { date: '2026-06-01', values: {} };
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });

function large() {
  const compiled = compileModel(generatedModel({ features: 40, options: 240, rules: 260, seed: 5 }));
  if (!compiled.ok) throw new Error('a generated model compiles');
  return compiled.model;
}
const unproven = (state: State): string[] =>
  Object.values(state.rows).flatMap((row) => [
    ...(row.unproven ? [row.id] : []),
    ...(row.options ?? []).flatMap((option) => (option.unproven ? [`${row.id}.${option.id}`] : [])),
  ]);

describe('a budget', () => {
  it('leaves out what could not be decided, and claims nothing else than a state without one', () => {
    let ended = 0;
    fc.assert(
      fc.property(
        modelArb.chain((model) =>
          fc.record({
            model: fc.constant(model),
            decisions: fc.uniqueArray(fc.constantFrom(...targetsOf(model)), {
              maxLength: 3,
              selector: ({ on }) => on,
            }),
            budget: fc.integer({ min: 0, max: 6 }),
          }),
        ),
        ({ model, decisions, budget }) => {
          const whole = createEngine(model, context).state({ decisions });
          const some = createEngine(model, context, { budget }).state({ decisions });
          if (!some.unproven) {
            expect(some).toEqual(whole);
            return;
          }
          ended++;
          // Whoever reads it is told where.
          expect(unproven(some).length).toBeGreaterThan(0);
          for (const [id, row] of Object.entries(some.rows)) {
            for (const option of row.options ?? []) {
              const known = whole.rows[id]?.options?.find((each) => each.id === option.id);
              if (option.standing === 'free')
                expect([id, option.id, known?.standing ?? 'free']).toEqual([id, option.id, 'free']);
              else if (!option.unproven && known)
                expect([id, option.id, known.standing]).toEqual([id, option.id, option.standing]);
            }
          }
          for (const clash of some.clashes)
            expect(whole.clashes.length, JSON.stringify(clash)).toBeGreaterThan(0);
        },
      ),
      { numRuns: 150 },
    );
    expect(ended).toBeGreaterThan(10);
  });

  it('ends a state of a larger model, which a later question finishes', () => {
    const model = large();
    let asked = 0;
    let patience = 8;
    const engine = createEngine(model, context, { stop: () => ++asked > patience });
    const first = engine.state({ decisions: [] });
    expect([first.unproven, unproven(first).length > 0]).toEqual([true, true]);
    expect(Object.values(first.rows).filter((row) => row.shown).length).toBeGreaterThan(20);
    patience = Infinity;
    expect(engine.state({ decisions: [] })).toEqual(createEngine(model, context).state({ decisions: [] }));
  });

  it('gives no cause rather than a wrong one', () => {
    const model = large();
    const free = createEngine(model, context);
    const decisions = Object.values(free.state({ decisions: [] }).rows)
      .flatMap((row): Decision[] => {
        const option = row.options?.find((each) => each.standing === 'free');
        return option && model.document.features.find((each) => each.id === row.id)?.most === 1
          ? [{ on: row.id, value: option.id }]
          : [];
      })
      .slice(0, 6);
    const state = free.state({ decisions });
    const target = Object.values(state.rows).flatMap((row) =>
      (row.options ?? [])
        .filter((option) => option.standing === 'swap')
        .map((option): Decision => ({ on: row.id, value: option.id })),
    )[0] as Decision;
    const stopped = createEngine(model, context, { stop: () => true });
    expect(() => stopped.reason({ decisions }, target)).toThrow(OutOfBudget);
    expect(() => stopped.changesNeeded({ decisions }, target)).toThrow(OutOfBudget);
    expect(stopped.best({ decisions }, { minimize: [] }, { stop: () => true })).toEqual({ is: 'stopped' });
  });
});
