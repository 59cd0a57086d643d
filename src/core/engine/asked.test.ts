/** Needs answered count like decisions, except that a person's own always win, and that they are named apart. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createEngine, withAsked, type Decision, type State } from '.';
import { modelArb } from './testing/random-models';
import { targetsOf } from './testing/brute-force';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261128) });
const context = { date: '2026-06-01', values: {} };

const cases = modelArb.chain((model) =>
  fc.record({
    model: fc.constant(model),
    given: fc.uniqueArray(fc.constantFrom(...targetsOf(model)), { maxLength: 5, selector: ({ on }) => on }),
    mine: fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
    target: fc.constantFrom(...targetsOf(model)),
  }),
);
/** A state without who it was that said something. */
const anonymous = ({ rows, ...state }: State) => {
  const nobody = <T extends { source: string }>(one: T) => ({
    ...one,
    source: one.source === 'asked' ? 'yours' : one.source,
  });
  return {
    complete: state.complete,
    values: state.values,
    clashes: state.clashes.length,
    rows: Object.fromEntries(
      Object.entries(rows).map(([id, row]) => [
        id,
        { ...nobody(row), ...(row.options ? { options: row.options.map(nobody) } : {}) },
      ]),
    ),
  };
};

describe('needs answered', () => {
  it('come to the same as if the person had decided so, and a decision on the same thing wins', () => {
    let told = 0;
    fc.assert(
      fc.property(cases, ({ model, given, mine, target }) => {
        const decisions = given.filter((_, at) => mine[at]);
        const asked = given.filter((_, at) => !mine[at]);
        const engine = createEngine(model, context);
        // What was answered otherwise than decided is as if it had not been.
        const overruled = decisions.map(({ on, value }): Decision => ({
          on,
          value: typeof value === 'boolean' ? !value : value,
        }));
        const answered = withAsked(engine, [...overruled, ...asked]);
        const state = answered.state({ decisions });
        expect(anonymous(state)).toEqual(anonymous(engine.state({ decisions: given })));
        for (const { on, value } of asked)
          if (state.rows[on]?.shown && state.rows[on].value === value && state.clashes.length === 0) {
            expect(state.rows[on].source).toBe('asked');
            told += 1;
          }
        expect(answered.changesNeeded({ decisions }, target)).toBe(
          engine.changesNeeded({ decisions: given }, target),
        );
      }),
      { numRuns: 400 },
    );
    expect(told).toBeGreaterThan(100);
  });

  it('give way where there is no other way, and every way out leads where it says', () => {
    let moved = 0;
    fc.assert(
      fc.property(cases, ({ model, given, mine, target }) => {
        const [decisions, asked] = [given.filter((_, at) => mine[at]), given.filter((_, at) => !mine[at])];
        const engine = withAsked(createEngine(model, context), asked);
        const ways = engine.waysOut({ decisions }, target);
        if ((engine.changesNeeded({ decisions }, target) ?? 0) > 0) expect(ways).not.toEqual([]);
        for (const way of ways) {
          const state = engine.state({ decisions: way.decisions });
          expect(state.clashes).toEqual([]);
          expect(state.values).toEqual(way.state.values);
          if (way.changes.some(({ on }) => asked.some((each) => each.on === on))) moved += 1;
        }
      }),
      { numRuns: 300 },
    );
    expect(moved).toBeGreaterThan(5);
  });
});
