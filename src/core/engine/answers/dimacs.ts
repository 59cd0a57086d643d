/** The hard rules of a model as DIMACS CNF, for other solvers. */
import type { CompiledModel } from '../../model';
import { always, never, not, variableOf, type Lit } from '../../solver';
import { Encoding } from '../encoding/encoding';
import type { Context } from '../types';
import { variablesOf } from '../encoding/variables';

/** The hard rules as a file in the DIMACS format, and what its variables stand for. */
export interface Cnf {
  variables: number;
  /** Signed variables from 1, as in the format. */
  clauses: number[][];
  /** For each value that can be wished for, the literal that says so. */
  values: { on: string; value: string; literal: number }[];
}

/** Null where a rule needs arithmetic that is not clauses. */
export function cnfOf(model: CompiledModel, context: Context): Cnf | null {
  const encoding = new Encoding(model, context);
  if (encoding.conditions.wide.length > 0) return null;
  const variables = variablesOf(encoding);
  const { clauses, cardinalities } = encoding.solver.constraints();
  let last = encoding.solver.variables;
  const signed = (lit: Lit): number => (lit & 1 ? -1 : 1) * (variableOf(lit) + 1);
  const found = clauses.map((clause) => clause.map(signed));
  for (const { lits, most, guard } of cardinalities) {
    const unless = guard === always ? [] : [signed(not(guard))];
    if (most === 0) found.push(...lits.map((lit) => [...unless, -signed(lit)]));
    else last = counter(lits.map(signed), most, unless, last, found);
  }
  const values = variables.flatMap(({ on, codes }) =>
    codes.flatMap(({ value, wish }) =>
      wish.lits.length === 1 ? [{ on, value: String(value), literal: signed(wish.lits[0] as Lit) }] : [],
    ),
  );
  return {
    variables: last,
    clauses: found,
    values: values.filter(({ literal }) => literal !== signed(never)),
  };
}

/** "At most so many" as a sequential counter (Sinz 2005); gives the last variable used. */
function counter(
  lits: readonly number[],
  most: number,
  unless: readonly number[],
  from: number,
  clauses: number[][],
): number {
  const at = (index: number, count: number): number => from + index * most + count + 1;
  lits.forEach((lit, index) => {
    if (index < lits.length - 1) clauses.push([...unless, -lit, at(index, 0)]);
    if (index === 0) return;
    if (index < lits.length - 1) {
      for (let count = 0; count < most; count++) {
        clauses.push([...unless, -at(index - 1, count), at(index, count)]);
        if (count > 0) clauses.push([...unless, -lit, -at(index - 1, count - 1), at(index, count)]);
      }
    }
    clauses.push([...unless, -lit, -at(index - 1, most - 1)]);
  });
  return from + (lits.length - 1) * most;
}

/** The text of a DIMACS file, with a comment for each value. */
export function writeDimacs({ variables, clauses, values }: Cnf): string {
  const comments = values.map(({ on, value, literal }) => `c ${String(literal)} ${on} = ${value}`);
  return [
    ...comments,
    `p cnf ${String(variables)} ${String(clauses.length)}`,
    ...clauses.map((clause) => [...clause, 0].join(' ')),
    '',
  ].join('\n');
}
