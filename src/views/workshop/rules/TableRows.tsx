import { useMemo } from 'react';
import type { Rule } from '../../../core/model';
import { wordsOf, type Language } from '../../../core/modelling';
import { Grid, type GridColumn } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import { Exchange } from '../parts/Exchange';
import { FormulaBar } from '../grids/FormulaBar';
import { useValueGrid, type ValueGrid } from '../grids/useValueGrid';
import type { Draft } from '../session/useDraft';
import { TableLooked } from './TableLooked';
import css from './rules.module.css';

type Table = Extract<Rule, { kind: 'table' }>;

/** The rows of a table rule as a grid: a cell is a test on the row of its column, "-" lets all pass. */
export function TableRows({
  id,
  rule,
  draft,
  onSet,
}: {
  /** The draft's id. */
  id: string;
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
  /** Rows of a file; a head that names the columns is no row, and says their order. */
  const take = ([head = [], ...rest]: string[][]): void => {
    const at = rule.of.map((name, place) =>
      head.findIndex((cell) => [name, columns[place]?.title].includes(cell.trim())),
    );
    const isHead = at.every((place) => place >= 0);
    const rows = (isHead ? rest : [head, ...rest]).map((row) =>
      rule.of.map((_, place) => (row[isHead ? (at[place] ?? place) : place] ?? '').trim() || '-'),
    );
    onSet({ ...rule, rows });
  };
  return (
    <div className={css.table}>
      <div className={css.bar}>
        <span className={css.push} />
        <Exchange draft={id} part="table" rule={rule.id} out={['xlsx', 'csv', 'dmn']} onRows={take} />
      </div>
      <FormulaBar draft={draft} grid={grid} feelOf={(column) => ({ cell: column.split(' ')[1] ?? '' })} />
      <TableLooked
        draft={draft}
        rule={rule}
        onSet={onSet}
        onRow={(row) =>
          grid.session.act((state) => ({ ...state, cursor: { row, column: 0 }, anchor: { row, column: 0 } }))
        }
      />
      <Grid label={t('draft.rule.rows')} grid={grid} words={words} />
    </div>
  );
}
