/** How many words of what was typed count. */
const mostWords = 5;
/** From here on two words are thought to mean the same; the same figure as the database uses. */
const alike = 0.45;
/** A word of fewer letters is like too many others. */
const leastLetters = 3;

/** The words of what somebody typed, in small letters. */
export const wordsOf = (typed: string): string[] =>
  typed.trim().toLowerCase().split(/\s+/).filter(Boolean).slice(0, mostWords);

/** Pieces of three letters of each word, its beginning and end among them. */
function piecesOf(text: string): Set<string> {
  const pieces = new Set<string>();
  for (const word of text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []) {
    const padded = `  ${word} `;
    for (let at = 0; at + 3 <= padded.length; at++) pieces.add(padded.slice(at, at + 3));
  }
  return pieces;
}

/** The share of a typed word's pieces of three letters that a text has, from 0 to 1. */
export function similarity(word: string, text: string): number {
  const [wanted, there] = [piecesOf(word), piecesOf(text)];
  let shared = 0;
  for (const piece of wanted) if (there.has(piece)) shared++;
  return wanted.size === 0 ? 0 : shared / wanted.size;
}

/**
 * The rows that have every typed word as a part of one of their texts, in their order; where no row has,
 * those with a text like each of the words, the likest first. All rows where nothing is typed.
 */
export function foundBy<T>(
  rows: readonly T[],
  typed: string,
  textsOf: (row: T) => readonly string[],
): readonly T[] {
  const words = wordsOf(typed);
  if (words.length === 0) return rows;
  const has = (text: string, word: string): boolean => text.toLowerCase().includes(word);
  const having = rows.filter((row) => {
    const texts = textsOf(row);
    return words.every((word) => texts.some((text) => has(text, word)));
  });
  if (having.length > 0) return having;
  return rows
    .map((row) => {
      const texts = textsOf(row);
      const likeness = words.map((word) =>
        Math.max(
          ...texts.map((text) =>
            has(text, word) ? 1 : word.length < leastLetters ? 0 : similarity(word, text),
          ),
        ),
      );
      return { row, least: Math.min(...likeness), sum: likeness.reduce((all, each) => all + each, 0) };
    })
    .filter(({ least }) => least >= alike)
    .sort((a, b) => b.sum - a.sum)
    .map(({ row }) => row);
}
