/** Whether two things that travel as JSON say the same, in whatever order their parts stand. */
export function same(one: unknown, other: unknown): boolean {
  if (Object.is(one, other)) return true;
  if (one === null || other === null || typeof one !== 'object' || typeof other !== 'object') return false;
  if (Array.isArray(one) !== Array.isArray(other)) return false;
  const [a, b] = [Object.entries(one), other as Readonly<Record<string, unknown>>];
  return (
    a.length === Object.keys(b).length &&
    a.every(([key, value]) => Object.hasOwn(b, key) && same(value, b[key]))
  );
}

/** The names of those fields in which two of a kind differ. */
export const differing = <T extends object>(before: T, after: T): (keyof T)[] =>
  (Object.keys(after) as (keyof T)[]).filter((field) => !same(before[field], after[field]));
