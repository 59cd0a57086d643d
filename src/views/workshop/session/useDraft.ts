/** The session of a draft, as the page draws it. */
import { useEffect, useState, useSyncExternalStore } from 'react';
import { wrap } from 'comlink';
import type { DraftView } from '../../../contract';
import type { DraftComputation } from '../../../workers/draft/computation';
import { ask } from '../../api';
import { DraftSession, type DraftStand } from './draft-session';

/** A draft, and what can be done with it. */
export interface Draft extends DraftStand {
  session: DraftSession;
}

function begun(view: DraftView) {
  const worker = new Worker(new URL('../../../workers/draft.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<DraftComputation>(worker);
  const { tariff, facts, today } = view;
  const opened = remote.open({ tariff, facts, today });
  const at = { id: view.id };
  const session = new DraftSession(view, {
    send: (version, edit) => ask('POST /drafts/{id}/edits', { at, input: { version, edit } }),
    step: (which, version) =>
      which === 'undo'
        ? ask('POST /drafts/{id}/undo', { at, input: { version } })
        : ask('POST /drafts/{id}/redo', { at, input: { version } }),
    load: () => ask('GET /drafts/{id}', { at }),
    attempt: async (document, decisions, values) => {
      await opened;
      return remote.try(document, decisions, values);
    },
  });
  return { session, end: () => worker.terminate() };
}

/** Begins the session of a draft with the page, and ends it with that. */
export function useDraft(view: DraftView): Draft {
  const [session, setSession] = useState<DraftSession | null>(null);
  const [idle] = useState(
    () =>
      new DraftSession(view, {
        send: () => new Promise(() => undefined),
        step: () => new Promise(() => undefined),
        load: () => new Promise(() => undefined),
        attempt: () => new Promise(() => undefined),
      }),
  );
  useEffect(() => {
    const { session: made, end } = begun(view);
    setSession(made);
    void made.attempt();
    return end;
  }, [view]);
  const shown = session ?? idle;
  const stand = useSyncExternalStore(shown.subscribe, shown.seen, shown.seen);
  return { ...stand, session: shown };
}
