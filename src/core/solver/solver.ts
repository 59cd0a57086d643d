/**
 * The search: propagate, learn from conflicts, and choose what to settle next, by repair of a witness or by
 * activity.
 * The parts that it works with each hold their own invariants: trail, clauses, cardinalities, theories,
 * numbers.
 */
import { Cardinalities } from './cardinalities';
import { Clauses } from './clauses';
import { Heap } from './heap';
import { Learning } from './learning';
import { always, not, variableOf, type Lit } from './literal';
import { Numbers } from './numbers';
import { Repair } from './repair';
import { Theories } from './theories';
import type { Clauses as Voice, Overlay, Theory } from './theory';
import { larger, none, Trail } from './trail';
import { Witness } from './witness';

/** Assumptions, and what a search may take. */
export interface Question {
  assume: readonly Lit[];
  /** A witness to start from; the nearer it is to the assumptions, the faster the answer. */
  base?: Witness | null;
  /** How many of the first assumptions the base is known to meet. */
  met?: number;
  /** Literals to have where that costs no conflict, in this order. */
  wishes?: readonly Lit[];
  /** Conflicts after which the question is given up. */
  budget?: number;
}

/** A witness, or assumptions that cannot stand together, or that the budget was over. */
export type Answer =
  /** `changed`: the literals in which the witness differs from the base; without a base, all. */
  | { is: 'yes'; changed: Lit[]; witness: () => Witness }
  /** `core`: assumptions that cannot stand together. */
  | { is: 'no'; core: Lit[] }
  /** The budget ran out, or the caller said stop. */
  | { is: 'stopped' };

/** Conflicts of one repair after which all variables are settled by activity. */
const repairPatience = 400;
const restartUnit = 128;
const decay = 1 / 0.95;

/** Answers questions under assumptions; what it learns it keeps. */
export class Solver {
  readonly numbers: Numbers;
  /** Conflicts met so far. */
  conflicts = 0;
  /** Asked at the start of a question and now and then during its search; true gives it up. */
  stop: (() => boolean) | undefined;
  /** Conflicts that all questions together may still take. */
  allowance = Infinity;

  private count = 0;
  private readonly trail = new Trail();
  private readonly clauses = new Clauses();
  private readonly cardinalities = new Cardinalities();
  private readonly theories: Theories;
  private readonly learning = new Learning(this.trail, this.clauses, this.cardinalities);
  private readonly repair: Repair;
  private phase = new Uint8Array(512);
  private activity = new Float64Array(512);
  private raise = 1;
  private readonly heap = new Heap(this.activity);
  /** The assumptions that the first levels stand for. */
  private readonly assumed: Lit[] = [];
  private possible = true;

  constructor() {
    this.numbers = new Numbers({
      addVariable: () => this.addVariable(),
      addOrder: (a, b) => this.addOrder(a, b),
      value: (lit) => this.trail.value[lit]!,
    });
    this.theories = new Theories(this.trail, this.clauses, this.numbers);
    this.repair = new Repair(this.trail, this.clauses, this.cardinalities, this.theories);
    this.addVariable();
    this.trail.settle(always, none);
  }

  // ---- building
  // -------------------------------------------------------------------------------------------------------

  get variables(): number {
    return this.count;
  }

  addVariable(): number {
    const variable = this.count++;
    this.trail.fit(this.count);
    if (this.count > this.phase.length) {
      this.phase = larger(this.phase, new Uint8Array(2 * this.phase.length));
      this.activity = larger(this.activity, new Float64Array(this.phase.length));
      this.heap.ranked(this.activity);
    }
    this.clauses.addVariable();
    this.cardinalities.addVariable();
    this.theories.addVariable();
    this.heap.add(variable);
    return variable;
  }

  /** A new variable's literal. */
  add(): Lit {
    return 2 * this.addVariable();
  }

  /** A number with the values 0..count-1. */
  addNumber(count: number): number {
    this.theories.addNumber();
    return this.numbers.add(count);
  }

  /** The literal "at most k" of a number. */
  atMost(number: number, k: number): Lit {
    if (!this.numbers.known(number, k)) this.back(0);
    return this.numbers.atMost(number, k);
  }

  addClause(lits: readonly Lit[]): void {
    this.back(0);
    const { value } = this.trail;
    const open = new Set<Lit>();
    for (const lit of lits) {
      if (value[lit]! > 0 || open.has(not(lit))) return;
      if (value[lit]! === 0) open.add(lit);
    }
    const left = [...open];
    if (left.length === 0) this.possible = false;
    else if (left.length === 1) this.trail.settle(left[0]!, none);
    else this.clauses.add(left, 0);
  }

  /** At most so many of the literals hold, while the guard holds. */
  addAtMost(lits: readonly Lit[], most: number, guard: Lit = always): void {
    this.back(0);
    this.cardinalities.add(lits, most, guard);
    // What holds at the root may have been propagated already.
    this.trail.head = 0;
  }

  addTheory(theory: Theory): void {
    this.back(0);
    this.theories.add(theory);
  }

  /** A theory has become stricter: it is asked again from the root. */
  renew(theory: Theory): void {
    this.back(0);
    this.theories.renew(theory);
  }

  /**
   * The order of two cuts of a number. Of a cut made during a search, inside its number's bounds, no side is
   * false.
   */
  private addOrder(a: Lit, b: Lit): void {
    if (this.trail.depth > 0) this.clauses.add([a, b], 0);
    else this.addClause([a, b]);
  }

  /**
   * Everything given: clauses (what is settled for good as clauses of one literal) and cardinalities.
   * Theories are not among it.
   */
  constraints(): { clauses: Lit[][]; cardinalities: { lits: readonly Lit[]; most: number; guard: Lit }[] } {
    this.back(0);
    const settled = [...this.trail.order.subarray(0, this.trail.size)].map((lit) => [lit]);
    return {
      clauses: [...settled, ...(this.possible ? [] : [[]]), ...this.clauses.allGiven()],
      cardinalities: this.cardinalities.list.map(({ lits, most, guard }) => ({
        lits: [...lits],
        most,
        guard,
      })),
    };
  }

  // ---- asking
  // ---------------------------------------------------------------------------------------------------------

  /** Whether everything given can hold together with the assumptions. */
  ask({ assume, base = null, met = 0, wishes = [], budget = Infinity }: Question): Answer {
    const { trail } = this;
    if (this.clauses.crowded) this.forget();
    this.keepCommon(assume);
    const known = base ? Math.min(met, assume.length) : 0;
    /**
     * How far wishes are granted and the trail is checked against the base, and how far they were when each
     * level began.
     */
    let at: Progress = { wish: 0, scan: -1 };
    const began: Progress[] = [];
    let byRepair = base !== null;
    let spent = 0;
    let untilRestart = restartUnit;
    let rounds = 0;
    if (this.allowance <= 0 || this.stop?.()) return { is: 'stopped' };
    for (;;) {
      // Theories may take long without a conflict.
      if ((++rounds & 63) === 0 && this.stop?.()) return { is: 'stopped' };
      if (!this.possible) return { is: 'no', core: [] };
      const conflict = this.propagate();
      if (conflict !== none) {
        spent++;
        this.allowance--;
        if (!this.learnFrom(conflict)) return { is: 'no', core: [] };
        at = (trail.depth >= assume.length && began[trail.depth]) || { wish: 0, scan: -1 };
        if (spent >= budget || this.allowance <= 0) return { is: 'stopped' };
        if (spent > repairPatience) byRepair = false;
        if (!byRepair && --untilRestart <= 0) {
          untilRestart = restartUnit * luby(Math.floor(spent / restartUnit) + 1);
          this.back(Math.min(trail.depth, assume.length));
          at = { wish: 0, scan: -1 };
        }
        continue;
      }
      const assumption = assume[trail.depth];
      if (assumption !== undefined) {
        if (trail.value[assumption]! < 0) return { is: 'no', core: this.learning.coreOf(assumption) };
        this.assume(assumption);
        continue;
      }
      const next =
        this.wished(wishes, at) ?? (base && byRepair ? this.mend(base, at, known) : this.byActivity(base));
      if (next === null) return this.found(base, known);
      began[trail.depth] = { ...at };
      trail.mark();
      trail.settle(next, none);
    }
  }

  /** Lets one read what follows from assumptions by propagation alone; null where they are refused. */
  consider<T>(assume: readonly Lit[], read: (settled: Voice) => T): T | null {
    this.keepCommon(assume);
    while (this.possible) {
      const conflict = this.propagate();
      const next = assume[this.trail.depth];
      if (conflict !== none) this.learnFrom(conflict);
      else if (next === undefined) return read(this.theories.voice);
      else if (this.trail.value[next]! < 0) return null;
      else this.assume(next);
    }
    return null;
  }

  /**
   * Whether a witness with some literals changed still meets everything given; false also where it cannot
   * tell.
   */
  stands(base: Witness, changed: readonly Lit[]): boolean {
    return this.repair.stands(base, changed);
  }

  /** How many groups of literals can be changed in a witness one after the other; see `Repair`. */
  stepsThatStand(base: Witness, groups: readonly (readonly Lit[])[]): number {
    return this.repair.stepsThatStand(base, groups);
  }

  /** Tells every variable that shares something given with one of the literals. */
  neighbours(changed: readonly Lit[], tell: (variable: number) => void): void {
    this.repair.neighbours(changed, tell);
  }

  private assume(lit: Lit): void {
    this.assumed.push(lit);
    this.trail.mark();
    if (this.trail.value[lit]! === 0) this.trail.settle(lit, none);
  }

  // ---- choosing
  // -------------------------------------------------------------------------------------------------------

  private wished(wishes: readonly Lit[], at: Progress): Lit | null {
    while (at.wish < wishes.length) {
      const lit = wishes[at.wish++]!;
      if (this.trail.value[lit]! === 0) return lit;
    }
    return null;
  }

  /** A literal that mends what the settled ones break of the base; null where nothing is broken. */
  private mend(base: Witness, at: Progress, known: number): Lit | null {
    const { trail } = this;
    if (at.scan < 0) at.scan = trail.marks[known] ?? trail.size;
    for (; at.scan < trail.size; at.scan++) {
      const lit = trail.order[at.scan]!;
      if (base.holds(lit)) continue;
      const next = this.repair.next(lit, base, () => this.overlay(base));
      if (next >= 0) return next;
    }
    return null;
  }

  /** The most active open literal, or what a theory still objects to; null where all is settled. */
  private byActivity(base: Witness | null): Lit | null {
    for (let variable = this.heap.take(); variable >= 0; variable = this.heap.take()) {
      if (this.trail.value[2 * variable]! !== 0) continue;
      const up = base ? base.holds(2 * variable) : this.phase[variable]! === 1;
      return 2 * variable + (up ? 0 : 1);
    }
    for (const theory of this.theories.list) {
      const next = theory.check(this.overlay(base));
      if (next >= 0) return next;
    }
    return null;
  }

  private overlay(base: Witness | null): Overlay {
    const { value } = this.trail;
    const { numbers } = this;
    return {
      value: (lit) => value[lit]!,
      holds: (lit) => value[lit]! > 0 || (value[lit]! === 0 && base !== null && base.holds(lit)),
      code: (number) => {
        const { low, high } = numbers.bounds(number);
        return Math.min(high, Math.max(low, base ? base.codes[number]! : low));
      },
      cut: (number, k) => numbers.atMost(number, k),
      bounds: (number) => numbers.bounds(number),
    };
  }

  /** The answer of a finished search. The witness is written out only when it is asked for; most are not. */
  private found(base: Witness | null, known: number): Answer {
    const { numbers, count, trail } = this;
    const changed: Lit[] = [];
    for (let at = base && known > 0 ? (trail.marks[known] ?? 0) : 0; at < trail.size; at++) {
      const lit = trail.order[at]!;
      if (base?.holds(lit)) continue;
      changed.push(lit);
      this.phase[variableOf(lit)] = lit & 1 ? 0 : 1;
    }
    const overlay = this.overlay(base);
    const codes = new Map<number, number>();
    if (base) {
      for (const lit of changed) {
        const number = numbers.ofVariable(variableOf(lit));
        if (number >= 0) codes.set(number, overlay.code(number));
      }
    } else for (let number = 0; number < numbers.size; number++) codes.set(number, overlay.code(number));
    return { is: 'yes', changed, witness: () => Witness.from(base, changed, codes, count, numbers) };
  }

  // ---- propagating and learning
  // ---------------------------------------------------------------------------------------

  private propagate(): number {
    const { trail, clauses, cardinalities, theories } = this;
    for (;;) {
      while (trail.head < trail.size) {
        const lit = trail.order[trail.head++]!;
        const conflict = clauses.propagate(lit, trail) || cardinalities.propagate(lit, trail);
        if (conflict !== none) {
          trail.head = trail.size;
          return conflict;
        }
        if (theories.list.length > 0) theories.wakeBy(lit);
      }
      if (!theories.awake) return none;
      const conflict = theories.askOne();
      if (conflict !== none) return conflict;
    }
  }

  /**
   * Learns from a conflict and goes back to where the lesson forces something. False where nothing can hold
   * at all.
   */
  private learnFrom(conflict: number): boolean {
    const { learning, trail } = this;
    this.conflicts++;
    // A theory or a late clause may be broken by older levels alone.
    const deepest = learning.depthOf(conflict);
    if (deepest === 0) {
      this.possible = false;
      return false;
    }
    this.back(deepest);
    const { clause, depth, glue } = learning.lesson(conflict, (variable) => this.bump(variable));
    this.raise *= decay;
    this.back(depth);
    trail.settle(clause[0]!, clause.length === 1 ? none : this.clauses.add(clause, glue + 1));
    return true;
  }

  private bump(variable: number): void {
    this.activity[variable]! += this.raise;
    if (this.activity[variable]! > 1e100) {
      for (let each = 0; each < this.count; each++) this.activity[each]! *= 1e-100;
      this.raise *= 1e-100;
    }
    this.heap.raised(variable);
  }

  private back(depth: number): void {
    this.trail.back(depth, (variable) => this.heap.add(variable));
    if (this.assumed.length > depth) this.assumed.length = depth;
  }

  /** Keeps the levels whose assumptions are the same as those asked now. */
  private keepCommon(assume: readonly Lit[]): void {
    const { assumed } = this;
    let common = 0;
    while (common < assumed.length && common < assume.length && assumed[common] === assume[common]) common++;
    this.back(common);
  }

  private forget(): void {
    const { trail } = this;
    this.back(0);
    for (let at = 0; at < trail.size; at++) trail.reason[variableOf(trail.order[at]!)] = none;
    trail.head = 0;
    this.clauses.forget(trail);
  }
}

/** How far wishes are granted, and how far the trail is checked against the base (-1: not begun). */
interface Progress {
  wish: number;
  scan: number;
}

/** 1 1 2 1 1 2 4 ... (Luby, Sinclair and Zuckerman 1993). */
function luby(index: number): number {
  let size = 1;
  let power = 0;
  while (size < index + 1) {
    size = 2 * size + 1;
    power++;
  }
  let at = index;
  while (size - 1 !== at) {
    size = (size - 1) >> 1;
    power--;
    at %= size;
  }
  return 2 ** power;
}
