import { useRef, useState, type ReactNode } from 'react';
import {
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { classes } from './classes';
import css from './ui.module.css';

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

/** A dense table: sortable, with virtual rows, so that 20,000 scroll as smoothly as 20. */
export function DataTable<T>({ label, columns, rows, rowId, empty, order }: Props<T>) {
  const [own, setSorting] = useState<SortingState>([]);
  const sorting = order ? [{ id: order.by, desc: order.descending }] : own;
  const wrap = useRef<HTMLDivElement>(null);
  const defs: ColumnDef<T>[] = columns.map((column) => ({
    id: column.id,
    header: column.title,
    cell: (context) => column.cell(context.row.original),
    enableSorting: Boolean(column.sort),
    ...(column.sort ? { accessorFn: column.sort } : {}),
  }));
  // eslint-disable-next-line react-hooks/incompatible-library -- the table is rebuilt with every render on purpose
  const table = useReactTable({
    data: rows as T[],
    columns: defs,
    state: { sorting },
    onSortingChange: setSorting,
    getRowId: rowId,
    manualSorting: order !== undefined,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const shown = table.getRowModel().rows;
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
            {table.getFlatHeaders().map((header, index) => {
              const column = columns[index] as Column<T>;
              const sorted = header.column.getIsSorted();
              return (
                <th
                  key={header.id}
                  scope="col"
                  className={styleOf(column.kind === 'figure' ? 'figure' : undefined)}
                  style={{ width: column.width }}
                  aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : undefined}
                >
                  {column.sort ? (
                    <button
                      type="button"
                      className={css.sort}
                      onClick={
                        order ? () => order.onOrder(column.id) : header.column.getToggleSortingHandler()
                      }
                    >
                      {column.title}{' '}
                      {sorted === 'asc' ? (
                        <ArrowUp size={11} aria-hidden />
                      ) : sorted === 'desc' ? (
                        <ArrowDown size={11} aria-hidden />
                      ) : null}
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
              <tr key={row.id} aria-rowindex={item.index + 2}>
                {row.getVisibleCells().map((cell, index) => (
                  <td key={cell.id} className={classes(styleOf(columns[index]?.kind))}>
                    {flexRender(cell.column.columnDef.cell, cell.getContext())}
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
