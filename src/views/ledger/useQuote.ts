import { useRef, useState } from 'react';
import type { LineView, QuoteView } from '../../core/quoting';
import { say } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { useSpeech } from '../speech';

export interface QuoteActs {
  view: QuoteView;
  saving: boolean;
  /** Sends a change; a change against an older version brings the newer one and says whose it is. */
  change: (method: 'POST' | 'PATCH' | 'DELETE', path: string, body: object) => Promise<Answer<QuoteView>>;
  /** Changes a line; gives the sentence of a refusal. */
  changeLine: (line: LineView, body: object) => Promise<string | null>;
  /** Changes what is typed for the whole quote. */
  changeWhole: (body: object) => Promise<string | null>;
  refresh: () => Promise<void>;
}

/** A quote as it stands on the server, and changes to it. */
export function useQuote(first: QuoteView): QuoteActs {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  const [waiting, setWaiting] = useState(0);
  // What is changed while another change is under way waits for it, so that one's own changes never meet.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const version = useRef(first.version);
  const show = (newer: QuoteView) => {
    version.current = newer.version;
    setView(newer);
  };
  const refresh = async () => {
    const newer = await ask<QuoteView>('GET', `/api/quotes/${first.id}`);
    if (newer.ok) show(newer.value);
  };
  const change: QuoteActs['change'] = (method, path, body) => {
    setWaiting((count) => count + 1);
    const made = queue.current.then(async () => {
      const answer = await ask<QuoteView>(method, `/api/quotes/${first.id}${path}`, { version: version.current, ...body });
      if (answer.ok) show(answer.value);
      else if (answer.status === 409) {
        await refresh();
        say(sentences(answer.failures, t('request.failed')), true);
      }
      setWaiting((count) => count - 1);
      return answer;
    });
    queue.current = made;
    return made;
  };
  const refusalOf = (answer: Answer<QuoteView>): string | null => (answer.ok ? null : sentences(answer.failures, t('request.failed')));
  return {
    view, saving: waiting > 0, change, refresh,
    changeLine: async (line, body) => refusalOf(await change('PATCH', `/lines/${line.id}`, body)),
    changeWhole: async (body) => refusalOf(await change('PATCH', '', body)),
  };
}
