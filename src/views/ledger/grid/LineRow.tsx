import { memo, useEffect, useRef, useState } from 'react';
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { LineView, SignOffsOfQuote } from '../../../contract';
import { classes } from '../../../ui';
import type { Means } from './cells';
import type { Shown } from './columns';
import { GroupCells } from './GroupCells';
import { LineCells, type LineActs } from './LineCells';
import css from './lines.module.css';
import { AcrossCells, PartCells } from './PartCells';
import type { LedgerRow } from './rows';

/** What rows do: of lines, and of groups. */
export interface RowActs extends LineActs {
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

/** A row of the grid, which can be dragged to another place. */
export const LineRow = memo(function LineRow({
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
