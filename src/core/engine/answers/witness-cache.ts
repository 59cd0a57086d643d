/**
 * Which of many wishes can be had beside assumptions, kept up from question to question.
 *
 * One witness, the base, meets the assumptions. A wish that can be had is remembered by the few literals in
 * which a witness of it differs from the base; when the base moves, only wishes near what moved are looked at
 * again, and most of those stand without a search. A wish refused is remembered by the assumptions that
 * refuse it.
 */
import { not, variableOf, type Lit, type Solver, type Witness } from '../../solver';

/** Thrown where a question was stopped or took more than the budget: nothing is claimed then. */
export class OutOfBudget extends Error {
  // Told apart by it where it comes from another thread.
  override readonly name = 'OutOfBudget';
}

type Known =
  /** Can be had: the base with these literals changed. */
  { can: true; changed: readonly Lit[]; seen: number } | { can: false; core: readonly Lit[] };

/** A wish by its literals; the key names it from call to call and always means the same literals. */
export interface Wish {
  key: number;
  lits: readonly Lit[];
}

/** What can still be had under one set of assumptions, kept as one witness and what differs for each wish. */
export class WitnessCache {
  base: Witness | null = null;
  private assume: Lit[] = [];
  private readonly known: (Known | undefined)[] = [];
  /** How often a literal is assumed. */
  private assumed = new Uint16Array(0);
  /** Move at which a variable's neighbourhood last changed. */
  private touched = new Int32Array(0);
  private moves = 0;
  /** Wishes to be told of when they may be lost, by the variables on which their witness hangs. */
  private readonly watchers: (Set<Watch> | undefined)[] = [];
  private readonly watched = new Map<number, Watch>();

  constructor(
    private readonly solver: Solver,
    /** What the first witness is to have where that costs no conflict. */
    private readonly preferred: readonly Lit[],
  ) {}

  get assumptions(): readonly Lit[] {
    return this.assume;
  }

  assumes(lit: Lit): boolean {
    return (this.assumed[lit] as number) > 0;
  }

  /**
   * Takes other assumptions. Null where they can stand together, else those that cannot; then the old ones
   * stay.
   */
  move(assume: readonly Lit[]): readonly Lit[] | null {
    const refused = this.rest(assume);
    if (refused) return refused;
    for (const lit of this.assume) (this.assumed[lit] as number)--;
    this.assume = [];
    this.add(assume);
    return null;
  }

  /**
   * Takes further assumptions. Null where they can stand beside the others, else those that cannot; then
   * nothing is taken.
   */
  extend(lits: readonly Lit[]): readonly Lit[] | null {
    const refused = this.base?.meets(lits) ? null : this.rest([...this.assume, ...lits]);
    if (!refused) this.add(lits);
    return refused;
  }

  /** Gives up the assumptions taken last. */
  retract(count: number): void {
    for (const lit of this.assume.splice(this.assume.length - count)) (this.assumed[lit] as number)--;
  }

  /** Starts from a witness found elsewhere, where there is none yet. */
  startFrom(witness: Witness | null): void {
    this.base ??= witness;
  }

  private add(lits: readonly Lit[]): void {
    this.fit();
    for (const lit of lits) {
      this.assume.push(lit);
      (this.assumed[lit] as number)++;
      this.doubt(variableOf(lit));
    }
  }

  /** Makes the base meet assumptions. */
  private rest(assume: readonly Lit[]): readonly Lit[] | null {
    if (this.base?.meets(assume)) return null;
    const answer = this.solver.ask({ assume, base: this.base, wishes: this.base ? [] : this.preferred });
    if (answer.is === 'stopped') throw new OutOfBudget();
    if (answer.is === 'no') return answer.core;
    this.fit();
    this.moves++;
    if (this.base) {
      this.solver.neighbours(answer.changed, (variable) => {
        if (this.touched[variable] === this.moves) return;
        this.touched[variable] = this.moves;
        this.doubt(variable);
      });
    }
    this.base = answer.witness();
    return null;
  }

  private fit(): void {
    const { variables } = this.solver;
    if (this.touched.length >= variables) return;
    this.touched = grown(this.touched, new Int32Array(2 * variables));
    this.assumed = grown(this.assumed, new Uint16Array(4 * variables));
  }

  /** Whether a wish can be had beside the assumptions; with `lifted`, as if those were not made. */
  can(wish: Wish, lifted?: readonly Lit[]): boolean {
    const { base } = this;
    if (!base) return false;
    if (base.meets(wish.lits)) return true;
    const known = this.known[wish.key];
    if (known && this.stillHolds(known, wish, lifted)) return known.can;
    const kept = lifted ? this.assume.filter((lit) => !lifted.includes(lit)) : this.assume;
    const answer = this.solver.ask({ assume: [...kept, ...wish.lits], base, met: kept.length });
    if (answer.is === 'stopped') throw new OutOfBudget();
    this.known[wish.key] =
      answer.is === 'yes'
        ? { can: true, changed: answer.changed, seen: this.moves }
        : { can: false, core: answer.core.filter((lit) => !wish.lits.includes(lit)) };
    this.hang(wish);
    return answer.is === 'yes';
  }

  /** The assumptions that refuse a wish, as last found. */
  coreOf({ key }: Wish): readonly Lit[] | null {
    const known = this.known[key];
    return known && !known.can ? known.core : null;
  }

  private stillHolds(known: Known, wish: Wish, lifted: readonly Lit[] | undefined): boolean {
    const { assumed, touched } = this;
    if (!known.can) {
      for (const lit of known.core) if (assumed[lit] === 0 || lifted?.includes(lit) === true) return false;
      return true;
    }
    const { changed } = known;
    let near = false;
    for (const lit of changed) {
      if ((assumed[not(lit)] as number) > 0 && lifted?.includes(not(lit)) !== true) return false;
      if ((touched[variableOf(lit)] as number) > known.seen) near = true;
    }
    if (!near) {
      known.seen = this.moves;
      return true;
    }
    const base = this.base as Witness;
    const left = changed.filter((lit) => !base.holds(lit));
    const met = wish.lits.every((lit) => base.holds(lit) || left.includes(lit));
    if (!met || !this.solver.stands(base, left)) return false;
    this.known[wish.key] = { can: true, changed: left, seen: this.moves };
    this.hang(wish);
    return true;
  }

  // ---- keeping wishes
  // -------------------------------------------------------------------------------------------------

  /**
   * Keeps an eye on a wish that can be had now: whenever it may have been lost it is put among the doubtful.
   */
  watch(wish: Wish, doubtful: Set<Wish>): void {
    const watch = this.watched.get(wish.key);
    if (watch?.doubtful === doubtful) return;
    this.unwatch(wish);
    this.watched.set(wish.key, { wish, doubtful, on: [] });
    this.hang(wish);
  }

  unwatch({ key }: Wish): void {
    const watch = this.watched.get(key);
    if (!watch) return;
    for (const variable of watch.on) this.watchers[variable]?.delete(watch);
    this.watched.delete(key);
  }

  /** Hangs a watch on what its wish's witness depends on. */
  private hang({ key, lits }: Wish): void {
    const watch = this.watched.get(key);
    if (!watch) return;
    for (const variable of watch.on) this.watchers[variable]?.delete(watch);
    const known = this.known[key];
    watch.on = known?.can ? [...lits, ...known.changed].map(variableOf) : lits.map(variableOf);
    for (const variable of watch.on) (this.watchers[variable] ??= new Set()).add(watch);
  }

  private doubt(variable: number): void {
    const watches = this.watchers[variable];
    if (watches) for (const watch of watches) watch.doubtful.add(watch.wish);
  }
}

interface Watch {
  wish: Wish;
  doubtful: Set<Wish>;
  on: readonly number[];
}

function grown<T extends { set(from: T): void }>(old: T, made: T): T {
  made.set(old);
  return made;
}
