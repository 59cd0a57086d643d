/** Columns of the Ledger that a person may choose, in their usual order. */
export const ledgerColumns = [
  'quantity',
  'list',
  'granted',
  'rate',
  'amount',
  'net',
  'margin',
  'share',
  'total',
  'listTotal',
  'cost',
  'earned',
  'pricedOn',
  'tax',
  'resale',
  'resaleTotal',
] as const;
/** The name of such a column. */
export type LedgerColumnId = (typeof ledgerColumns)[number];

/** A column as a person wants it; pinned, it stays in sight. */
export interface LedgerColumn {
  id: LedgerColumnId;
  pinned: boolean;
}
