import { RefreshCw } from 'lucide-react';
import type { ShelvedView } from '../../../contract';
import { Button, say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useSpeech } from '../../speech';
import css from './sent.module.css';

/** That something moved on, and its document made anew; a package is made anew where its schedule is. */
export function MakeAnew({ row: { id, name, kind }, onMade }: { row: ShelvedView; onMade: () => void }) {
  const { t } = useSpeech();
  const again = async (): Promise<void> => {
    const answer = await ask('POST /shelf/{id}/again', { at: { id } });
    say(answer.ok ? t('shelf.made') : sentences(answer.failures, t('request.failed')), !answer.ok);
    if (answer.ok) onMade();
  };
  return (
    <span className={css.moved}>
      {t('shelf.movedOn')}
      {kind !== 'package' && (
        <Button
          look="plain"
          aria-label={t('shelf.againOf', { name })}
          title={t('shelf.again')}
          onClick={() => void again()}
        >
          <RefreshCw size={13} aria-hidden /> {t('shelf.again')}
        </Button>
      )}
    </span>
  );
}
