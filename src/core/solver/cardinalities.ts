/**
 * "At most so many of these, while a guard holds." A reason or conflict of cardinality i is written -1 - i.
 */
import { always, not, variableOf, type Lit } from './literal';
import { none, type Trail } from './trail';

/** At most so many of some literals. */
export interface Cardinality {
  lits: Int32Array;
  most: number;
  guard: Lit;
}

/** All of them, watched. */
export class Cardinalities {
  readonly list: Cardinality[] = [];
  /** By literal: cardinalities that count it, and those that it guards. */
  readonly counting: number[][] = [];
  readonly guarded: number[][] = [];

  addVariable(): void {
    this.counting.push([], []);
    this.guarded.push([], []);
  }

  add(lits: readonly Lit[], most: number, guard: Lit): void {
    const index = this.list.length;
    this.list.push({ lits: Int32Array.from(lits), most, guard });
    for (const lit of lits) this.counting[lit]!.push(index);
    if (guard !== always) this.guarded[guard]!.push(index);
  }

  /** What follows from a literal's having come to hold; gives a broken cardinality, or none. */
  propagate(lit: Lit, trail: Trail): number {
    for (const list of [this.counting[lit]!, this.guarded[lit]!]) {
      for (let each = 0; each < list.length; each++) {
        const conflict = this.follow(list[each]!, trail);
        if (conflict !== none) return conflict;
      }
    }
    return none;
  }

  private follow(index: number, trail: Trail): number {
    const { value } = trail;
    const { lits, most, guard } = this.list[index]!;
    if (value[guard]! < 0) return none;
    let sum = 0;
    for (let at = 0; at < lits.length; at++) if (value[lits[at]!]! > 0) sum++;
    if (sum > most) {
      if (value[guard]! > 0) return -1 - index;
      trail.settle(not(guard), -1 - index);
    } else if (sum === most && value[guard]! > 0) {
      for (let at = 0; at < lits.length; at++)
        if (value[lits[at]!]! === 0) trail.settle(not(lits[at]!), -1 - index);
    }
    return none;
  }

  /** The false literals by which a cardinality forced a literal, or is broken where `forced` is -1. */
  because(reason: number, forced: Lit, trail: Trail, found: Lit[]): void {
    const { lits, most, guard } = this.list[-1 - reason]!;
    const before = forced < 0 ? Infinity : trail.place[variableOf(forced)]!;
    const ofGuard = forced >= 0 && forced === not(guard);
    let wanted = forced < 0 || ofGuard ? most + 1 : most;
    if (!ofGuard && guard !== always) found.push(not(guard));
    for (let at = 0; at < lits.length && wanted > 0; at++) {
      const lit = lits[at]!;
      if (trail.value[lit]! > 0 && trail.place[variableOf(lit)]! < before) {
        found.push(not(lit));
        wanted--;
      }
    }
  }
}
