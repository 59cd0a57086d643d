/** The session of a document, as the page draws it. */
import { useEffect, useState, useSyncExternalStore } from 'react';
import type { PaperView } from '../../../contract';
import type { Composition } from '../../../core/paper';
import { addressOf, ask, type Answer, type Refusal } from '../../api';
import { PaperSession, type PaperStand } from './paper-session';

/** A document, and what can be done with it. */
export interface Paper extends PaperStand {
  session: PaperSession;
}

const after = (milliseconds: number): Promise<void> =>
  new Promise((done) => {
    setTimeout(done, milliseconds);
  });

/** Asks for pages of a quote, which come as the bytes of a file. */
export async function pagesFor(
  { id, revision }: Pick<PaperView['quote'], 'id' | 'revision'>,
  composition: Composition,
  signal: AbortSignal,
): Promise<Answer<Uint8Array>> {
  try {
    const response = await fetch(
      addressOf('POST /quotes/{id}/paper/pages', { at: { id }, query: { revision } }),
      {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ composition }),
        signal,
      },
    );
    if (response.ok) return { ok: true, value: new Uint8Array(await response.arrayBuffer()) };
    const { failures } = (await response.json()) as { failures?: Refusal[] };
    return { ok: false, status: response.status, failures: failures ?? [] };
  } catch {
    return { ok: false, status: 0, failures: [] };
  }
}

function sessionOf(view: PaperView): PaperSession {
  const { id } = view.quote;
  return new PaperSession(view, {
    keep: (version, composition) =>
      ask('PUT /quotes/{id}/paper', { at: { id }, input: { version, composition } }),
    pages: (composition, signal) => pagesFor(view.quote, composition, signal),
    load: () => ask('GET /quotes/{id}/paper', { at: { id } }),
    rest: () => after(500),
    pause: () => after(2_000),
  });
}

/** Begins the session of a document with the page. */
export function usePaper(view: PaperView): Paper {
  const [session] = useState(() => sessionOf(view));
  useEffect(() => {
    session.open();
    const leave = (event: BeforeUnloadEvent): void => {
      if (session.seen().saving !== 'saved') event.preventDefault();
    };
    window.addEventListener('beforeunload', leave);
    return () => window.removeEventListener('beforeunload', leave);
  }, [session]);
  const stand = useSyncExternalStore(session.subscribe, session.seen, session.seen);
  return { ...stand, session };
}
