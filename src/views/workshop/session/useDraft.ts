/** The session of a draft, as the page draws it. */
import { useEffect, useState, useSyncExternalStore } from 'react';
import { wrap, type Remote } from 'comlink';
import type { DraftView } from '../../../contract';
import type { ModelDocument } from '../../../core/model';
import type { DraftComputation, Edition } from '../../../workers/draft/computation';
import { ask } from '../../api';
import { DraftSession, type DraftStand } from './draft-session';

/** A draft, and what can be done with it. */
export interface Draft extends DraftStand {
  session: DraftSession;
}

/** A session whose tries wait for the computation that the page begins. */
function sessionOf(view: DraftView) {
  let begin: (remote: Remote<DraftComputation>) => void = () => undefined;
  const begun = new Promise<Remote<DraftComputation>>((ready) => {
    begin = ready;
  });
  // A document goes to the computation once, however often it is tried.
  let last: { number: number; document: ModelDocument } | undefined;
  const editionOf = (document: ModelDocument): Edition => {
    if (last?.document === document) return { number: last.number };
    last = { number: (last?.number ?? 0) + 1, document };
    return last;
  };
  const at = { id: view.id };
  const session = new DraftSession(view, {
    send: (version, edit) => ask('POST /drafts/{id}/edits', { at, input: { version, edit } }),
    step: (which, version) =>
      which === 'undo'
        ? ask('POST /drafts/{id}/undo', { at, input: { version } })
        : ask('POST /drafts/{id}/redo', { at, input: { version } }),
    pause: () => new Promise((done) => setTimeout(done, 2_000)),
    rest: () => new Promise((done) => setTimeout(done, 500)),
    load: () => ask('GET /drafts/{id}', { at }),
    attempt: async (document, decisions, values) => {
      const remote = await begun;
      return remote.try(editionOf(document), decisions, values);
    },
    test: async (document) => (await begun).test(editionOf(document).number),
    look: async (document, rule, values) => (await begun).look(editionOf(document).number, rule, values),
    table: async (document, rule) => (await begun).table(editionOf(document).number, rule),
    why: async (document, decisions, values, target) =>
      (await begun).why(editionOf(document).number, decisions, values, target),
    example: async (document, decisions, values) =>
      (await begun).example(editionOf(document).number, decisions, values),
  });
  return { session, begin };
}

/** Begins the session of a draft with the page, and ends it with that. */
export function useDraft(view: DraftView): Draft {
  const [{ session, begin }] = useState(() => sessionOf(view));
  useEffect(() => {
    const worker = new Worker(new URL('../../../workers/draft.worker.ts', import.meta.url), {
      type: 'module',
    });
    const remote = wrap<DraftComputation>(worker);
    const { tariff, facts, today } = view;
    void remote.open({ tariff, facts, today }).then(() => begin(remote));
    void session.attempt();
    const leave = (event: BeforeUnloadEvent): void => {
      // What was typed just now may not be stored yet.
      if (session.seen().saving !== 'saved') event.preventDefault();
    };
    window.addEventListener('beforeunload', leave);
    return () => {
      window.removeEventListener('beforeunload', leave);
      worker.terminate();
    };
  }, [session, begin, view]);
  const stand = useSyncExternalStore(session.subscribe, session.seen, session.seen);
  return { ...stand, session };
}
