import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import css from './sheet.module.css';
import type { NearRows } from './viewport';

interface Props {
  rows: readonly string[];
  /** What it takes while skipped, until it has been drawn once. */
  height: number;
  /** Tells when they are near; none where the sheet is short and all is drawn at once. */
  near: NearRows | null;
  watch: (element: HTMLElement | null, rows: readonly string[]) => (() => void) | undefined;
  children: (drawn: boolean) => ReactNode;
}

/**
 * Some rows of the sheet. In a long one they are drawn once they are near to the window, and skipped together
 * by the browser while out of sight.
 */
export function RowGroup({ rows, height, near, watch, children }: Props) {
  const element = useRef<HTMLDivElement>(null);
  const [come, setCome] = useState(() => near === null || rows.some((row) => near.has(row)));
  useEffect(
    () =>
      come || !near || !element.current ? undefined : near.watch(rows, element.current, () => setCome(true)),
    [come, near, rows],
  );
  const attach = useCallback(
    (group: HTMLDivElement | null) => {
      element.current = group;
      return near ? watch(group, rows) : undefined;
    },
    [near, rows, watch],
  );
  return (
    <div
      className={near ? css.group : undefined}
      style={near ? { containIntrinsicHeight: `auto ${String(height)}px` } : undefined}
      ref={attach}
    >
      {children(come || near === null)}
    </div>
  );
}
