/** Finding rows of the database by typed words. */
import { wordsOf } from '../../core/finding';

/** A word as part of a pattern, in which nothing means anything but itself. */
const like = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** From here on a word is thought to mean another; the same figure as the page uses. */
const alike = '0.45';

/** How a word is looked for: as a part of a text, or else as what it was probably meant to be. */
export type Likeness = 'part' | 'meant';

/** Puts a value into the bindings of a query, and gives its place. */
export type Bound = (value: unknown) => string;

/**
 * Says of each typed word that one of the columns has it. `columns` are expressions of text; `beside` looks
 * up what is in other tables, by what one of their columns must fulfil.
 */
export function wordConditions(
  typed: string,
  likeness: Likeness,
  bound: Bound,
  columns: readonly string[],
  beside: (holds: (column: string) => string) => readonly string[] = () => [],
): string[] {
  return wordsOf(typed).map((word) => {
    const at = bound(like(word));
    const meant = likeness === 'meant' && word.length >= 3 ? bound(word) : null;
    const holds = (column: string) =>
      `(${column} ilike ${at}${meant === null ? '' : ` or word_similarity(${meant}, ${column}) >= ${alike}`})`;
    return `(${[...columns.map(holds), ...beside(holds)].join(' or ')})`;
  });
}

/**
 * Rows that have the words; where there are none, rows that have what was probably meant. `only` one of the
 * two where it is said.
 */
export async function forgiving<T>(
  typed: string,
  find: (likeness: Likeness) => Promise<T[]>,
  only?: Likeness,
): Promise<T[]> {
  if (only) return find(only);
  const rows = await find('part');
  return rows.length > 0 || wordsOf(typed).length === 0 ? rows : find('meant');
}
