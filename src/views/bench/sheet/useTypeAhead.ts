import { useRef, type KeyboardEvent } from 'react';

/** Letters typed one after another find an option; a pause begins a new word. */
export function useTypeAhead(find: (typed: string) => boolean): (event: KeyboardEvent) => boolean {
  const typed = useRef({ text: '', at: 0 });
  return (event) => {
    const letter =
      event.key.length === 1 &&
      /[\p{L}\d]/u.test(event.key) &&
      !event.ctrlKey &&
      !event.metaKey &&
      !event.altKey;
    if (!letter) {
      typed.current = { text: '', at: 0 };
      return false;
    }
    const fresh = event.timeStamp - typed.current.at > 800;
    // Alone these two lead to what is to do; within a word they are letters.
    if (fresh && ['n', 'p'].includes(event.key)) return false;
    const text = (fresh ? '' : typed.current.text) + event.key.toLowerCase();
    typed.current = { text, at: event.timeStamp };
    const found = find(text);
    if (found) {
      event.preventDefault();
      event.stopPropagation();
    }
    return found;
  };
}
