/** The keyboard on the Ledger outside of its cells. */
import { useEffect, type RefObject } from 'react';
import type { LinesHandle } from './grid/Lines';

/** Undo and redo of the quote; what is being typed is taken back by the field itself. */
export function useStepKeys(active: boolean, step: (way: 'undo' | 'redo') => Promise<void>): void {
  useEffect(() => {
    if (!active) return undefined;
    const keys = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing =
        target.matches('textarea, [data-typing], input:not([type="checkbox"]):not([aria-label])') ||
        target.closest('dialog') !== null;
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y') || typing) return;
      event.preventDefault();
      void step(event.shiftKey || key === 'y' ? 'redo' : 'undo');
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [active, step]);
}

/**
 * A page that opens on lines begins in them, unless a pane asks for something, and so does one that stands
 * otherwise after a dialog, such as sent; where a hand would have to type on glass, nothing is opened for it.
 */
export function useBeginInLines(lines: RefObject<LinesHandle | null>, dialog: unknown, shown: string): void {
  useEffect(() => {
    const frame = requestAnimationFrame(() => {
      const at = document.activeElement;
      // A field that is locked has the keyboard for a moment more.
      const nowhere = at === document.body || (at instanceof HTMLInputElement && at.disabled);
      if (dialog === undefined && nowhere && window.matchMedia('(pointer: fine)').matches)
        lines.current?.begin();
    });
    return () => cancelAnimationFrame(frame);
  }, [lines, dialog, shown]);
}
