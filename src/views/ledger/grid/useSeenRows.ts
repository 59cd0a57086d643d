/** The rows in sight of many, and how one of them gets the keyboard. */
import type { RefObject } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { LedgerRow } from './rows';

/** As many rows are simply all there; of more, those in sight. */
const mostPlain = 120;
const heights: Record<LedgerRow['is'], number> = { group: 28, line: 42, across: 22, part: 22 };
const headHeight = 30;

/** Rows as they are drawn, and the room of those that are not. */
export interface SeenRows {
  shown: { index: number; row: LedgerRow }[];
  before: number;
  after: number;
  /** Measures a row, where not all are there. */
  measure: ((element: HTMLTableRowElement | null) => void) | undefined;
  /** Puts the keyboard into a field of a row, which comes into sight first. */
  bring: (key: string, fieldIn: (row: Element) => HTMLElement | null | undefined) => void;
}

/** The rows of the grid that are in sight of what they scroll in. */
export function useSeenRows(
  rows: readonly LedgerRow[],
  scroller: RefObject<HTMLElement | null>,
  body: RefObject<HTMLElement | null>,
): SeenRows {
  const plain = rows.length <= mostPlain;
  // oxlint-disable-next-line react/incompatible-library -- its functions are used in place only
  const virtual = useVirtualizer({
    count: rows.length,
    enabled: !plain,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => heights[rows[index]?.is ?? 'line'],
    getItemKey: (index) => rows[index]?.key ?? index,
    overscan: 12,
    scrollMargin: headHeight,
    initialRect: { width: 1232, height: 640 },
  });
  const seen = plain ? undefined : virtual.getVirtualItems();
  const bring: SeenRows['bring'] = (key, fieldIn) => {
    const index = rows.findIndex((row) => row.key === key);
    const focus = () => {
      const row = body.current?.querySelector(`[data-key="${CSS.escape(key)}"]`);
      if (row) fieldIn(row)?.focus();
    };
    if (!plain && index >= 0) virtual.scrollToIndex(index);
    requestAnimationFrame(() => (plain ? focus() : requestAnimationFrame(focus)));
  };
  const end = seen?.[seen.length - 1]?.end ?? headHeight;
  return {
    shown: seen
      ? seen.flatMap(({ index }) => (rows[index] ? [{ index, row: rows[index] }] : []))
      : rows.map((row, index) => ({ index, row })),
    before: seen?.[0] ? seen[0].start - headHeight : 0,
    after: seen ? Math.max(0, virtual.getTotalSize() - (end - headHeight)) : 0,
    measure: plain ? undefined : virtual.measureElement,
    bring,
  };
}
