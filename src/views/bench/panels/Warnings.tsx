import { useState } from 'react';
import { own } from '../../../i18n';
import { Button, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './side.module.css';
import type { Bench } from '../session/useBench';
import { noteMark, warningMark } from '../sheet/marks';

/** Warnings, each of which can be passed with a reason for colleagues to read, and notes. */
export function Warnings({ bench, frozen }: { bench: Bench; frozen: boolean }) {
  const { t, language } = useSpeech();
  const [passing, setPassing] = useState<string>();
  const [reason, setReason] = useState('');
  const { messages } = bench.picture.state;
  if (messages.length === 0) return null;
  const askWhy = (warning: string) => {
    setReason('');
    setPassing(warning);
  };
  const pass = (rule: string) => {
    if (reason.trim() === '') return;
    void bench.pass(rule, reason.trim());
    setPassing(undefined);
    setReason('');
  };
  return (
    <ul aria-label={t('bench.notes')} className={css.messages}>
      {messages.map(({ rule, severity, text, help }) => {
        const warning = severity === 'warning';
        const passed = warning ? bench.content.passed.find((each) => each.rule === rule) : undefined;
        return (
          <li key={rule} className={classes(css.message, warning && !passed && css.messageWarning)}>
            {warning ? warningMark : noteMark}
            <div>
              <b>{t(`severity.${severity}`)}.</b> {own(text, language)}{' '}
              {help && <a href={help}>{t('bench.readMore')}</a>}
              {passed && (
                <p className={css.passed}>
                  {t('bench.passedBy', { who: passed.by, reason: passed.reason })}
                  {!frozen && (
                    <>
                      {' '}
                      <button type="button" className={css.link} onClick={() => void bench.pass(rule, null)}>
                        {t('bench.unpass')}
                      </button>
                    </>
                  )}
                </p>
              )}
              {warning && !passed && !frozen && passing !== rule && (
                <p>
                  <button type="button" className={css.link} onClick={() => askWhy(rule)}>
                    {t('bench.pass')}
                  </button>
                </p>
              )}
              {passing === rule && (
                <form
                  method="dialog"
                  className={css.passing}
                  onSubmit={(event) => {
                    event.preventDefault();
                    pass(rule);
                  }}
                >
                  <input
                    autoFocus
                    type="text"
                    className={css.reason}
                    aria-label={t('bench.passReason')}
                    placeholder={t('bench.passReason')}
                    maxLength={500}
                    value={reason}
                    onChange={(event) => setReason(event.target.value)}
                    onKeyDown={(event) => {
                      if (event.key === 'Escape') setPassing(undefined);
                    }}
                  />
                  <Button type="submit" disabled={reason.trim() === ''}>
                    {t('bench.passGo')}
                  </Button>
                </form>
              )}
            </div>
          </li>
        );
      })}
    </ul>
  );
}
