/** A weighted sum of formulas that must stay below a bound: what the best build is sought with, and what bounds on it are. */
import { Exact, exact, zero } from '../exact';
import { always, never, not, type Clauses, type Lit, type Overlay, type Theory } from '../solver';
import { evidenceOf, sightOf, type Evidence, type Sight } from './sight';
import { valueIn, type Subject } from './truth';
import type { Row } from './rows';

/** One formula of a sum with its weight. A formula that gives nothing counts as 0. */
export interface Summand {
  subject: Subject;
  weight: Exact;
}

export class SumTheory implements Theory {
  readonly lits: Lit[];
  readonly numbers: number[];
  private readonly rows: readonly Row[];
  private readonly weights: readonly number[];
  /** Summands that read a row, by row. */
  private readonly readers = new Map<Row, number[]>();

  /** While the guard holds, the sum must be less than `bound` (or equal, where `strict` is not wanted). */
  constructor(
    private readonly summands: readonly Summand[],
    private readonly guard: Lit,
    public bound: Exact | null,
    private readonly strict: boolean,
  ) {
    this.rows = [...new Set(summands.flatMap((each) => each.subject.rows))];
    this.weights = summands.map((each) => each.weight.toNumber());
    summands.forEach((each, index) => {
      for (const row of each.subject.rows) this.readers.set(row, [...(this.readers.get(row) ?? []), index]);
    });
    this.numbers = this.rows.flatMap((row) => (row.kind === 'number' ? [row.number] : []));
    this.lits = [guard, ...this.rows.flatMap(literalsOf)].filter((lit) => lit !== always && lit !== never);
  }

  exactIn(witness: { holds(lit: Lit): boolean; code(number: number): number }): Exact {
    const values = new Map(this.rows.map((row) => [row.slot, valueIn(row, witness)]));
    return this.summands.reduce((sum, { subject, weight }) => {
      const value = subject.exact((slot) => values.get(slot) ?? null);
      return value instanceof Exact ? (sum.plus(value.times(weight)) as Exact) : sum;
    }, zero);
  }

  /** A number that the sum cannot come below by what is settled. */
  lowest(settled: Pick<Clauses, 'value' | 'bounds'>): number {
    const sights = new Map(this.rows.map((row) => [row.slot, sightOf(row, evidenceOf(row, settled))]));
    return this.summands.reduce((sum, _, index) => sum + this.low(index, sights), 0);
  }

  /** For each row, its literals from the one that keeps the sum lowest; rows where it matters most come first. */
  preferences(): Lit[] {
    const found: { lits: Lit[]; spread: number }[] = [];
    const open = new Map(this.rows.map((row) => [row.slot, sightOf(row, [])]));
    for (const row of this.rows) {
      const options = choicesOf(row);
      const lows = options.map((lit) => this.ofRow(row, new Map(open).set(row.slot, sightOf(row, [{ lit }]))));
      const order = options.map((lit, index) => ({ lit, low: lows[index] as number })).sort((a, b) => a.low - b.low);
      const [first] = order;
      if (first) found.push({ lits: order.map((each) => each.lit), spread: (order[order.length - 1] as { low: number }).low - first.low });
    }
    return found.sort((a, b) => b.spread - a.spread).flatMap(({ lits }) => lits.slice(0, 1));
  }

  propagate(clauses: Clauses): void {
    const { bound, guard } = this;
    if (bound === null || clauses.value(guard) <= 0) return;
    const evidence = new Map(this.rows.map((row) => [row, evidenceOf(row, clauses)]));
    const sights = new Map(this.rows.map((row) => [row.slot, sightOf(row, evidence.get(row) as Evidence[])]));
    const lows = this.summands.map((_, index) => this.low(index, sights));
    const low = lows.reduce((sum, each) => sum + each, 0);
    const limit = bound.toNumber();
    const slack = 1e-9 * (1 + Math.abs(limit));
    if (low > limit + slack || (this.rows.every((row) => sights.get(row.slot)?.value !== undefined) && this.breaks(sights, bound))) {
      clauses.imply([not(guard), ...this.least(evidence, sights, lows, limit + slack, bound).map(not)]);
      return;
    }
    this.prune(clauses, evidence, sights, lows, low, limit + slack);
  }

  /** Options that alone would lift the sum over the bound. */
  private prune(clauses: Clauses, evidence: ReadonlyMap<Row, Evidence[]>, sights: Map<number, Sight>, lows: readonly number[], low: number, limit: number): void {
    for (const row of this.rows) {
      const sight = sights.get(row.slot) as Sight;
      if (row.kind === 'number' || sight.value !== undefined) continue;
      const own = (this.readers.get(row) ?? []).reduce((sum, index) => sum + (lows[index] as number), 0);
      for (const lit of choicesOf(row)) {
        if (clauses.value(lit) !== 0) continue;
        sights.set(row.slot, sightOf(row, [...(row.kind === 'many' ? (evidence.get(row) as Evidence[]) : []), { lit }]));
        const lifted = low - own + this.ofRow(row, sights);
        if (lifted <= limit) continue;
        const others = [...evidence].flatMap(([other, list]) => (other === row && row.kind !== 'many' ? [] : list.map((each) => each.lit)));
        sights.set(row.slot, sight);
        if (!clauses.imply([not(lit), not(this.guard), ...others.map(not)])) return;
      }
      sights.set(row.slot, sight);
    }
  }

  check(overlay: Overlay): Lit {
    if (this.bound === null || !overlay.holds(this.guard)) return -1;
    const sum = this.exactIn(overlay);
    if (this.strict ? sum.lt(this.bound) : sum.lte(this.bound)) return -1;
    for (const row of this.rows) {
      const open = [row.shown, ...choicesOf(row), ...latentOf(row)].find((lit) => overlay.value(lit) === 0 && overlay.holds(lit)) ?? choicesOf(row).find((lit) => overlay.value(lit) === 0);
      if (open !== undefined) return overlay.holds(open) ? open : not(open);
      if (row.kind !== 'number') continue;
      const { low, high } = overlay.bounds(row.number);
      if (low === high) continue;
      const middle = (low + high) >> 1;
      const cut = overlay.cut(row.number, middle);
      return overlay.code(row.number) <= middle ? cut : not(cut);
    }
    return not(this.guard);
  }

  private breaks(sights: ReadonlyMap<number, Sight>, bound: Exact): boolean {
    const sum = this.summands.reduce((all, { subject, weight }) => {
      const value = subject.exact((slot) => sights.get(slot)?.value ?? null);
      return value instanceof Exact ? (all.plus(value.times(weight)) as Exact) : all;
    }, zero);
    return this.strict ? sum.gte(bound) : sum.gt(bound);
  }

  private ofRow(row: Row, sights: ReadonlyMap<number, Sight>): number {
    return (this.readers.get(row) ?? []).reduce((sum, index) => sum + this.low(index, sights), 0);
  }

  private low(index: number, sights: ReadonlyMap<number, Sight>): number {
    const { outlook } = (this.summands[index] as Summand).subject.seen(sights);
    const weight = this.weights[index] as number;
    const ends = outlook.low <= outlook.high ? [outlook.low * weight, outlook.high * weight] : [];
    const low = Math.min(...ends, ...(outlook.none || ends.length === 0 ? [0] : []));
    return Number.isNaN(low) ? -Infinity : low;
  }

  /** Rows whose evidence is needed to tell that the bound is passed; others are left out as long as the sum stays above. */
  private least(evidence: ReadonlyMap<Row, Evidence[]>, given: Map<number, Sight>, lows: readonly number[], limit: number, bound: Exact): Lit[] {
    const sights = new Map(given);
    const now = [...lows];
    let low = now.reduce((sum, each) => sum + each, 0);
    const kept: Lit[] = [];
    const byWeight = [...evidence].filter(([, list]) => list.length > 0);
    if (low <= limit) return this.breaks(sights, bound) ? byWeight.flatMap(([, list]) => list.map((each) => each.lit)) : [];
    for (const [row, list] of byWeight) {
      const before = sights.get(row.slot) as Sight;
      sights.set(row.slot, sightOf(row, []));
      const readers = this.readers.get(row) ?? [];
      const loosened = readers.map((index) => this.low(index, sights));
      const without = low + loosened.reduce((sum, each, at) => sum + each - (now[readers[at] as number] as number), 0);
      if (without > limit) {
        readers.forEach((index, at) => (now[index] = loosened[at] as number));
        low = without;
      } else {
        sights.set(row.slot, before);
        kept.push(...list.map((each) => each.lit));
      }
    }
    return kept;
  }
}

const choicesOf = (row: Row): Lit[] => (row.kind === 'number' ? [] : row.kind === 'yesno' ? [row.yes, row.no] : row.kind === 'many' ? [...row.taken.map(not)] : [...row.taken, ...(row.none === never ? [] : [row.none])]);
const latentOf = (row: Row): readonly Lit[] => (row.kind === 'number' ? [] : row.kind === 'yesno' ? [row.latent] : row.latent);
const literalsOf = (row: Row): Lit[] => [row.shown, ...choicesOf(row)];

export const summand = (subject: Subject, weight: string): Summand => ({ subject, weight: exact(weight) });
