/**
 * Keys, and what is pasted, that come before what they are meant for is there: kept, and obeyed in their
 * order once it is.
 */
import { useEffect, useState } from 'react';
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

/** Holds keys while something decided is not shown yet, and presses them when it is. */
class HeldKeys {
  private readonly held: Given[] = [];
  private obeying = false;

  constructor(private readonly waiting: Waiting) {}

  /** Presses these behind those that wait already. */
  readonly obey = (keys: readonly Given[]): void => {
    this.held.push(...keys);
    void this.go();
  };

  /** Listens until the answer is called. */
  listen(): () => void {
    window.addEventListener('keydown', this.hold, true);
    window.addEventListener('paste', this.holdPasted, true);
    return () => {
      window.removeEventListener('keydown', this.hold, true);
      window.removeEventListener('paste', this.holdPasted, true);
    };
  }

  private async go(): Promise<void> {
    if (this.obeying) return;
    this.obeying = true;
    while (this.held.length > 0) {
      if (this.waiting.busy()) await this.waiting.shown();
      // What was decided is on the screen, and the keyboard where it belongs, one frame later.
      await new Promise((next) => setTimeout(next));
      if (this.waiting.busy()) continue;
      const key = this.held.shift();
      if (key !== undefined) give(key);
    }
    this.obeying = false;
  }

  /** Behind keys that wait, all wait, wherever the keyboard is by now: they go where those lead. */
  private waits(target: EventTarget | null): boolean {
    return (
      this.obeying ||
      (this.waiting.busy() &&
        !isField(target) &&
        (target === document.body || (target instanceof Element && target.closest('[data-row]') !== null)))
    );
  }

  private readonly hold = (event: KeyboardEvent): void => {
    const { target, key } = event;
    if (!event.isTrusted || event.altKey || event.isComposing) return;
    const command = event.ctrlKey || event.metaKey;
    if (!this.waits(target)) return;
    if (command ? !commands.has(key.toLowerCase()) : key.length !== 1 && !obeyed.has(key)) return;
    event.preventDefault();
    event.stopPropagation();
    this.obey([{ key, command, shift: event.shiftKey }]);
  };

  private readonly holdPasted = (event: ClipboardEvent): void => {
    const pasted = event.clipboardData?.getData('text') ?? '';
    if (!event.isTrusted || pasted === '' || !this.waits(event.target)) return;
    event.preventDefault();
    event.stopPropagation();
    this.obey([{ pasted }]);
  };
}

/**
 * Holds keys while something decided is not shown yet. What it gives back obeys keys, those typed before the
 * page was ready first. What it waits for stays what it was at first.
 */
export function useHeldKeys(waiting: Waiting): (keys: readonly Given[]) => void {
  const [keys] = useState(() => new HeldKeys(waiting));
  useEffect(() => keys.listen(), [keys]);
  return keys.obey;
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
