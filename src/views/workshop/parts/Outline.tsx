import { useMemo, useState } from 'react';
import type { DraftView } from '../../../contract';
import { Grid, paste } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import { outlineColumns } from '../grids/outline-columns';
import { outlineEdit, outlineLines } from '../grids/outline-edits';
import { useDocumentGrid, type GridBack } from '../grids/useListGrid';
import type { Draft } from '../session/useDraft';
import { Exchange } from './Exchange';
import { OptionPicture } from './OptionPicture';
import { RowsPreview } from './RowsPreview';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
}

/** Rows that wait to be looked at, and where they were pasted. */
interface Pasted {
  rows: string[][];
  into?: string | undefined;
  section?: string | undefined;
  cells: boolean;
}

/** Rows with more columns than this are cells of the grid itself rather than a list of options. */
const mostColumns = 6;

/** Sections, in them the rows with their options, as one grid in the manner of a spreadsheet. */
export function Outline({ draft, view }: Props) {
  const words = useSpeech();
  const { t } = words;
  const gridWords = useGridWords();
  const [items] = useState(view.items);
  const [pasted, setPasted] = useState<Pasted | null>(null);
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
  /** Where the cursor is: the feature whose options stand there, and its section. */
  const place = (): Pick<Pasted, 'into' | 'section'> => {
    const { rows, cursor } = grid.session.state();
    const above = rows.slice(0, cursor.row + 1).reverse();
    const at = rows[cursor.row];
    const feature = at && at.depth > 0 ? above.find(({ depth }) => depth === 1)?.id : undefined;
    return {
      into: draft.document.features.find(({ id }) => `rows/${id}` === feature)?.id,
      section: above.find(({ depth }) => depth === 0)?.id.slice('sections/'.length),
    };
  };
  return (
    <div className={css.outline}>
      <div className={css.tools}>
        <span className={css.quiet}>{t('draft.paste.hint')}</span>
        <span className={css.push} />
        <OptionPicture draft={draft} line={grid.rows[grid.state.cursor.row]?.id} />
        <Exchange
          draft={view.id}
          part="outline"
          out={['xlsx', 'csv']}
          onRows={(rows) => setPasted({ rows, cells: false })}
        />
      </div>
      <Grid
        label={t('draft.part.outline')}
        grid={grid}
        words={gridWords}
        className={css.grid}
        onPasting={(rows) => {
          const wide = Math.max(...rows.map((row) => row.length));
          if (rows.length < 2 || wide > mostColumns || grid.session.state().cursor.column !== 0) return false;
          setPasted({ rows, ...place(), cells: true });
          return true;
        }}
      />
      {pasted && (
        <RowsPreview
          draft={draft}
          view={view}
          {...pasted}
          onClose={() => setPasted(null)}
          onCells={
            pasted.cells
              ? () => {
                  setPasted(null);
                  paste(grid, gridWords, pasted.rows);
                }
              : undefined
          }
        />
      )}
    </div>
  );
}
