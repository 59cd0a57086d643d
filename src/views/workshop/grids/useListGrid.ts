/**
 * A grid over a list of the document, kept in step with it: what is typed becomes an edit, what others did
 * becomes rows.
 */
import { useLayoutEffect, useMemo, useRef } from 'react';
import type { ModelDocument } from '../../../core/model';
import type { Part } from '../../../core/modelling';
import { isBlank, isWrong, useGrid, type GridHandle, type Row } from '../../../ui/grid';
import { useRemoval } from '../Removal';
import type { Draft } from '../session/useDraft';
import { listEdit, rowsOfList } from './list-edits';
import type { PartColumn } from './part-columns';

/** What a grid does with rows that changed: the edit, and the names of rows that are new. */
export interface GridBack {
  rowsOf: (document: ModelDocument) => readonly Row[];
  editOf: (
    document: ModelDocument,
    rows: readonly Row[],
    nameOf: (row: string) => string,
  ) => ReturnType<typeof listEdit>;
}

/** A grid that is kept in step with the document. */
export function useDocumentGrid(
  draft: Draft,
  { rowsOf, editOf }: GridBack,
  made: { columns: readonly PartColumn['column'][]; most?: number; tree?: boolean },
): GridHandle {
  const { document, session } = draft;
  const removal = useRemoval();
  const rows = useMemo(() => rowsOf(document), [document, rowsOf]);
  const grid = useGrid(rows, made);
  /** The parts that rows of the grid are, where their names differ. */
  const names = useRef(new Map<string, string>());
  const nameOf = (row: string): string => names.current.get(row) ?? row;
  const typed = useRef(grid.rows);
  // Both before anything is painted, so that no key comes between what was typed and what it became.
  useLayoutEffect(() => {
    if (typed.current === grid.rows) return;
    typed.current = grid.rows;
    const made = editOf(session.seen().document, grid.rows, nameOf);
    if (!made) return;
    const go = (): void => {
      const before = new Map(names.current);
      for (const [row, id] of made.ids) names.current.set(row, id);
      if (session.edit(made.edit)) names.current = before;
    };
    // What is left is shown again as the document has it.
    removal(draft, made.edit, go, () => {
      grid.session.settle(rowsOf(session.seen().document));
      typed.current = grid.session.state().rows;
    });
  });
  useLayoutEffect(() => {
    const shown = grid.session.state().rows;
    if (isShown(rows, shown, nameOf)) return;
    grid.session.settle(among(rows, shown, nameOf));
    typed.current = grid.session.state().rows;
    // oxlint-disable-next-line react/exhaustive-deps -- the grid's own changes are looked at above
  }, [rows]);
  return grid;
}

/**
 * The rows of the document as the grid shows them: under the names that they have there, and with the blank rows, and
 * what cannot be read, that somebody is still at.
 */
function among(rows: readonly Row[], shown: readonly Row[], nameOf: (row: string) => string): readonly Row[] {
  const known = new Map(shown.map((row) => [nameOf(row.id), row]));
  const found = rows.map((row): Row => {
    const own = known.get(row.id);
    return own
      ? {
          ...row,
          id: own.id,
          cells: row.cells.map((cell, at) => (isWrong(own.cells[at]) ? own.cells[at] : cell)),
        }
      : row;
  });
  const placed = [...found];
  shown.forEach((row, at) => {
    if (!isBlank(row) || rows.some(({ id }) => id === nameOf(row.id))) return;
    const before = shown[at - 1]?.id;
    const place = before === undefined ? 0 : placed.findIndex(({ id }) => id === before) + 1;
    placed.splice(place, 0, row);
  });
  return placed;
}

/** Whether the grid shows the rows, blank ones and what cannot be read apart. */
function isShown(rows: readonly Row[], shown: readonly Row[], nameOf: (row: string) => string): boolean {
  const there = shown.filter((row) => !isBlank(row));
  return (
    there.length === rows.length &&
    rows.every((row, at) => {
      const other = there[at];
      return (
        other !== undefined &&
        nameOf(other.id) === row.id &&
        other.depth === row.depth &&
        row.cells.every((cell, place) => {
          const its = other.cells[place];
          return isWrong(its) || (its ?? '') === cell;
        })
      );
    })
  );
}

/** A grid over one of the document's own lists. */
export function useListGrid(
  draft: Draft,
  list: string,
  columns: readonly PartColumn[],
  fresh: (id: string) => Part,
): GridHandle {
  const back = useMemo<GridBack>(
    () => ({
      rowsOf: (document) => rowsOfList(document, list, columns),
      editOf: (document, rows, nameOf) => listEdit(document, list, rows, columns, { nameOf, fresh }),
    }),
    [list, columns, fresh],
  );
  const shown = useMemo(() => columns.map(({ column }) => column), [columns]);
  return useDocumentGrid(draft, back, { columns: shown, most: 5_000 });
}
