import {
  memo,
  useEffect,
  useImperativeHandle,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type Ref,
  type RefObject,
} from 'react';
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import {
  draggable,
  dropTargetForElements,
  monitorForElements,
} from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { DragLocationHistory } from '@atlaskit/pragmatic-drag-and-drop/types';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { LedgerColumn, LineView, QuoteView, SignOffsOfQuote } from '../../../contract';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Means } from './cells';
import { actsWidth, layOut, positionWidth, type Shown } from './columns';
import { beginEditing, isEdited, moveInRow, pageRows, placeIn, stopAt, useOneStop, type Place } from './grid';
import { GroupCells } from './GroupCells';
import css from './lines.module.css';
import { LineCells, type LineActs } from './LineCells';
import { AcrossCells, PartCells } from './PartCells';
import { heldAt } from './held-at';
import { between, placeBeside, rowsOf, type LedgerRow } from './rows';

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

/** As many rows are simply all there; of more, those in sight. */
const mostPlain = 120;
const heights: Record<LedgerRow['is'], number> = { group: 28, line: 42, across: 22, part: 22 };
const headHeight = 30;
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
export function Lines({
  ref,
  view,
  openLine,
  columns: chosen,
  marked,
  onMark,
  onPlace,
  onGroup,
  onRename,
  scroller,
  onFill,
  ...acts
}: Props) {
  const { t } = useSpeech();
  const { currency, decimals, may } = view;
  const body = useRef<HTMLTableSectionElement>(null);
  const [closedGroups, setClosedGroups] = useState<ReadonlySet<string>>(new Set());
  const [openLines, setOpenLines] = useState<ReadonlySet<string>>(new Set());
  const lastMarked = useRef<string>(undefined);
  const rows = useMemo(
    () => rowsOf(view.lines, decimals, closedGroups, openLines),
    [view.lines, decimals, closedGroups, openLines],
  );
  const width = useWidth(scroller);
  const laid = layOut(view, chosen, width);
  const layout = JSON.stringify(laid);
  // The same layout stays the same object, however often it is worked out.
  const { what, columns } = useMemo(() => JSON.parse(layout) as typeof laid, [layout]);
  const plain = rows.length <= mostPlain;
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are used in place only
  const virtual = useVirtualizer({
    count: rows.length,
    enabled: !plain,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => heights[rows[index]?.is ?? 'line'],
    getItemKey: (index) => rows[index]?.key ?? index,
    overscan: 12,
    scrollMargin: headHeight,
    initialRect: { width: 1232, height: 640 },
  });
  const seen = plain ? undefined : virtual.getVirtualItems();
  const shown: { index: number; row: LedgerRow }[] = seen
    ? seen.flatMap(({ index }) => (rows[index] ? [{ index, row: rows[index] }] : []))
    : rows.map((row, index) => ({ index, row }));
  const before = seen?.[0] ? seen[0].start - headHeight : 0;
  const after = seen
    ? Math.max(0, virtual.getTotalSize() - ((seen[seen.length - 1]?.end ?? headHeight) - headHeight))
    : 0;

  /** Puts the keyboard into a field of a row, which comes into sight first. */
  const bring = (key: string, fieldIn: (row: Element) => HTMLElement | null | undefined) => {
    const index = rows.findIndex((row) => row.key === key);
    const focus = () => {
      const row = body.current?.querySelector(`[data-key="${CSS.escape(key)}"]`);
      if (row) fieldIn(row)?.focus();
    };
    if (!plain && index >= 0) virtual.scrollToIndex(index);
    requestAnimationFrame(() => (plain ? focus() : requestAnimationFrame(focus)));
  };
  const typedInto = 'input:not([type="checkbox"])';
  /** The same cell of another row. */
  const goTo = (key: string, place: Place) => bring(key, (row) => stopAt(row, place));
  const bringNow = useRef(bring);
  useEffect(() => {
    bringNow.current = bring;
  });
  const goToLine = (id: string) => {
    const group = view.lines.find((line) => line.id === id)?.group;
    if (group != null) setClosedGroups((closed) => new Set([...closed].filter((each) => each !== group)));
    // A line within a closed group is there once the group is open.
    requestAnimationFrame(() =>
      bringNow.current(
        id,
        (row) => row.querySelector<HTMLElement>('[data-waits]') ?? row.querySelector<HTMLElement>(typedInto),
      ),
    );
  };
  useImperativeHandle(ref, () => ({
    go: goToLine,
    begin: () => oneStop.current()?.focus({ preventScroll: true }),
  }));
  /** The row so many farther on, of those that can take the keyboard; as far as there are any. */
  const rowFrom = (from: number, steps: number): LedgerRow | undefined => {
    let found: LedgerRow | undefined;
    for (
      let at = from + Math.sign(steps), left = Math.abs(steps);
      at >= 0 && at < rows.length && left > 0;
      at += Math.sign(steps)
    ) {
      if (rows[at]?.is === 'part' || rows[at]?.is === 'across') continue;
      found = rows[at];
      left -= 1;
    }
    return found;
  };
  /**
   * Through the grid as in a spreadsheet; with Alt the line itself moves. What a field does with its keys
   * itself is left to it.
   */
  const keys = (event: KeyboardEvent<HTMLTableSectionElement>): void => {
    const { target } = event;
    if (!(target instanceof HTMLElement) || event.defaultPrevented) return;
    const row = target.closest<HTMLElement>('tr');
    const index = rows.findIndex((each) => each.key === row?.dataset.key);
    const at = rows[index];
    if (!row || !at || at.is === 'part' || at.is === 'across') return;
    const act = (at.is === 'line' ? lineAct(event, at.line, row) : undefined) ?? gridAct(event, row, index);
    if (!act) return;
    event.preventDefault();
    act();
  };
  /** What keys do to the line itself. */
  const lineAct = (
    { key, ctrlKey, altKey, shiftKey, code, target }: KeyboardEvent,
    line: LineView,
    row: HTMLElement,
  ): (() => void) | undefined => {
    if (ctrlKey && key.toLowerCase() === 'd' && may.edit) return () => acts.onCopy(line);
    if (ctrlKey && code === 'Space' && may.edit) return () => mark(line, shiftKey);
    if (altKey && (key === 'ArrowRight' || key === 'ArrowLeft'))
      return () => {
        if (openLines.has(line.id) !== (key === 'ArrowRight')) setOpenLines(turned(openLines, line.id));
      };
    if (altKey && (key === 'ArrowUp' || key === 'ArrowDown') && may.edit) {
      const place = placeIn(row, target);
      return () =>
        void onPlace([line.id], Math.max(1, view.lines.indexOf(line) + (key === 'ArrowUp' ? 0 : 2))).then(
          () => goTo(line.id, place),
        );
    }
    return undefined;
  };
  /** Where keys lead within the grid. */
  const gridAct = (
    { key, ctrlKey, altKey, metaKey, target }: KeyboardEvent,
    row: HTMLElement,
    index: number,
  ): (() => void) | undefined => {
    if (altKey || metaKey) return undefined;
    const field = target instanceof HTMLInputElement && target.type !== 'checkbox' ? target : null;
    const to = (steps: number) => () => {
      const next = rowFrom(index, steps);
      if (next) goTo(next.key, placeIn(row, target));
    };
    if (ctrlKey) return key === 'Home' ? to(-rows.length) : key === 'End' ? to(rows.length) : undefined;
    switch (key) {
      case 'ArrowUp':
        return to(-1);
      case 'ArrowDown':
        return to(1);
      case 'PageUp':
        return to(-pageRows);
      case 'PageDown':
        return to(pageRows);
      // What is wrong is mended before one goes on.
      case 'Enter':
        return field && field.getAttribute('aria-invalid') !== 'true' ? to(1) : undefined;
      case 'F2':
        return field ? () => beginEditing(field) : undefined;
    }
    if (isEdited(target)) return undefined;
    const ways = { ArrowLeft: 'left', ArrowRight: 'right', Home: 'first', End: 'last' } as const;
    return key in ways ? () => moveInRow(row, target, ways[key as keyof typeof ways]) : undefined;
  };
  const mark = (line: LineView, allBetween: boolean) => {
    const next = turned(marked, line.id);
    if (allBetween && lastMarked.current !== undefined)
      for (const id of between(view.lines, lastMarked.current, line.id)) next.add(id);
    lastMarked.current = line.id;
    onMark(next);
  };
  const markGroup = (lines: readonly LineView[]) => {
    const all = lines.every((line) => marked.has(line.id));
    onMark(
      new Set(
        all
          ? [...marked].filter((id) => !lines.some((line) => line.id === id))
          : [...marked, ...lines.map((line) => line.id)],
      ),
    );
  };

  const oneStop = useOneStop(body);
  const [over, setOver] = useState<{ key: string; after: boolean }>();
  const drop = (from: string, target: { key: string; after: boolean }) => {
    const [moved, to] = [rows.find((row) => row.key === from), rows.find((row) => row.key === target.key)];
    if (
      !moved ||
      !to ||
      moved.is === 'part' ||
      moved.is === 'across' ||
      to.is === 'part' ||
      to.is === 'across' ||
      from === target.key
    )
      return;
    const moving =
      moved.is === 'group'
        ? moved.lines.map((line) => line.id)
        : marked.has(moved.line.id)
          ? view.lines.filter((line) => marked.has(line.id)).map((line) => line.id)
          : [moved.line.id];
    // Onto the lower half of a group's head: into the group.
    if (to.is === 'group' && target.after && moved.is === 'line') onGroup(moving, to.name);
    else
      void onPlace(
        moving,
        placeBeside(
          view.lines,
          moving,
          to.is === 'group' ? (to.lines[0]?.id ?? '') : to.line.id,
          to.is !== 'group' && target.after,
        ),
      );
  };
  const dropNow = useRef(drop);
  useEffect(() => {
    dropNow.current = drop;
  });
  useEffect(() => {
    const under = ({
      current: {
        input,
        dropTargets: [target],
      },
    }: DragLocationHistory) => {
      if (!target) return undefined;
      const { top, height } = target.element.getBoundingClientRect();
      return { key: String(target.data.key), after: input.clientY > top + height / 2 };
    };
    return monitorForElements({
      onDrag: ({ location }) =>
        setOver((before) => {
          const now = under(location);
          return before?.key === now?.key && before?.after === now?.after ? before : now;
        }),
      onDrop: ({ source, location }) => {
        setOver(undefined);
        const target = under(location);
        if (target) dropNow.current(String(source.data.key), target);
      },
    });
  }, []);

  const allMarked = view.lines.length > 0 && view.lines.every((line) => marked.has(line.id));
  const whole = view.whole.typed && view.whole.comes.is === 'spread' ? view.whole.comes.rate : undefined;
  const means = useMemo(
    (): Means => ({
      may,
      currency,
      decimals,
      limits: view.signOff?.limits ?? none,
      whole,
      resale: view.resale,
    }),
    [may, currency, decimals, view.signOff?.limits, whole, view.resale],
  );
  const judged = useMemo(() => judgedByLine(view), [view]);
  // What rows do stays the same to them from one drawing to the next, and is always what it is now.
  const now = useRef<RowActs>(null as unknown as RowActs);
  useEffect(() => {
    now.current = {
      ...acts,
      onFill,
      onMark: mark,
      onOpen: (line) => setOpenLines(turned(openLines, line.id)),
      onOpenGroup: (group) => setClosedGroups(turned(closedGroups, group)),
      onMarkGroup: markGroup,
      onRename,
    };
  });
  const [rowActs] = useState((): RowActs => ({
    onChange: (line, change) => now.current.onChange(line, change),
    onExplain: (line) => now.current.onExplain(line),
    onFill: (line, changes) => now.current.onFill(line, changes),
    onRemove: (line) => now.current.onRemove(line),
    onCopy: (line) => now.current.onCopy(line),
    onWalk: (line) => now.current.onWalk(line),
    onInstead: (line) => now.current.onInstead(line),
    onOpen: (line) => now.current.onOpen(line),
    onMark: (line, allBetween) => now.current.onMark(line, allBetween),
    onOpenGroup: (group) => now.current.onOpenGroup(group),
    onMarkGroup: (lines) => now.current.onMarkGroup(lines),
    onRename: (from, to) => now.current.onRename(from, to),
  }));
  const tableWidth = what + columns.reduce((sum, column) => sum + column.width, positionWidth + actsWidth);
  return (
    <table
      role="grid"
      className={classes(css.table, tableWidth > width && css.holding)}
      aria-label={view.number}
      aria-rowcount={plain ? undefined : rows.length + 1}
      style={{ width: tableWidth }}
    >
      <colgroup>
        <col style={{ width: positionWidth }} />
        <col style={{ width: what }} />
        {columns.map((column) => (
          <col key={column.id} style={{ width: column.width }} />
        ))}
        <col style={{ width: actsWidth }} />
      </colgroup>
      <thead>
        <tr>
          <th scope="col" className={classes(css.position, css.held)}>
            {may.edit && (
              <input
                type="checkbox"
                checked={allMarked}
                aria-label={t('marked.all')}
                onChange={() => onMark(new Set(allMarked ? [] : view.lines.map((line) => line.id)))}
              />
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
              {column.id === 'total' && ` ${view.currency}`}
            </th>
          ))}
          <td />
        </tr>
      </thead>
      <tbody ref={body} onKeyDown={keys} onFocus={oneStop.onFocus}>
        {before > 0 && (
          <tr aria-hidden style={{ height: before }}>
            <td colSpan={columns.length + 3} />
          </tr>
        )}
        {shown.map(({ index, row }) => (
          <Row
            key={row.key}
            row={row}
            index={index}
            means={means}
            columns={columns}
            judged={judged.get(row.is === 'line' ? row.line.id : '') ?? none}
            acts={rowActs}
            measure={plain ? undefined : virtual.measureElement}
            marked={
              row.is === 'line'
                ? marked.has(row.line.id)
                : row.is === 'group' && row.lines.every((line) => marked.has(line.id))
            }
            walked={row.is === 'line' && openLine === row.line.id}
            over={over?.key === row.key ? (over.after ? 'after' : 'before') : undefined}
          />
        ))}
        {after > 0 && (
          <tr aria-hidden style={{ height: after }}>
            <td colSpan={columns.length + 3} />
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** Where each line stands with the limits. */
function judgedByLine({ signOff }: QuoteView): Map<string, SignOffsOfQuote['judged']> {
  const found = new Map<string, SignOffsOfQuote['judged']>();
  for (const each of signOff?.judged ?? []) found.set(each.line, [...(found.get(each.line) ?? []), each]);
  return found;
}

interface RowActs extends LineActs {
  onOpenGroup: (group: string) => void;
  onMarkGroup: (lines: readonly LineView[]) => void;
  onRename: (from: string, to: string) => Promise<string | null>;
}

interface RowProps {
  row: LedgerRow;
  index: number;
  means: Means;
  columns: readonly Shown[];
  judged: SignOffsOfQuote['judged'];
  acts: RowActs;
  measure: ((element: HTMLTableRowElement | null) => void) | undefined;
  marked: boolean;
  /** Its walk is open. */
  walked: boolean;
  /** Something would be dropped before or after it. */
  over: 'before' | 'after' | undefined;
}

const sameItems = <T,>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((each, index) => each === b[index]);

/** A row is drawn again only where it shows something new: of a thousand, the one that is typed into. */
const sameRow = (a: RowProps, b: RowProps): boolean =>
  a.index === b.index &&
  a.means === b.means &&
  a.columns === b.columns &&
  a.marked === b.marked &&
  a.walked === b.walked &&
  a.over === b.over &&
  sameItems(a.judged, b.judged) &&
  sameShown(a.row, b.row);

function sameShown(a: LedgerRow, b: LedgerRow): boolean {
  if (a.is === 'line' && b.is === 'line') return a.line === b.line && a.open === b.open;
  if (a.is === 'part' && b.is === 'part') return a.part === b.part;
  if (a.is === 'across' && b.is === 'across') return a.line === b.line;
  return (
    a.is === 'group' &&
    b.is === 'group' &&
    a.name === b.name &&
    a.open === b.open &&
    sameItems(a.lines, b.lines)
  );
}

const Row = memo(function Row({
  row,
  index,
  means,
  columns,
  judged,
  acts,
  measure,
  marked,
  walked,
  over,
}: RowProps) {
  const element = useRef<HTMLTableRowElement>(null);
  const [dragging, setDragging] = useState(false);
  const mayMove = means.may.edit && (row.is === 'line' || row.is === 'group');
  const { key } = row;
  useEffect(() => {
    const tr = element.current;
    const handle = tr?.querySelector('[data-handle]');
    if (!tr || !handle || !mayMove) return undefined;
    return combine(
      draggable({
        element: tr,
        dragHandle: handle,
        getInitialData: () => ({ key }),
        onDragStart: () => setDragging(true),
        onDrop: () => setDragging(false),
      }),
      dropTargetForElements({ element: tr, getData: () => ({ key }) }),
    );
  }, [key, mayMove]);
  return (
    <tr
      ref={(tr) => {
        measure?.(tr);
        element.current = tr;
      }}
      data-index={index}
      data-key={key}
      {...(row.is === 'line' ? { 'data-line': row.line.id } : {})}
      aria-rowindex={measure ? index + 2 : undefined}
      className={classes(
        row.is === 'group' && css.groupRow,
        (row.is === 'part' || row.is === 'across') && css.partRow,
        row.is === 'line' && (row.line.optional || row.line.alternative) && css.aside,
        dragging && css.dragged,
        over === 'before' && css.dropBefore,
        over === 'after' && css.dropAfter,
      )}
    >
      {row.is === 'line' && (
        <LineCells
          row={row}
          means={means}
          judged={judged}
          columns={columns}
          walked={walked}
          marked={marked}
          {...acts}
        />
      )}
      {row.is === 'across' && <AcrossCells row={row} columns={columns} decimals={means.decimals} />}
      {row.is === 'part' && <PartCells row={row} columns={columns} decimals={means.decimals} />}
      {row.is === 'group' && (
        <GroupCells
          row={row}
          columns={columns}
          decimals={means.decimals}
          mayEdit={means.may.edit}
          marked={marked}
          onOpen={acts.onOpenGroup}
          onMark={() => acts.onMarkGroup(row.lines)}
          onRename={(to) => acts.onRename(row.name, to)}
        />
      )}
    </tr>
  );
}, sameRow);
