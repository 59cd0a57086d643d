/** Keys that come before what they are meant for is there: kept, and obeyed in their order once it is. */
import { useEffect, useRef } from 'react';
import { tabbable } from 'tabbable';

/** A key as it was pressed, together with Control or the command key, or with Shift. */
export interface Pressed {
  key: string;
  command: boolean;
  shift: boolean;
}

declare global {
  interface Window {
    /** Keys typed before the script of the Bench ran; asked once. */
    earlyKeys?: () => Pressed[];
  }
}

const isField = (target: EventTarget | null): target is HTMLInputElement | HTMLTextAreaElement => target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;
const obeyed = new Set(['Enter', 'Tab', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Escape', 'Backspace', 'Delete', 'F1', 'F2', 'F3', 'F4', 'F6', 'F7', 'F8', 'F9']);
/** What goes with Control: onto the quote, and undoing. */
const commands = new Set(['enter', 'z', 's']);

interface Waiting {
  /** Something was decided and is not shown yet: where the next key goes is not known before it is. */
  busy: () => boolean;
  shown: () => Promise<void>;
}

/** Holds keys while something decided is not shown yet. What it gives back obeys keys, those typed before the page was ready first. */
export function useHeldKeys(waiting: Waiting): (keys: readonly Pressed[]) => void {
  const latest = useRef(waiting);
  latest.current = waiting;
  const held = useRef<Pressed[]>([]);
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
      if (key !== undefined) press(key);
    }
    obeying.current = false;
  });
  useEffect(() => {
    const hold = (event: KeyboardEvent): void => {
      const { target, key } = event;
      if (!event.isTrusted || event.altKey || event.isComposing) return;
      const command = event.ctrlKey || event.metaKey;
      // Behind keys that wait, all wait, wherever the keyboard is by now: they go where those lead.
      if (!obeying.current && (!latest.current.busy() || isField(target) || !(target === document.body || (target instanceof Element && target.closest('[data-row]'))))) return;
      if (command ? !commands.has(key.toLowerCase()) : key.length !== 1 && !obeyed.has(key)) return;
      event.preventDefault();
      event.stopPropagation();
      held.current.push({ key, command, shift: event.shiftKey });
      void obey.current();
    };
    window.addEventListener('keydown', hold, true);
    return () => window.removeEventListener('keydown', hold, true);
  }, []);
  return useRef((keys: readonly Pressed[]) => {
    held.current.push(...keys);
    void obey.current();
  }).current;
}

/** Presses a key where the keyboard is, with what it does there by itself. */
function press({ key, command, shift }: Pressed): void {
  const target = document.activeElement instanceof HTMLElement ? document.activeElement : document.body;
  const untouched = target.dispatchEvent(new KeyboardEvent('keydown', { key, ctrlKey: command, shiftKey: shift, bubbles: true, cancelable: true }));
  if (!untouched || command) return;
  if (key === 'Tab') {
    const stops = tabbable(document.body);
    const at = stops.indexOf(target);
    stops[shift ? (at <= 0 ? stops.length : at) - 1 : (at + 1) % stops.length]?.focus();
    return;
  }
  if (isField(target)) {
    const [from, to] = [target.selectionStart ?? target.value.length, target.selectionEnd ?? target.value.length];
    if (key.length === 1) target.setRangeText(key, from, to, 'end');
    else if (key === 'Backspace') target.setRangeText('', from === to ? Math.max(0, from - 1) : from, to, 'end');
    else if (key === 'Delete') target.setRangeText('', from, from === to ? Math.min(target.value.length, to + 1) : to, 'end');
    else return;
    target.dispatchEvent(new Event('input', { bubbles: true }));
  } else if ((key === 'Enter' || key === ' ') && target !== document.body) target.click();
}
