/** The allowed values of a number, exactly, as ranges. */
import { always, type Lit, type Witness } from '../solver';
import type { Encoding } from './encoding';
import { OutOfBudget, type Reach, type Wish } from './reach';
import { between, type Row } from './rows';
import type { ConditionTheory } from './truth';

/** Codes from one to another, both included. */
export type Range = readonly [from: number, to: number];
export type NumberRow = Extract<Row, { kind: 'number' }>;

/**
 * Every code that some complete build beside the assumptions has; none of these may be about the number itself. Between two cuts no clause tells codes apart, so one question
 * answers for all of them, except where a wide condition reads the number: there each answer counts for as far as the condition is steady.
 */
export function rangesOf(row: NumberRow, encoding: Encoding, reach: Reach, lifted?: readonly Lit[]): Range[] {
  const { conditions } = encoding;
  const wide = conditions.wide.filter((theory) => theory.numbers.includes(row.number));
  const found: Range[] = [];
  const add = (from: number, to: number): void => {
    const last = found[found.length - 1];
    if (last && last[1] === from - 1) found[found.length - 1] = [last[0], to];
    else found.push([from, to]);
  };
  let from = 0;
  for (const to of [...encoding.cutsOf(row.number), row.entry.grid.count - 1]) {
    if (wide.length > 0) for (const range of steadyParts(row, [from, to], wide, encoding, reach, lifted)) add(...range);
    else if (reach.can(wishFor(row, from, to, encoding), lifted)) add(from, to);
    from = to + 1;
  }
  return found;
}

/** A shown row's number lying between two codes. */
export function wishFor(row: NumberRow, from: number, to: number, encoding: Encoding): Wish {
  return { key: encoding.newKey(`${row.id}:${String(from)}:${String(to)}`), lits: [row.shown, ...between(row.number, from, to, encoding.solver)].filter((lit) => lit !== always) };
}

/** What is known of a stretch of a number: a build that has all of it, or the assumptions that refuse it. */
type Stretch = { from: number; to: number } & ({ build: Witness } | { core: readonly Lit[] });

const mostStretches = 60;
/** By reach and row, the stretches found last first. */
const memory = new WeakMap<Reach, Map<NumberRow, Stretch[]>>();

function stretchesOf(row: NumberRow, reach: Reach): Stretch[] {
  const ofReach = memory.get(reach) ?? new Map<NumberRow, Stretch[]>();
  memory.set(reach, ofReach);
  const known = ofReach.get(row) ?? [];
  ofReach.set(row, known);
  return known;
}

/** The allowed parts of a stretch, where wide conditions read the number. */
function steadyParts(row: NumberRow, [from, to]: Range, wide: readonly ConditionTheory[], encoding: Encoding, reach: Reach, lifted: readonly Lit[] | undefined): Range[] {
  if (from > to) return [];
  const kept = lifted ? reach.assumptions.filter((lit) => !lifted.includes(lit)) : reach.assumptions;
  const rest = (range: Range): Range[] => steadyParts(row, range, wide, encoding, reach, lifted);
  const stretches = stretchesOf(row, reach);
  const known = stretches.find((each) => each.from <= to && each.to >= from && ('build' in each ? each.build.meets(kept) : each.core.every((lit) => kept.includes(lit))));
  if (known) {
    const [low, high] = [Math.max(from, known.from), Math.min(to, known.to)];
    return [...rest([from, low - 1]), ...('build' in known ? [[low, high] as const] : []), ...rest([high + 1, to])];
  }
  const { lits } = wishFor(row, from, to, encoding);
  const answer = encoding.solver.ask({ assume: [...kept, ...lits], base: reach.base, met: kept.length });
  if (answer.is === 'stopped') throw new OutOfBudget();
  const keep = (stretch: Stretch): void => {
    stretches.unshift(stretch);
    if (stretches.length > mostStretches) stretches.pop();
  };
  if (answer.is === 'no') {
    keep({ from, to, core: answer.core.filter((lit) => !lits.includes(lit)) });
    return [];
  }
  const build = answer.witness();
  const code = build.codes[row.number] as number;
  const steady = (a: number, b: number): boolean => wide.every((theory) => theory.steady(row, a, b, build));
  const low = furthest(code, from, (at) => steady(at, code));
  const high = furthest(code, to, (at) => steady(low, at));
  keep({ from: low, to: high, build });
  return [...rest([from, low - 1]), [low, high], ...rest([high + 1, to])];
}

/** The furthest place towards an end that still passes, which `start` does. */
function furthest(start: number, end: number, passes: (at: number) => boolean): number {
  if (start === end || passes(end)) return end;
  let [good, bad] = [start, end];
  while (Math.abs(bad - good) > 1) {
    const middle = (good + bad) >> 1;
    if (passes(middle)) good = middle;
    else bad = middle;
  }
  return good;
}

/** Whether a number can be another than the one it has in a witness. */
export function canDiffer(row: NumberRow, witness: Witness, encoding: Encoding, reach: Reach): boolean {
  const code = witness.codes[row.number] as number;
  return [[0, code - 1], [code + 1, row.entry.grid.count - 1]].some(([from, to]) => (from as number) <= (to as number) && reach.can(wishFor(row, from as number, to as number, encoding)));
}
