import { useEffect, useMemo, useRef } from 'react';
import type { ModelDocument, Rule } from '../../../core/model';
import { wordsOf, type Language } from '../../../core/modelling';
import { Grid, isBlank, isWrong, useGrid, type GridColumn, type Row } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import css from './rules.module.css';

type Table = Extract<Rule, { kind: 'table' }>;

/** The rows of a table rule as a grid: a cell is a test on the row of its column, "-" lets all pass. */
export function TableRows({
  rule,
  document,
  onSet,
}: {
  rule: Table;
  document: ModelDocument;
  onSet: (rule: Rule) => void;
}) {
  const { t, language } = useSpeech();
  const words = useGridWords();
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
  const rows = useMemo(() => rowsOf(rule), [rule]);
  const grid = useGrid(rows, { columns, most: 5_000 });
  const typed = useRef(grid.rows);
  useEffect(() => {
    if (typed.current === grid.rows) return;
    typed.current = grid.rows;
    const cells = grid.rows
      .filter((row) => !isBlank(row))
      .map((row) => row.cells.map((cell) => (isWrong(cell) || cell === '' ? '-' : cell)));
    if (JSON.stringify(cells) !== JSON.stringify(rule.rows)) onSet({ ...rule, rows: cells });
  });
  useEffect(() => {
    const shown = grid.session
      .state()
      .rows.filter((row) => !isBlank(row))
      .map((row) => row.cells);
    if (JSON.stringify(shown) === JSON.stringify(rows.map((row) => row.cells))) return;
    grid.session.begin(rows);
    typed.current = grid.session.state().rows;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is typed here is looked at above
  }, [rows]);
  return (
    <div className={css.table}>
      <Grid label={t('draft.rule.rows')} grid={grid} words={words} />
    </div>
  );
}

const rowsOf = ({ rows }: Table): Row[] =>
  rows.map((cells, at) => ({ id: `row-${String(at)}`, depth: 0, cells: [...cells] }));
