/**
 * A grid over a value of the document whose parts have no ids, such as the segments of a number or the rows of a
 * table.
 */
import { useLayoutEffect, useMemo, useRef } from 'react';
import { isBlank, isWrong, useGrid, type GridColumn, type GridHandle, type Row } from '../../../ui/grid';

/** How a value stands in a grid, and how it comes back. */
export interface ValueGrid<T> {
  columns: readonly GridColumn[];
  cellsOf: (value: T) => readonly (readonly string[])[];
  /** Of rows in which something stands; what cannot be read is empty. */
  valueOf: (cells: readonly (readonly string[])[]) => T;
}

/** Keeps a grid and a value in step. */
export function useValueGrid<T>(value: T, made: ValueGrid<T>, onSet: (value: T) => void): GridHandle {
  const { columns, cellsOf, valueOf } = made;
  const rows = useMemo(
    () => cellsOf(value).map((cells, at): Row => ({ id: `row-${String(at)}`, depth: 0, cells: [...cells] })),
    [value, cellsOf],
  );
  const grid = useGrid(rows, { columns, most: 5_000 });
  const typed = useRef(grid.rows);
  const said = (shown: readonly Row[]): string =>
    JSON.stringify(
      valueOf(
        shown
          .filter((row) => !isBlank(row))
          .map((row) => row.cells.map((cell) => (isWrong(cell) ? '' : cell))),
      ),
    );
  // Both before anything is painted, so that no key comes between what was typed and what it became.
  useLayoutEffect(() => {
    if (typed.current === grid.rows) return;
    typed.current = grid.rows;
    const next = said(grid.rows);
    if (next !== JSON.stringify(value)) onSet(JSON.parse(next) as T);
  });
  useLayoutEffect(() => {
    // What is half typed says the same as before, and stays.
    if (said(grid.session.state().rows) === JSON.stringify(value)) return;
    grid.session.settle(rows);
    typed.current = grid.session.state().rows;
    // oxlint-disable-next-line react/exhaustive-deps -- what is typed here is looked at above
  }, [rows]);
  return grid;
}
