/** Going through expressions. */
import type { Expr } from './tree';

/** The parts of an expression. */
export function partsOf(expr: Expr): readonly Expr[] {
  switch (expr.kind) {
    case 'literal':
    case 'name':
      return [];
    case 'negate':
    case 'path':
      return [expr.of];
    case 'arithmetic':
    case 'compare':
    case 'logic':
      return [expr.left, expr.right];
    case 'if':
      return [expr.test, expr.then, expr.else];
    case 'list':
      return expr.items;
    case 'call':
      return expr.args;
    case 'filter':
      return [expr.list, expr.by];
    case 'quantified':
    case 'for':
      return [
        ...expr.over.flatMap(({ list, to }) => (to ? [list, to] : [list])),
        expr.kind === 'for' ? expr.body : expr.test,
      ];
    case 'in':
      return [
        expr.value,
        ...expr.tests.flatMap((test) => (test.kind === 'interval' ? [test.low, test.high] : [test.expr])),
      ];
    case 'pick':
      return [expr.of, ...expr.cases.map(([, value]) => value)];
    case 'gather':
      return expr.items.flatMap(({ when, value }) => [when, value]);
  }
}
