/**
 * Lines that are alternatives of one another: of each set one counts, and the others are offered in its
 * place.
 */

/** A line as far as alternatives matter. */
export interface Alternative {
  id: string;
  /** The same for all of a set; null where the line stands by itself. */
  alternativeSet: string | null;
  /** Offered in the place of the one that counts. */
  alternative: boolean;
  /** Offered beside the others; of a set, only the one that counts in it can be. */
  optional: boolean;
}

/**
 * Sets as they must be: one counts of each, the first where none or several would; what has no rival left
 * stands by itself.
 * Lines that are as they were stay the same objects.
 */
export function settledAlternatives<L extends Alternative>(lines: readonly L[]): L[] {
  const sets = new Map<string, L[]>();
  for (const line of lines)
    if (line.alternativeSet !== null)
      sets.set(line.alternativeSet, [...(sets.get(line.alternativeSet) ?? []), line]);
  return lines.map((line) => {
    const set = line.alternativeSet === null ? undefined : sets.get(line.alternativeSet);
    if (!set) return line;
    if (set.length === 1) return as(line, null, false);
    return as(line, line.alternativeSet, line !== (set.find((each) => !each.alternative) ?? set[0]));
  });
}

/**
 * Makes lines alternatives of one another, with all that they are alternatives of; the first that counted
 * counts on. `name` is for a new set.
 */
export function against<L extends Alternative>(
  lines: readonly L[],
  ids: readonly string[],
  name: string,
): L[] {
  const joined = new Set(
    lines.flatMap((line) =>
      ids.includes(line.id) && line.alternativeSet !== null ? [line.alternativeSet] : [],
    ),
  );
  return settledAlternatives(
    lines.map((line) =>
      ids.includes(line.id) || (line.alternativeSet !== null && joined.has(line.alternativeSet))
        ? as(line, name, line.alternative)
        : line,
    ),
  );
}

/** Lines that stand by themselves from now on. */
export const apart = <L extends Alternative>(lines: readonly L[], ids: readonly string[]): L[] =>
  settledAlternatives(lines.map((line) => (ids.includes(line.id) ? as(line, null, false) : line)));

/** A line that counts in the place of its rival, beside the others where that one did. */
export function instead<L extends Alternative>(lines: readonly L[], id: string): L[] {
  const set = lines.find((line) => line.id === id)?.alternativeSet ?? null;
  const optional = lines.some((line) => line.alternativeSet === set && line.optional);
  return set === null
    ? [...lines]
    : lines.map((line) => (line.alternativeSet === set ? as(line, set, line.id !== id, optional) : line));
}

/** The line that counts in the place of an alternative. */
export const countsFor = <L extends Alternative>(
  lines: readonly L[],
  { alternativeSet, alternative }: Alternative,
): L | undefined =>
  alternative && alternativeSet !== null
    ? lines.find((line) => line.alternativeSet === alternativeSet && !line.alternative)
    : undefined;

function as<L extends Alternative>(
  line: L,
  alternativeSet: string | null,
  alternative: boolean,
  aside = line.optional,
): L {
  const optional = aside && !alternative;
  return line.alternativeSet === alternativeSet &&
    line.alternative === alternative &&
    line.optional === optional
    ? line
    : { ...line, alternativeSet, alternative, optional };
}
