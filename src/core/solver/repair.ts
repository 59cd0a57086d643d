/** What a change of a witness breaks: only constraints that the changed literals touch are looked at. */
import { not, variableOf, type Lit } from './literal';
import type { Cardinalities } from './cardinalities';
import type { Clauses } from './clauses';
import type { Overlay } from './theory';
import type { Theories } from './theories';
import type { Trail } from './trail';
import type { Witness } from './witness';

/** Changes a witness only where new assumptions touch it. */
export class Repair {
  private flipped = new Uint8Array(512);
  /** By theory: the version of the trail and the base at which it last had nothing to object. */
  private readonly content: { version: number; base: Witness | null }[] = [];

  constructor(
    private readonly trail: Trail,
    private readonly clauses: Clauses,
    private readonly cardinalities: Cardinalities,
    private readonly theories: Theories,
  ) {}

  /**
   * An open literal to settle because a settled one breaks something that the base met; -1 where all it
   * touches stands.
   */
  next(lit: Lit, base: Witness, overlay: () => Overlay): Lit {
    const { value } = this.trail;
    const { memory, given } = this.clauses;
    const touched = given[not(lit)]!;
    for (let each = 0; each < touched.length; each++) {
      const place = touched[each]!;
      const end = place + 2 + memory[place]!;
      let open = -1;
      let stands = false;
      for (let at = place + 2; at < end; at++) {
        const other = memory[at]!;
        const settled = value[other]!;
        if (settled > 0 || (settled === 0 && base.holds(other))) {
          stands = true;
          break;
        }
        if (settled === 0 && open < 0) open = other;
      }
      if (!stands) return open;
    }
    for (const list of [this.cardinalities.counting[lit]!, this.cardinalities.guarded[lit]!]) {
      for (const index of list) {
        const next = this.tooMany(index, base);
        if (next >= 0) return next;
      }
    }
    if (this.theories.list.length === 0) return -1;
    for (const index of this.theories.reading(variableOf(lit))) {
      const content = (this.content[index] ??= { version: -1, base: null });
      if (content.version === this.trail.version && content.base === base) continue;
      const next = this.theories.list[index]!.check(overlay());
      if (next >= 0) return next;
      content.version = this.trail.version;
      content.base = base;
    }
    return -1;
  }

  private tooMany(index: number, base: Witness): Lit {
    const { value } = this.trail;
    const { lits, most, guard } = this.cardinalities.list[index]!;
    if (value[guard]! < 0 || (value[guard]! === 0 && !base.holds(guard))) return -1;
    let sum = 0;
    let open = -1;
    for (const other of lits) {
      if (value[other]! > 0) sum++;
      else if (value[other]! === 0 && base.holds(other)) {
        sum++;
        open = other;
      }
    }
    return sum <= most ? -1 : open >= 0 ? not(open) : not(guard);
  }

  /**
   * Whether a witness with some literals changed still meets everything given; false also where it cannot
   * tell.
   * `changed` must be consistent with the codes of the witness's numbers.
   */
  stands(base: Witness, changed: readonly Lit[]): boolean {
    const { value, level } = this.trail;
    for (const lit of changed) {
      // What is settled at the root has no clause any more; theories are not looked at.
      if (value[lit]! < 0 && level[variableOf(lit)]! === 0) return false;
      if (this.theories.list.length > 0 && this.theories.reading(variableOf(lit)).length > 0) return false;
    }
    if (this.flipped.length < level.length) this.flipped = new Uint8Array(level.length);
    const { flipped } = this;
    for (const lit of changed) flipped[variableOf(lit)] = 1;
    const holds = (lit: Lit) => (flipped[variableOf(lit)]! === 1) !== base.holds(lit);
    const stands = changed.every(
      (lit) => this.clausesStand(lit, holds) && this.cardinalitiesStand(lit, holds),
    );
    for (const lit of changed) flipped[variableOf(lit)] = 0;
    return stands;
  }

  /**
   * How many groups of literals can be changed in a witness, one after the other and all kept, before a
   * clause or cardinality breaks.
   * What theories have to say is not looked at. The changes must be consistent with codes of the witness's
   * numbers.
   */
  stepsThatStand(base: Witness, groups: readonly (readonly Lit[])[]): number {
    const { value, level } = this.trail;
    if (this.flipped.length < level.length) this.flipped = new Uint8Array(level.length);
    const { flipped } = this;
    const holds = (lit: Lit) => (flipped[variableOf(lit)]! === 1) !== base.holds(lit);
    let steps = 0;
    for (const group of groups) {
      for (const lit of group) flipped[variableOf(lit)] = 1;
      // A clause that only an earlier change touches was looked at with that change.
      const stands = group.every(
        (lit) =>
          !(value[lit]! < 0 && level[variableOf(lit)]! === 0) &&
          this.clausesStand(lit, holds) &&
          this.cardinalitiesStand(lit, holds),
      );
      if (!stands) break;
      steps++;
    }
    for (const group of groups) for (const lit of group) flipped[variableOf(lit)] = 0;
    return steps;
  }

  private clausesStand(lit: Lit, holds: (lit: Lit) => boolean): boolean {
    const { memory, given } = this.clauses;
    const touched = given[not(lit)]!;
    for (let each = 0; each < touched.length; each++) {
      const place = touched[each]!;
      const end = place + 2 + memory[place]!;
      let at = place + 2;
      while (at < end && !holds(memory[at]!)) at++;
      if (at === end) return false;
    }
    return true;
  }

  private cardinalitiesStand(lit: Lit, holds: (lit: Lit) => boolean): boolean {
    for (const list of [this.cardinalities.counting[lit]!, this.cardinalities.guarded[lit]!]) {
      for (const index of list) {
        const { lits, most, guard } = this.cardinalities.list[index]!;
        if (!holds(guard)) continue;
        let sum = 0;
        for (const other of lits) if (holds(other)) sum++;
        if (sum > most) return false;
      }
    }
    return true;
  }

  /** Tells every variable that shares something given with one of the literals. */
  neighbours(changed: readonly Lit[], tell: (variable: number) => void): void {
    const { memory, given } = this.clauses;
    const reading = new Set<number>();
    for (const lit of changed) {
      tell(variableOf(lit));
      for (const side of [lit, not(lit)]) {
        for (const place of given[side]!) {
          const end = place + 2 + memory[place]!;
          for (let at = place + 2; at < end; at++) tell(variableOf(memory[at]!));
        }
        for (const list of [this.cardinalities.counting[side]!, this.cardinalities.guarded[side]!]) {
          for (const index of list) {
            const { lits, guard, most } = this.cardinalities.list[index]!;
            tell(variableOf(guard));
            // Of a one-of-many a change concerns only those that hold, and these are told themselves.
            if (most !== 1) for (const other of lits) tell(variableOf(other));
          }
        }
      }
      if (this.theories.list.length > 0)
        for (const index of this.theories.reading(variableOf(lit))) reading.add(index);
    }
    for (const index of reading) this.theories.tellVariables(index, tell);
  }
}
