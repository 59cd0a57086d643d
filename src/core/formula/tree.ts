/** The syntax tree of a formula. */
import type { Exact } from '../exact';
import type { Day, Span } from './time';

/** How two values are compared. */
export type Comparison = '=' | '!=' | '<' | '<=' | '>' | '>=';
/** What is worked out of two numbers, days or spans. */
export type Arithmetic = '+' | '-' | '*' | '/' | '**';

/** A position is the offset of the first character in the formula's text. */
export type Expr =
  | { kind: 'literal'; value: Exact | string | boolean | null | Day | Span; at: number }
  /** `slot` is there once the name is bound. */
  | { kind: 'name'; name: string; slot?: number; at: number }
  | { kind: 'negate'; of: Expr; at: number }
  | { kind: 'arithmetic'; op: Arithmetic; left: Expr; right: Expr; at: number }
  | { kind: 'compare'; op: Comparison; left: Expr; right: Expr; at: number }
  | { kind: 'logic'; op: 'and' | 'or'; left: Expr; right: Expr; at: number }
  | { kind: 'in'; value: Expr; tests: Test[]; at: number }
  | { kind: 'if'; test: Expr; then: Expr; else: Expr; at: number }
  | { kind: 'list'; items: Expr[]; at: number }
  | { kind: 'call'; name: string; args: Expr[]; at: number }
  /**
   * Items of a list that meet a condition on `item`, or the one at a position. `slot` is that of `item` once
   * it is bound.
   */
  | { kind: 'filter'; list: Expr; by: Expr; slot?: number; at: number }
  /** Whether some or every item meets a condition. */
  | { kind: 'quantified'; every: boolean; over: Iteration[]; test: Expr; at: number }
  | { kind: 'for'; over: Iteration[]; body: Expr; at: number }
  /**
   * A part of a date or duration, a number of an option, or a field of a place; `nameAt` is where its name
   * begins in what was read.
   */
  | { kind: 'path'; of: Expr; name: string; nameAt?: number; at: number }
  /** What stands beside a text in a list of cases; null for any other text. Only in bound expressions. */
  | { kind: 'pick'; of: Expr; cases: readonly (readonly [string, Expr])[]; at: number }
  /** The list of those values whose condition holds. Only in bound expressions. */
  | { kind: 'gather'; items: readonly { when: Expr; value: Expr }[]; at: number };

/** A name that stands for each item of a list, or each whole number from one to another. */
export interface Iteration {
  name: string;
  /** There once it is bound. */
  slot?: number;
  list: Expr;
  to?: Expr;
}

/** One alternative to the right of `in`. */
export type Test =
  | { kind: 'equals'; expr: Expr }
  | { kind: 'compare'; op: Comparison; expr: Expr }
  | { kind: 'interval'; low: Expr; high: Expr; lowOpen: boolean; highOpen: boolean };
