/** The check-up of a draft: begun from any part of its page, and there until another is made. */
import { useState } from 'react';
import type { DraftCheck, DraftView } from '../../../contract';
import { say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useSpeech } from '../../speech';
import type { Draft } from './useDraft';

/** What was found last, and how it is looked for again. */
export interface Examined {
  check: DraftCheck | null;
  busy: boolean;
  run: () => Promise<void>;
}

/** Examines the draft as it is stored, once all that was done is. */
export function useCheck({ id }: Pick<DraftView, 'id'>, { session }: Draft): Examined {
  const { t } = useSpeech();
  const [check, setCheck] = useState<DraftCheck | null>(null);
  const [busy, setBusy] = useState(false);
  const run = async (): Promise<void> => {
    setBusy(true);
    await session.settled();
    const answer = await ask('POST /drafts/{id}/check', {
      at: { id },
      input: { version: session.seen().version },
    });
    setBusy(false);
    if (answer.ok) setCheck(answer.value);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return { check, busy, run };
}
