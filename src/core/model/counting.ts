/** How quantities inside a build are counted with the quantity of its line. */

/**
 * Once a line, whatever its quantity; as it is typed, which is for the whole line; or for every so many pieces of the
 * line, begun ones counted: of six pieces two bring what comes for every four.
 */
export type Counting = 'line' | 'typed' | { every: number };

/** How often something is counted in a line of so many pieces; with each piece where nothing is said. */
export function countedIn(counting: Counting | undefined, pieces: number): number {
  if (counting === undefined) return pieces;
  return typeof counting === 'string' ? 1 : Math.ceil(pieces / counting.every);
}

/** Nothing where something is counted with each piece: the plainest way to say so. */
export const countedApart = (counting: Counting | undefined): Counting | undefined =>
  typeof counting === 'object' && counting.every === 1 ? undefined : counting;

/** Ways of counting that are alike have one key; "" is with each piece. */
export function countingKey(counting: Counting | undefined): string {
  if (counting === undefined) return '';
  return typeof counting === 'string' ? counting : `every${String(counting.every)}`;
}
