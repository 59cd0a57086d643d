/** The allowed values of a number, exactly, as ranges. */
import { always, never, not, type Lit, type Witness } from '../../solver';
import type { Encoding } from '../encoding/encoding';
import { OutOfBudget, type WitnessCache, type Wish } from '../answers/witness-cache';
import { between, type Row } from '../encoding/rows';
import type { ConditionTheory } from '../encoding/truth';

/** Codes from one to another, both included. */
export type Range = readonly [from: number, to: number];
/** A row that is a number. */
export type NumberRow = Extract<Row, { kind: 'number' }>;

/**
 * Every code that some complete build beside the assumptions has; none of these may be about the number
 * itself. Between two cuts no clause tells codes apart, so one question answers for all of them, except where
 * a wide condition reads the number: there each build counts for as far as it stands with the number moved
 * alone.
 */
export function rangesOf(
  row: NumberRow,
  encoding: Encoding,
  witnesses: WitnessCache,
  lifted?: readonly Lit[],
  unsure: () => void = outOfBudget,
): Range[] {
  const { conditions } = encoding;
  const wide = conditions.wide.filter((theory) => theory.numbers.includes(row.number));
  const found: Range[] = [];
  const add = (from: number, to: number): void => {
    const last = found[found.length - 1];
    if (last && last[1] === from - 1) found[found.length - 1] = [last[0], to];
    else found.push([from, to]);
  };
  const last = row.entry.grid.count - 1;
  if (wide.length > 0) {
    for (const range of steadyParts(row, [0, last], { wide, encoding, witnesses, lifted, unsure }))
      add(...range);
    return found;
  }
  let from = 0;
  for (const to of [...encoding.cutsOf(row.number), last]) {
    if (possible(() => witnesses.can(wishFor(row, from, to, encoding), lifted), unsure)) add(from, to);
    from = to + 1;
  }
  return found;
}

/** A shown row's number lying between two codes. */
export function wishFor(row: NumberRow, from: number, to: number, encoding: Encoding): Wish {
  return {
    key: encoding.newKey(`${row.id}:${String(from)}:${String(to)}`),
    lits: [row.shown, ...between(row.number, from, to, encoding.solver)].filter((lit) => lit !== always),
  };
}

/** What is known of an interval of a number: a build that has all of it, or the assumptions that refuse it. */
type Interval = { from: number; to: number } & ({ build: Witness } | { core: readonly Lit[] });

const mostIntervals = 60;
/** By witness cache and row, the intervals found last first. */
const memory = new WeakMap<WitnessCache, Map<NumberRow, Interval[]>>();

function intervalsOf(row: NumberRow, witnesses: WitnessCache): Interval[] {
  const ofThese = memory.get(witnesses) ?? new Map<NumberRow, Interval[]>();
  memory.set(witnesses, ofThese);
  const known = ofThese.get(row) ?? [];
  ofThese.set(row, known);
  return known;
}

/**
 * Where in an interval a build is wished for. Mending the base as little as it must be would give its nearest
 * edge, and from there next to nothing is steady.
 */
type Side = 'low' | 'high' | 'middle';

function wishesFor({ number }: NumberRow, from: number, to: number, side: Side, { solver }: Encoding): Lit[] {
  const middle = (from + to) >> 1;
  if (side === 'middle') return [solver.atMost(number, middle), not(solver.atMost(number, middle - 1))];
  const places = [1, 4, 2].map((share) => (share === 1 ? 0 : Math.floor((to - from) / share)));
  return places.map((place) =>
    side === 'low' ? solver.atMost(number, from + place) : not(solver.atMost(number, to - place - 1)),
  );
}

interface Means {
  wide: readonly ConditionTheory[];
  encoding: Encoding;
  witnesses: WitnessCache;
  lifted: readonly Lit[] | undefined;
  /** Told where a part could not be decided in the budget; such parts are left out. */
  unsure: () => void;
}

const outOfBudget = (): never => {
  throw new OutOfBudget();
};

/** The answer to a question, or no where it could not be had in the budget, which is told. */
export function possible(question: () => boolean, unsure: () => void): boolean {
  try {
    return question();
  } catch (thrown) {
    if (!(thrown instanceof OutOfBudget)) throw thrown;
    unsure();
    return false;
  }
}

/** The allowed parts of an interval, where wide conditions read the number. */
function steadyParts(row: NumberRow, [from, to]: Range, means: Means, towards?: Side): Range[] {
  if (from > to) return [];
  const { wide, encoding, witnesses, lifted, unsure } = means;
  const kept = lifted ? witnesses.assumptions.filter((lit) => !lifted.includes(lit)) : witnesses.assumptions;
  const rest = (range: Range, side?: Side): Range[] => steadyParts(row, range, means, side);
  const intervals = intervalsOf(row, witnesses);
  const known = intervals.find(
    (each) =>
      each.from <= to &&
      each.to >= from &&
      ('build' in each ? each.build.meets(kept) : each.core.every((lit) => kept.includes(lit))),
  );
  if (known) {
    const [low, high] = [Math.max(from, known.from), Math.min(to, known.to)];
    return [
      ...rest([from, low - 1], towards),
      ...('build' in known ? [[low, high] as const] : []),
      ...rest([high + 1, to], towards),
    ];
  }
  const { lits } = wishFor(row, from, to, encoding);
  const answer = encoding.solver.ask({
    assume: [...kept, ...lits],
    base: witnesses.base,
    met: kept.length,
    wishes: towards ? wishesFor(row, from, to, towards, encoding) : [],
  });
  if (answer.is === 'stopped') {
    unsure();
    return [];
  }
  const keep = (interval: Interval): void => {
    intervals.unshift(interval);
    if (intervals.length > mostIntervals) intervals.pop();
  };
  if (answer.is === 'no') {
    keep({ from, to, core: answer.core.filter((lit) => !lits.includes(lit)) });
    return [];
  }
  const first = intervalAround(row, answer.witness(), [from, to], wide, encoding);
  const roomier =
    first.to - first.from < (to - from) >> 3
      ? withRoom(row, first, [from, to], kept, wide, encoding, witnesses)
      : null;
  const {
    from: low,
    to: high,
    build,
  } = roomier && roomier.to - roomier.from > first.to - first.from ? roomier : first;
  keep({ from: low, to: high, build });
  return [
    ...rest([from, low - 1], towards === 'high' ? 'middle' : 'low'),
    [low, high],
    ...rest([high + 1, to], towards === 'low' ? 'middle' : 'high'),
  ];
}

/** How far a build stands with the number moved alone. */
function intervalAround(
  row: NumberRow,
  build: Witness,
  [from, to]: Range,
  wide: readonly ConditionTheory[],
  encoding: Encoding,
): { from: number; to: number; build: Witness } {
  const code = build.codes[row.number] as number;
  const steady = (a: number, b: number): boolean => wide.every((theory) => theory.steady(row, a, b, build));
  const low = furthest(code, standing(row, build, code, from, encoding), (at) => steady(at, code));
  const high = furthest(code, standing(row, build, code, to, encoding), (at) => steady(low, at));
  return { from: low, to: high, build };
}

/**
 * Another build with the same code, in which the other numbers that had to move have moved further: what was
 * mended as little as it must be lies on the edge of what is possible, where nothing is steady. Null where
 * there is none.
 */
function withRoom(
  row: NumberRow,
  { build }: { build: Witness },
  piece: Range,
  kept: readonly Lit[],
  wide: readonly ConditionTheory[],
  encoding: Encoding,
  witnesses: WitnessCache,
): { from: number; to: number; build: Witness } | null {
  const { solver } = encoding;
  const base = witnesses.base;
  const others = [...new Set(wide.flatMap((theory) => theory.numbers))].filter(
    (number) => number !== row.number && base?.codes[number] !== build.codes[number],
  );
  if (!base || others.length === 0) return null;
  const code = build.codes[row.number] as number;
  const wishes = [1, 2, 4, 16, 64, 256].flatMap((share) =>
    others.map((number): Lit => {
      const [was, is, last] = [
        base.codes[number] as number,
        build.codes[number] as number,
        solver.numbers.count(number) - 1,
      ];
      return is > was
        ? not(solver.atMost(number, is + Math.ceil((last - is) / share) - 1))
        : solver.atMost(number, is - Math.ceil(is / share));
    }),
  );
  const answer = solver.ask({
    assume: [...kept, ...wishFor(row, code, code, encoding).lits],
    base: build,
    wishes: wishes.filter((lit) => lit !== always && lit !== never),
  });
  return answer.is === 'yes' ? intervalAround(row, answer.witness(), piece, wide, encoding) : null;
}

/**
 * How far a number can go from its code in a build towards an end with everything else as it is, but for what
 * wide conditions say.
 */
function standing(
  { number }: NumberRow,
  build: Witness,
  code: number,
  end: number,
  { solver }: Encoding,
): number {
  const [cuts, lits] = [solver.numbers.cuts(number), solver.numbers.literals(number)];
  const down = end < code;
  // Passing a cut downwards makes "at most this" true, upwards false.
  const passed = cuts.flatMap((cut, index) =>
    (down ? cut >= end && cut < code : cut >= code && cut < end)
      ? [{ to: down ? cut : cut + 1, lit: down ? (lits[index] as Lit) : not(lits[index] as Lit) }]
      : [],
  );
  if (down) passed.reverse();
  const steps = solver.stepsThatStand(
    build,
    passed.map(({ lit }) => [lit]),
  );
  if (steps === passed.length) return end;
  // The cut that cannot be passed is where it ends.
  const { to } = passed[steps] as { to: number };
  return down ? to + 1 : to - 1;
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
export function canDiffer(
  row: NumberRow,
  witness: Witness,
  encoding: Encoding,
  witnesses: WitnessCache,
): boolean {
  const code = witness.codes[row.number] as number;
  return [
    [0, code - 1],
    [code + 1, row.entry.grid.count - 1],
  ].some(
    ([from, to]) =>
      (from as number) <= (to as number) &&
      witnesses.can(wishFor(row, from as number, to as number, encoding)),
  );
}
