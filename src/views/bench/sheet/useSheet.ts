/** What the sheet knows of its rows: which there are, which are near, open, helped, refused. */
import { useImperativeHandle, useMemo, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';
import { askedAt, focusRow, opened, placeOf, useKeyboardKept } from './focus';
import type { SheetProps } from './sheet-props';
import { AwayRows, NearRows, useComing } from './viewport';
import type { Bench } from '../session/useBench';

/**
 * Rows that are drawn at once; beyond that they are drawn, some together, when they come near to the window.
 */
const drawnAtOnce = 80;
const together = 4;
/** The state of the sheet, which answers to its handle. */
export function useSheet(
  { ref, view, bench, later, acts }: SheetProps,
  element: RefObject<HTMLDivElement | null>,
) {
  const { outline } = view;
  const { rows } = bench.picture.state;
  const [helped, setHelped] = useState<string>();
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const known = useMemo(
    () => new Map([...outline.features, ...outline.parameters].map((each) => [each.id, each])),
    [outline],
  );
  const sketched = useMemo(() => new Set(outline.sketched), [outline]);
  const groups = useMemo(
    () => new Map(outline.sections.map((section) => [section, inGroups(section.rows)])),
    [outline],
  );
  const moved = { now: useMovedRows(bench), later: useMovedRows(later) };
  const sections = outline.sections.filter((section) => section.rows.some((id) => rows[id]?.shown));
  const refused = useRefusals(bench);
  const come = useComing();
  const [{ away, near }] = useState(() => ({ away: new AwayRows(), near: new NearRows(element) }));
  const [watchGroup, watchRow] = useWatch(away, come);
  const held = useKeyboardKept(element, rows, outline);
  useImperativeHandle(ref, () => ({
    go: (row) => {
      flushSync(() => {
        const place = placeOf(outline, row);
        setClosed((before) => opened(before, place));
        near.call(row);
      });
      focusRow(element.current, row);
    },
    rowInFocus: () =>
      element.current?.ownerDocument.activeElement?.closest<HTMLElement>('[data-row]')?.dataset.row,
    help: (row) => setHelped((before) => (before === row ? undefined : row)),
    why: (row) => {
      const target = row === undefined ? undefined : askedAt(element.current, known.get(row), rows[row]);
      if (target) acts.onWhy(target);
    },
  }));
  const toggle = (place: string): void =>
    setClosed((before) =>
      before.has(place) ? new Set([...before].filter((each) => each !== place)) : new Set([...before, place]),
    );
  /** Whether rows are drawn only as they come near. */
  const many = sections.reduce((sum, section) => sum + section.rows.length, 0) > drawnAtOnce;
  return {
    rows,
    known,
    sketched,
    groups,
    sections,
    many,
    moved,
    refused,
    away,
    near,
    watchGroup,
    watchRow,
    held,
    helped,
    setHelped,
    closed,
    toggle,
  };
}

/** What the sheet knows of its rows. */
export type SheetState = ReturnType<typeof useSheet>;

const useMovedRows = ({ moved }: Bench): ReadonlySet<string> =>
  useMemo(() => new Set(moved.map((each) => each.row)), [moved]);

const inGroups = (rows: readonly string[]): string[][] =>
  Array.from({ length: Math.ceil(rows.length / together) }, (_, at) =>
    rows.slice(at * together, (at + 1) * together),
  );

const useRefusals = ({ refusals }: Bench): ReadonlyMap<string, string> =>
  // What the server did not take is told where it was decided, and stays as it was decided.
  useMemo(
    () =>
      new Map(
        refusals.flatMap(({ field, message }) =>
          field === undefined ? [] : [[field.split('.')[0] ?? field, message] as const],
        ),
      ),
    [refusals],
  );

/** Watches what comes into sight and goes out of it. */
function useWatch(away: AwayRows, come: ReturnType<typeof useComing>) {
  return useMemo(() => {
    const watch = (element: HTMLElement | null, ids: readonly string[]) => {
      come(element);
      return element ? away.watch(element, ids) : undefined;
    };
    return [
      watch,
      (row: HTMLElement | null) => watch(row, row?.dataset.row === undefined ? [] : [row.dataset.row]),
    ] as const;
  }, [away, come]);
}
