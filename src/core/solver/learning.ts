/**
 * From a conflict to a clause that would have prevented it (first unique implication point), and from a
 * refusal to its core.
 */
import { not, variableOf, type Lit } from './literal';
import type { Cardinalities } from './cardinalities';
import type { Clauses } from './clauses';
import { none, type Trail } from './trail';

/** What a conflict taught. */
export interface Lesson {
  /**
   * The first literal is forced once the trail is back at `depth`; the second, where there is one, was
   * settled there.
   */
  clause: Lit[];
  depth: number;
  /** How many levels the clause ties together. */
  glue: number;
}

/** Makes clauses of conflicts. */
export class Learning {
  private readonly buffer: Lit[] = [];
  private seen = new Uint8Array(512);

  constructor(
    private readonly trail: Trail,
    private readonly clauses: Clauses,
    private readonly cardinalities: Cardinalities,
  ) {}

  /**
   * The other literals of a reason or conflict, all false; `forced` is the literal it forced, or -1. The list
   * is used again.
   */
  because(reason: number, forced: Lit): readonly Lit[] {
    const { buffer } = this;
    const { memory } = this.clauses;
    buffer.length = 0;
    if (reason < 0) this.cardinalities.because(reason, forced, this.trail, buffer);
    else {
      const end = reason + 2 + memory[reason]!;
      for (let at = reason + 2; at < end; at++) if (memory[at]! !== forced) buffer.push(memory[at]!);
    }
    return buffer;
  }

  /** The deepest level that takes part in a conflict; 0 where the conflict stands at the root. */
  depthOf(conflict: number): number {
    let deepest = 0;
    for (const lit of this.because(conflict, -1))
      deepest = Math.max(deepest, this.trail.level[variableOf(lit)]!);
    return deepest;
  }

  /** What a conflict at the present depth teaches. `bump` is told each variable that took part. */
  lesson(conflict: number, bump: (variable: number) => void): Lesson {
    const { level, order, reason, size, depth: deepest } = this.trail;
    const seen = this.marker();
    const clause: Lit[] = [-1];
    const marked: number[] = [];
    let from = conflict;
    let open = 0;
    let at = size - 1;
    let lit = -1;
    do {
      for (const other of this.because(from, lit)) {
        const variable = variableOf(other);
        if (seen[variable]! !== 0 || level[variable]! === 0) continue;
        seen[variable] = 1;
        marked.push(variable);
        bump(variable);
        if (level[variable]! === deepest) open++;
        else clause.push(other);
      }
      while (seen[variableOf(order[at]!)]! === 0) at--;
      lit = order[at--]!;
      seen[variableOf(lit)] = 0;
      from = reason[variableOf(lit)]!;
      open--;
    } while (open > 0);
    clause[0] = not(lit);
    // A literal whose reason is all in the clause already adds nothing.
    const needed = clause.filter((other, index) => {
      const why = reason[variableOf(other)]!;
      if (index === 0 || why === none) return true;
      return this.because(why, not(other)).some(
        (each) => seen[variableOf(each)]! === 0 && level[variableOf(each)]! > 0,
      );
    });
    for (const variable of marked) seen[variable] = 0;
    let depth = 0;
    for (let index = 1; index < needed.length; index++) {
      const own = level[variableOf(needed[index]!)]!;
      if (own <= depth) continue;
      depth = own;
      [needed[1], needed[index]] = [needed[index]!, needed[1]!];
    }
    return { clause: needed, depth, glue: new Set(needed.map((each) => level[variableOf(each)]!)).size };
  }

  /** The assumptions that force a refused assumption's opposite, itself included. */
  coreOf(refused: Lit): Lit[] {
    const { level, order, reason, place, marks } = this.trail;
    const core = [refused];
    if (level[variableOf(refused)]! === 0) return core;
    const seen = this.marker();
    const marked = [variableOf(refused)];
    seen[variableOf(refused)] = 1;
    for (let at = place[variableOf(refused)]!; at >= (marks[0] ?? 0); at--) {
      const lit = order[at]!;
      const variable = variableOf(lit);
      if (seen[variable]! === 0) continue;
      const why = reason[variable]!;
      if (why === none) {
        core.push(lit);
        continue;
      }
      for (const other of this.because(why, lit)) {
        const next = variableOf(other);
        if (seen[next]! !== 0 || level[next]! === 0) continue;
        seen[next] = 1;
        marked.push(next);
      }
    }
    for (const variable of marked) seen[variable] = 0;
    return core;
  }

  /** A mark for each variable, all off. */
  private marker(): Uint8Array {
    if (this.seen.length < this.trail.level.length) this.seen = new Uint8Array(this.trail.level.length);
    return this.seen;
  }
}
