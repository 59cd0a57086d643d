/**
 * Conditions may depend on a typed text's being there and its length, not on what it says: that could not be
 * decided for every text.
 */
import type { Formula } from '../formula';
import type { Entry } from './entries';

/** Tells of formulas whether they read what a typed text says, directly or through calculations. */
export function readsTyped(entries: readonly Entry[]): (formula: Formula) => boolean {
  if (!entries.some((entry) => entry.kind === 'text')) return () => false;
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const known = new Map<string, boolean>();
  const reads = ({ names }: Formula): boolean =>
    names.some((name) => {
      const before = known.get(name);
      if (before !== undefined) return before;
      const entry = byId.get(name);
      const found = entry?.kind === 'text' || (entry?.kind === 'calculation' && reads(entry.formula));
      known.set(name, found);
      return found;
    });
  return reads;
}
