import { useEffect, useMemo } from 'react';
import { termKinds } from '../../core/terms';
import type { TermRowView, TermsView } from '../../contract';
import { useLatest } from '../../ui';
import { Grid, useGrid, type Row } from '../../ui/grid';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import { useTermColumns } from './useTermColumns';
import shared from '../parts/side/room-page.module.css';

interface Props {
  view: TermsView;
  /** As they are when the grid begins. */
  rows: readonly Row[];
  onRows: (rows: readonly Row[]) => void;
  onCursor: (row: TermRowView | null) => void;
}

const mostRows = 5_000;

/** Rows of terms to edit in the manner of a spreadsheet. */
export function TermGrid({ view, rows, onRows, onCursor }: Props) {
  const { t } = useSpeech();
  const columns = useTermColumns(view.kind, view.choices);
  const words = useGridWords();
  const grid = useGrid(rows, { columns, most: mostRows });
  const byId = useMemo(() => new Map(view.rows.map((row) => [row.id, row])), [view.rows]);
  const tell = useLatest(onRows);
  useEffect(() => tell.current(grid.rows), [grid.rows, tell]);
  const at = grid.rows[grid.state.cursor.row]?.id ?? '';
  const tellCursor = useLatest(onCursor);
  useEffect(() => tellCursor.current(byId.get(at) ?? null), [at, byId, tellCursor]);
  return (
    <div className={shared.rows} data-kind={termKinds[view.kind].id}>
      <Grid label={t(`terms.kind.${view.kind}`)} grid={grid} words={words} className={shared.grid} />
    </div>
  );
}
