import { Button } from '../../ui';
import { useSpeech } from '../speech';
import css from './house.module.css';

interface Props {
  changed: boolean;
  busy: boolean;
  /** Why it cannot be kept as it is. */
  wrong?: string | undefined;
  onBack: () => void;
}

/** Keeps a part, or takes back what was typed into it. */
export function Foot({ changed, busy, wrong, onBack }: Props) {
  const { t } = useSpeech();
  return (
    <div className={css.foot}>
      <span role="status" className={wrong === undefined ? css.quiet : css.wrong}>
        {wrong ?? (changed ? t('house.unsaved') : '')}
      </span>
      <Button onClick={onBack} disabled={!changed || busy}>
        {t('house.back')}
      </Button>
      <Button look="main" type="submit" disabled={!changed || busy || wrong !== undefined}>
        {t('house.keep')}
      </Button>
    </div>
  );
}
