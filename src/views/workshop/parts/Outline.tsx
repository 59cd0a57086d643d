import { useMemo, useState } from 'react';
import type { DraftView } from '../../../contract';
import { Grid } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import { outlineColumns } from '../grids/outline-columns';
import { outlineEdit, outlineLines } from '../grids/outline-edits';
import { useDocumentGrid, type GridBack } from '../grids/useListGrid';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
}

/** Sections, in them the rows with their options, as one grid in the manner of a spreadsheet. */
export function Outline({ draft, view }: Props) {
  const words = useSpeech();
  const gridWords = useGridWords();
  const [items] = useState(view.items);
  const columns = useMemo(() => outlineColumns({ items }, words), [items, words]);
  const back = useMemo<GridBack>(
    () => ({
      rowsOf: (document) => outlineLines(document, columns),
      editOf: (document, rows, nameOf) => outlineEdit(document, rows, columns, nameOf),
    }),
    [columns],
  );
  const shown = useMemo(() => columns.map(({ column }) => column), [columns]);
  const grid = useDocumentGrid(draft, back, { columns: shown, most: 5_000, tree: true });
  return (
    <div className={css.fill}>
      <Grid label={words.t('draft.part.outline')} grid={grid} words={gridWords} className={css.grid} />
    </div>
  );
}
