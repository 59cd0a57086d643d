import { useMemo } from 'react';
import type { Rule } from '../../../core/model';
import { wordsOf, type Language } from '../../../core/modelling';
import { Grid, type GridColumn } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import { FormulaBar } from '../grids/FormulaBar';
import { useValueGrid, type ValueGrid } from '../grids/useValueGrid';
import type { Draft } from '../session/useDraft';
import css from './rules.module.css';

type Table = Extract<Rule, { kind: 'table' }>;

/** The rows of a table rule as a grid: a cell is a test on the row of its column, "-" lets all pass. */
export function TableRows({
  rule,
  draft,
  onSet,
}: {
  rule: Table;
  draft: Draft;
  onSet: (rule: Rule) => void;
}) {
  const { t, language } = useSpeech();
  const words = useGridWords();
  const { document } = draft;
  const shape = rule.of.join(' ');
  const columns = useMemo((): GridColumn[] => {
    const known = wordsOf(document, language as Language);
    return shape.split(' ').map((id, at) => {
      const row = known.rowOf(id);
      return {
        id: `${String(at)} ${id}`,
        title: row?.name ?? id,
        width: 200,
        kind: 'code',
        choices: ['-', ...(row?.options ?? []).map((option) => JSON.stringify(option.id))],
        read: (typed) => ({ kept: typed }),
      };
    });
  }, [shape, document, language]);
  const plan = useMemo(
    (): ValueGrid<string[][]> => ({
      columns,
      cellsOf: (rows) => rows,
      valueOf: (cells) => cells.map((row) => row.map((cell) => (cell === '' ? '-' : cell))),
    }),
    [columns],
  );
  const grid = useValueGrid(rule.rows, plan, (rows) => onSet({ ...rule, rows }));
  return (
    <div className={css.table}>
      <FormulaBar draft={draft} grid={grid} feelOf={(column) => ({ cell: column.split(' ')[1] ?? '' })} />
      <Grid label={t('draft.rule.rows')} grid={grid} words={words} />
    </div>
  );
}
