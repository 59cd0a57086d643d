/** Entries of price lists as the demo's files write them. */
import type { ListedItem, PriceEntry } from '../../core/pricing';

/** A price by another method than the piece, or for a time. */
export type EntryFile = PriceEntry & { baseMonths?: number; leastMonths?: number };

/** A text is a price by the piece. */
export function entryOfFile(file: string | EntryFile): Omit<ListedItem, 'sku'> {
  if (typeof file === 'string') return { entry: { method: 'unit', price: file } };
  const { baseMonths, leastMonths, ...entry } = file;
  return {
    entry,
    ...(baseMonths === undefined
      ? {}
      : { every: { baseMonths, ...(leastMonths === undefined ? {} : { leastMonths }) } }),
  };
}

/**
 * A changed price: a new figure alone keeps how it is priced and for how long; another kind of price is said
 * to be meant.
 */
export type ChangeFile = string | (EntryFile & { otherKind?: boolean });

const kindOf = ({ entry, every }: Omit<ListedItem, 'sku'>): string =>
  [entry.method, every ? `for ${String(every.baseMonths)} months` : 'once'].join(', ');

/**
 * The entry that a change makes of one that was there; throws where it would become another kind of price,
 * such as one due once instead of a yearly one, and does not say so.
 */
export function changedEntry(
  sku: string,
  file: ChangeFile,
  before: string | EntryFile | undefined,
): EntryFile {
  const { otherKind = false, ...given } =
    typeof file === 'string' ? { method: 'unit' as const, price: file } : file;
  const was = before === undefined ? undefined : entryOfFile(before);
  const periods =
    typeof before === 'object'
      ? {
          ...(before.baseMonths === undefined ? {} : { baseMonths: before.baseMonths }),
          ...(before.leastMonths === undefined ? {} : { leastMonths: before.leastMonths }),
        }
      : {};
  const changed = typeof file === 'string' ? { ...periods, ...given } : given;
  const kinds = [was && kindOf(was), kindOf(entryOfFile(changed))];
  if (was && kinds[0] !== kinds[1] && !otherKind)
    throw new Error(
      `the new price of ${sku} is of another kind (${String(kinds[0])} becomes ${String(kinds[1])}); say "otherKind" where that is meant`,
    );
  return changed;
}
