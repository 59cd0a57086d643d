/** The engine's promises, checked literally against every complete valid build of small random models. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type DecisionValue, type PlainValue, Reading } from '../model';
import { createEngine, type Decision, type Engine, type RowState } from './index';
import { modelArb } from './testing/random-models';
import { allBuilds, breaks, targetsOf as targets, valuesOf, type Build } from './testing/brute-force';

const context = { date: '2026-06-01', values: {} };
/** The same models in every run; SEED tries others. */
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const runs = { numRuns: 450, verbose: 0 } as const;

/** Whether a build has the value; a decision on what does not exist is at rest. */
function has(build: Build, { on, value }: Decision, atRest: boolean): boolean {
  const [id = '', option] = on.split('.');
  const found = build[id] as PlainValue;
  if (found === 'hidden') return atRest;
  return option === undefined ? found === value : (found as string[]).includes(option) === value;
}
const keeps = (build: Build, decisions: Decision[]) =>
  decisions.every((decision) => has(build, decision, true));

const withDecisions = modelArb.chain((model) =>
  fc.tuple(
    fc.constant(model),
    fc.uniqueArray(fc.constantFrom(...targets(model)), { maxLength: 3, selector: (decision) => decision.on }),
  ),
);

/** Whether the ranges of a number, a date or a text's length hold a value. */
function allows({ allowed = [], mayBeEmpty }: RowState, value: DecisionValue): boolean {
  if (value === null) return mayBeEmpty === true;
  const text = String(value);
  const size = /^·+$/.test(text) ? text.length : /^\d{4}-/.test(text) ? text : Number(text);
  return allowed.some(({ least, most }) =>
    typeof size === 'string' ? least <= size && size <= most : Number(least) <= size && size <= Number(most),
  );
}

function standingOf(engine: Engine, decisions: Decision[], { on, value }: Decision): string {
  const [id = '', option] = on.split('.');
  const row = engine.state({ decisions }).rows[id];
  if (row?.allowed) return allows(row, value) ? 'free' : 'not';
  if (row?.yes) return (value === true ? row.yes : row.no) as string;
  return row?.options?.find((each) => each.id === (option ?? value))?.standing ?? 'absent';
}

describe('promises against brute force', () => {
  it('standings and ranges are exact', () => {
    fc.assert(
      fc.property(withDecisions, ([model, decisions]) => {
        const builds = allBuilds(model);
        const kept = builds.filter((build) => keeps(build, decisions));
        if (kept.length === 0) return;
        const engine = createEngine(model, context);
        for (const target of targets(model)) {
          if (target.value === false && target.on.includes('.')) continue;
          const standing = standingOf(engine, decisions, target);
          if (standing === 'absent') continue;
          const row = engine.state({ decisions }).rows[target.on.split('.')[0] as string];
          if (!row?.shown) continue;
          // A row's own decision is the one that choosing there replaces.
          const others = builds.filter((build) =>
            keeps(
              build,
              decisions.filter((each) => each.on !== target.on),
            ),
          );
          const expected = others.some((build) => has(build, target, false))
            ? 'free'
            : row.allowed
              ? 'not'
              : builds.some((build) => has(build, target, false))
                ? 'swap'
                : 'barred';
          expect([target, standing]).toEqual([target, expected]);
        }
      }),
      runs,
    );
  });

  it('decisions stay, and the settled values belong to a valid build', () => {
    fc.assert(
      fc.property(withDecisions, ([model, decisions]) => {
        const builds = allBuilds(model);
        const state = createEngine(model, context).state({ decisions });
        const solvable = builds.some((build) => keeps(build, decisions));
        if (builds.length === 0)
          expect(state.clashes.some((clash) => clash.decisions.length === 0)).toBe(true);
        expect(state.clashes.length === 0).toBe(solvable);
        if (!solvable) return;
        const agrees = (build: Build) =>
          Object.values(state.rows).every(
            (row) =>
              row.value === undefined ||
              (row.shown
                ? JSON.stringify(build[row.id]) === JSON.stringify(row.value)
                : build[row.id] === 'hidden'),
          );
        const matching = builds.filter((build) => keeps(build, decisions) && agrees(build));
        expect(matching.length).toBeGreaterThan(0);
        if (state.complete) expect(matching.length).toBe(1);
      }),
      runs,
    );
  });

  it('a clash names decisions that cannot stand together, and none too many', () => {
    fc.assert(
      fc.property(withDecisions, ([model, decisions]) => {
        const builds = allBuilds(model);
        for (const clash of createEngine(model, context).state({ decisions }).clashes) {
          const possible = (some: Decision[]) => builds.some((build) => keeps(build, some));
          if (clash.decisions.length === 0) expect(builds).toEqual([]);
          expect(possible(clash.decisions)).toBe(false);
          for (const each of clash.decisions)
            expect(possible(clash.decisions.filter((other) => other !== each))).toBe(true);
        }
      }),
      runs,
    );
  });

  it('reasons forbid the option, and taking away any one decision or rule removes the bar', () => {
    fc.assert(
      fc.property(withDecisions, ([model, decisions]) => {
        const builds = allBuilds(model);
        if (!builds.some((build) => keeps(build, decisions))) return;
        const engine = createEngine(model, context);
        for (const target of targets(model)) {
          if (
            builds.some(
              (build) =>
                keeps(
                  build,
                  decisions.filter((each) => each.on !== target.on),
                ) && has(build, target, false),
            )
          ) {
            expect(engine.reason({ decisions }, target)).toEqual([]);
            continue;
          }
          const causes = engine.reason({ decisions }, target);
          expect(causes.length).toBeGreaterThan(0);
          const own = causes.flatMap((cause) => (cause.kind === 'decision' ? [cause.decision] : []));
          const possible = (some: Decision[]) =>
            builds.some((build) => keeps(build, some) && has(build, target, false));
          expect(possible(own)).toBe(false);
          // The causes alone forbid it; without any one of them it could be had.
          const parts = causes.flatMap((cause) =>
            cause.kind === 'rule'
              ? [`rule:${cause.rule}`]
              : cause.kind === 'shape'
                ? [`shape:${cause.row}`]
                : [],
          );
          const reachable = (kept: string[], some = own) =>
            allBuilds(model, (part) => kept.includes(part)).some(
              (build) => keeps(build, some) && has(build, target, false),
            );
          expect(reachable(parts)).toBe(false);
          for (const each of own)
            expect(
              reachable(
                parts,
                own.filter((other) => other !== each),
              ),
            ).toBe(true);
          for (const part of parts) expect(reachable(parts.filter((other) => other !== part))).toBe(true);
        }
      }),
      { numRuns: 250 },
    );
  });

  it('ways out work, change no more than they must, and leave no clash', () => {
    fc.assert(
      fc.property(withDecisions, ([model, decisions]) => {
        const builds = allBuilds(model);
        const engine = createEngine(model, context);
        for (const target of targets(model)) {
          const rest = decisions.filter((each) => each.on !== target.on);
          const possible = (some: Decision[]) =>
            builds.some((build) => keeps(build, some) && has(build, target, false));
          if (!builds.some((build) => keeps(build, decisions)) || possible(rest)) continue;
          const ways = engine.waysOut({ decisions }, target);
          expect(ways.length > 0).toBe(possible([]));
          expect(engine.changesNeeded({ decisions }, target)).toBe(ways[0]?.changes.length ?? null);
          for (const way of ways) {
            expect(way.state.clashes).toEqual([]);
            expect(possible(way.decisions)).toBe(true);
            const changed = way.changes.map((change) => change.on);
            for (const on of changed)
              expect(possible(rest.filter((each) => !changed.includes(each.on) || each.on === on))).toBe(
                false,
              );
          }
        }
      }),
      { numRuns: 250 },
    );
  });

  it('warnings and notes speak exactly where their rule is broken', () => {
    fc.assert(
      fc.property(withDecisions, ([model, decisions]) => {
        const state = createEngine(model, context).state({ decisions });
        if (!state.complete) return;
        const build: Build = Object.fromEntries(
          Object.values(state.rows).map((row) => [row.id, row.shown ? (row.value as PlainValue) : 'hidden']),
        );
        const reading = new Reading(model, valuesOf(model, build));
        const broken = model.rules
          .filter((each) => (each.severity !== 'error' || each.rule.kind === 'say') && breaks(reading, each))
          .map((each) => each.rule.id);
        expect(state.messages.map((message) => message.rule).sort()).toEqual(broken.sort());
      }),
      runs,
    );
  });

  it('the order of decisions does not matter', () => {
    fc.assert(
      fc.property(withDecisions, ([model, decisions]) => {
        const state = createEngine(model, context).state({ decisions });
        const reversed = createEngine(model, context).state({ decisions: [...decisions].reverse() });
        expect(reversed).toEqual(state);
      }),
      runs,
    );
  });
});
