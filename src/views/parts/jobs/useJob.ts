import { useState } from 'react';
import type { JobView } from '../../../contract';
import { say } from '../../../ui';
import { ask, sentences, type Answer } from '../../api';
import { useSpeech } from '../../speech';
import { useWhileSeen } from '../useSeen';

/** A job in the place that began it, and what can be done with it there. */
export interface JobHere {
  /** As it was last told; null before anything was begun. */
  job: JobView | null;
  /** Begins one by what asks for it, and looks after it from then on. */
  begin: (asked: Promise<Answer<JobView>>) => Promise<void>;
  stop: () => void;
  again: () => void;
  /** It is no longer shown; it goes on all the same. */
  forget: () => void;
}

/** Seconds between looks at one that is under way. */
const between = 1;

/** Looks after one job, from where it is begun until it is over. */
export function useJob(): JobHere {
  const { t } = useSpeech();
  const [job, setJob] = useState<JobView | null>(null);
  const begin = async (asked: Promise<Answer<JobView>>): Promise<void> => {
    const answer = await asked;
    if (answer.ok) setJob(answer.value);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const id = job?.id ?? '';
  useWhileSeen(() => {
    if (job?.state !== 'waiting' && job?.state !== 'running') return;
    void ask('GET /jobs/{id}', { at: { id } }).then((answer) => {
      // Another may have been begun meanwhile.
      if (answer.ok) setJob((now) => (now?.id === id ? answer.value : now));
    });
  }, between);
  return {
    job,
    begin,
    stop: () => void begin(ask('POST /jobs/{id}/stop', { at: { id } })),
    again: () => void begin(ask('POST /jobs/{id}/again', { at: { id } })),
    forget: () => setJob(null),
  };
}
