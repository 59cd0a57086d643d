/** Lines and groups dragged to another place. */
import { useEffect, useState } from 'react';
import { monitorForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { DragLocationHistory } from '@atlaskit/pragmatic-drag-and-drop/types';
import type { LineView } from '../../../contract';
import { useLatest } from '../../../ui';
import { placeBeside, type LedgerRow } from './rows';

/** Where something would be dropped: at the upper or at the lower half of a row. */
export interface Over {
  key: string;
  after: boolean;
}

interface Given {
  rows: readonly LedgerRow[];
  lines: readonly LineView[];
  marked: ReadonlySet<string>;
  /** Moves lines to a place counted from 1 among those that stay. */
  onPlace: (lines: readonly string[], to: number) => Promise<void>;
  onGroup: (lines: readonly string[], group: string) => void;
}

const under = ({ current: { input, dropTargets } }: DragLocationHistory): Over | undefined => {
  const [target] = dropTargets;
  if (!target) return undefined;
  const { top, height } = target.element.getBoundingClientRect();
  return { key: String(target.data.key), after: input.clientY > top + height / 2 };
};

/** Where what is dragged would be dropped now; what is dropped is moved. */
export function useDrop(given: Given): Over | undefined {
  const latest = useLatest(given);
  const [over, setOver] = useState<Over>();
  useEffect(
    () =>
      monitorForElements({
        onDrag: ({ location }) =>
          setOver((before) => {
            const now = under(location);
            return before?.key === now?.key && before?.after === now?.after ? before : now;
          }),
        onDrop: ({ source, location }) => {
          setOver(undefined);
          const target = under(location);
          if (target) drop(latest.current, String(source.data.key), target);
        },
      }),
    [latest],
  );
  return over;
}

function drop({ rows, lines, marked, onPlace, onGroup }: Given, from: string, target: Over): void {
  const [moved, to] = [rows.find((row) => row.key === from), rows.find((row) => row.key === target.key)];
  if (!moved || !to || isPart(moved) || isPart(to) || from === target.key) return;
  const moving =
    moved.is === 'group'
      ? moved.lines.map((line) => line.id)
      : marked.has(moved.line.id)
        ? lines.filter((line) => marked.has(line.id)).map((line) => line.id)
        : [moved.line.id];
  // Onto the lower half of a group's head: into the group.
  if (to.is === 'group' && target.after && moved.is === 'line') onGroup(moving, to.name);
  else {
    const beside = to.is === 'group' ? (to.lines[0]?.id ?? '') : to.line.id;
    void onPlace(moving, placeBeside(lines, moving, beside, to.is !== 'group' && target.after));
  }
}

const isPart = (row: LedgerRow): row is Extract<LedgerRow, { is: 'part' | 'across' }> =>
  row.is === 'part' || row.is === 'across';
