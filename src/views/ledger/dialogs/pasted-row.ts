/** A row of a pasted list with what was read of it. */
import { isWhole } from '../../../core/quotes';
import type { PartListRow } from '../../../core/exchange';
import type { ReadNumber } from '../../../contract';

/** What is pasted on a row, and what its number stands for. */
export type PastedRow = PartListRow & { read: ReadNumber };

/** In which what was read is sold. */
export const unitIn = ({ read }: PastedRow): string => (read.is === 'item' ? read.unit : 'pc');
/** Said in another unit than it is sold in. */
export const otherUnit = (row: PastedRow): boolean => row.unit !== undefined && row.unit !== unitIn(row);
/** A part of what is sold by the piece. */
export const inParts = (row: PastedRow): boolean => !Number.isInteger(row.quantity) && isWhole(unitIn(row));

/** What can be added as it stands. */
export const sound = (row: PastedRow): boolean =>
  row.quantity > 0 && row.read.is !== 'wrong' && !otherUnit(row) && !inParts(row);

/** The same row with another quantity, as typed; 0 where that is none. */
export const withQuantity = ({ at, number, read, unit, discount }: PastedRow, typed: string): PastedRow => ({
  at,
  number,
  read,
  quantity: /^\d{1,5}(\.\d{1,3})?$/.test(typed) ? Number(typed) : 0,
  ...(unit === undefined ? {} : { unit }),
  ...(discount === undefined ? {} : { discount }),
});
