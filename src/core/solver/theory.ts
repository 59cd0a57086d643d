import type { Lit } from './literal';

/** What a theory may do while the solver propagates. */
export interface Clauses {
  /** 1 where the literal holds now, -1 where its opposite does, 0 while open. */
  value(lit: Lit): number;
  bounds(number: number): { low: number; high: number; lowLit: Lit; highLit: Lit };
  /** "At most k" for a k strictly inside the bounds that hold now. */
  cut(number: number, k: number): Lit;
  /**
   * Adds a clause that is always true and now forces its first literal (or is broken): all others are false
   * now.
   * Answers false where that is a conflict; the theory then stops.
   */
  imply(clause: readonly Lit[]): boolean;
}

/** The assignment under scrutiny, complete: what is settled, and the base witness elsewhere. */
export interface Overlay {
  value(lit: Lit): number;
  holds(lit: Lit): boolean;
  code(number: number): number;
  /** "At most k" for a k strictly inside the bounds that hold now. */
  cut(number: number, k: number): Lit;
  bounds(number: number): { low: number; high: number };
}

/**
 * A constraint that is not clauses: it gives clauses when it has something to say, and has the last word on
 * every witness.
 */
export interface Theory {
  /** Literals and numbers that wake it. */
  readonly lits: readonly Lit[];
  readonly numbers: readonly number[];
  /** Says what follows from what is settled now. */
  propagate(clauses: Clauses): void;
  /**
   * -1 where the complete assignment meets it; else an open literal to settle next, so that `propagate` can
   * tell why not.
   */
  check(overlay: Overlay): Lit;
}
