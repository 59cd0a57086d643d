/** Expressions of a build inside as the model around it reads them. */
import type { Expr } from '../formula';
import type { CompiledModel, NestedBuild } from './entries';

/** Rewrites an expression of a model inside so that it reads the places of the model around it. */
export function seenFromOutside(outer: CompiledModel, { place, names }: NestedBuild): (expr: Expr) => Expr {
  const move = (part: unknown): unknown => {
    if (Array.isArray(part)) return part.map(move);
    if (typeof part !== 'object' || part === null || Object.getPrototypeOf(part) !== Object.prototype)
      return part;
    const given = part as Expr;
    if (given.kind === 'name' && given.slot !== undefined && given.slot >= 0) {
      const id =
        names.get(given.name) ??
        (outer.slots.has(`${place}/${given.name}`) ? `${place}/${given.name}` : given.name);
      return { ...given, name: id, slot: outer.slots.get(id) ?? -1 };
    }
    return given.kind === 'literal'
      ? given
      : Object.fromEntries(Object.entries(given).map(([key, value]) => [key, move(value)]));
  };
  return (expr) => move(expr) as Expr;
}
