import { Copy } from 'lucide-react';
import type { PeopleWithLink } from '../../contract';
import { dateTime } from '../../i18n';
import { Button, say } from '../../ui';
import { useSpeech } from '../speech';
import css from './people.module.css';

/** A link that was just made, to be handed over: it is shown this once. */
export function LinkMade({ link: { link, until } }: { link: PeopleWithLink }) {
  const { t, language } = useSpeech();
  const whole = new URL(link, window.location.href).href;
  return (
    <div className={css.link}>
      <label>
        <span className={css.quiet}>{t('people.link')}</span>
        <input
          className={css.address}
          readOnly
          value={whole}
          onFocus={(event) => event.currentTarget.select()}
        />
      </label>
      <Button
        onClick={() =>
          void navigator.clipboard.writeText(whole).then(
            () => say(t('people.copied')),
            () => say(t('people.notCopied'), true),
          )
        }
      >
        <Copy size={13} aria-hidden />
        {t('people.copy')}
      </Button>
      <p className={css.quiet}>{t('people.linkOnce', { at: dateTime(until, language) })}</p>
    </div>
  );
}
