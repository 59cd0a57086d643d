import { useId, useState } from 'react';
import { exact, roundHalfUp } from '../../../core/exact';
import { monthlyRate } from '../../../core/pricing';
import type { LeaseInput, QuoteView } from '../../../contract';
import type { QuoteLease } from '../../../core/quotes';
import { money, number, percent, shift } from '../../../i18n';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './deal.module.css';
import { EditCell } from '../grid/EditCell';
import { sendableMoney, wrongBy } from '../grid/typed-amount';

/** What the lease shows and does. */
export interface Props {
  view: QuoteView;
  /** Keeps a lease beside the price, or takes it back; gives the sentence of a refusal. */
  onLease: (lease: LeaseInput | null) => Promise<string | null>;
}

const usualLease: QuoteLease = { months: 36, yearlyRate: '0.054', inAdvance: false };

/** What is due once, by the month. Kept, it stands on the quotation. */
export function Lease({ view, onLease }: Props) {
  const { t, language } = useSpeech();
  const id = useId();
  const [lease, setLease] = useState<QuoteLease>(view.lease ?? usualLease);
  const [wrong, setWrong] = useState<string | null>(null);
  const { decimals, currency, totals, may } = view;
  const kept = view.lease !== null;
  const rate = exact(totals.oneTime).lte(lease.residual ?? '0')
    ? null
    : roundHalfUp(exact(monthlyRate({ amount: totals.oneTime, ...lease })), decimals);
  const save = async (next: QuoteLease | null) => {
    const { residual, ...open } = next ?? lease;
    const refusal = await onLease(
      next && {
        ...open,
        yearlyRate: shift(open.yearlyRate, 2),
        ...(residual === undefined ? {} : { residual }),
      },
    );
    setWrong(refusal);
    return refusal;
  };
  const change = async (part: Partial<QuoteLease>): Promise<string | null> => {
    const next = { ...lease, ...part };
    setLease(next);
    return kept ? save(next) : null;
  };
  const months = (typed: string) =>
    /^\s*\d{1,3}\s*$/.test(typed) && Number(typed) >= 1 && Number(typed) <= 240 ? null : t('lease.months');
  return (
    <section aria-label={t('lease.title')}>
      <h3>{t('lease.title')}</h3>
      <div className={css.fields}>
        <label>
          {t('lease.term')}
          <EditCell
            label={t('lease.term')}
            value={String(lease.months)}
            disabled={!may.edit}
            narrow
            check={months}
            onSave={(typed) => change({ months: Number(typed) })}
          />
        </label>
        <label>
          {t('lease.yearly')}
          <EditCell
            label={t('lease.yearly')}
            value={number(shift(lease.yearlyRate, 2), language, 4)}
            disabled={!may.edit}
            narrow
            check={(typed) => wrongBy('rate', typed, language, currency, t)}
            onSave={(typed) =>
              change({
                yearlyRate: exact(typed.trim().replace(/\s*%$/, '').replace(',', '.')).div(100).toString(),
              })
            }
          />
        </label>
        <label>
          {t('lease.left')}
          <EditCell
            label={t('lease.left')}
            value={money(lease.residual ?? '0', language, decimals)}
            disabled={!may.edit}
            check={(typed) => wrongBy('amount', typed, language, currency, t)}
            onSave={(typed) =>
              change({ residual: exact(sendableMoney(typed, language, currency)).toString() })
            }
          />
        </label>
        <label className={css.tick} htmlFor={id}>
          <input
            id={id}
            type="checkbox"
            checked={lease.inAdvance}
            disabled={!may.edit}
            onChange={(event) => void change({ inAdvance: event.target.checked })}
          />
          {t('lease.advance')}
        </label>
      </div>
      {rate === null ? (
        <p className={css.quiet}>{t('lease.none')}</p>
      ) : (
        <p className={css.rate} data-testid="lease">
          <b>
            {money(rate.toString(), language, decimals)} {currency}
          </b>{' '}
          {t('lease.month', {
            monthly: percent(exact(lease.yearlyRate).div(12).toString(), language, 4),
            amount: money(totals.oneTime, language, decimals),
            all: money(rate.times(lease.months).toString(), language, decimals),
          })}
          {lease.residual !== undefined && lease.residual !== '0' && t('lease.andLeft')}
        </p>
      )}
      {may.edit && (
        <Button aria-pressed={kept} disabled={rate === null} onClick={() => void save(kept ? null : lease)}>
          {t(kept ? 'lease.takeBack' : 'lease.offer')}
        </Button>
      )}
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
    </section>
  );
}
