import { useMemo, useRef, useState, type ReactNode } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { classes } from './classes';
import { nextOrder, sortedBy, type Order } from './order';
import css from './ui.module.css';

/** A column of a table. */
export interface Column<T> {
  id: string;
  title: string;
  cell: (row: T) => ReactNode;
  /** Value to sort by; without it the column does not sort. */
  sort?: (row: T) => string | number;
  /** figure: right-aligned mono; code: mono. */
  kind?: 'figure' | 'code';
  width?: string;
}

interface Props<T> {
  label: string;
  columns: readonly Column<T>[];
  rows: readonly T[];
  rowId: (row: T) => string;
  empty: ReactNode;
  /** Where the rows come sorted, by whom they are given; else the table sorts them itself. */
  order?: { by: string; descending: boolean; onOrder: (by: string) => void };
}

const rowHeight = 27;

function Arrow({ sorted }: { sorted: 'ascending' | 'descending' | undefined }) {
  if (sorted === undefined) return null;
  return sorted === 'ascending' ? <ArrowUp size={11} aria-hidden /> : <ArrowDown size={11} aria-hidden />;
}

/** A dense table: sortable, with virtual rows, so that 20,000 scroll as smoothly as 20. */
export function DataTable<T>({ label, columns, rows, rowId, empty, order }: Props<T>) {
  // With the value as it was when the title was pressed: columns are made anew each time, rows are not.
  const [own, setOwn] = useState<(Order & { value: (row: T) => string | number }) | null>(null);
  const wrap = useRef<HTMLDivElement>(null);
  const by = order ?? own;
  const shown = useMemo(
    () => (order || !own ? rows : sortedBy(rows, own.value, own.descending)),
    [rows, order, own],
  );
  const [sample] = rows;
  const press = (id: string, value: (row: T) => string | number) => {
    const next = nextOrder(own, id, sample !== undefined && typeof value(sample) === 'number');
    setOwn(next && { ...next, value });
  };
  // oxlint-disable-next-line react/incompatible-library -- nothing of it is handed on
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => wrap.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    initialRect: { width: 1000, height: 900 },
  });
  const items = virtual.getVirtualItems();
  const [first, last] = [items[0], items[items.length - 1]];
  if (rows.length === 0) return <div className={css.empty}>{empty}</div>;
  const styleOf = (kind: Column<T>['kind']) => (kind ? css[kind] : undefined);
  return (
    <div ref={wrap} className={css.tableWrap} data-sideways tabIndex={0} role="region" aria-label={label}>
      <table className={css.table} aria-label={label} aria-rowcount={shown.length + 1}>
        <thead>
          <tr>
            {columns.map((column) => {
              const sorted = by?.by !== column.id ? undefined : by.descending ? 'descending' : 'ascending';
              const { sort } = column;
              return (
                <th
                  key={column.id}
                  scope="col"
                  className={styleOf(column.kind === 'figure' ? 'figure' : undefined)}
                  style={{ width: column.width }}
                  aria-sort={sorted}
                >
                  {sort ? (
                    <button
                      type="button"
                      className={css.sort}
                      onClick={() => (order ? order.onOrder(column.id) : press(column.id, sort))}
                    >
                      {column.title} <Arrow sorted={sorted} />
                    </button>
                  ) : column.title === '' ? (
                    <span className={css.hidden}>{label}</span>
                  ) : (
                    column.title
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {first && first.start > 0 && <tr aria-hidden style={{ height: first.start }} />}
          {items.map((item) => {
            const row = shown[item.index];
            return row ? (
              <tr key={rowId(row)} aria-rowindex={item.index + 2}>
                {columns.map((column) => (
                  <td key={column.id} className={classes(styleOf(column.kind))}>
                    {column.cell(row)}
                  </td>
                ))}
              </tr>
            ) : null;
          })}
          {last && virtual.getTotalSize() > last.end && (
            <tr aria-hidden style={{ height: virtual.getTotalSize() - last.end }} />
          )}
        </tbody>
      </table>
    </div>
  );
}
