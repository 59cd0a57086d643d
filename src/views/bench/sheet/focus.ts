/** Where the keyboard is on the sheet, and where it goes. */
import { useCallback, useEffect, useRef, type FocusEvent, type RefObject } from 'react';
import type { RowState, State, Target } from '../../../core/engine';
import type { Feature, Outline, Parameter } from '../../../core/model';

/** Brings a row into sight and the keyboard into it. */
export function focusRow(sheet: HTMLElement | null, row: string): void {
  const at = sheet?.querySelector<HTMLElement>(`[data-row="${row}"]`);
  at?.scrollIntoView({ block: 'nearest' });
  (
    at?.querySelector<HTMLElement>('[data-tab][aria-checked="true"]') ??
    at?.querySelector<HTMLElement>('[data-tab]')
  )?.focus();
}

/**
 * Where a decision takes away the very row it was made in, the keyboard goes to the next one. What it gives is
 * told of every row that gets the keyboard.
 */
export function useKeyboardKept(
  sheet: RefObject<HTMLElement | null>,
  rows: State['rows'],
  outline: Outline,
): (event: FocusEvent) => void {
  const held = useRef<string>(undefined);
  useEffect(() => {
    const row = held.current;
    if (row === undefined || rows[row]?.shown) return;
    held.current = undefined;
    const order = outline.sections.flatMap((section) => section.rows);
    const [at, isShown] = [order.indexOf(row), (id: string) => rows[id]?.shown === true];
    const next = order.slice(at).find(isShown) ?? order.slice(0, at).findLast(isShown);
    if (next !== undefined && document.activeElement === document.body) focusRow(sheet.current, next);
  }, [sheet, rows, outline]);
  return useCallback(({ target }: FocusEvent) => {
    held.current = target.closest<HTMLElement>('[data-row]')?.dataset.row;
  }, []);
}

/** What would be asked why where the keyboard is: an option of a row that is not free. */
export function askedAt(
  sheet: HTMLElement | null,
  known: Feature | Parameter | undefined,
  state: RowState | undefined,
): Target | undefined {
  const tab = sheet?.ownerDocument.activeElement?.closest<HTMLElement>('[data-tab]')?.dataset.tab;
  if (tab === undefined || !known || !('options' in known)) return undefined;
  const option = tab.slice(known.id.length + 1);
  if (state?.options?.find((each) => each.id === option)?.standing === 'free') return undefined;
  return 'most' in known && known.most > 1 ? { on: tab, value: true } : { on: known.id, value: option };
}

/** The build inside that a row belongs to, by its place. */
export const placeOf = (outline: Outline, row: string): string | undefined =>
  outline.sections.find((section) => section.rows.includes(row))?.place;

/** Whether a place, or one that it is within, is closed. */
export const isWithin = (closed: ReadonlySet<string>, place: string): boolean =>
  [...closed].some((each) => place === each || place.startsWith(`${each}/`));

/** The same places, with everything open that holds one; the same set where nothing was closed. */
export const opened = (closed: ReadonlySet<string>, place: string | undefined): ReadonlySet<string> =>
  place !== undefined && isWithin(closed, place)
    ? new Set([...closed].filter((each) => place !== each && !place.startsWith(`${each}/`)))
    : closed;
