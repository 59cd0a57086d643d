/**
 * A weighted sum of formulas that must stay below a bound: what the best build is sought with, and what
 * bounds on it are.
 */
import { Exact, exact, zero } from '../../exact';
import { always, never, not, type Clauses, type Lit, type Overlay, type Theory } from '../../solver';
import { evidenceOf, partialValuesOf, type Evidence, type PartialValues } from '../encoding/partial-values';
import { halve, valueIn, type Subject } from '../encoding/truth';
import type { Row } from '../encoding/rows';

/** One formula of a sum with its weight. A formula that gives nothing counts as 0. */
export interface Summand {
  subject: Subject;
  weight: Exact;
}

/** A subject with its weight, a decimal as text. */
export const summand = (subject: Subject, weight: string): Summand => ({ subject, weight: exact(weight) });

type Settled = Pick<Clauses, 'value' | 'bounds'>;

/** A part of a sum that is bounded on its own. */
interface Share {
  rows: readonly Row[];
  /** What it comes to at least while nothing is settled. */
  least: number;
  /** What it comes to at least by what is settled. */
  low(settled: Settled): number;
  /** Settled literals that alone keep it from coming below what `low` says. */
  because(settled: Settled): Lit[];
}

/** A weighted sum that must stay below a bound, as a theory of the solver. */
export class SumTheory implements Theory {
  readonly lits: Lit[];
  readonly numbers: number[];
  private readonly rows: readonly Row[];
  private readonly shares: readonly Share[];
  private readonly tables: readonly TableShare[];

  /**
   * While the guard holds, the sum must be less than the bound, or at most the bound where it is not
   * `strict`.
   */
  constructor(
    private readonly summands: readonly Summand[],
    private readonly guard: Lit,
    public bound: Exact | null,
    private readonly strict: boolean,
  ) {
    this.rows = [...new Set(summands.flatMap((each) => each.subject.rows))];
    const byChoice = new Map<Row, Summand[]>();
    const others: Share[] = [];
    for (const each of summands) {
      const [row, ...more] = each.subject.rows;
      if (row && more.length === 0 && (row.kind === 'choice' || row.kind === 'yesno'))
        byChoice.set(row, [...(byChoice.get(row) ?? []), each]);
      else others.push(new FormulaShare(each));
    }
    this.tables = [...byChoice].map(([row, list]) => new TableShare(row, list));
    this.shares = [...this.tables, ...others];
    this.numbers = this.rows.flatMap((row) => (row.kind === 'number' ? [row.number] : []));
    this.lits = [guard, ...this.rows.flatMap((row) => [row.shown, ...choicesOf(row)])].filter(
      (lit) => lit !== always && lit !== never,
    );
  }

  exactIn(witness: { holds(lit: Lit): boolean; code(number: number): number }): Exact {
    const values = new Map(this.rows.map((row) => [row.slot, valueIn(row, witness)]));
    return this.summands.reduce((sum, { subject, weight }) => {
      const value = subject.exact((slot) => values.get(slot) ?? null);
      return value instanceof Exact ? sum.plus(value.times(weight)) : sum;
    }, zero);
  }

  /** A number that the sum cannot come below by what is settled. */
  lowest(settled: Settled): number {
    return this.shares.reduce((sum, share) => sum + share.low(settled), 0);
  }

  /** Of each choice the literal that keeps the sum lowest; choices where it matters most come first. */
  preferences(): Lit[] {
    return [...this.tables].sort((a, b) => b.spread - a.spread).map((table) => table.cheapest);
  }

  propagate(clauses: Clauses): void {
    const { bound, guard, shares } = this;
    if (bound === null || clauses.value(guard) <= 0) return;
    const lows = shares.map((share) => share.low(clauses));
    const low = lows.reduce((sum, each) => sum + each, 0);
    const limit = bound.toNumber() + 1e-9 * (1 + Math.abs(bound.toNumber()));
    if (low > limit) {
      clauses.imply([not(guard), ...this.because(clauses, lows, low - limit).map(not)]);
      return;
    }
    const evidence = this.rows.map((row) => evidenceOf(row, clauses));
    const partials = new Map(
      this.rows.map((row, index) => [row.slot, partialValuesOf(row, evidence[index] as Evidence[])]),
    );
    if (
      low > limit - 1e-6 * (1 + Math.abs(limit)) &&
      this.rows.every((row) => partials.get(row.slot)?.value !== undefined) &&
      this.breaks(partials, bound)
    ) {
      clauses.imply([not(guard), ...evidence.flat().map((each) => not(each.lit))]);
      return;
    }
    // Values that alone would lift the sum over the bound.
    for (const table of this.tables) {
      const own = table.low(clauses);
      for (let at = 0; at < table.lits.length; at++) {
        const lit = table.lits[at] as Lit;
        const excess = low - own + (table.costs[at] as number) - limit;
        if (excess <= 0 || clauses.value(lit) !== 0) continue;
        if (!clauses.imply([not(lit), not(guard), ...this.because(clauses, lows, excess, table).map(not)]))
          return;
      }
    }
  }

  /**
   * Settled literals by which the sum passes the bound; shares that add little are left out as long as the
   * excess bears it.
   */
  private because(settled: Settled, lows: readonly number[], excess: number, except?: Share): Lit[] {
    let left = excess;
    const raised = this.shares
      .map((share, index) => ({ share, raise: (lows[index] as number) - share.least }))
      .filter(({ share, raise }) => raise !== 0 && share !== except);
    raised.sort((a, b) => a.raise - b.raise);
    const found = new Set<Lit>();
    for (const { share, raise } of raised) {
      if (raise < left) left -= raise;
      else for (const lit of share.because(settled)) found.add(lit);
    }
    return [...found];
  }

  check(overlay: Overlay): Lit {
    if (this.bound === null || !overlay.holds(this.guard)) return -1;
    const sum = this.exactIn(overlay);
    if (this.strict ? sum.lt(this.bound) : sum.lte(this.bound)) return -1;
    for (const row of this.rows) {
      const lits = [
        row.shown,
        ...choicesOf(row),
        ...(row.kind === 'number' ? [] : row.kind === 'yesno' ? [row.latent] : row.latent),
      ];
      const open =
        lits.find((lit) => overlay.value(lit) === 0 && overlay.holds(lit)) ??
        lits.find((lit) => overlay.value(lit) === 0);
      if (open !== undefined) return overlay.holds(open) ? open : not(open);
    }
    const half = halve(this.rows, overlay);
    if (half >= 0) return half;
    throw new Error('a sum over its bound with nothing open');
  }

  private breaks(partials: ReadonlyMap<number, PartialValues>, bound: Exact): boolean {
    const sum = this.summands.reduce((all, { subject, weight }) => {
      const value = subject.exact((slot) => partials.get(slot)?.value ?? null);
      return value instanceof Exact ? all.plus(value.times(weight)) : all;
    }, zero);
    return this.strict ? sum.gte(bound) : sum.gt(bound);
  }
}

/**
 * All formulas that read one choice alone: each of its values has its own sum, so that the share is bounded
 * by the least of the values left and not by the sum of each formula's least.
 */
class TableShare implements Share {
  readonly rows: readonly Row[];
  readonly lits: readonly Lit[];
  readonly costs: readonly number[];
  readonly least: number;

  constructor(row: Row, summands: readonly Summand[]) {
    this.rows = [row];
    this.lits = [...choicesOf(row), ...(row.shown === always ? [] : [not(row.shown)])];
    this.costs = this.lits.map((lit) =>
      summands.reduce(
        (sum, each) => sum + lowOf(each, new Map([[row.slot, partialValuesOf(row, [{ lit }])]])),
        0,
      ),
    );
    this.least = Math.min(...this.costs);
  }

  get spread(): number {
    return Math.max(...this.costs) - this.least;
  }

  get cheapest(): Lit {
    return this.lits[this.costs.indexOf(this.least)] as Lit;
  }

  low(settled: Settled): number {
    let low = Infinity;
    for (let at = 0; at < this.lits.length; at++) {
      const value = settled.value(this.lits[at] as Lit);
      if (value > 0) return this.costs[at] as number;
      if (value === 0) low = Math.min(low, this.costs[at] as number);
    }
    return low;
  }

  because(settled: Settled): Lit[] {
    const one = this.lits.find((lit) => settled.value(lit) > 0);
    if (one !== undefined) return [one];
    const low = this.low(settled);
    return this.lits.flatMap((lit, at) => ((this.costs[at] as number) < low ? [not(lit)] : []));
  }
}

/** One formula over several rows, or over a number. */
class FormulaShare implements Share {
  readonly rows: readonly Row[];
  readonly least: number;
  private last: { key: string; low: number } = { key: '-', low: 0 };

  constructor(private readonly summand: Summand) {
    this.rows = summand.subject.rows;
    this.least = lowOf(summand, new Map(this.rows.map((row) => [row.slot, partialValuesOf(row, [])])));
  }

  low(settled: Settled): number {
    const evidence = this.rows.map((row) => evidenceOf(row, settled));
    const key = evidence.map((list) => list.map((each) => each.lit).join()).join(';');
    if (key !== this.last.key)
      this.last = {
        key,
        low: lowOf(
          this.summand,
          new Map(
            this.rows.map((row, index) => [row.slot, partialValuesOf(row, evidence[index] as Evidence[])]),
          ),
        ),
      };
    return this.last.low;
  }

  because(settled: Settled): Lit[] {
    const low = this.low(settled);
    const partials = new Map(
      this.rows.map((row) => [row.slot, partialValuesOf(row, evidenceOf(row, settled))]),
    );
    return this.rows.flatMap((row) => {
      const before = partials.get(row.slot) as PartialValues;
      partials.set(row.slot, partialValuesOf(row, []));
      if (lowOf(this.summand, partials) >= low) return [];
      partials.set(row.slot, before);
      return before.evidence.map((each) => each.lit);
    });
  }
}

function lowOf({ subject, weight }: Summand, partials: ReadonlyMap<number, PartialValues>): number {
  const { abstract, certain } = subject.seen(partials);
  // A filter or a loop is seen roughly even where all that it reads is settled: then it is worked out.
  if (certain && (abstract.low < abstract.high || abstract.none)) {
    const value = subject.settled(partials);
    if (value !== undefined) return value instanceof Exact ? value.times(weight).toNumber() : 0;
  }
  const factor = weight.toNumber();
  const ends = abstract.low <= abstract.high ? [abstract.low * factor, abstract.high * factor] : [];
  const low = Math.min(...ends, ...(abstract.none || ends.length === 0 ? [0] : []));
  return Number.isNaN(low) ? -Infinity : low;
}

const choicesOf = (row: Row): readonly Lit[] =>
  row.kind === 'number'
    ? []
    : row.kind === 'yesno'
      ? [row.yes, row.no]
      : row.kind === 'many'
        ? row.taken
        : [...row.taken, ...(row.none === never ? [] : [row.none])];
