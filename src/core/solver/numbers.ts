/**
 * Numbers as order literals: a number with values 0..count-1 has a literal "at most k" only for those k where
 * somebody asked.
 * A number of 24,001 values that two rules cut has a handful of literals.
 */
import { always, never, not, variableOf, type Lit } from './literal';

interface NumberVariable {
  count: number;
  /** Where it is cut, ascending, and the literal "at most this" of each. */
  cuts: number[];
  lits: Lit[];
}

/** What the numbers need of the solver. */
interface Host {
  addVariable(): number;
  /** Adds a binary clause at any time. */
  addOrder(a: Lit, b: Lit): void;
  value(lit: Lit): number;
}

/** Numbers as order literals, made where something cuts them. */
export class Numbers {
  private readonly list: NumberVariable[] = [];
  /** Of a bound literal's variable: its number, and its cut. */
  private readonly owner: number[] = [];
  private readonly cutOf: number[] = [];

  constructor(private readonly host: Host) {}

  get size(): number {
    return this.list.length;
  }

  add(count: number): number {
    this.list.push({ count, cuts: [], lits: [] });
    return this.list.length - 1;
  }

  count(number: number): number {
    return this.list[number]!.count;
  }

  /** Where a number is cut: between two cuts no clause tells its values apart. */
  cuts(number: number): readonly number[] {
    return this.list[number]!.cuts;
  }

  /** The literal of each cut. */
  literals(number: number): readonly Lit[] {
    return this.list[number]!.lits;
  }

  /** The number a variable is a bound of, or -1. */
  ofVariable(variable: number): number {
    return this.owner[variable] ?? -1;
  }

  cutHolds(variable: number, codes: Int32Array): boolean {
    return codes[this.owner[variable]!]! <= this.cutOf[variable]!;
  }

  /** Whether "at most k" has its literal already. */
  known(number: number, k: number): boolean {
    const { count, cuts } = this.list[number]!;
    return k < 0 || k >= count - 1 || cuts[firstFrom(cuts, k)] === k;
  }

  /**
   * The literal "at most k". A new one is made where k lies strictly inside the bounds that hold now;
   * the solver sees to that by going back to its root first.
   */
  atMost(number: number, k: number): Lit {
    const entry = this.list[number]!;
    if (k < 0) return never;
    if (k >= entry.count - 1) return always;
    const { cuts, lits } = entry;
    const at = firstFrom(cuts, k);
    if (cuts[at] === k) return lits[at]!;
    const made = 2 * this.host.addVariable();
    while (this.owner.length <= variableOf(made)) {
      this.owner.push(-1);
      this.cutOf.push(-1);
    }
    this.owner[variableOf(made)] = number;
    this.cutOf[variableOf(made)] = k;
    cuts.splice(at, 0, k);
    lits.splice(at, 0, made);
    if (at > 0) this.host.addOrder(not(lits[at - 1]!), made);
    if (at + 1 < lits.length) this.host.addOrder(not(made), lits[at + 1]!);
    return made;
  }

  /**
   * The literal of the greatest cut known to lie below all values left, and of the least known to lie above
   * or at all.
   */
  bounds(number: number): { low: number; high: number; lowLit: Lit; highLit: Lit } {
    const { cuts, lits, count } = this.list[number]!;
    // Order clauses keep the cuts as: not (false), open, holding (true).
    let from = 0;
    let to = cuts.length;
    while (from < to) {
      const middle = (from + to) >> 1;
      if (this.host.value(lits[middle]!) < 0) from = middle + 1;
      else to = middle;
    }
    const firstNotFalse = from;
    to = cuts.length;
    while (from < to) {
      const middle = (from + to) >> 1;
      if (this.host.value(lits[middle]!) > 0) to = middle;
      else from = middle + 1;
    }
    return {
      low: firstNotFalse === 0 ? 0 : cuts[firstNotFalse - 1]! + 1,
      high: from === cuts.length ? count - 1 : cuts[from]!,
      lowLit: firstNotFalse === 0 ? always : not(lits[firstNotFalse - 1]!),
      highLit: from === cuts.length ? always : lits[from]!,
    };
  }
}

/** The first place whose value is at least k. */
function firstFrom(sorted: readonly number[], k: number): number {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (sorted[middle]! < k) from = middle + 1;
    else to = middle;
  }
  return from;
}
