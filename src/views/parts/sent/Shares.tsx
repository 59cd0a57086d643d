import { Ban } from 'lucide-react';
import type { ShareView } from '../../../contract';
import { date, dateTime } from '../../../i18n';
import { Button, say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useSpeech } from '../../speech';
import css from './sent.module.css';

interface Props {
  shares: readonly ShareView[];
  onChanged: () => void;
}

/** Links that were given out: for whom, until when, whether they were opened. */
export function Shares({ shares, onChanged }: Props) {
  const { t, language } = useSpeech();
  if (shares.length === 0) return null;
  const revoke = async (id: string): Promise<void> => {
    const answer = await ask('POST /shares/{id}/revoke', { at: { id } });
    if (!answer.ok) say(sentences(answer.failures, t('request.failed')), true);
    onChanged();
  };
  return (
    <section aria-label={t('sent.shares')}>
      <h3>{t('sent.shares')}</h3>
      <ul className={css.list}>
        {shares.map((share) => {
          const who = share.name === '' ? share.address : share.name;
          return (
            <li key={share.id} className={css.share} data-state={share.state}>
              <span>
                {who === '' ? t('share.whoever') : who}
                {share.revision !== null && ` · ${t('revision.one', { number: share.revision })}`}
              </span>
              {share.state === 'open' && (
                <Button
                  look="plain"
                  aria-label={t('share.revokeOf', { who: who === '' ? t('share.whoever') : who })}
                  title={t('share.revoke')}
                  onClick={() => void revoke(share.id)}
                >
                  <Ban size={13} aria-hidden />
                </Button>
              )}
              <span className={css.under}>
                {share.state === 'open'
                  ? t('share.until', { day: date(share.until, language) })
                  : t(`share.is.${share.state}`)}
                {' · '}
                {share.seen === 0
                  ? t('share.unseen')
                  : t('share.seen', { count: share.seen, at: dateTime(share.lastSeenAt ?? '', language) })}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
