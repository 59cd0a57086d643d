/** The number that was probably meant by one that is none. */
import { distance } from 'fastest-levenshtein';

const size = 3;

function piecesOf(number: string): Set<string> {
  const padded = `  ${number} `;
  const pieces = new Set<string>();
  for (let at = 0; at + size <= padded.length; at++) pieces.add(padded.slice(at, at + size));
  return pieces;
}

/** How many are compared letter by letter: those that have most pieces in common with what was typed. */
const compared = 40;

/**
 * Gives a function that finds, of some numbers, the one that the fewest keystrokes lead to; none where they
 * would change half of it.
 * Only numbers that share pieces of three letters with it are compared, so that a long list of unknown
 * numbers costs little.
 */
export function nearestIn(numbers: readonly string[]): (typed: string) => string | undefined {
  let index: Map<string, number[]> | undefined;
  return (typed) => {
    if (!index) {
      index = new Map();
      for (const [at, number] of numbers.entries())
        for (const piece of piecesOf(number)) index.set(piece, [...(index.get(piece) ?? []), at]);
    }
    const shared = new Map<number, number>();
    for (const piece of piecesOf(typed))
      for (const at of index.get(piece) ?? []) shared.set(at, (shared.get(at) ?? 0) + 1);
    const likely = [...shared].sort((a, b) => b[1] - a[1] || a[0] - b[0]).slice(0, compared);
    let best: { number: string; away: number } | undefined;
    for (const [at] of likely) {
      const number = numbers[at] as string;
      if (Math.abs(number.length - typed.length) * 2 >= typed.length) continue;
      const away = distance(typed, number);
      if (away * 2 < typed.length && (!best || away < best.away)) best = { number, away };
    }
    return best?.number;
  };
}
