/** The keyboard in the grid: through it as in a spreadsheet; with Alt the line itself moves. */
import type { KeyboardEvent } from 'react';
import type { LineView } from '../../../contract';
import { beginEditing, isEdited, moveInRow, pageRows, placeIn, type Place } from './grid';
import type { LedgerRow } from './rows';

/** What keys can do. */
export interface KeyActs {
  rows: readonly LedgerRow[];
  lines: readonly LineView[];
  mayEdit: boolean;
  isOpen: (line: LineView) => boolean;
  onTurn: (line: LineView) => void;
  onCopy: (line: LineView) => void;
  onMark: (line: LineView, allBetween: boolean) => void;
  onPlace: (lines: readonly string[], to: number) => Promise<void>;
  /** The same cell of another row. */
  goTo: (key: string, place: Place) => void;
}

/** Obeys a key in the grid. What a field does with its keys itself is left to it. */
export function onGridKey(event: KeyboardEvent<HTMLTableSectionElement>, acts: KeyActs): void {
  const { target } = event;
  if (!(target instanceof HTMLElement) || event.defaultPrevented) return;
  const row = target.closest<HTMLElement>('tr');
  const index = acts.rows.findIndex((each) => each.key === row?.dataset.key);
  const at = acts.rows[index];
  if (!row || !at || at.is === 'part' || at.is === 'across') return;
  const act =
    (at.is === 'line' ? lineAct(event, at.line, row, acts) : undefined) ?? gridAct(event, row, index, acts);
  if (!act) return;
  event.preventDefault();
  act();
}

/** What keys do to the line itself. */
function lineAct(
  { key, ctrlKey, altKey, shiftKey, code, target }: KeyboardEvent,
  line: LineView,
  row: HTMLElement,
  { lines, mayEdit, isOpen, onTurn, onCopy, onMark, onPlace, goTo }: KeyActs,
): (() => void) | undefined {
  if (ctrlKey && key.toLowerCase() === 'd' && mayEdit) return () => onCopy(line);
  if (ctrlKey && code === 'Space' && mayEdit) return () => onMark(line, shiftKey);
  if (altKey && (key === 'ArrowRight' || key === 'ArrowLeft'))
    return () => {
      if (isOpen(line) !== (key === 'ArrowRight')) onTurn(line);
    };
  if (altKey && (key === 'ArrowUp' || key === 'ArrowDown') && mayEdit) {
    const place = placeIn(row, target);
    const to = Math.max(1, lines.indexOf(line) + (key === 'ArrowUp' ? 0 : 2));
    return () => void onPlace([line.id], to).then(() => goTo(line.id, place));
  }
  return undefined;
}

const ways = { ArrowLeft: 'left', ArrowRight: 'right', Home: 'first', End: 'last' } as const;

/** Where keys lead within the grid. */
function gridAct(
  { key, ctrlKey, altKey, metaKey, target }: KeyboardEvent,
  row: HTMLElement,
  index: number,
  { rows, goTo }: KeyActs,
): (() => void) | undefined {
  if (altKey || metaKey) return undefined;
  const field = target instanceof HTMLInputElement && target.type !== 'checkbox' ? target : null;
  const to = (steps: number) => () => {
    const next = rowFrom(rows, index, steps);
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
  return key in ways ? () => moveInRow(row, target, ways[key as keyof typeof ways]) : undefined;
}

/** The row so many farther on, of those that can take the keyboard; as far as there are any. */
export function rowFrom(rows: readonly LedgerRow[], from: number, steps: number): LedgerRow | undefined {
  const step = Math.sign(steps);
  let found: LedgerRow | undefined;
  for (let at = from + step, left = Math.abs(steps); at >= 0 && at < rows.length && left > 0; at += step) {
    const row = rows[at];
    if (row?.is === 'part' || row?.is === 'across') continue;
    found = row;
    left -= 1;
  }
  return found;
}
