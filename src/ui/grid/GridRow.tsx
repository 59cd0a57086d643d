import { memo, type CSSProperties, type ReactNode } from 'react';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { classes } from '../classes';
import { shownIn, wrongIn, type GridColumn, type Row } from './row';
import type { GridWords } from './words';
import css from './grid.module.css';

/** What is told where a text may end in dots: letters are at least so wide. */
const narrowLetter = 5.5;
const whole = (text: string, width: number): string | undefined =>
  text.length * narrowLetter > width - 20 ? text : undefined;

interface Props {
  /** Of ids in the page, as the sentences of what is wrong. */
  name: string;
  row: Row;
  /** Its place among all rows. */
  place: number;
  /** Its number among those that are seen, from 1. */
  number: number;
  top: number;
  columns: readonly GridColumn[];
  /** The column of the cursor; -1 where it is in another row. */
  cursor: number;
  /** The marked columns; from -1 where none are. */
  from: number;
  to: number;
  /** It holds others: whether they are folded away. */
  folded: boolean | undefined;
  tree: boolean;
  /** Where what is dragged would be put. */
  drop: boolean;
  words: GridWords;
  /** What is in the place of the cursor's cell while that is edited. */
  editor: ReactNode;
}

/** A row: its number, by which it is marked and dragged, and its cells. */
export const GridRow = memo(function GridRow(props: Props) {
  const { name, row, place, number, top, columns, cursor, from, to, folded, tree, drop, words, editor } =
    props;
  return (
    <div
      role="row"
      aria-rowindex={number + 1}
      {...(tree ? { 'aria-level': row.depth + 1 } : {})}
      {...(folded === undefined ? {} : { 'aria-expanded': !folded })}
      data-row={place}
      className={classes(css.row, drop && css.drop)}
      style={{ transform: `translateY(${String(top)}px)` }}
    >
      <div role="rowheader" aria-label={words.row(number)} data-head className={css.head}>
        {number}
      </div>
      {columns.map((column, at) => {
        const wrong = wrongIn(column, row, row.cells[at]);
        const here = cursor === at;
        const id = wrong === null ? undefined : `${name}-${row.id}-${column.id}`;
        return (
          <div
            key={column.id}
            role="gridcell"
            aria-colindex={at + 2}
            aria-selected={from >= 0 && at >= from && at <= to}
            aria-readonly={column.fixed === true || undefined}
            aria-invalid={wrong !== null || undefined}
            aria-describedby={id}
            tabIndex={here && !editor ? 0 : -1}
            data-column={at}
            data-cursor={here || undefined}
            title={wrong ?? undefined}
            className={classes(
              css.cell,
              column.kind && css[column.kind],
              wrong !== null && css.wrong,
              column.fixed && css.fixed,
            )}
            style={tree && at === 0 ? ({ '--depth': row.depth } as CSSProperties) : undefined}
          >
            {tree && at === 0 && <Fold {...{ folded, words }} text={shownIn(column, row.cells[at])} />}
            {here && editor ? (
              editor
            ) : (
              <span className={css.text} title={whole(shownIn(column, row.cells[at]), column.width)}>
                {shownIn(column, row.cells[at])}
              </span>
            )}
            {id !== undefined && (
              <span id={id} className={css.why}>
                {wrong}
              </span>
            )}
          </div>
        );
      })}
    </div>
  );
});

/** Opens what is inside, or folds it away; the same room where there is nothing. */
function Fold({ folded, words, text }: Pick<Props, 'folded' | 'words'> & { text: string }) {
  if (folded === undefined) return <span className={css.fold} />;
  return (
    <button
      type="button"
      tabIndex={-1}
      data-fold
      className={css.fold}
      aria-label={folded ? words.open(text) : words.fold(text)}
    >
      {folded ? <ChevronRight size={13} aria-hidden /> : <ChevronDown size={13} aria-hidden />}
    </button>
  );
}
