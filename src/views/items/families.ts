/** Families as a tree that one looks through. */
import type { FamilyView } from '../../contract';

/** A family, how deep it is, and how many items are in it and all inside it. */
export interface Branch {
  family: FamilyView;
  depth: number;
  count: number;
}

/** The families, each after what it is inside of, in their order. */
export function branchesOf(families: readonly FamilyView[]): Branch[] {
  const under = (parent: string | null, depth: number): Branch[] =>
    families
      .filter((family) => family.parent === parent)
      .flatMap((family) => {
        const inner = depth > 20 ? [] : under(family.code, depth + 1);
        const count =
          family.items +
          inner.filter((each) => each.depth === depth + 1).reduce((sum, each) => sum + each.count, 0);
        return [{ family, depth, count }, ...inner];
      });
  return under(null, 0);
}

/** Codes of a family and all inside it. */
export function within(families: readonly FamilyView[], code: string): ReadonlySet<string> {
  const found = new Set([code]);
  for (let size = 0; size !== found.size;) {
    size = found.size;
    for (const { code: each, parent } of families) if (parent !== null && found.has(parent)) found.add(each);
  }
  return found;
}
