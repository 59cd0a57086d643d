import { useEffect } from 'react';
import { useLatest } from '../../ui';

/** What somebody is told while they look. */
export interface LiveWord {
  kind: 'answer' | 'mail' | 'colleague' | 'desk';
  /** Of which quote; null where it is of none. */
  quote: string | null;
}

const event = 'iunctura:word';
let line: EventSource | undefined;
let users = 0;

/** One line a page, and only while the page is seen: a browser has few of them for all its pages together. */
function attend(): void {
  if (document.hidden || users === 0) {
    line?.close();
    line = undefined;
    return;
  }
  if (line) return;
  line = new EventSource('/live');
  line.addEventListener('word', ({ data }: MessageEvent<string>) => {
    const word = JSON.parse(data) as LiveWord | 'gap';
    window.dispatchEvent(new CustomEvent(event, { detail: word }));
  });
}

function seen(): void {
  attend();
  // What was told while nobody looked is looked up.
  if (!document.hidden) window.dispatchEvent(new CustomEvent(event, { detail: 'gap' }));
}

/** Calls something as soon as the person is told that something is otherwise; `gap` where a word may have been missed. */
export function useLive(act: (word: LiveWord | 'gap') => void): void {
  const latest = useLatest(act);
  useEffect(() => {
    const hear = (told: Event): void => latest.current((told as CustomEvent<LiveWord | 'gap'>).detail);
    window.addEventListener(event, hear);
    if (users++ === 0) document.addEventListener('visibilitychange', seen);
    attend();
    return () => {
      window.removeEventListener(event, hear);
      users -= 1;
      if (users === 0) document.removeEventListener('visibilitychange', seen);
      attend();
    };
  }, [latest]);
}
