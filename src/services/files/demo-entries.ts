/** Entries of price lists as the demo's files write them. */
import type { ListedItem, PriceEntry } from '../../core/pricing';

/** A price by another method than the piece, or for a time. */
export type EntryFile = PriceEntry & { baseMonths?: number; leastMonths?: number };

/** A text is a price by the piece. */
export function entryOfFile(file: string | EntryFile): Omit<ListedItem, 'sku'> {
  if (typeof file === 'string') return { entry: { method: 'unit', price: file } };
  const { baseMonths, leastMonths, ...entry } = file;
  return { entry, ...(baseMonths === undefined ? {} : { every: { baseMonths, ...(leastMonths === undefined ? {} : { leastMonths }) } }) };
}
