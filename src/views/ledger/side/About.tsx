import { useState } from 'react';
import { RefreshCw } from 'lucide-react';
import { date } from '../../../i18n';
import { DayField } from '../../parts/DayField';
import { useSpeech } from '../../speech';
import css from '../ledger.module.css';
import { type Props } from '../Head';

/**
 * Who the quote is from and for, and what it stands on: beneath the lines, where one looks for it now and
 * then.
 */
export function About({
  view,
  onDialog,
  onValidUntil,
}: Pick<Props, 'view' | 'onDialog'> & { onValidUntil: (day: string) => Promise<string | null> }) {
  const { t, language } = useSpeech();
  const { may } = view;
  const days = view.lines.map((line) => line.pricedOn).sort();
  const [first, last] = [days[0], days[days.length - 1]];
  return (
    <p>
      <b>{t('ledger.about')}</b>
      {view.owner} · {t(`class.${view.customer.class as 'key'}`)}
      <br />
      {may.edit ? (
        <ValidUntil day={view.revision.validUntil} onChange={onValidUntil} />
      ) : (
        <span>{t('ledger.valid', { date: date(view.revision.validUntil, language) })}</span>
      )}
      {may.edit && (
        <>
          <br />
          <button type="button" className={css.asks} onClick={() => onDialog('customer')}>
            {t('customer.change')}
          </button>
        </>
      )}
      {may.edit && first !== undefined && last !== undefined && (
        <>
          <br />
          <button
            type="button"
            className={css.asks}
            title={t('fresh.hint')}
            onClick={() => onDialog('freshen')}
          >
            <RefreshCw size={12} aria-hidden />{' '}
            {first === last
              ? t('fresh.on', { date: date(first, language) })
              : t('fresh.from', { from: date(first, language), to: date(last, language) })}
          </button>
        </>
      )}
    </p>
  );
}

function ValidUntil({ day, onChange }: { day: string; onChange: (day: string) => Promise<string | null> }) {
  const { t } = useSpeech();
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <span className={css.valid}>
      {t('ledger.validUntil')}
      <DayField
        label={t('ledger.validUntil')}
        value={day}
        onPick={(value) => {
          if (value && value !== day) void onChange(value).then(setWrong);
        }}
      />
      {wrong && (
        <span className={css.problem} role="alert">
          {wrong}
        </span>
      )}
    </span>
  );
}
