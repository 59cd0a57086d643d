import { memo } from 'react';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './release.module.css';
import { releaseMark } from '../sheet/marks';

interface Props {
  /** The row, and its name. */
  on: string;
  name: string;
  /**
   * There is something to take back. Its place is kept where there is not, so that nothing moves when there
   * is.
   */
  given: boolean;
  onRelease: (on: string) => void;
}

/** Takes back what the person decided in a row. */
export const Release = memo(function Release({ on, name, given, onRelease }: Props) {
  const { t } = useSpeech();
  const says = t('bench.release', { what: name });
  return (
    <button
      type="button"
      className={classes(css.release, !given && css.away)}
      aria-label={says}
      title={says}
      onClick={() => onRelease(on)}
    >
      {releaseMark}
    </button>
  );
});
