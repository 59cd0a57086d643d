/**
 * The best complete build that keeps the decisions: found by ever tighter bounds, proven when no build is
 * below the last.
 */
import { exact, Exact } from '../../exact';
import { compileFormula, type Formula } from '../../formula';
import { plainAt, type CompiledModel } from '../../model';
import { always, never, not, type Lit, type Witness } from '../../solver';
import { assumedOf, litsOf } from '../encoding/assumed';
import { Encoding } from '../encoding/encoding';
import type { Context, Decision, EngineInput } from '../types';
import { summand, SumTheory, type Summand } from '../bounds/sum';
import { variablesOf, type Variable } from '../encoding/variables';

/** A formula over the build with its weight; one that gives nothing counts as 0. */
export interface Term {
  /** FEEL, such as the name of a calculation, or a formula of the model as it is compiled. */
  formula: string | Formula;
  weight: string;
}

/** A weighted sum to be made small, and bounds to be kept. */
export interface BestQuestion {
  /** The smaller their weighted sum, the better. */
  minimize: readonly Term[];
  /** What the build must keep to besides. */
  bounds?: readonly { of: readonly Term[]; least?: string; most?: string }[];
}

/** The best that was found so far, and how low it could still be. */
export interface BestProgress {
  value: string;
  /** How far below the value a better build could still lie at most. */
  gap: string;
  /** The build itself, as in the answer. */
  decisions: Decision[];
}

/** How long it may take, and who hears of it. */
export interface BestOptions {
  /** Told of every better build. */
  progress?: (progress: BestProgress) => void;
  /** Asked now and then; true stops the search. */
  stop?: () => boolean;
  /** Conflicts after which the search ends with the best so far. */
  budget?: number;
}

/** The best build, that there is none, or what was found in the time there was. */
export type BestAnswer =
  | { is: 'none' }
  /** A term that is not a formula of the model. */
  | { is: 'unreadable'; formula: string }
  | {
      is: 'found';
      /** The decisions made and those that lead on to the build. */
      decisions: Decision[];
      value: string;
      proven: boolean;
      gap: string;
    }
  /** Stopped before any build was found. */
  | { is: 'stopped' };

const slice = 500;

/** Finds the best build by tightening a bound on the sum until nothing is below it. */
export function bestBuild(
  model: CompiledModel,
  context: Context,
  input: EngineInput,
  question: BestQuestion,
  options: BestOptions = {},
): BestAnswer {
  const encoding = new Encoding(model, context);
  const { solver } = encoding;
  const sums: Summand[][] = [];
  for (const terms of [question.minimize, ...(question.bounds ?? []).map((bound) => bound.of)]) {
    const made: Summand[] = [];
    for (const { formula, weight } of terms) {
      const compiled =
        typeof formula === 'string'
          ? compileFormula(formula, model.scope, { is: 'number', unit: 'any' })
          : { ok: true as const, formula };
      if (!compiled.ok) return { is: 'unreadable', formula: typeof formula === 'string' ? formula : '' };
      made.push(summand(encoding.conditions.subject(compiled.formula.expr), weight));
    }
    sums.push(made);
  }
  const guard = solver.add();
  const [goal = [], ...limited] = sums;
  const theory = new SumTheory(goal, guard, null, true);
  limited.forEach((terms, index) => {
    const { least, most } = question.bounds?.[index] ?? {};
    if (most !== undefined) solver.addTheory(new SumTheory(terms, always, exact(most), false));
    const negated = terms.map(({ subject, weight }) => ({ subject, weight: weight.negated() }));
    if (least !== undefined) solver.addTheory(new SumTheory(negated, always, exact(least).negated(), false));
  });
  solver.addTheory(theory);
  solver.stop = options.stop;
  const variables = variablesOf(encoding);
  const byOn = new Map(variables.map((variable) => [variable.on, variable]));
  const decided = assumedOf(input, encoding, byOn);
  const assume = litsOf(decided);
  const wishes = theory.preferences();
  const floor = solver.consider(assume, (settled) => theory.lowest(settled)) ?? -Infinity;

  let best: { witness: Witness; value: Exact } | null = null;
  let left = options.budget ?? Infinity;
  const gapOf = (value: Exact): string =>
    Number.isFinite(floor) ? Exact.max(value.minus(floor.toFixed(9)), 0).toString() : 'unknown';
  const finish = (proven: boolean): BestAnswer =>
    best === null
      ? { is: proven ? 'none' : 'stopped' }
      : {
          is: 'found',
          decisions: decisionsOf(input, variables, best.witness),
          value: best.value.toString(),
          proven,
          gap: proven ? '0' : gapOf(best.value),
        };
  for (;;) {
    if (options.stop?.() || left <= 0) return finish(false);
    const before = solver.conflicts;
    const answer = solver.ask({
      assume: best ? [...assume, guard] : [...assume, not(guard)],
      base: best?.witness.without(guard) ?? null,
      wishes,
      budget: Math.min(slice, left),
    });
    left -= solver.conflicts - before;
    if (answer.is === 'no') return finish(true);
    if (answer.is === 'stopped') continue;
    const witness = answer.witness();
    const value = theory.exactIn({
      holds: (lit) => witness.holds(lit),
      code: (number) => witness.codes[number] as number,
    });
    best = { witness, value };
    theory.bound = value;
    solver.renew(theory);
    options.progress?.({
      value: value.toString(),
      gap: gapOf(value),
      decisions: decisionsOf(input, variables, witness),
    });
  }
}

/** The decisions made, and one for every other value of the build. */
function decisionsOf(input: EngineInput, variables: readonly Variable[], build: Witness): Decision[] {
  const own = new Map(input.decisions.map((decision) => [decision.on, decision]));
  const more = variables.flatMap((variable): Decision[] => {
    const { on, row, codes } = variable;
    if (own.has(on) || !holds(build, row.shown)) return [];
    if (row.kind === 'number') {
      const value = plainAt(row.entry.grid, build.codes[row.number] as number);
      // What a text says is for a person to type.
      return value !== null && row.entry.kind === 'length' ? [] : [{ on, value }];
    }
    const code = codes.find((each) => build.meets(each.wish.lits));
    return code ? [{ on, value: code.value }] : [];
  });
  return [...input.decisions, ...more];
}

const holds = (build: Witness, lit: Lit): boolean => lit === always || (lit !== never && build.holds(lit));
