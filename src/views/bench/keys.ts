/**
 * The Bench by keyboard. Letters alone stay free for finding an option by typing; n and p go to what is to
 * do.
 */
import { useLatest } from '../../ui';
import { useEffect, type RefObject } from 'react';
import type { RowState } from '../../core/engine';
import type { Outline } from '../../core/model';
import type { SheetHandle } from './sheet/sheet-props';
import type { StripTab } from './head/Strip';

/** What keys do on the Bench. */
export interface Keys {
  undo: () => Promise<void>;
  redo: () => Promise<void>;
  onQuote: () => Promise<void>;
  go: (row: string) => void;
  paste: (text: string) => Promise<void>;
  frozen: boolean;
  sheet: RefObject<SheetHandle | null>;
  rows: Readonly<Record<string, RowState>>;
  sections: Outline['sections'];
  find: () => void;
  fold: () => void;
  units: () => void;
  strip: (tab: StripTab) => void;
  keep: () => void;
  variant: (step: 1 | -1) => void;
}

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLInputElement ||
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement;

/**
 * A field that shows what is decided, with nothing half typed in it: what is undone there is the decision.
 */
const isDecided = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.dataset.decided === 'true';

/** Obeys the keys of the Bench. */
export function useBenchKeys(given: Keys): void {
  const latest = useLatest(given);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const keys = latest.current;
      const act = actOf(event, keys);
      if (!act) return;
      event.preventDefault();
      act();
    };
    const onPaste = (event: ClipboardEvent): void => {
      const text = event.clipboardData?.getData('text') ?? '';
      if (isTyping(event.target) || latest.current.frozen || text.trim() === '') return;
      event.preventDefault();
      void latest.current.paste(text);
    };
    window.addEventListener('keydown', onKey);
    window.addEventListener('paste', onPaste);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('paste', onPaste);
    };
  }, [latest]);
}

function actOf(event: KeyboardEvent, keys: Keys): (() => void) | null {
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  const typing = isTyping(event.target);
  if (command) {
    if (key === 'z' && (!typing || isDecided(event.target)))
      return () => void (event.shiftKey ? keys.redo() : keys.undo());
    if (key === 'enter') return () => void keys.onQuote();
    // Everything is saved as it is made; the key has nothing to do, and must not save a page.
    return key === 's' ? () => undefined : null;
  }
  if (event.altKey) return null;
  const row = keys.sheet.current?.rowInFocus();
  switch (event.key) {
    case 'F1':
      return () => keys.sheet.current?.help(row);
    case 'F2':
      return () => keys.sheet.current?.why(row);
    case 'F3':
      return keys.find;
    case 'F4':
      return keys.keep;
    case 'F6':
      return keys.fold;
    case 'F7':
      return () => keys.strip('variants');
    case 'F8':
      return () => keys.strip('best');
    case 'F9':
      return keys.units;
  }
  if (typing) return null;
  if (event.key === '[' || event.key === ']') return () => keys.variant(event.key === ']' ? 1 : -1);
  if (event.key === '/') return keys.find;
  return key === 'n' || key === 'p' ? () => step(keys, row, key === 'n' ? 1 : -1) : null;
}

/** To the next thing to do, round and round. */
function step({ rows, sections, go }: Keys, here: string | undefined, direction: 1 | -1): void {
  const shown = sections.flatMap((section) => section.rows).filter((id) => rows[id]?.shown);
  const todo = shown.filter((id) => rows[id]?.todo || rows[id]?.clashing);
  const at = here === undefined ? -1 : shown.indexOf(here);
  const ahead =
    direction === 1
      ? [...todo.filter((id) => shown.indexOf(id) > at), ...todo]
      : [...todo.filter((id) => shown.indexOf(id) < at).reverse(), ...[...todo].reverse()];
  if (ahead[0]) go(ahead[0]);
}
