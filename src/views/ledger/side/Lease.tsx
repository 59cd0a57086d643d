import { useId, useState } from 'react';
import { exact, roundHalfUp, type Exact } from '../../../core/exact';
import { monthlyRate } from '../../../core/pricing';
import type { LeaseInput, QuoteView } from '../../../contract';
import type { QuoteLease } from '../../../core/quotes';
import { money, number, percent, shift } from '../../../i18n';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './deal.module.css';
import { EditCell, type CellProps } from '../grid/EditCell';
import { sendableMoney, wrongBy } from '../grid/typed-amount';

/** What the lease shows and does. */
export interface Props {
  view: QuoteView;
  /** Keeps a lease beside the price, or takes it back; gives the sentence of a refusal. */
  onLease: (lease: LeaseInput | null) => Promise<string | null>;
}

const usualLease: QuoteLease = { months: 36, yearlyRate: '0.054', inAdvance: false };

/** What is due once, by the month. Kept, it stands on the quotation. */
export function Lease(props: Props) {
  const { view } = props;
  const { t } = useSpeech();
  const { lease, kept, rate, wrong, save, change } = useLease(props);
  return (
    <section aria-label={t('lease.title')}>
      <h3>{t('lease.title')}</h3>
      <Terms view={view} lease={lease} onChange={change} />
      {rate === null ? (
        <p className={css.quiet}>{t('lease.none')}</p>
      ) : (
        <Monthly view={view} lease={lease} rate={rate} />
      )}
      {view.may.edit && (
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

/** The lease as it is typed, kept or not, and its rate by the month; none where there is nothing to pay. */
function useLease({ view, onLease }: Props) {
  const [lease, setLease] = useState<QuoteLease>(view.lease ?? usualLease);
  const [wrong, setWrong] = useState<string | null>(null);
  const { oneTime } = view.totals;
  const kept = view.lease !== null;
  const rate = exact(oneTime).lte(lease.residual ?? '0')
    ? null
    : roundHalfUp(exact(monthlyRate({ amount: oneTime, ...lease })), view.decimals);
  const save = async (next: QuoteLease | null) => {
    const refusal = await onLease(next && { ...next, yearlyRate: shift(next.yearlyRate, 2) });
    setWrong(refusal);
    return refusal;
  };
  const change = async (part: Partial<QuoteLease>): Promise<string | null> => {
    const next = { ...lease, ...part };
    setLease(next);
    return kept ? save(next) : null;
  };
  return { lease, kept, rate, wrong, save, change };
}

function Terms({
  view,
  lease,
  onChange,
}: {
  view: QuoteView;
  lease: QuoteLease;
  onChange: (part: Partial<QuoteLease>) => Promise<string | null>;
}) {
  const { t, language } = useSpeech();
  const id = useId();
  const { decimals, currency, may } = view;
  const months = (typed: string) =>
    /^\s*\d{1,3}\s*$/.test(typed) && Number(typed) >= 1 && Number(typed) <= 240 ? null : t('lease.months');
  const cell = (label: string, value: string, more: Pick<CellProps, 'narrow' | 'check' | 'onSave'>) => (
    <label>
      {label}
      <EditCell label={label} value={value} disabled={!may.edit} {...more} />
    </label>
  );
  return (
    <div className={css.fields}>
      {cell(t('lease.term'), String(lease.months), {
        narrow: true,
        check: months,
        onSave: (typed) => onChange({ months: Number(typed) }),
      })}
      {cell(t('lease.yearly'), number(shift(lease.yearlyRate, 2), language, 4), {
        narrow: true,
        check: (typed) => wrongBy('rate', typed, language, currency, t),
        onSave: (typed) => onChange({ yearlyRate: shareIn(typed) }),
      })}
      {cell(t('lease.left'), money(lease.residual ?? '0', language, decimals), {
        check: (typed) => wrongBy('amount', typed, language, currency, t),
        onSave: (typed) => onChange({ residual: exact(sendableMoney(typed, language, currency)).toString() }),
      })}
      <label className={css.tick} htmlFor={id}>
        <input
          id={id}
          type="checkbox"
          checked={lease.inAdvance}
          disabled={!may.edit}
          onChange={(event) => void onChange({ inAdvance: event.target.checked })}
        />
        {t('lease.advance')}
      </label>
    </div>
  );
}

/** A share of one from percent as typed. */
const shareIn = (percent: string): string =>
  exact(percent.trim().replace(/\s*%$/, '').replace(',', '.')).div(100).toString();

function Monthly({ view, lease, rate }: { view: QuoteView; lease: QuoteLease; rate: Exact }) {
  const { t, language } = useSpeech();
  const { decimals, currency, totals } = view;
  return (
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
  );
}
