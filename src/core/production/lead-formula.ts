/**
 * The lead time of a build as a formula over it, for looking for the soonest one; what it comes to is what
 * `leadDays` says.
 */
import { exact } from '../exact';
import { formulaOf, type Expr, type Formula } from '../formula';
import { seenFromOutside, type CompiledModel } from '../model';

const literal = (value: ReturnType<typeof exact> | null): Expr => ({ kind: 'literal', value, at: 0 });
const none = literal(exact(0));
const ifElse = (test: Expr, then: Expr): Expr => ({ kind: 'if', test, then, else: none, at: 0 });

/** The lead time of a build as a formula, for looking for the soonest. */
export const leadFormula = (
  model: CompiledModel,
  items: Readonly<Record<string, { leadDays: number }>>,
): Formula => formulaOf(leadExpr(model, items), { is: 'number', unit: 'any' });

function leadExpr(model: CompiledModel, items: Readonly<Record<string, { leadDays: number }>>): Expr {
  const { document, formulas, picks } = model;
  const needed = document.materials.flatMap(({ id, item }): Expr[] => {
    const days = items[item]?.leadDays ?? 0;
    const quantity = formulas.get(`materials.${id}.quantity`)?.expr;
    const when = formulas.get(`materials.${id}.when`)?.expr;
    if (days <= 0 || !quantity) return [];
    const some: Expr = {
      kind: 'logic',
      op: 'or',
      left: { kind: 'compare', op: '<', left: quantity, right: none, at: 0 },
      right: { kind: 'compare', op: '>', left: quantity, right: none, at: 0 },
      at: 0,
    };
    // A quantity that is a number of pieces in any case need not be worked out.
    const used = quantity.kind === 'literal' ? literal(exact(days)) : ifElse(some, literal(exact(days)));
    return [when ? ifElse(when, used) : used];
  });
  const inside = picks.flatMap(({ builds }) =>
    builds.map((build) =>
      ifElse(build.when.expr, seenFromOutside(model, build)(leadExpr(build.model, items))),
    ),
  );
  const longest: Expr = {
    kind: 'call',
    name: 'max',
    args: [{ kind: 'list', items: [none, ...needed, ...inside], at: 0 }],
    at: 0,
  };
  const extra = formulas.get('extraDays')?.expr;
  if (!extra) return longest;
  const known: Expr = {
    kind: 'if',
    test: { kind: 'compare', op: '=', left: extra, right: literal(null), at: 0 },
    then: none,
    else: extra,
    at: 0,
  };
  return { kind: 'arithmetic', op: '+', left: longest, right: known, at: 0 };
}
