import { useId, useRef, type CSSProperties, type PointerEvent } from 'react';
import { useVirtualizer, defaultRangeExtractor, type VirtualItem } from '@tanstack/react-virtual';
import { Plus, Rows3 } from 'lucide-react';
import { Button } from '../Button';
import { classes } from '../classes';
import { Menu } from '../Menu';
import { Said } from '../Said';
import { CellEditor } from './CellEditor';
import { GridRow } from './GridRow';
import { rowKeys } from './keys';
import { markedCount, placeIn } from './moves';
import { holdsRows } from './outline';
import { typedIn, type GridColumn } from './row';
import { areaOf, seenIn } from './state';
import { rowHeight, useGridActs } from './useGridActs';
import { useGridPointer } from './useGridPointer';
import type { GridHandle } from './useGrid';
import type { GridWords, RowAct } from './words';
import css from './grid.module.css';

interface Props {
  label: string;
  grid: GridHandle;
  words: GridWords;
  /** Instead of the grid's own height, which is that of what holds it. */
  className?: string | undefined;
  /** Whether somebody else takes a pasted table; else it goes into the cells. */
  onPasting?: (table: string[][]) => boolean;
}

const headHeight = 30;
const numberWidth = 46;

/**
 * Rows to edit in the manner of a spreadsheet: arrows, typing, ranges, copying and pasting, filling, undoing, by
 * keyboard alone as well as by hand, up to tens of thousands of rows.
 */
export function Grid({ label, grid, words, className, onPasting }: Props) {
  const { plan, state, tree, fixed } = grid;
  const { columns } = plan;
  const scroller = useRef<HTMLDivElement>(null);
  const seen = seenIn(state);
  const cursorAt = placeIn(seen, state.cursor.row);
  // oxlint-disable-next-line react/incompatible-library -- nothing of it is handed on
  const virtual = useVirtualizer({
    count: seen.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 10,
    scrollPaddingStart: headHeight,
    scrollMargin: 0,
    initialRect: { width: 1000, height: 640 },
    // The cell with the keyboard stays where it is, however far one scrolls.
    rangeExtractor: (range) => withOne(defaultRangeExtractor(range), cursorAt, seen.length),
  });
  const acts = useGridActs({
    grid,
    words,
    scroller,
    onPasting,
    show: (at) => virtual.scrollToIndex(at, { align: 'auto' }),
  });
  const pointer = useGridPointer({ grid, scroller, acts });
  const { editing } = acts;
  const width = columns.reduce((sum, column) => sum + column.width, numberWidth);
  return (
    <div className={classes(css.grid, className)}>
      <div
        ref={scroller}
        role={tree ? 'treegrid' : 'grid'}
        aria-label={label}
        aria-rowcount={seen.length + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        aria-readonly={fixed || undefined}
        tabIndex={seen.length === 0 ? 0 : -1}
        className={css.scroller}
        style={
          {
            '--columns': `${String(numberWidth)}px ${columns.map(widthOf).join(' ')}`,
            '--wide': `${String(width)}px`,
          } as CSSProperties
        }
        data-sideways
        {...acts.handlers}
        {...pointer.handlers}
      >
        <Titles columns={columns} />
        <div className={css.rows} style={{ height: virtual.getTotalSize() }}>
          <Rows {...{ grid, words, acts }} items={virtual.getVirtualItems()} drop={pointer.drop} />
          {seen.length > 0 && (
            <Frame {...{ grid }} until={pointer.until} onFill={pointer.onFill} editing={editing !== null} />
          )}
          {pointer.drop === state.rows.length && (
            <div
              className={css.dropEnd}
              style={{ transform: `translateY(${String(virtual.getTotalSize())}px)` }}
            />
          )}
        </div>
        {seen.length === 0 && <p className={css.empty}>{words.empty}</p>}
      </div>
      <Foot {...{ grid, words }} onWrong={acts.toWrong} onAct={acts.rows} />
      <Said text={acts.said} />
    </div>
  );
}

/** The rows that are drawn. */
function Rows({
  grid: { plan, state, tree },
  words,
  acts,
  items,
  drop,
}: Pick<Props, 'grid' | 'words'> & {
  acts: ReturnType<typeof useGridActs>;
  items: readonly VirtualItem[];
  drop: number | null;
}) {
  const name = useId();
  const { columns } = plan;
  const { cursor } = state;
  const seen = seenIn(state);
  const area = areaOf(state);
  const column = columns[cursor.column];
  return items.map(({ index, start }) => {
    const place = seen[index] ?? 0;
    const row = state.rows[place];
    if (!row) return null;
    const within = place >= area.top && place <= area.bottom;
    const here = place === cursor.row;
    const edited = here && acts.editing !== null && column;
    return (
      <GridRow
        key={row.id}
        {...{ name, row, place, columns, tree, words }}
        number={index + 1}
        top={start}
        cursor={here ? cursor.column : -1}
        from={within ? area.left : -1}
        to={within ? area.right : -1}
        folded={tree && holdsRows(state.rows, place) ? state.folded.has(row.id) : undefined}
        drop={drop === place}
        editor={
          edited ? (
            <CellEditor
              key={`${row.id} ${edited.id}`}
              label={`${edited.title}, ${words.row(index + 1)}`}
              column={edited}
              begin={acts.editing === 'replace' ? '' : typedIn(edited, row.cells[cursor.column])}
              open={acts.editing === 'choose'}
              onStore={acts.store}
              onLeave={acts.leave}
            />
          ) : null
        }
      />
    );
  });
}

/** The titles of the columns; they stay while one scrolls. */
function Titles({ columns }: { columns: readonly GridColumn[] }) {
  return (
    <div role="row" aria-rowindex={1} className={css.titles}>
      <div role="columnheader" className={css.head}>
        #
      </div>
      {columns.map((column, at) => (
        <div
          key={column.id}
          role="columnheader"
          aria-colindex={at + 2}
          data-title={at}
          className={classes(css.title, column.kind === 'figure' && css.figure)}
        >
          {column.title}
        </div>
      ))}
    </div>
  );
}

/** How much there is, what is to be mended, and what can be done to rows. */
function Foot({
  grid,
  words,
  onWrong,
  onAct,
}: Pick<Props, 'grid' | 'words'> & { onWrong: () => void; onAct: (act: RowAct) => void }) {
  const { state } = grid;
  const marked = markedCount(state);
  // What is wrong where the cursor is stands here, where nothing covers it.
  const here = grid.wrong.find(
    ({ row, column }) => row === state.cursor.row && column === state.cursor.column,
  );
  return (
    <div className={css.foot}>
      <span>{words.rows(state.rows.length)}</span>
      {marked > 1 && <span>{words.marked(marked)}</span>}
      {grid.wrong.length > 0 && (
        <Button look="plain" className={css.mend} onClick={onWrong}>
          {words.wrong(grid.wrong.length)}
        </Button>
      )}
      {here && <span className={css.here}>{here.why}</span>}
      {grid.grows && <RowMenu {...{ grid, words, onAct }} />}
    </div>
  );
}

/** What can be done to rows, with its keys. */
function RowMenu({ grid, words, onAct }: Pick<Props, 'grid' | 'words'> & { onAct: (act: RowAct) => void }) {
  const all: RowAct[] = [
    'above',
    'below',
    'double',
    'up',
    'down',
    ...(grid.tree ? (['in', 'out'] as const) : []),
    'remove',
  ];
  return (
    <span className={css.do}>
      <Button look="plain" onClick={() => onAct('below')}>
        <Plus size={14} aria-hidden />
        {words.add}
      </Button>
      <Menu
        label={words.more}
        items={all.map((act) => ({
          id: act,
          text: (
            <span className={css.act}>
              {words.acts[act]} <kbd>{words.keys(rowKeys[act])}</kbd>
            </span>
          ),
          onPick: () => onAct(act),
        }))}
      >
        <Rows3 size={14} aria-hidden />
      </Menu>
    </span>
  );
}

/** The line around what is marked, with the corner by which it is filled on. */
function Frame({
  grid: { state, plan, fixed },
  until,
  onFill,
  editing,
}: Pick<Props, 'grid'> & {
  until: { row: number; column: number } | null;
  onFill: (event: PointerEvent) => void;
  editing: boolean;
}) {
  const seen = seenIn(state);
  const { top, bottom, left, right } = areaOf(state);
  const offset = (column: number): number =>
    plan.columns.slice(0, column).reduce((sum, each) => sum + each.width, numberWidth);
  const box = (first: number, last: number, from: number, to: number): CSSProperties => ({
    top: placeIn(seen, first) * rowHeight,
    height: (placeIn(seen, last) - placeIn(seen, first) + 1) * rowHeight,
    left: offset(from),
    // The last column takes the room that is left.
    ...(to === plan.columns.length - 1 ? { right: 0 } : { width: offset(to + 1) - offset(from) }),
  });
  const down = until !== null && until.row - bottom >= until.column - right;
  return (
    <>
      <div className={classes(css.frame, editing && css.frameEditing)} style={box(top, bottom, left, right)}>
        {!fixed && !editing && <span className={css.filler} onPointerDown={onFill} />}
      </div>
      {until && (
        <div
          className={css.filling}
          style={
            down
              ? box(top, Math.max(bottom, until.row), left, right)
              : box(top, bottom, left, Math.max(right, until.column))
          }
        />
      )}
    </>
  );
}

const widthOf = ({ width }: GridColumn, at: number, all: readonly GridColumn[]): string =>
  at === all.length - 1 ? `minmax(${String(width)}px, 1fr)` : `${String(width)}px`;

function withOne(range: number[], at: number, count: number): number[] {
  return count === 0 || range.includes(at) ? range : [...range, at].sort((one, other) => one - other);
}
