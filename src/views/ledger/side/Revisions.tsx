import { useState } from 'react';
import type { QuoteView } from '../../../contract';
import { date, dateTime } from '../../../i18n';
import { Button, LinkButton } from '../../../ui';
import { useSpeech } from '../../speech';
import list from './revisions.module.css';
import { CompareDialog } from '../dialogs/CompareDialog';

/** Every revision of the quote, how it stands, and what differs from the one before. */
export function Revisions({ view }: { view: QuoteView }) {
  const { t, language } = useSpeech();
  const [compared, setCompared] = useState<{ before: number; after: number } | null>(null);
  return (
    <div className={list.list}>
      {view.revisions.map((revision, index) => {
        const here = revision.number === view.revision.number;
        const older = view.revisions[index + 1];
        return (
          <article
            key={revision.number}
            className={list.one}
            aria-label={t('revision.one', { number: revision.number })}
            aria-current={here ? 'true' : undefined}
          >
            <h3>
              {t('revision.one', { number: revision.number })}{' '}
              <span className={list.state}>{t(`state.${revision.state}`)}</span>
            </h3>
            <p>{t('revision.made', { who: revision.madeBy, at: dateTime(revision.madeAt, language) })}</p>
            {revision.settledAt && (
              <p>
                {t(`state.${revision.state}`)}:{' '}
                {t('revision.settled', {
                  who: revision.settledBy ?? '',
                  at: dateTime(revision.settledAt, language),
                })}
              </p>
            )}
            <p>{t('ledger.valid', { date: date(revision.validUntil, language) })}</p>
            {revision.lost && (
              <p>
                {t(`lost.reason.${revision.lost.reason}`)}
                {revision.lost.note && (
                  <>
                    : <q>{revision.lost.note}</q>
                  </>
                )}
              </p>
            )}
            <p className={list.acts}>
              {here ? (
                <i>{t('revision.shownNow')}</i>
              ) : (
                <LinkButton
                  href={
                    index === 0
                      ? `/quotes/${view.id}`
                      : `/quotes/${view.id}?revision=${String(revision.number)}`
                  }
                >
                  {t('revision.open')}
                </LinkButton>
              )}
              {older && (
                <Button onClick={() => setCompared({ before: older.number, after: revision.number })}>
                  {t('revision.compareWith', { number: older.number })}
                </Button>
              )}
            </p>
          </article>
        );
      })}
      <CompareDialog view={view} pair={compared} onChange={setCompared} onClose={() => setCompared(null)} />
    </div>
  );
}
