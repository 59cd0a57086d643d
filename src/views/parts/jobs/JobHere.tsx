import type { ReactNode } from 'react';
import { X } from 'lucide-react';
import type { JobView } from '../../../contract';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import { JobAct, JobState } from './JobState';
import { whatOf } from './job-words';
import type { JobHere as Here } from './useJob';
import css from './jobs.module.css';

interface Props {
  here: Here;
  /** What came of it, once it is done. */
  children?: (job: JobView) => ReactNode;
}

/** A job in the place that began it: how far it is, stopped or begun again, and what came of it. */
export function JobHere({ here, children }: Props) {
  const { t } = useSpeech();
  const { job, stop, again, forget } = here;
  if (!job) return null;
  const over = job.state !== 'waiting' && job.state !== 'running';
  return (
    <div className={css.here} role="status" aria-label={whatOf(job, t)}>
      <span className={css.what}>{whatOf(job, t)}</span>
      <JobState job={job} />
      {job.state === 'done' && children?.(job)}
      <span>
        <JobAct job={job} onStop={stop} onAgain={again} />
        {over && (
          <Button look="plain" aria-label={t('frame.close')} onClick={forget}>
            <X size={14} aria-hidden />
          </Button>
        )}
      </span>
    </div>
  );
}
