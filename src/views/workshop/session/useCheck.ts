/** The check-up of a draft: begun from any part of its page, and there until another is made. */
import { useEffect, useState } from 'react';
import type { DraftCheck, DraftView } from '../../../contract';
import { say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useJob, type JobHere } from '../../parts/jobs/useJob';
import { useSpeech } from '../../speech';
import type { Draft } from './useDraft';

/** What was found last, and how it is looked for again. */
export interface Examined {
  check: DraftCheck | null;
  busy: boolean;
  run: () => Promise<void>;
  /** Where it takes long: the job that is at it. */
  job: JobHere;
}

/** Examines the draft as it is stored, once all that was done is. */
export function useCheck({ id }: Pick<DraftView, 'id'>, { session }: Draft): Examined {
  const { t } = useSpeech();
  const [check, setCheck] = useState<DraftCheck | null>(null);
  const [busy, setBusy] = useState(false);
  const job = useJob();
  const run = async (): Promise<void> => {
    setBusy(true);
    await session.settled();
    const answer = await ask('POST /drafts/{id}/check', {
      at: { id },
      input: { version: session.seen().version },
    });
    setBusy(false);
    if (!answer.ok) say(sentences(answer.failures, t('request.failed')), true);
    else if (answer.value.check) setCheck(answer.value.check);
    else if (answer.value.job !== null)
      await job.begin(ask('GET /jobs/{id}', { at: { id: answer.value.job } }));
  };
  const over = job.job?.state === 'done' ? job.job.id : null;
  useEffect(() => {
    if (over === null) return;
    void ask('POST /drafts/{id}/check', { at: { id }, input: { version: session.seen().version } }).then(
      (answer) => {
        if (answer.ok && answer.value.check) setCheck(answer.value.check);
      },
    );
  }, [over, id, session]);
  return { check, busy, run, job };
}
