/**
 * Conditions that are not plain combinations of options: comparisons over numbers and calculations.
 *
 * Such a condition is first grown into clauses: rows are settled one by one, numbers halved, until the
 * abstract value of the formula is certain; each leaf is a clause. Where that takes too many leaves it stays a
 * theory, which gives the clauses that a search runs into.
 */
import type { Environment, Value } from '../../formula';
import type { CompiledModel } from '../../model';
import {
  always,
  never,
  not,
  variableOf,
  type Clauses,
  type Lit,
  type Overlay,
  type Solver,
  type Theory,
  type Witness,
} from '../../solver';
import type { AbstractFormula, AbstractEnv } from '../bounds/abstract-evaluation';
import { anything, abstractOf, type AbstractValue } from '../bounds/abstract-values';
import { evidenceOf, partialValuesOf, type Evidence, type PartialValues } from './partial-values';
import type { Row } from './rows';

/** Literals for a condition's being true and its being false; null is neither. */
export interface Truth {
  yes: Lit;
  no: Lit;
}

/** What can still come out. */
interface Outcomes {
  yes: boolean;
  no: boolean;
  none: boolean;
}

const mostLeaves = 400;
/** Open rows of a condition at which it still cuts numbers. */
const mostOpen = 2;
/** Stands for no literal: the end of a piece of a number that is only looked at. */
const piece: Lit = -1;

/** A formula that reads rows, directly or through calculations. */
export class Subject {
  /** Rows read, in the order they are first read. */
  readonly rows: readonly Row[];
  private readonly rowOf = new Map<number, Row>();

  constructor(
    private readonly model: CompiledModel,
    private readonly look: AbstractFormula,
    private readonly run: (env: Environment) => Value,
    private readonly lookOfCalculation: (slot: number) => AbstractFormula,
    private readonly fixed: (slot: number) => Value,
    rows: readonly Row[],
  ) {
    this.rows = rows;
    for (const row of rows) this.rowOf.set(row.slot, row);
  }

  /**
   * What can come out by the partial values given; `unsettled` collects the rows it read that have several values
   * left.
   */
  outcomes(partials: ReadonlyMap<number, PartialValues>, unsettled?: Set<Row>): Outcomes {
    const { abstract, certain } = this.seen(partials, unsettled);
    const found = { yes: abstract.yes, no: abstract.no, none: abstract.none };
    if (Number(found.yes) + Number(found.no) + Number(found.none) <= 1 || !certain) return found;
    // Everything it read is settled, but bounds are rough: work it out.
    const value = this.settled(partials);
    return value === undefined ? found : outcomeOf(value);
  }

  /** Its value, where all rows that it needs are settled by the partial values; undefined where one is open. */
  settled(partials: ReadonlyMap<number, PartialValues>): Value | undefined {
    let whole = true as boolean;
    const value = this.exact((slot) => {
      const partial = partials.get(slot) as PartialValues;
      if (partial.value === undefined) whole = false;
      return partial.value ?? null;
    });
    return whole ? value : undefined;
  }

  /** The formula's abstract value by the partial values given, and whether all it read was settled. */
  seen(
    partials: ReadonlyMap<number, PartialValues>,
    unsettled?: Set<Row>,
  ): { abstract: AbstractValue; certain: boolean } {
    const known = new Map<number, AbstractValue>();
    let certain = true;
    const env: AbstractEnv = (slot) => {
      const before = known.get(slot);
      if (before) return before;
      const entry = this.model.entries[slot];
      let seen: AbstractValue;
      if (!entry) seen = anything;
      else if (entry.kind === 'calculation') seen = this.lookOfCalculation(slot)(env);
      else if (entry.kind === 'context') seen = abstractOf(this.fixed(slot));
      else {
        const partial = partials.get(slot) as PartialValues;
        if (partial.value === undefined) {
          certain = false;
          unsettled?.add(this.rowOf.get(slot) as Row);
        }
        seen = partial.abstract;
      }
      known.set(slot, seen);
      return seen;
    };
    return { abstract: this.look(env), certain };
  }

  exact(valueOf: (slot: number) => Value): Value {
    const known = new Map<number, Value>();
    const env: Environment = (slot) => {
      const before = known.get(slot);
      if (before !== undefined) return before;
      const entry = this.model.entries[slot];
      const value = !entry
        ? null
        : entry.kind === 'calculation'
          ? entry.formula.run(env)
          : entry.kind === 'context'
            ? this.fixed(slot)
            : valueOf(slot);
      known.set(slot, value);
      return value;
    };
    return this.run(env);
  }
}

const outcomeOf = (value: Value): Outcomes => ({
  yes: value === true,
  no: value === false,
  none: value !== true && value !== false,
});

/**
 * Gives literals that are true exactly where the condition is true, and where it is false. Conditions left as
 * theories go to `wide`.
 */
export function truthOf(subject: Subject, solver: Solver, wide: ConditionTheory[]): Truth {
  const grown = grow(subject, solver);
  if (grown) return define(grown, solver);
  const truth = { yes: solver.add(), no: solver.add() };
  solver.addClause([not(truth.yes), not(truth.no)]);
  const theory = new ConditionTheory(subject, truth);
  solver.addTheory(theory);
  wide.push(theory);
  return truth;
}

interface Leaf {
  lits: Lit[];
  outcome: keyof Outcomes;
}

/** Settles rows until every branch has one outcome; null where that takes too many leaves. */
function grow(subject: Subject, solver: Solver): Leaf[] | null {
  const leaves: Leaf[] = [];
  const paths = new Map<Row, Evidence[]>(subject.rows.map((row) => [row, []]));
  const partials = new Map<number, PartialValues>(
    subject.rows.map((row) => [row.slot, partialValuesOf(row, [])]),
  );
  let left = mostLeaves;
  const visit = (): boolean => {
    if (left < 0) return false;
    const unsettled = new Set<Row>();
    const { yes, no, none } = subject.outcomes(partials, unsettled);
    if (Number(yes) + Number(no) + Number(none) === 1) {
      left--;
      leaves.push({
        lits: [...paths.values()].flat().map((each) => each.lit),
        outcome: yes ? 'yes' : no ? 'no' : 'none',
      });
      return true;
    }
    const row = next(unsettled, paths);
    if (!row) return false;
    const before = paths.get(row) as Evidence[];
    if (row.shown !== always && before.length === 0) {
      // Whether it exists comes first, for all rows that exist with it.
      const together = subject.rows.filter((each) => each.shown === row.shown);
      return [not(row.shown), row.shown].every((lit) => within(together, () => [{ lit }]));
    }
    return branches(row, before, solver).every((evidence) => within([row], () => evidence));
  };
  const within = (rows: readonly Row[], evidence: () => Evidence[]): boolean => {
    const before = rows.map((row) => ({
      row,
      path: paths.get(row) as Evidence[],
      partial: partials.get(row.slot) as PartialValues,
    }));
    for (const row of rows) {
      paths.set(row, evidence());
      partials.set(row.slot, partialValuesOf(row, evidence()));
    }
    const fine = visit();
    for (const { row, path, partial } of before) {
      paths.set(row, path);
      partials.set(row.slot, partial);
    }
    return fine;
  };
  return visit() ? leaves : null;
}

/**
 * Choices before numbers, since a choice often decides whether a number counts at all; of numbers the one
 * least cut.
 */
function next(unsettled: ReadonlySet<Row>, paths: ReadonlyMap<Row, Evidence[]>): Row | undefined {
  const rows = [...unsettled];
  return (
    rows.find((row) => row.kind !== 'number') ??
    rows.sort(
      (a, b) =>
        (paths.get(a)?.length ?? 0) - (paths.get(b)?.length ?? 0) || width(b, paths) - width(a, paths),
    )[0]
  );
}

function width(row: Row, paths: ReadonlyMap<Row, Evidence[]>): number {
  if (row.kind !== 'number') return 0;
  const path = paths.get(row) ?? [];
  return (
    ((path.find((each) => each.high !== undefined)?.high ?? row.entry.grid.count - 1) -
      (path.find((each) => each.low !== undefined)?.low ?? 0)) /
    row.entry.grid.count
  );
}

/** The cases that a row which exists falls into next, each as all that is then known of it. */
function branches(row: Row, before: readonly Evidence[], solver: Solver): Evidence[][] {
  switch (row.kind) {
    case 'choice':
      return [...row.taken, row.none].filter((lit) => lit !== never).map((lit) => [{ lit }]);
    case 'yesno':
      return [[{ lit: row.yes }], [{ lit: row.no }]];
    case 'many': {
      const open = row.taken.find(
        (lit) => !before.some((each) => variableOf(each.lit) === variableOf(lit)),
      ) as Lit;
      return [
        [...before, { lit: open }],
        [...before, { lit: not(open) }],
      ];
    }
    case 'number': {
      const shown: Evidence[] = row.shown === always ? [] : [{ lit: row.shown }];
      const low = before.find((each) => each.low !== undefined)?.low ?? 0;
      const high = before.find((each) => each.high !== undefined)?.high ?? row.entry.grid.count - 1;
      const middle = (low + high) >> 1;
      const range = (from: number, to: number): Evidence[] => {
        const [above, below] = [solver.atMost(row.number, from - 1), solver.atMost(row.number, to)];
        return [
          ...shown,
          ...(above === never ? [] : [{ lit: not(above), low: from }]),
          ...(below === always ? [] : [{ lit: below, high: to }]),
        ];
      };
      return [range(low, middle), range(middle + 1, high)];
    }
  }
}

/**
 * Leaves as clauses; where all of one outcome it is a constant, and where null never comes out "false" is the
 * opposite of "true".
 */
function define(leaves: readonly Leaf[], solver: Solver): Truth {
  const has = (outcome: keyof Outcomes): boolean => leaves.some((leaf) => leaf.outcome === outcome);
  const yes = !has('yes') ? never : has('no') || has('none') ? solver.add() : always;
  const no = !has('no')
    ? never
    : !has('none')
      ? not(yes)
      : !has('yes') && !has('none')
        ? always
        : solver.add();
  for (const { lits, outcome } of leaves) {
    const opposite = lits.map(not);
    if (yes !== always && yes !== never) solver.addClause([...opposite, outcome === 'yes' ? yes : not(yes)]);
    if (no !== always && no !== never && no !== not(yes))
      solver.addClause([...opposite, outcome === 'no' ? no : not(no)]);
  }
  return { yes, no };
}

/**
 * A condition too wide to be written out: it speaks when what is settled decides it, with the least of it
 * that does.
 */
export class ConditionTheory implements Theory {
  readonly lits: Lit[];
  readonly numbers: number[];

  constructor(
    private readonly subject: Subject,
    private readonly truth: Truth,
  ) {
    const { rows } = subject;
    this.numbers = rows.flatMap((row) => (row.kind === 'number' ? [row.number] : []));
    this.lits = [
      truth.yes,
      truth.no,
      ...rows.flatMap((row) => [
        row.shown,
        ...(row.kind === 'yesno' ? [row.yes, row.no] : row.kind === 'number' ? [] : row.taken),
        ...(row.kind === 'choice' ? [row.none] : []),
      ]),
    ].filter((lit) => lit !== always && lit !== never);
  }

  propagate(clauses: Clauses): void {
    const { rows } = this.subject;
    const evidence = new Map(rows.map((row) => [row, evidenceOf(row, clauses)]));
    const partials = new Map(
      rows.map((row) => [row.slot, partialValuesOf(row, evidence.get(row) as Evidence[])]),
    );
    const { yes, no, none } = this.subject.outcomes(partials);
    const claims: [boolean, Lit, (found: Outcomes) => boolean][] = [
      [!yes, not(this.truth.yes), (found) => !found.yes],
      [!no, not(this.truth.no), (found) => !found.no],
      [!no && !none, this.truth.yes, (found) => !found.no && !found.none],
      [!yes && !none, this.truth.no, (found) => !found.yes && !found.none],
    ];
    for (const [holds, lit, still] of claims) {
      if (!holds || clauses.value(lit) > 0) continue;
      if (!clauses.imply([lit, ...this.least(evidence, still).map(not)])) return;
    }
    this.shave(clauses, evidence, partials);
  }

  /** Cuts from the ends of numbers what the truth that is settled rules out. */
  private shave(
    clauses: Clauses,
    evidence: ReadonlyMap<Row, Evidence[]>,
    partials: Map<number, PartialValues>,
  ): void {
    const [yes, no] = [clauses.value(this.truth.yes), clauses.value(this.truth.no)];
    const refuted = (found: Outcomes): boolean =>
      (yes > 0 && !found.yes) ||
      (yes < 0 && !found.no && !found.none) ||
      (no > 0 && !found.no) ||
      (no < 0 && !found.yes && !found.none);
    const settled = [this.truth.yes, this.truth.no].flatMap((lit) =>
      clauses.value(lit) > 0 ? [not(lit)] : clauses.value(lit) < 0 ? [lit] : [],
    );
    // While more than one row is open, looking costs more than what is found.
    const open = this.subject.rows.filter(
      (row) => (partials.get(row.slot) as PartialValues).value === undefined,
    );
    if (settled.length === 0 || open.length > mostOpen) return;
    for (const row of open) {
      if (row.kind !== 'number') continue;
      for (const upper of [false, true]) {
        const now = clauses.bounds(row.number);
        const width = now.high - now.low;
        for (let size = width >> 1; size >= 1 && size > width >> 5; size >>= 2) {
          // The end piece, as if the number lay there.
          const edge = upper ? now.high - size + 1 : now.low + size - 1;
          const own: Evidence[] = [
            ...(evidence.get(row) as Evidence[]).filter(
              (each) => each.low === undefined && each.high === undefined,
            ),
            upper ? { lit: piece, low: edge } : { lit: now.lowLit, low: now.low },
            upper ? { lit: now.highLit, high: now.high } : { lit: piece, high: edge },
          ];
          const before = partials.get(row.slot) as PartialValues;
          partials.set(row.slot, partialValuesOf(row, own));
          const cutOff = refuted(this.subject.outcomes(partials));
          partials.set(row.slot, before);
          if (!cutOff) continue;
          const reasons = this.least(new Map(evidence).set(row, own), refuted, row).filter(
            (lit) => lit !== piece && lit !== always,
          );
          const bound = upper ? clauses.cut(row.number, edge - 1) : not(clauses.cut(row.number, edge));
          // What follows from the new bound comes first; being woken by it, this goes on afterwards.
          clauses.imply([bound, ...settled, ...reasons.map(not)]);
          return;
        }
      }
    }
  }

  /** A smallest part of the evidence that still makes the claim; that of one row may be held fast. */
  private least(
    evidence: ReadonlyMap<Row, Evidence[]>,
    still: (found: Outcomes) => boolean,
    fast?: Row,
  ): Lit[] {
    const kept = new Map(evidence);
    const partials = new Map([...kept].map(([row, list]) => [row.slot, partialValuesOf(row, list)]));
    const without = (row: Row, fewer: Evidence[]): boolean => {
      const before = partials.get(row.slot) as PartialValues;
      partials.set(row.slot, partialValuesOf(row, fewer));
      if (still(this.subject.outcomes(partials))) {
        kept.set(row, fewer);
        return true;
      }
      partials.set(row.slot, before);
      return false;
    };
    for (const [row, list] of evidence) {
      if (row === fast || list.length === 0 || without(row, []) || list.length > 16) continue;
      for (const each of list) {
        const now = kept.get(row) as Evidence[];
        if (now.length > 1)
          without(
            row,
            now.filter((other) => other !== each),
          );
      }
    }
    return [...kept.values()].flat().map((each) => each.lit);
  }

  check(overlay: Overlay): Lit {
    const partials = new Map(this.subject.rows.map((row) => [row.slot, settledPartial(row, overlay)]));
    const { yes, no } = this.subject.outcomes(partials);
    if (yes === overlay.holds(this.truth.yes) && no === overlay.holds(this.truth.no)) return -1;
    for (const row of this.subject.rows) {
      const lits = [
        row.shown,
        ...(row.kind === 'yesno'
          ? [row.latent, row.yes]
          : row.kind === 'number'
            ? []
            : [...row.latent, ...row.taken]),
      ];
      const open =
        lits.find((lit) => overlay.value(lit) === 0 && overlay.holds(lit)) ??
        lits.find((lit) => overlay.value(lit) === 0);
      if (open !== undefined) return overlay.holds(open) ? open : not(open);
    }
    const half = halve(this.subject.rows, overlay);
    if (half >= 0) return half;
    const open = [this.truth.yes, this.truth.no].find((lit) => overlay.value(lit) === 0) ?? this.truth.yes;
    return (open === this.truth.yes ? yes : no) ? open : not(open);
  }

  /**
   * Whether the condition stays as it is in a witness for every value of one of its numbers from one to
   * another.
   */
  steady(row: Row, from: number, to: number, witness: Witness): boolean {
    const settled = {
      value: (lit: Lit) => (witness.holds(lit) ? 1 : -1),
      bounds: () => ({ low: 0, high: 0, lowLit: always, highLit: always }),
    };
    const partials = new Map<number, PartialValues>();
    for (const each of this.subject.rows) {
      if (each.kind !== 'number') partials.set(each.slot, partialValuesOf(each, evidenceOf(each, settled)));
      else {
        const shown = witness.holds(each.shown) ? each.shown : not(each.shown);
        const [low, high] =
          each === row
            ? [from, to]
            : [witness.codes[each.number] as number, witness.codes[each.number] as number];
        partials.set(each.slot, partialValuesOf(each, [{ lit: shown }, { lit: -1, low }, { lit: -1, high }]));
      }
    }
    const { yes, no, none } = this.subject.outcomes(partials);
    return Number(yes) + Number(no) + Number(none) === 1;
  }
}

/**
 * Halves the number that is least settled, on the side of its present code: all narrow together, and soon
 * enough is known. -1 where none is open.
 */
export function halve(rows: readonly Row[], overlay: Overlay): Lit {
  let widest: { number: number; low: number; high: number } | null = null;
  let most = 0;
  for (const row of rows) {
    if (row.kind !== 'number') continue;
    const { low, high } = overlay.bounds(row.number);
    const width = (high - low) / row.entry.grid.count;
    if (width > most) [widest, most] = [{ number: row.number, low, high }, width];
  }
  if (!widest) return -1;
  const middle = (widest.low + widest.high) >> 1;
  const cut = overlay.cut(widest.number, middle);
  return overlay.code(widest.number) <= middle ? cut : not(cut);
}

/** What is known of a row in a complete assignment. */
function settledPartial(
  row: Row,
  witness: { holds(lit: Lit): boolean; code(number: number): number },
): PartialValues {
  if (row.kind !== 'number')
    return partialValuesOf(
      row,
      evidenceOf(row, {
        value: (lit) => (witness.holds(lit) ? 1 : -1),
        bounds: () => ({ low: 0, high: 0, lowLit: always, highLit: always }),
      }),
    );
  if (!witness.holds(row.shown)) return partialValuesOf(row, [{ lit: not(row.shown) }]);
  const code = witness.code(row.number);
  return partialValuesOf(row, [{ lit: row.shown }, { lit: -1, low: code }, { lit: -1, high: code }]);
}

/** The value of a row in a complete assignment. */
export function valueIn(
  row: Row,
  witness: { holds(lit: Lit): boolean; code(number: number): number },
): Value {
  switch (row.kind) {
    case 'choice': {
      const index = row.taken.findIndex((lit) => witness.holds(lit));
      return index < 0 ? null : (row.ids[index] as string);
    }
    case 'many':
      return row.ids.filter((_, index) => witness.holds(row.taken[index] as Lit));
    case 'yesno':
      return witness.holds(row.yes) ? true : witness.holds(row.no) ? false : null;
    case 'number':
      return witness.holds(row.shown)
        ? (partialValuesOf(row, [
            { lit: row.shown },
            { lit: -1, low: witness.code(row.number) },
            { lit: -1, high: witness.code(row.number) },
          ]).value ?? null)
        : null;
  }
}
