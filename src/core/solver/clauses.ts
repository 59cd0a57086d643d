/**
 * Clauses, one after another in one array: length, glue, literals.
 *
 * Invariants: of a clause of two or more literals the first two are watched, and a watched literal is false
 * only while the other holds or the clause is about to force or conflict; glue 0 marks a given clause, which
 * stays; learned ones may be dropped.
 */
import type { Lit } from './literal';
import { none, type Trail } from './trail';

/** Learned clauses of at most this glue are kept for good. */
const precious = 2;

/** Clauses, watched by two literals each. */
export class Clauses {
  memory = new Int32Array(1 << 14);
  private used = 1;
  /**
   * By literal: places of clauses that watch it, each followed by a literal of the clause that may hold
   * already.
   */
  readonly watches: number[][] = [];
  /** By literal: given clauses that have it. */
  readonly given: number[][] = [];
  private learned: number[] = [];
  private most = 6_000;

  addVariable(): void {
    this.watches.push([], []);
    this.given.push([], []);
  }

  /** Adds a clause; its first two literals are watched. Gives its place. */
  add(lits: readonly Lit[], glue: number): number {
    const place = this.used;
    const size = lits.length + 2;
    if (place + size > this.memory.length) {
      const wider = new Int32Array(Math.max(2 * this.memory.length, place + size));
      wider.set(this.memory);
      this.memory = wider;
    }
    this.memory[place] = lits.length;
    this.memory[place + 1] = glue;
    for (let at = 0; at < lits.length; at++) this.memory[place + 2 + at] = lits[at]!;
    this.used = place + size;
    if (lits.length > 1) {
      this.watches[lits[0]!]!.push(place, lits[1]!);
      this.watches[lits[1]!]!.push(place, lits[0]!);
    }
    if (glue === 0) for (const lit of lits) this.given[lit]!.push(place);
    else this.learned.push(place);
    return place;
  }

  /** Every given clause. */
  allGiven(): Lit[][] {
    const found: Lit[][] = [];
    for (let place = 1; place < this.used; place += this.memory[place]! + 2) {
      if (this.memory[place + 1]! === 0)
        found.push([...this.memory.subarray(place + 2, place + 2 + this.memory[place]!)]);
    }
    return found;
  }

  get crowded(): boolean {
    return this.learned.length > this.most;
  }

  /**
   * Drops the learned clauses least likely to serve again and closes the gaps. Only at the root, where no
   * reason is needed.
   */
  forget(trail: Trail): void {
    const glue = (place: number) => this.memory[place + 1]!;
    const sorted = [...this.learned].sort((a, b) => glue(a) - glue(b) || this.memory[a]! - this.memory[b]!);
    const dropped = new Set(sorted.slice(sorted.length >> 1).filter((place) => glue(place) > precious));
    this.most = Math.max(this.most, 2 * (this.learned.length - dropped.size));
    const old = this.memory;
    const end = this.used;
    this.memory = new Int32Array(old.length);
    this.used = 1;
    this.learned = [];
    for (const list of this.watches) list.length = 0;
    for (const list of this.given) list.length = 0;
    for (let place = 1; place < end; place += old[place]! + 2) {
      if (dropped.has(place)) continue;
      const lits = [...old.subarray(place + 2, place + 2 + old[place]!)];
      // Literals false at the root go last, so that those watched are open or hold.
      this.add(
        lits.sort((a, b) => Number(trail.value[a]! < 0) - Number(trail.value[b]! < 0)),
        old[place + 1]!,
      );
    }
  }

  /** What follows from a literal's having come to hold; gives the place of a broken clause, or none. */
  propagate(lit: Lit, trail: Trail): number {
    const { memory } = this;
    const { value } = trail;
    const falsified = lit ^ 1;
    const list = this.watches[falsified]!;
    const { length } = list;
    let kept = 0;
    let at = 0;
    while (at < length) {
      const place = list[at]!;
      const blocker = list[at + 1]!;
      at += 2;
      if (value[blocker]! > 0) {
        list[kept++] = place;
        list[kept++] = blocker;
        continue;
      }
      let first = memory[place + 2]!;
      if (first === falsified) {
        first = memory[place + 3]!;
        memory[place + 2] = first;
        memory[place + 3] = falsified;
      }
      if (value[first]! > 0) {
        list[kept++] = place;
        list[kept++] = first;
        continue;
      }
      const end = place + 2 + memory[place]!;
      let moved = false;
      for (let other = place + 4; other < end; other++) {
        const candidate = memory[other]!;
        if (value[candidate]! >= 0) {
          memory[place + 3] = candidate;
          memory[other] = falsified;
          this.watches[candidate]!.push(place, first);
          moved = true;
          break;
        }
      }
      if (moved) continue;
      list[kept++] = place;
      list[kept++] = first;
      if (value[first]! < 0) {
        while (at < length) list[kept++] = list[at++]!;
        list.length = kept;
        return place;
      }
      trail.settle(first, place);
    }
    list.length = kept;
    return none;
  }
}
