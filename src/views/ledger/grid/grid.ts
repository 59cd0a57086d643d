/** The lines as a grid: one stop for the Tab key, and every other way by arrows, as in a spreadsheet. */
import { useLayoutEffect, useRef, type RefObject } from 'react';

const stops = 'input:not([type="hidden"]), button, a[href], [data-stop]';
/** Rows of a page, up or down. */
export const pageRows = 10;

const isText = (element: Element | null): element is HTMLInputElement =>
  element instanceof HTMLInputElement && element.type !== 'checkbox';

/** What of a row can take the keyboard, from left to right. */
export const stopsIn = (row: Element): HTMLElement[] =>
  [...row.querySelectorAll<HTMLElement>(stops)].filter(
    (each) => !(each as HTMLInputElement).disabled && each.getClientRects().length > 0,
  );

/** Whether arrows to the sides are the field's own: something is being typed, or F2 was pressed. */
export const isEdited = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.dataset.typing !== undefined || target.dataset.editing !== undefined);

/** Where in a row something is: its cell, counted from the left, and which of the cell's stops it is. */
export interface Place {
  cell: number;
  within: number;
}

/** Where in a row something stands. */
export function placeIn(row: Element, target: EventTarget): Place {
  const cell = [...row.children].findIndex((each) => each.contains(target as Node));
  const of = row.children[cell];
  return { cell, within: of ? stopsIn(of).indexOf(target as HTMLElement) : -1 };
}

/** What of a row stands at the same place as something in another does; else what the row begins with. */
export function stopAt(row: Element, { cell, within }: Place): HTMLElement | undefined {
  const own = stopsIn(row);
  const there = row.children[cell] ? stopsIn(row.children[cell]) : [];
  return there[within] ?? there.find(isText) ?? there[0] ?? own.find(isText) ?? own[0];
}

/**
 * Begins to edit what a field has: the caret stands behind it, and arrows are the field's own until it is
 * left.
 */
export function beginEditing(field: HTMLInputElement): void {
  field.dataset.editing = '';
  field.setSelectionRange(field.value.length, field.value.length);
  field.addEventListener('blur', () => delete field.dataset.editing, { once: true });
}

/** To the stop at the side, the first, or the last of the row that the keyboard is in. */
export function moveInRow(
  row: Element,
  from: EventTarget | null,
  to: 'left' | 'right' | 'first' | 'last',
): void {
  const own = stopsIn(row);
  const at = own.findIndex((each) => each === from);
  const next =
    to === 'first' ? own[0] : to === 'last' ? own[own.length - 1] : own[at + (to === 'left' ? -1 : 1)];
  next?.focus();
  if (isText(next ?? null)) (next as HTMLInputElement).select();
}

/**
 * Keeps all of a grid but one out of the way of the Tab key: what had the keyboard last, or else its first
 * field.
 */
export function useOneStop(body: RefObject<HTMLElement | null>): {
  current: () => HTMLElement | null;
  onFocus: (event: { target: EventTarget }) => void;
} {
  const last = useRef<HTMLElement>(null);
  const settle = () => {
    const all = body.current?.querySelectorAll<HTMLElement>(stops) ?? [];
    const current =
      last.current?.isConnected && !(last.current as HTMLInputElement).disabled
        ? last.current
        : ([...all].find((each) => isText(each) && !each.disabled) ??
          [...all].find((each) => !(each as HTMLInputElement).disabled) ??
          null);
    for (const each of all) {
      const wanted = each === current ? 0 : -1;
      if (each.tabIndex !== wanted) each.tabIndex = wanted;
    }
    last.current = current;
  };
  useLayoutEffect(settle);
  return {
    current: () => last.current,
    onFocus: ({ target }) => {
      if (!(target instanceof HTMLElement) || !target.matches(stops) || target === last.current) return;
      last.current = target;
      settle();
    },
  };
}
