/** The columns of the Ledger: which there are for a person, how wide, and which of them stay in sight. */
import { ledgerColumns, type LedgerColumn, type LedgerColumnId, type QuoteView } from '../../../contract';
import type { TextKey } from '../../../i18n';

/** A column as it is laid out. */
export interface Shown {
  id: LedgerColumnId;
  title: TextKey;
  width: number;
  /** Distance from the left edge at which it stays, in pixels. */
  held?: number;
}

const widths: Record<LedgerColumnId, number> = {
  quantity: 70,
  list: 88,
  granted: 78,
  rate: 82,
  amount: 86,
  net: 92,
  margin: 80,
  share: 88,
  total: 102,
  listTotal: 104,
  cost: 98,
  earned: 98,
  pricedOn: 90,
  tax: 66,
  resale: 98,
  resaleTotal: 108,
};
const titles: Record<LedgerColumnId, TextKey> = {
  quantity: 'ledger.quantity',
  list: 'ledger.list',
  granted: 'ledger.granted',
  rate: 'ledger.discount',
  amount: 'ledger.off',
  net: 'ledger.unitNet',
  margin: 'ledger.marginPercent',
  share: 'ledger.wholeQuote',
  total: 'ledger.net',
  listTotal: 'column.listTotal',
  cost: 'column.cost',
  earned: 'column.earned',
  pricedOn: 'column.pricedOn',
  tax: 'column.tax',
  resale: 'column.resale',
  resaleTotal: 'column.resaleTotal',
};
const usual: readonly LedgerColumnId[] = [
  'quantity',
  'list',
  'granted',
  'rate',
  'amount',
  'net',
  'margin',
  'share',
  'total',
];
/** Of a dealer: what is bought for, and what is sold for. */
const resellers: readonly LedgerColumnId[] = [
  'quantity',
  'list',
  'granted',
  'net',
  'total',
  'resale',
  'resaleTotal',
];
/** Left out where there is little room, as long as a person has not chosen. */
const roomy: ReadonlySet<LedgerColumnId> = new Set(['granted', 'amount', 'share']);
const costly: ReadonlySet<LedgerColumnId> = new Set(['margin', 'cost', 'earned']);
const resold: ReadonlySet<LedgerColumnId> = new Set(['resale', 'resaleTotal']);

/** What decides which columns there are for a person. */
export interface Sees {
  costs: boolean;
  /** It is a dealer's own quote. */
  resale: boolean;
}
/** What a person may see of a quote, as far as columns matter. */
export const seesOf = ({ may, resale }: Pick<QuoteView, 'may' | 'resale'>): Sees => ({
  costs: may.seeCosts,
  resale: resale !== undefined,
});

/** Of the position with its mark, and of what can be done with a line. */
export const positionWidth = 58;
/** The room for what is done to a line, in pixels. */
export const actsWidth = 128;
const leastWhat = 190;

/** Columns that a person may choose. */
export const columnsFor = ({ costs, resale }: Sees): LedgerColumnId[] =>
  ledgerColumns.filter((id) => (costs || !costly.has(id)) && (resale || !resold.has(id)));
/** The title of a column. */
export const titleOf = (id: LedgerColumnId): TextKey => titles[id];
/** Columns as they are before somebody chooses. */
export const usualColumns = (sees: Sees): LedgerColumn[] =>
  (sees.resale ? resellers : usual)
    .filter((id) => columnsFor(sees).includes(id))
    .map((id) => ({ id, pinned: false }));

/** The columns for a width of so many pixels, pinned ones first, and the width left for what a line is. */
export function layOut(
  view: QuoteView,
  chosen: readonly LedgerColumn[] | null | undefined,
  width: number,
): { what: number; columns: Shown[] } {
  const sees = seesOf(view);
  const open = new Set(columnsFor(sees));
  const shared = view.lines.some((line) => line.price.share !== undefined);
  const wanted = (chosen ?? usualColumns(sees)).filter(
    ({ id }) => open.has(id) && (chosen || ((id !== 'share' || shared) && (width >= 1080 || !roomy.has(id)))),
  );
  const ordered = [...wanted.filter(({ pinned }) => pinned), ...wanted.filter(({ pinned }) => !pinned)];
  const sum = ordered.reduce((all, { id }) => all + widths[id], positionWidth + actsWidth);
  const what = Math.max(leastWhat, Math.floor(width - sum));
  let held = positionWidth + what;
  const columns = ordered.map(({ id, pinned }): Shown => {
    const column = { id, title: titles[id], width: widths[id], ...(pinned ? { held } : {}) };
    held += widths[id];
    return column;
  });
  return { what, columns };
}
