/**
 * Conditions as sentences have them. What they cannot tell apart is made the same: names that a formula gives to the
 * builds it goes through.
 */
import { parsed, written, type Expr } from '../../formula';
import { mapped } from './mapped';

/** The tree of a formula; null where it cannot be read. */
export const treeOf = (source: string): Expr | null => parsed(source);

/** The same formula with names of its own in place of those that it gives to what it goes through. */
export function alphaPlain(expr: Expr, depth = 0): Expr {
  if (expr.kind !== 'quantified' && expr.kind !== 'for')
    return mapped(expr, (part) => alphaPlain(part, depth));
  const names = new Map(expr.over.map(({ name }, index) => [name, `·${String(depth + index)}`]));
  const inner = depth + expr.over.length;
  const over = expr.over.map(({ name, list, to }) => ({
    name: names.get(name) ?? name,
    list: alphaPlain(list, inner),
    ...(to ? { to: alphaPlain(to, inner) } : {}),
  }));
  if (expr.kind === 'for') return { ...expr, over, body: renamedIn(alphaPlain(expr.body, inner), names) };
  return { ...expr, over, test: renamedIn(alphaPlain(expr.test, inner), names) };
}

/** The expression with names in place of others, as far as it does not give them a meaning of its own. */
export function renamedIn(expr: Expr, names: ReadonlyMap<string, string>): Expr {
  if (expr.kind === 'name') return { ...expr, name: names.get(expr.name) ?? expr.name };
  if (expr.kind === 'quantified' || expr.kind === 'for') {
    const inner = new Map([...names].filter(([name]) => expr.over.every((each) => each.name !== name)));
    const over = expr.over.map((each) => ({
      ...each,
      list: renamedIn(each.list, names),
      ...(each.to ? { to: renamedIn(each.to, names) } : {}),
    }));
    return expr.kind === 'for'
      ? { ...expr, over, body: renamedIn(expr.body, inner) }
      : { ...expr, over, test: renamedIn(expr.test, inner) };
  }
  return mapped(expr, (part) => renamedIn(part, names));
}

/** Whether two formulas say the same in the same way. */
export function saysTheSame(one: string, other: string): boolean {
  if (one === other) return true;
  const [left, right] = [treeOf(one), treeOf(other)];
  return left !== null && right !== null && written(alphaPlain(left)) === written(alphaPlain(right));
}
