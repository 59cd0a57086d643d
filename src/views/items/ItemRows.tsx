import { useEffect, useMemo } from 'react';
import type { FamilyView, ItemRowView } from '../../contract';
import { useLatest } from '../../ui';
import { Grid, useGrid, type Row } from '../../ui/grid';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import { changesIn, type RowChanges } from './item-rows';
import { useItemColumns } from './useItemColumns';
import shared from '../parts/side/room-page.module.css';

interface Props {
  /** As they are when the grid begins. */
  rows: readonly Row[];
  items: ReadonlyMap<string, ItemRowView>;
  families: readonly FamilyView[];
  /** What was done to rows before. */
  before: RowChanges;
  /** The family that is looked at: a new item is in it. */
  family: string | null;
  onChanges: (changes: RowChanges) => void;
  /** The number of the item that the cursor is on; null where it is on a new row. */
  onCursor: (sku: string | null) => void;
}

const mostItems = 20_000;

/** Items to edit in the manner of a spreadsheet. */
export function ItemRows({ rows, items, families, before, family, onChanges, onCursor }: Props) {
  const { t } = useSpeech();
  const columns = useItemColumns(families);
  const words = useGridWords();
  const grid = useGrid(rows, { columns, most: mostItems });
  const tell = useLatest(onChanges);
  const now = useMemo(
    () => (grid.rows === rows ? before : changesIn(before, rows, withUsual(grid.rows, items, family), items)),
    [grid.rows, rows, before, items, family],
  );
  useEffect(() => tell.current(now), [now, tell]);
  const at = grid.rows[grid.state.cursor.row];
  const sku = at && items.has(at.id) ? at.id : null;
  const tellCursor = useLatest(onCursor);
  useEffect(() => tellCursor.current(sku), [sku, tellCursor]);
  return (
    <div className={shared.rows}>
      <Grid label={t('place.items')} grid={grid} words={words} className={shared.grid} />
    </div>
  );
}

/** A new row says what is usual where nothing is typed: the family that is looked at, and that it is sold. */
function withUsual(
  rows: readonly Row[],
  items: ReadonlyMap<string, ItemRowView>,
  family: string | null,
): readonly Row[] {
  if (family === null) return rows;
  return rows.map((row) =>
    items.has(row.id) || row.cells.every((cell) => cell === '') || row.cells[3] !== ''
      ? row
      : { ...row, cells: row.cells.map((cell, at) => (at === 3 ? family : cell)) },
  );
}
