/**
 * Keys, and what is pasted, that come before what they are meant for is there: kept, and obeyed in their
 * order once it is.
 */
import { useEffect, useRef } from 'react';
import { tabbable } from 'tabbable';

/** A key as it was pressed, together with Control or the command key, or with Shift. */
export interface Pressed {
  key: string;
  command: boolean;
  shift: boolean;
}

/** A key that waits, or a text that was pasted. */
export type Given = Pressed | { pasted: string };

declare global {
  interface Window {
    /** What was typed or pasted before the script of the Bench ran; asked once. */
    earlyKeys?: () => Given[];
  }
}

const isField = (target: EventTarget | null): target is HTMLInputElement | HTMLTextAreaElement =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;
const obeyed = new Set([
  'Enter',
  'Tab',
  'ArrowLeft',
  'ArrowRight',
  'ArrowUp',
  'ArrowDown',
  'Escape',
  'Backspace',
  'Delete',
  'F1',
  'F2',
  'F3',
  'F4',
  'F6',
  'F7',
  'F8',
  'F9',
]);
/** What goes with Control: onto the quote, and undoing. */
const commands = new Set(['enter', 'z', 's']);

interface Waiting {
  /** Something was decided and is not shown yet: where the next key goes is not known before it is. */
  busy: () => boolean;
  shown: () => Promise<void>;
}

/**
 * Holds keys while something decided is not shown yet. What it gives back obeys keys, those typed before the
 * page was ready first.
 */
export function useHeldKeys(waiting: Waiting): (keys: readonly Given[]) => void {
  const latest = useRef(waiting);
  latest.current = waiting;
  const held = useRef<Given[]>([]);
  const obeying = useRef(false);
  const obey = useRef(async (): Promise<void> => {
    if (obeying.current) return;
    obeying.current = true;
    while (held.current.length > 0) {
      if (latest.current.busy()) await latest.current.shown();
      // What was decided is on the screen, and the keyboard where it belongs, one frame later.
      await new Promise((next) => setTimeout(next));
      if (latest.current.busy()) continue;
      const key = held.current.shift();
      if (key !== undefined) give(key);
    }
    obeying.current = false;
  });
  useEffect(() => {
    // Behind keys that wait, all wait, wherever the keyboard is by now: they go where those lead.
    const waits = (target: EventTarget | null): boolean =>
      obeying.current ||
      (latest.current.busy() &&
        !isField(target) &&
        (target === document.body || (target instanceof Element && target.closest('[data-row]') !== null)));
    const hold = (event: KeyboardEvent): void => {
      const { target, key } = event;
      if (!event.isTrusted || event.altKey || event.isComposing) return;
      const command = event.ctrlKey || event.metaKey;
      if (!waits(target)) return;
      if (command ? !commands.has(key.toLowerCase()) : key.length !== 1 && !obeyed.has(key)) return;
      event.preventDefault();
      event.stopPropagation();
      held.current.push({ key, command, shift: event.shiftKey });
      void obey.current();
    };
    const holdPasted = (event: ClipboardEvent): void => {
      const pasted = event.clipboardData?.getData('text') ?? '';
      if (!event.isTrusted || pasted === '' || !waits(event.target)) return;
      event.preventDefault();
      event.stopPropagation();
      held.current.push({ pasted });
      void obey.current();
    };
    window.addEventListener('keydown', hold, true);
    window.addEventListener('paste', holdPasted, true);
    return () => {
      window.removeEventListener('keydown', hold, true);
      window.removeEventListener('paste', holdPasted, true);
    };
  }, []);
  return useRef((keys: readonly Given[]) => {
    held.current.push(...keys);
    void obey.current();
  }).current;
}

/** Presses a key or pastes where the keyboard is. */
function give(given: Given): void {
  const target = document.activeElement instanceof HTMLElement ? document.activeElement : document.body;
  if ('pasted' in given) paste(target, given.pasted);
  else press(target, given);
}

/** Pastes a text, with what that does in a field by itself. */
function paste(target: HTMLElement, pasted: string): void {
  const clipboardData = new DataTransfer();
  clipboardData.setData('text', pasted);
  if (
    !target.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true })) ||
    !isField(target)
  )
    return;
  target.setRangeText(
    pasted,
    target.selectionStart ?? target.value.length,
    target.selectionEnd ?? target.value.length,
    'end',
  );
  target.dispatchEvent(new Event('input', { bubbles: true }));
}

/** Presses a key, with what it does there by itself. */
function press(target: HTMLElement, { key, command, shift }: Pressed): void {
  const untouched = target.dispatchEvent(
    new KeyboardEvent('keydown', { key, ctrlKey: command, shiftKey: shift, bubbles: true, cancelable: true }),
  );
  if (!untouched || command) return;
  if (key === 'Tab') {
    const stops = tabbable(document.body);
    const at = stops.indexOf(target);
    stops[shift ? (at <= 0 ? stops.length : at) - 1 : (at + 1) % stops.length]?.focus();
    return;
  }
  if (isField(target)) {
    const [from, to] = [
      target.selectionStart ?? target.value.length,
      target.selectionEnd ?? target.value.length,
    ];
    if (key.length === 1) target.setRangeText(key, from, to, 'end');
    else if (key === 'Backspace')
      target.setRangeText('', from === to ? Math.max(0, from - 1) : from, to, 'end');
    else if (key === 'Delete')
      target.setRangeText('', from, from === to ? Math.min(target.value.length, to + 1) : to, 'end');
    else return;
    target.dispatchEvent(new Event('input', { bubbles: true }));
  } else if ((key === 'Enter' || key === ' ') && target !== document.body) target.click();
}
