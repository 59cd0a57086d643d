/**
 * Which of many wishes can be had beside assumptions, kept up from question to question.
 *
 * One witness, the base, meets the assumptions. A wish that can be had is remembered by the few literals in which a witness of it
 * differs from the base; when the base moves, only wishes near what moved are looked at again, and most of those stand without a search.
 * A wish refused is remembered by the assumptions that refuse it.
 */
import { not, variableOf, type Lit, type Solver, type Witness } from '../solver';

/** Thrown where a question took more than the budget: nothing is claimed then. */
export class OutOfBudget extends Error {}

type Known =
  /** Can be had: the base with these literals changed. */
  | { can: true; changed: readonly Lit[]; seen: number }
  | { can: false; core: readonly Lit[] };

export class Reach {
  base: Witness | null = null;
  assume: readonly Lit[] = [];
  private readonly known = new Map<number | string, Known>();
  /** 1 where a literal is assumed. */
  private assumed = new Uint8Array(0);
  /** Move at which a variable's neighbourhood last changed. */
  private touched = new Int32Array(0);
  private moves = 0;

  constructor(
    private readonly solver: Solver,
    private readonly budget = Infinity,
  ) {}

  /** Takes other assumptions. Null where they can stand together, else those that cannot. */
  move(assume: readonly Lit[], near: Witness | null = this.base): readonly Lit[] | null {
    let found = near;
    let changed: readonly Lit[] = [];
    if (!near?.meets(assume)) {
      const answer = this.solver.ask({ assume, base: near, budget: this.budget });
      if (answer.is === 'stopped') throw new OutOfBudget();
      if (answer.is === 'no') return answer.core;
      found = answer.witness;
      changed = answer.changed;
    }
    this.rebase(found, near === this.base ? changed : null);
    if (this.assumed.length < 2 * this.solver.variables) this.assumed = grown(this.assumed, new Uint8Array(4 * this.solver.variables));
    for (const lit of this.assume) this.assumed[lit] = 0;
    for (const lit of assume) this.assumed[lit] = 1;
    this.assume = assume;
    return null;
  }

  private rebase(base: Witness | null, changed: readonly Lit[] | null): void {
    this.moves++;
    if (this.touched.length < this.solver.variables) this.touched = grown(this.touched, new Int32Array(2 * this.solver.variables));
    if (changed === null) this.known.clear();
    else this.solver.neighbours(changed, (variable) => (this.touched[variable] = this.moves));
    this.base = base;
  }

  /**
   * Whether a wish can be had beside the assumptions. `key` names it from call to call; the literals are the same for the same key.
   * With `lifted`, as if those assumptions were not made.
   */
  can(key: number | string, wish: readonly Lit[], lifted?: readonly Lit[]): boolean {
    const { base } = this;
    if (!base) return false;
    if (base.meets(wish)) return true;
    const known = this.known.get(key);
    if (known && this.stillHolds(known, key, wish, lifted)) return known.can;
    const kept = lifted ? this.assume.filter((lit) => !lifted.includes(lit)) : this.assume;
    const answer = this.solver.ask({ assume: [...kept, ...wish], base, met: kept.length, budget: this.budget });
    if (answer.is === 'stopped') throw new OutOfBudget();
    this.known.set(key, answer.is === 'yes' ? { can: true, changed: answer.changed, seen: this.moves } : { can: false, core: answer.core.filter((lit) => !wish.includes(lit)) });
    return answer.is === 'yes';
  }

  /** The witness of a wish that can be had. */
  changesFor(key: number | string): readonly Lit[] {
    const known = this.known.get(key);
    return known?.can ? known.changed : [];
  }

  /** The assumptions that refuse a wish, as last found. */
  coreOf(key: number | string): readonly Lit[] | null {
    const known = this.known.get(key);
    return known && !known.can ? known.core : null;
  }

  private stillHolds(known: Known, key: number | string, wish: readonly Lit[], lifted: readonly Lit[] | undefined): boolean {
    if (!known.can) return known.core.every((lit) => this.assumed[lit] === 1 && lifted?.includes(lit) !== true);
    const { changed } = known;
    for (const lit of changed) if (this.assumed[not(lit)] === 1 && lifted?.includes(not(lit)) !== true) return false;
    if (changed.every((lit) => (this.touched[variableOf(lit)] as number) <= known.seen)) {
      known.seen = this.moves;
      return true;
    }
    const base = this.base as Witness;
    const left = changed.filter((lit) => !base.holds(lit));
    const met = wish.every((lit) => base.holds(lit) || left.includes(lit));
    if (!met || !this.solver.stands(base, left)) return false;
    this.known.set(key, { can: true, changed: left, seen: this.moves });
    return true;
  }
}

function grown<T extends { set(from: T): void }>(old: T, made: T): T {
  made.set(old);
  return made;
}
