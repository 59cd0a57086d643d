import { useState } from 'react';
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
  const [saving, setSaving] = useState(false);
  const refresh = async () => {
    const newer = await ask<QuoteView>('GET', `/api/quotes/${first.id}`);
    if (newer.ok) setView(newer.value);
  };
  const change: QuoteActs['change'] = async (method, path, body) => {
    setSaving(true);
    const answer = await ask<QuoteView>(method, `/api/quotes/${first.id}${path}`, { version: view.version, ...body });
    if (answer.ok) setView(answer.value);
    else if (answer.status === 409) {
      await refresh();
      say(sentences(answer.failures, t('request.failed')), true);
    }
    setSaving(false);
    return answer;
  };
  const refusalOf = (answer: Answer<QuoteView>): string | null => (answer.ok ? null : sentences(answer.failures, t('request.failed')));
  return {
    view, saving, change, refresh,
    changeLine: async (line, body) => refusalOf(await change('PATCH', `/lines/${line.id}`, body)),
    changeWhole: async (body) => refusalOf(await change('PATCH', '', body)),
  };
}
