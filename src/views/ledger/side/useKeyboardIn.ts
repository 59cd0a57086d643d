import { useEffect, useLayoutEffect, useRef } from 'react';

/**
 * A pane that opens has the keyboard, where there is something to write in its first field; it keeps it where
 * what had it is gone, and closed, gives it back.
 */
export function useKeyboardIn(shows: string) {
  const pane = useRef<HTMLElement>(null);
  const from = useRef<Element | null>(null);
  useEffect(() => {
    const aside = pane.current;
    if (!aside) return;
    if (!aside.contains(document.activeElement)) from.current = document.activeElement;
    (shows === 'signOff'
      ? (aside.querySelector<HTMLElement>('textarea, table input') ?? aside)
      : aside
    ).focus({ preventScroll: true });
  }, [shows]);
  const within = useRef(false);
  useEffect(() => {
    if (within.current && document.activeElement === document.body)
      pane.current?.focus({ preventScroll: true });
    within.current = pane.current?.contains(document.activeElement) ?? false;
  });
  // As it goes: a moment later neither the pane nor the keyboard in it is there any more.
  useLayoutEffect(
    () => () => {
      if (pane.current?.contains(document.activeElement) && from.current instanceof HTMLElement)
        from.current.focus({ preventScroll: true });
    },
    [],
  );
  return pane;
}
