/** Bound expressions that the compiler puts together itself. */
import { exact } from '../exact';
import { Day, type Comparison, type Expr } from '../formula';

type Literal = Extract<Expr, { kind: 'literal' }>['value'];

/** A value as an expression. */
export const literal = (value: Literal): Expr => ({ kind: 'literal', value, at: 0 });
/** A name that is bound to a slot. */
export const named = (name: string, slot: number): Expr => ({ kind: 'name', name, slot, at: 0 });
/** A comparison. */
export const compared = (left: Expr, op: Comparison, right: Expr): Expr => ({
  kind: 'compare',
  op,
  left,
  right,
  at: 0,
});
/** Whether a list has a text. */
export const holds = (list: Expr, text: string): Expr => ({
  kind: 'call',
  name: 'list contains',
  args: [list, literal(text)],
  at: 0,
});
/** The opposite. */
export const negated = (of: Expr): Expr => ({ kind: 'call', name: 'not', args: [of], at: 0 });
/** Both, or the one that there is. */
export const all = (first: Expr | undefined, second: Expr | undefined): Expr | undefined =>
  first && second ? { kind: 'logic', op: 'and', left: first, right: second, at: 0 } : (first ?? second);

/** One or the other. */
export const either = (left: Expr, right: Expr): Expr => ({ kind: 'logic', op: 'or', left, right, at: 0 });

/** A value as it travels, as a literal of the kind that a row of this kind has. */
export function literalOf(kind: 'number' | 'date' | 'other', value: string | boolean | null): Expr {
  if (typeof value !== 'string') return literal(value);
  return literal(kind === 'number' ? exact(value) : kind === 'date' ? Day.read(value) : value);
}
