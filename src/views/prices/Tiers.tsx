import { useEffect, useMemo, useState } from 'react';
import { exact } from '../../core/exact';
import type { Slice } from '../../core/pricing';
import { useLatest } from '../../ui';
import { Grid, isBlank, useGrid, type GridColumn, type Row } from '../../ui/grid';
import { figureColumn } from '../parts/grid/columns';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import css from './change.module.css';

interface Props {
  label: string;
  /** As they are when the grid begins; `rate` is the price of a bracket too. */
  tiers: readonly Slice[];
  /** Where one begins before another has ended, or leaves a hole. */
  marked: { from: string; why: string } | null;
  onTiers: (tiers: readonly Slice[] | null) => void;
}

/** Brackets or slices as a grid, where an overlap or a hole is marked at the tier at which it is. */
export function Tiers({ label, tiers, marked, onTiers }: Props) {
  const words = useSpeech();
  const { t } = words;
  const gridWords = useGridWords();
  const columns = useMemo(
    (): readonly GridColumn[] => [
      figureColumn(
        { id: 'from', title: t('change.tier.from'), width: 84, needed: t('input.required') },
        6,
        words,
      ),
      figureColumn({ id: 'below', title: t('change.tier.below'), width: 84 }, 6, words),
      figureColumn(
        { id: 'rate', title: t('change.tier.price'), width: 104, needed: t('input.required') },
        6,
        words,
        2,
      ),
    ],
    [t, words],
  );
  // The grid goes on by itself from what it began with.
  const [first] = useState((): readonly Row[] =>
    tiers.map(({ from, below = '', rate }, at) => ({
      id: String(at),
      depth: 0,
      cells: [from, below, rate],
    })),
  );
  const grid = useGrid(first, { columns, most: 100 });
  const tell = useLatest(onTiers);
  useEffect(() => {
    if (grid.rows === first) return;
    tell.current(tiersIn(grid.rows));
  }, [grid.rows, first, tell]);
  return (
    <div className={css.tiers}>
      <Grid label={label} grid={grid} words={gridWords} className={css.tierGrid} />
      {marked && (
        <p className={css.wrong} role="alert">
          {marked.why}
        </p>
      )}
    </div>
  );
}

/** The tiers of rows, in the order of where they begin; null while something cannot be read. */
function tiersIn(rows: readonly Row[]): readonly Slice[] | null {
  const found: Slice[] = [];
  for (const row of rows) {
    if (isBlank(row)) continue;
    const [from, below, rate] = row.cells;
    if (typeof from !== 'string' || typeof below !== 'string' || typeof rate !== 'string') return null;
    if (from === '' || rate === '') return null;
    found.push({ from, rate, ...(below === '' ? {} : { below }) });
  }
  return found.sort((a, b) => exact(a.from).comparedTo(b.from));
}
