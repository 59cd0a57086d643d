/**
 * What is settled, in the order in which it was.
 *
 * Invariants: `order[0..size)` holds each settled literal once; `marks[i]` is the size when level i + 1
 * began; the reason of a literal is a constraint all of whose other literals were false before it; level 0,
 * the root, is never undone.
 */
import { variableOf, type Lit } from './literal';

/** No reason: decided, assumed, or settled at the root. Also: no conflict. */
export const none = 0;

/** What is assigned, in its order, and why. */
export class Trail {
  /** By literal: 1 where it holds, -1 where its opposite does, 0 while open. */
  value = new Int8Array(1024);
  /** By variable: level, reason and place in the order at which it was settled. */
  level = new Int32Array(512);
  reason = new Int32Array(512);
  place = new Int32Array(512);
  order = new Int32Array(512);
  size = 0;
  /** Changes with everything that is settled or opened again. */
  version = 0;
  /** How many of the order have been propagated. */
  head = 0;
  readonly marks: number[] = [];

  get depth(): number {
    return this.marks.length;
  }

  fit(variables: number): void {
    if (variables <= this.level.length) return;
    const length = 2 * this.level.length;
    this.value = larger(this.value, new Int8Array(2 * length));
    this.level = larger(this.level, new Int32Array(length));
    this.reason = larger(this.reason, new Int32Array(length));
    this.place = larger(this.place, new Int32Array(length));
    this.order = larger(this.order, new Int32Array(length));
  }

  settle(lit: Lit, reason: number): void {
    const variable = variableOf(lit);
    this.value[lit] = 1;
    this.value[lit ^ 1] = -1;
    this.level[variable] = this.marks.length;
    this.reason[variable] = reason;
    this.place[variable] = this.size;
    this.order[this.size++] = lit;
    this.version++;
  }

  /** Begins a level. */
  mark(): void {
    this.marks.push(this.size);
  }

  /** Goes back so that only so many levels stand; each variable that opens again is told. */
  back(depth: number, opened: (variable: number) => void): void {
    if (this.marks.length <= depth) return;
    this.version++;
    const from = this.marks[depth]!;
    for (let at = this.size - 1; at >= from; at--) {
      const lit = this.order[at]!;
      this.value[lit] = 0;
      this.value[lit ^ 1] = 0;
      opened(variableOf(lit));
    }
    this.size = from;
    this.head = Math.min(this.head, from);
    this.marks.length = depth;
  }
}

/** A typed array with more room, and what it held. */
export function larger<T extends { set(from: T): void }>(old: T, made: T): T {
  made.set(old);
  return made;
}
