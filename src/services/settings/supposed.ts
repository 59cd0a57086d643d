/** Entries of a price change as if they were in force already, to see what they would do. */
import { connected, type PriceEntryRow } from '../../data';
import { Recent } from '../kernel/threads/recent';

/** A price change in one of its versions. */
export interface Supposed {
  change: string;
  version: number;
}

const made = new Recent<ReadonlyMap<string, readonly PriceEntryRow[]>>(200_000);

/** Its entries in a list, from its day on; what could not be read is none. */
export async function supposedRows(
  { change: id, version }: Supposed,
  list: string,
): Promise<readonly PriceEntryRow[]> {
  const key = `${id} ${String(version)}`;
  const known = made.get(key);
  if (known) return known.get(list) ?? [];
  const { priceChanges, priceChangeRows } = connected().records;
  const change = await priceChanges.findByPk(id, { raw: true });
  const rows = await priceChangeRows.findAll({ where: { changeId: id, wrong: null }, raw: true });
  const byList = new Map<string, PriceEntryRow[]>();
  for (const { formula: _formula, wrong: _wrong, place: _place, ...row } of rows) {
    const own = byList.get(row.priceList) ?? [];
    own.push({ ...row, validFrom: change?.inForce ?? '', validTo: null });
    byList.set(row.priceList, own);
  }
  // Another version may have come while its rows were read.
  if (change?.version === version) made.set(key, byList, rows.length + 1);
  return byList.get(list) ?? [];
}
