/** Conditions may depend on a typed text's being there and its length, not on what it says: that could not be decided for every text. */
import type { Formula } from '../formula';
import type { Entry } from './entries';

/** Tells the path of each condition that reads a typed text, directly or through calculations. */
export function untypedOnly(entries: readonly Entry[], conditions: Iterable<[path: string, formula: Formula]>, tell: (path: string) => void): void {
  const slots = new Map(entries.map((entry, slot) => [entry.id, slot]));
  const known = new Map<number, boolean>();
  const reads = (slot: number): boolean => {
    const before = known.get(slot);
    if (before !== undefined) return before;
    const entry = entries[slot];
    const found = entry?.kind === 'text' || (entry?.kind === 'calculation' && readsText(entry.formula));
    known.set(slot, found);
    return found;
  };
  const readsText = ({ names }: Formula): boolean => names.some((name) => reads(slots.get(name) ?? -1));
  if (!entries.some((entry) => entry.kind === 'text')) return;
  const told = new Set<string>();
  for (const [path, formula] of conditions) {
    if (told.has(path) || !readsText(formula)) continue;
    told.add(path);
    tell(path);
  }
}
