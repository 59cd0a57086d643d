/** An expression with each of its parts put in place of another. */
import type { Expr } from '../../formula';

/** The same expression over changed parts. */
export function mapped(expr: Expr, change: (part: Expr) => Expr): Expr {
  switch (expr.kind) {
    case 'literal':
    case 'name':
      return expr;
    case 'negate':
    case 'path':
      return { ...expr, of: change(expr.of) };
    case 'arithmetic':
    case 'compare':
    case 'logic':
      return { ...expr, left: change(expr.left), right: change(expr.right) };
    case 'if':
      return { ...expr, test: change(expr.test), then: change(expr.then), else: change(expr.else) };
    case 'list':
      return { ...expr, items: expr.items.map(change) };
    case 'call':
      return { ...expr, args: expr.args.map(change) };
    case 'filter':
      return { ...expr, list: change(expr.list), by: change(expr.by) };
    case 'in':
      return {
        ...expr,
        value: change(expr.value),
        tests: expr.tests.map((test) =>
          test.kind === 'interval'
            ? { ...test, low: change(test.low), high: change(test.high) }
            : { ...test, expr: change(test.expr) },
        ),
      };
    default:
      return expr;
  }
}
