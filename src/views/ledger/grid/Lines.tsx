import { useEffect, useImperativeHandle, useMemo, useRef, useState, type Ref, type RefObject } from 'react';
import type { LedgerColumn, LineView, QuoteView, SignOffsOfQuote } from '../../../contract';
import { classes, useLatest } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Means } from './cells';
import { actsWidth, layOut, positionWidth, type Shown } from './columns';
import { stopAt, useOneStop } from './grid';
import { onGridKey } from './grid-keys';
import { heldAt } from './held-at';
import type { LineActs } from './LineCells';
import { LineRow, type RowActs } from './LineRow';
import css from './lines.module.css';
import { between, rowsOf } from './rows';
import { useDrop } from './useDrop';
import { useSeenRows } from './useSeenRows';

/** What others may ask of the lines. */
export interface LinesHandle {
  /** Brings a line into sight and the keyboard to its first cell, opening the group that it is in. */
  go(line: string): void;
  /** Gives the keyboard to the one stop that the grid has for the Tab key. */
  begin(): void;
}

interface Props extends Pick<
  LineActs,
  'onChange' | 'onExplain' | 'onFill' | 'onRemove' | 'onCopy' | 'onWalk' | 'onInstead'
> {
  ref: Ref<LinesHandle>;
  view: QuoteView;
  /** The line whose walk is open. */
  openLine: string | undefined;
  /** As the person has chosen them. */
  columns: readonly LedgerColumn[] | null | undefined;
  marked: ReadonlySet<string>;
  onMark: (marked: ReadonlySet<string>) => void;
  /** Moves lines to a place counted from 1 among those that stay. */
  onPlace: (lines: readonly string[], to: number) => Promise<void>;
  onGroup: (lines: readonly string[], group: string) => void;
  onRename: (from: string, to: string) => Promise<string | null>;
  /** What the lines scroll in. */
  scroller: RefObject<HTMLDivElement | null>;
}

const none: never[] = [];

function useWidth(of: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(1232);
  useEffect(() => {
    const element = of.current;
    if (!element) return undefined;
    const watch = new ResizeObserver(() => {
      const style = getComputedStyle(element);
      setWidth(element.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight));
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, [of]);
  return width;
}

const turned = (set: ReadonlySet<string>, key: string): Set<string> => {
  const next = new Set(set);
  if (!next.delete(key)) next.add(key);
  return next;
};

/** The lines of a quote as a tree: groups, lines, and the parts of builds. */
export function Lines(props: Props) {
  const { ref, view, openLine, columns: chosen, marked, onMark, onPlace, onGroup, scroller } = props;
  const { lines, decimals, may } = view;
  const body = useRef<HTMLTableSectionElement>(null);
  const [closedGroups, setClosedGroups] = useState<ReadonlySet<string>>(new Set());
  const [openLines, setOpenLines] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(
    () => rowsOf(lines, decimals, closedGroups, openLines),
    [lines, decimals, closedGroups, openLines],
  );
  const { width, what, columns } = useLayOut(view, chosen, scroller);
  const { shown, before, after, measure, bring } = useSeenRows(rows, scroller, body);
  const oneStop = useOneStop(body);
  const over = useDrop({ rows, lines, marked, onPlace, onGroup });
  const { mark, markGroup, allMarked, markAll } = useMarks(lines, marked, onMark);
  const turnLine = (line: LineView) => setOpenLines(turned(openLines, line.id));
  const bringNow = useLatest(bring);
  useImperativeHandle(ref, () => ({
    go: (id) => {
      const group = lines.find((line) => line.id === id)?.group;
      if (group != null) setClosedGroups((closed) => new Set([...closed].filter((each) => each !== group)));
      // A line within a closed group is there once the group is open.
      requestAnimationFrame(() => bringNow.current(id, firstField));
    },
    begin: () => oneStop.current()?.focus({ preventScroll: true }),
  }));
  const means = useMeans(view);
  const judged = useMemo(() => judgedByLine(view), [view]);
  const acts = useRowActs({
    ...props,
    onMark: mark,
    onOpen: turnLine,
    onOpenGroup: (group) => setClosedGroups(turned(closedGroups, group)),
    onMarkGroup: markGroup,
  });
  const tableWidth = what + columns.reduce((sum, column) => sum + column.width, positionWidth + actsWidth);
  const room = (height: number) =>
    height > 0 && (
      <tr aria-hidden style={{ height }}>
        <td colSpan={columns.length + 3} />
      </tr>
    );
  return (
    <table
      role="grid"
      className={classes(css.table, tableWidth > width && css.holding)}
      aria-label={view.number}
      aria-rowcount={measure ? rows.length + 1 : undefined}
      style={{ width: tableWidth }}
    >
      <Columns what={what} columns={columns} />
      <Titles
        columns={columns}
        currency={view.currency}
        marks={may.edit ? { all: allMarked, onAll: markAll } : undefined}
      />
      <tbody
        ref={body}
        onFocus={oneStop.onFocus}
        onKeyDown={(event) =>
          onGridKey(event, {
            rows,
            lines,
            mayEdit: may.edit,
            isOpen: (line) => openLines.has(line.id),
            onTurn: turnLine,
            onCopy: props.onCopy,
            onMark: mark,
            onPlace,
            goTo: (key, place) => bring(key, (row) => stopAt(row, place)),
          })
        }
      >
        {room(before)}
        {shown.map(({ index, row }) => (
          <LineRow
            key={row.key}
            row={row}
            index={index}
            means={means}
            columns={columns}
            judged={judged.get(row.is === 'line' ? row.line.id : '') ?? none}
            acts={acts}
            measure={measure}
            marked={
              row.is === 'line'
                ? marked.has(row.line.id)
                : row.is === 'group' && row.lines.every((line) => marked.has(line.id))
            }
            walked={row.is === 'line' && openLine === row.line.id}
            over={over?.key === row.key ? (over.after ? 'after' : 'before') : undefined}
          />
        ))}
        {room(after)}
      </tbody>
    </table>
  );
}

/** What waits in a row, else the first that is typed into. */
const firstField = (row: Element): HTMLElement | null =>
  row.querySelector<HTMLElement>('[data-waits]') ??
  row.querySelector<HTMLElement>('input:not([type="checkbox"])');

/** The columns as they fit into the room; the same layout stays the same object. */
function useLayOut(view: QuoteView, chosen: Props['columns'], scroller: Props['scroller']) {
  const width = useWidth(scroller);
  const laid = layOut(view, chosen, width);
  const layout = JSON.stringify(laid);
  const { what, columns } = useMemo(() => JSON.parse(layout) as typeof laid, [layout]);
  return { width, what, columns };
}

/** Lines marked one by one, from one to another, by groups or all. */
function useMarks(lines: readonly LineView[], marked: ReadonlySet<string>, onMark: Props['onMark']) {
  const last = useRef<string>(undefined);
  const allMarked = lines.length > 0 && lines.every((line) => marked.has(line.id));
  return {
    mark: (line: LineView, allBetween: boolean) => {
      const next = turned(marked, line.id);
      if (allBetween && last.current !== undefined)
        for (const id of between(lines, last.current, line.id)) next.add(id);
      last.current = line.id;
      onMark(next);
    },
    markGroup: (group: readonly LineView[]) => {
      const all = group.every((line) => marked.has(line.id));
      const own = new Set(group.map((line) => line.id));
      onMark(new Set(all ? [...marked].filter((id) => !own.has(id)) : [...marked, ...own]));
    },
    allMarked,
    markAll: () => onMark(new Set(allMarked ? [] : lines.map((line) => line.id))),
  };
}

/** What every cell is shown by. */
function useMeans({ may, currency, decimals, signOff, whole, resale }: QuoteView): Means {
  const limits = signOff?.limits ?? none;
  const rate = whole.typed && whole.comes.is === 'spread' ? whole.comes.rate : undefined;
  return useMemo(
    (): Means => ({ may, currency, decimals, limits, whole: rate, resale }),
    [may, currency, decimals, limits, rate, resale],
  );
}

/** What rows do stays the same to them from one drawing to the next, and is always what it is now. */
function useRowActs(now: RowActs): RowActs {
  const latest = useLatest(now);
  return useMemo(
    (): RowActs => ({
      onChange: (line, change) => latest.current.onChange(line, change),
      onExplain: (line) => latest.current.onExplain(line),
      onFill: (line, changes) => latest.current.onFill(line, changes),
      onRemove: (line) => latest.current.onRemove(line),
      onCopy: (line) => latest.current.onCopy(line),
      onWalk: (line) => latest.current.onWalk(line),
      onInstead: (line) => latest.current.onInstead(line),
      onOpen: (line) => latest.current.onOpen(line),
      onMark: (line, allBetween) => latest.current.onMark(line, allBetween),
      onOpenGroup: (group) => latest.current.onOpenGroup(group),
      onMarkGroup: (lines) => latest.current.onMarkGroup(lines),
      onRename: (from, to) => latest.current.onRename(from, to),
    }),
    [latest],
  );
}

function Columns({ what, columns }: { what: number; columns: readonly Shown[] }) {
  return (
    <colgroup>
      <col style={{ width: positionWidth }} />
      <col style={{ width: what }} />
      {columns.map((column) => (
        <col key={column.id} style={{ width: column.width }} />
      ))}
      <col style={{ width: actsWidth }} />
    </colgroup>
  );
}

function Titles({
  columns,
  currency,
  marks,
}: {
  columns: readonly Shown[];
  currency: string;
  /** Where lines can be marked. */
  marks: { all: boolean; onAll: () => void } | undefined;
}) {
  const { t } = useSpeech();
  return (
    <thead>
      <tr>
        <th scope="col" className={classes(css.position, css.held)}>
          {marks && (
            <input type="checkbox" checked={marks.all} aria-label={t('marked.all')} onChange={marks.onAll} />
          )}
          <span>{t('ledger.line')}</span>
        </th>
        <th scope="col" className={classes(css.what, css.held)}>
          {t('ledger.what')}
        </th>
        {columns.map((column) => (
          <th
            key={column.id}
            scope="col"
            className={classes(css.figure, column.held !== undefined && css.held)}
            {...heldAt(column)}
          >
            {t(column.title)}
            {column.id === 'total' && ` ${currency}`}
          </th>
        ))}
        <td />
      </tr>
    </thead>
  );
}

/** Where each line stands with the limits. */
function judgedByLine({ signOff }: QuoteView): Map<string, SignOffsOfQuote['judged']> {
  const found = new Map<string, SignOffsOfQuote['judged']>();
  for (const each of signOff?.judged ?? []) found.set(each.line, [...(found.get(each.line) ?? []), each]);
  return found;
}
