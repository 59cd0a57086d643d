import { useEffect, useId, useState } from 'react';
import { scaleLinear } from 'd3-scale';
import { exact, roundHalfUp } from '../../core/exact';
import { monthlyRate } from '../../core/pricing';
import type {
  AgreementView,
  DealView,
  LeaseInput,
  LineView,
  QuoteLease,
  QuoteView,
} from '../../core/quoting';
import { date, money, number, own, percent, shift } from '../../i18n';
import { Button } from '../../ui';
import { ask } from '../api';
import { Quota } from '../parts/Quota';
import figures from '../parts/figures.module.css';
import { useSpeech } from '../speech';
import css from './deal.module.css';
import { EditCell } from './EditCell';
import shared from './ledger.module.css';
import { sendableMoney, wrongBy } from './typed-amount';

interface Props {
  view: QuoteView;
  /** Keeps a lease beside the price, or takes it back; gives the sentence of a refusal. */
  onLease: (lease: LeaseInput | null) => Promise<string | null>;
}

/** What the quote means: margins by line, a lease, commission, and the year's quota. */
export function Deal({ view, onLease }: Props) {
  const { t, language } = useSpeech();
  const [deal, setDeal] = useState<DealView>({ agreements: [] });
  const [targets, setTargets] = useState(false);
  const { may, decimals, currency } = view;
  useEffect(() => {
    let current = true;
    void ask<DealView>('GET', `/api/quotes/${view.id}/deal`).then((answer) => {
      if (current && answer.ok) setDeal(answer.value);
    });
    return () => {
      current = false;
    };
  }, [view.id, view.version]);
  const amount = (value: string) => money(value, language, decimals);
  const { commission, quota } = deal;
  return (
    <div className={css.deal}>
      <Lease view={view} onLease={onLease} />
      {may.seeCosts && <Margins view={view} />}
      <Agreements agreements={deal.agreements} view={view} />
      {commission && (
        <section aria-label={t('deal.commission')}>
          <h3>{t('deal.commission')}</h3>
          <table className={figures.figures}>
            <tbody>
              <tr>
                <td>
                  <button
                    type="button"
                    className={shared.asks}
                    aria-expanded={targets}
                    onClick={() => setTargets(!targets)}
                  >
                    {t('deal.target')}
                  </button>
                </td>
                <td>{amount(commission.target)}</td>
              </tr>
              {targets &&
                commission.lines.map(({ position, rate, net }) => (
                  <tr key={position} className={css.quiet}>
                    <td>{t('deal.lineTarget', { line: position, rate: percent(rate, language) })}</td>
                    <td>{amount(net)}</td>
                  </tr>
                ))}
              <tr>
                <td>
                  {t('deal.base', {
                    rate: percent(commission.baseRate, language),
                    of: amount(exact(commission.net).minus(commission.above).toString()),
                  })}
                </td>
                <td>
                  {amount(
                    exact(commission.net).minus(commission.above).times(commission.baseRate).toString(),
                  )}
                </td>
              </tr>
              {commission.above !== '0' && (
                <tr>
                  <td>
                    {t('deal.higher', {
                      rate: percent(commission.higherRate, language),
                      of: amount(commission.above),
                    })}
                  </td>
                  <td>{amount(exact(commission.above).times(commission.higherRate).toString())}</td>
                </tr>
              )}
              <tr>
                <th scope="row">
                  {t('deal.commission')} {currency}
                </th>
                <td>
                  <b>{amount(commission.amount)}</b>
                </td>
              </tr>
            </tbody>
          </table>
        </section>
      )}
      {quota && (
        <>
          <p className={css.effect}>
            {t('deal.effect', {
              adds: `${money(quota.adds, language, 0)} EUR`,
              from: share(quota.won, quota.target, language),
              to: share(exact(quota.won).plus(quota.adds).toString(), quota.target, language),
            })}
          </p>
          <Quota {...quota} />
        </>
      )}
    </div>
  );
}

/** What the customer has been granted, and which lines it concerns. */
function Agreements({ agreements, view }: { agreements: readonly AgreementView[]; view: QuoteView }) {
  const { t, language } = useSpeech();
  if (agreements.length === 0) return null;
  const when = ({ from, to }: AgreementView) => {
    const days = {
      ...(from === undefined ? {} : { from: date(from, language) }),
      ...(to === undefined ? {} : { to: date(to, language) }),
    };
    return from === undefined && to === undefined
      ? ''
      : t(
          to === undefined ? 'agreement.since' : from === undefined ? 'agreement.until' : 'agreement.when',
          days,
        );
  };
  return (
    <section aria-label={t('agreement.title')}>
      <h3>{t('agreement.title')}</h3>
      <table className={figures.figures}>
        <tbody>
          {agreements.map((each, index) => (
            <tr key={index} className={each.holds === 'now' ? undefined : css.quiet}>
              <td>
                {own(each.name, language)}
                {each.of ? `, ${own(each.of, language)}` : ''}
                <span className={css.under}>
                  {[
                    ...(each.holds === 'now' ? [] : [t(`agreement.${each.holds}`)]),
                    ...(each.fixed ? [t('agreement.fixed')] : []),
                    ...(when(each) ? [when(each)] : []),
                    each.lines.length > 0
                      ? t('agreement.lines', { count: each.lines.length, lines: each.lines.join(', ') })
                      : t('agreement.noLine'),
                  ].join(' · ')}
                </span>
              </td>
              <td>
                {each.price === undefined
                  ? `−${percent(each.rate ?? '0', language)}`
                  : money(each.price, language, view.decimals)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const share = (part: string, whole: string, language: string): string =>
  percent(exact(part).div(whole).toString(), language, 0);

const usualLease: QuoteLease = { months: 36, yearlyRate: '0.054', inAdvance: false };

/** What is due once, by the month. Kept, it stands on the quotation. */
function Lease({ view, onLease }: Props) {
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

const barWidth = 120;

/**
 * The margin of every line that counts, as bars on one scale, with the quote's own as a rule through all of
 * them.
 */
function Margins({ view }: { view: QuoteView }) {
  const { t, language } = useSpeech();
  const lines = view.lines.filter(
    (line): line is LineView & { price: { margin: string } } =>
      !line.optional && !line.alternative && line.price.margin !== undefined,
  );
  if (lines.length === 0) return null;
  const shares = lines.map((line) => Number(line.price.margin));
  const x = scaleLinear([Math.min(0, ...shares), 1], [0, barWidth]).clamp(true);
  const rule = view.totals.margin === undefined ? undefined : x(Number(view.totals.margin));
  return (
    <section aria-label={t('deal.margins')}>
      <h3>{t('deal.margins')}</h3>
      <table className={figures.figures}>
        <tbody>
          {lines.slice(0, 60).map((line, index) => (
            <tr key={line.id}>
              <td>
                {line.position} {own(line.name, language)}
              </td>
              <td>
                <svg
                  className={css.bar}
                  viewBox={`0 0 ${String(barWidth)} 10`}
                  width={barWidth}
                  height={10}
                  aria-hidden
                >
                  <rect
                    x={Math.min(x(0), x(shares[index] ?? 0))}
                    y={1}
                    width={Math.max(1, Math.abs(x(shares[index] ?? 0) - x(0)))}
                    height={8}
                    className={(shares[index] ?? 0) < 0 ? css.loss : css.gain}
                  />
                  {rule !== undefined && <line x1={rule} x2={rule} y1={0} y2={10} className={css.rule} />}
                </svg>
                <span className={css.share}>{percent(line.price.margin, language, 1)}</span>
              </td>
            </tr>
          ))}
          {view.totals.margin !== undefined && (
            <tr>
              <th scope="row">{t('deal.whole')}</th>
              <td>
                <b>{percent(view.totals.margin, language, 1)}</b>
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {lines.length > 60 && <p className={css.quiet}>{t('deal.more', { count: lines.length - 60 })}</p>}
    </section>
  );
}
