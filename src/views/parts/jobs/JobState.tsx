import { Square, RotateCcw } from 'lucide-react';
import type { JobView } from '../../../contract';
import { Button, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import { cameOf, farOf, whatOf } from './job-words';
import css from './jobs.module.css';

/** Where a job is: in a word, how far, what came of it. */
export function JobState({ job }: { job: JobView }) {
  const { t, language } = useSpeech();
  const { state, progress, stopping } = job;
  const far = farOf(job, t);
  return (
    <span className={css.state}>
      <span className={classes(css.word, css[state])}>
        {t(stopping ? 'job.stopping' : `job.is.${state}`)}
      </span>
      {state === 'running' && progress && (
        <progress
          className={css.bar}
          aria-label={t('job.progress', { what: whatOf(job, t) })}
          value={progress.done}
          max={Math.max(1, progress.of)}
        />
      )}
      <span className={css.told}>{state === 'running' ? far : cameOf(job, t, language)}</span>
    </span>
  );
}

/** Stops a job, or begins it again. */
export function JobAct({ job, onStop, onAgain }: { job: JobView; onStop: () => void; onAgain: () => void }) {
  const { t } = useSpeech();
  const what = whatOf(job, t);
  if ((job.state === 'waiting' || job.state === 'running') && !job.stopping)
    return (
      <Button look="plain" aria-label={t('job.stopOf', { what })} onClick={onStop}>
        <Square size={12} aria-hidden />
        {t('job.stop')}
      </Button>
    );
  if (job.state !== 'failed' && job.state !== 'stopped') return null;
  return (
    <Button look="plain" aria-label={t('job.againOf', { what })} onClick={onAgain}>
      <RotateCcw size={13} aria-hidden />
      {t('job.again')}
    </Button>
  );
}
