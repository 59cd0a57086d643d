import { useEffect, useMemo } from 'react';
import type { ChangeRowView, ListHead } from '../../contract';
import { useLatest } from '../../ui';
import { Grid, useGrid, type Row } from '../../ui/grid';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import { changesOf, rowOfChange, type SentRows } from './change-rows';
import { useChangeColumns } from './useChangeColumns';
import css from './change.module.css';

interface Props {
  views: readonly ChangeRowView[];
  lists: readonly ListHead[];
  /** The list of rows that name none. */
  list: string;
  fixed: boolean;
  onChanges: (changes: SentRows) => void;
  /** The row that the cursor is on; null where it is on a new one. */
  onCursor: (row: ChangeRowView | null) => void;
}

const mostRows = 20_000;

/** The rows of a price change, to be typed over. */
export function ChangeGrid({ views, lists, list, fixed, onChanges, onCursor }: Props) {
  const words = useSpeech();
  const columns = useChangeColumns(lists);
  const gridWords = useGridWords();
  const byPlace = useMemo(() => new Map(views.map((view) => [view.place, view])), [views]);
  const first = useMemo(
    (): readonly Row[] => views.map((view) => rowOfChange(view, lists, words)),
    [views, lists, words],
  );
  const grid = useGrid(first, { columns, most: mostRows, fixed });
  const changes = useMemo(
    () =>
      grid.rows === first
        ? { rows: [], out: [] }
        : changesOf(first, grid.rows, byPlace, list, words.language),
    [grid.rows, first, byPlace, list, words.language],
  );
  const tell = useLatest(onChanges);
  useEffect(() => tell.current(changes), [changes, tell]);
  const at = grid.rows[grid.state.cursor.row]?.id ?? '';
  const tellCursor = useLatest(onCursor);
  useEffect(() => tellCursor.current(byPlace.get(at) ?? null), [at, byPlace, tellCursor]);
  return (
    <div className={css.rows}>
      <Grid label={words.t('change.entries')} grid={grid} words={gridWords} className={css.grid} />
    </div>
  );
}
