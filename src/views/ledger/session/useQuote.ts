import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { LineValue, LineView, QuoteView, TypedInput } from '../../../contract';
import { say } from '../../../ui';
import { ask, sentences, type Answer, type Asking } from '../../api';
import { useSpeech } from '../../speech';
import type { EditWay, LineChange } from './edit';
import { QuoteSession, type QuoteStand } from './quote-session';
import type { Line } from './sender';

export type { LineChange } from './edit';

const retryMilliseconds = 3000;

/** A pause that ends sooner when the page comes back into sight or the network is there again. */
function pause(): Promise<void> {
  return new Promise((done) => {
    const end = () => {
      clearTimeout(timer);
      window.removeEventListener('online', end);
      window.removeEventListener('focus', end);
      done();
    };
    const timer = setTimeout(end, retryMilliseconds);
    window.addEventListener('online', end);
    window.addEventListener('focus', end);
  });
}

/** The server, for the session of a quote. */
const lineTo = (id: string): Line => ({
  send: ({ way, at, input }, version, headers) =>
    ask<EditWay>(way, {
      at: { id, ...at },
      input: { version, ...input },
      headers,
    } as unknown as Asking<EditWay>),
  read: () => ask('GET /quotes/{id}', { at: { id } }),
  pause,
  newKey: () => crypto.randomUUID(),
});

/** What is to be seen of a quote, and what can be done to it. */
export interface QuoteActs extends QuoteStand {
  change: QuoteSession['change'];
  /** Each gives the sentence of a refusal. */
  changeLine: (line: LineView, body: LineChange) => Promise<string | null>;
  changeLines: (
    lines: readonly string[],
    body: LineChange & { group?: string | null },
  ) => Promise<string | null>;
  fillLines: (rows: readonly LineValue[]) => Promise<string | null>;
  changeWhole: (typed: TypedInput | null) => Promise<string | null>;
  refresh: () => Promise<void>;
}

/** The session of a quote, as the page draws it. */
export function useQuote(first: QuoteView): QuoteActs {
  const { t } = useSpeech();
  const [session] = useState(() => new QuoteSession(first, lineTo(first.id)));
  const stand = useSyncExternalStore(session.subscribe, session.seen, session.seen);
  useEffect(() => {
    const id = setTimeout(() => session.warm(), 200);
    return () => clearTimeout(id);
  }, [session]);
  // Whoever leaves while something is not stored is asked first.
  const waiting = stand.pending > 0 && stand.trouble !== null;
  useEffect(() => {
    if (!waiting) return undefined;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [waiting]);
  const acts = useMemo(() => {
    const told = (answer: Answer<QuoteView>): string | null => {
      if (answer.ok) return null;
      const text = sentences(answer.failures, t('request.failed'));
      if (answer.status === 409) say(text, true);
      return text;
    };
    const change: QuoteSession['change'] = async (way, edit, local) => {
      const answer = await session.change(way, edit, local);
      told(answer);
      return answer;
    };
    return {
      change,
      refresh: session.refresh,
      changeLine: async (line: LineView, body: LineChange) => told(await session.changeLine(line, body)),
      changeLines: async (lines: readonly string[], body: LineChange & { group?: string | null }) =>
        told(await session.changeLines(lines, body)),
      fillLines: async (rows: readonly LineValue[]) => told(await session.fillLines(rows)),
      changeWhole: async (typed: TypedInput | null) => told(await session.changeWhole(typed)),
    };
  }, [session, t]);
  return { ...stand, ...acts };
}
