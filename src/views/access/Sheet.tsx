import type { ReactNode } from 'react';
import type { TextKey } from '../../i18n';
import { useSpeech } from '../speech';
import css from './signin.module.css';

/** A page before anybody has signed in: the mark at one side, what is to be done at the other. */
export function Sheet({ title, children }: { title: TextKey; children: ReactNode }) {
  const { t } = useSpeech();
  return (
    <div className={css.sheet}>
      <div className={css.left}>
        <svg className={css.mark} viewBox="0 0 32 32" aria-hidden>
          <path d="M3 5h12v7l5-4v16l-5-4v7H3z" />
          <path d="M29 5H17v3.4l5-4v23.2l-5-4V27h12z" />
        </svg>
        <p className={css.name}>{t('app.name')}</p>
        <p className={css.tagline}>{t('app.tagline')}</p>
      </div>
      <div className={css.right}>
        <h1>{t(title)}</h1>
        {children}
      </div>
    </div>
  );
}
