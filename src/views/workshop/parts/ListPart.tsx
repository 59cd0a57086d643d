import type { ReactNode } from 'react';
import type { Part } from '../../../core/modelling';
import { Grid } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useListGrid } from '../grids/useListGrid';
import { FormulaBar } from '../grids/FormulaBar';
import type { PartColumn } from '../grids/part-columns';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  list: string;
  title: string;
  columns: readonly PartColumn[];
  /** A new part of the list, of which only the id is known. */
  fresh: (id: string) => Part;
  /** What stands beside the title. */
  beside?: ReactNode;
  /** What the formula of a part comes to in the try-out. */
  comesTo?: (part: string, column: string) => string | undefined;
}

/** A list of the document as a grid under its title. */
export function ListPart({ draft, list, title, columns, fresh, beside, comesTo }: Props) {
  const grid = useListGrid(draft, list, columns, fresh);
  const words = useGridWords();
  const feels = new Map(columns.flatMap(({ column, feel }) => (feel ? [[column.id, feel] as const] : [])));
  return (
    <section className={css.list} aria-label={title}>
      <h2 className={css.heading}>
        {title}
        {beside !== undefined && <span className={css.quiet}>{beside}</span>}
      </h2>
      {feels.size > 0 && (
        <FormulaBar draft={draft} grid={grid} feelOf={(column) => feels.get(column)} comesTo={comesTo} />
      )}
      <Grid label={title} grid={grid} words={words} className={css.grid} />
    </section>
  );
}
