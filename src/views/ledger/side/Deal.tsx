import { useEffect, useState } from 'react';
import { scaleLinear } from 'd3-scale';
import { exact } from '../../../core/exact';
import type { AgreementView, DealView, LineView, QuoteView } from '../../../contract';
import { date, money, own, percent } from '../../../i18n';
import { ask } from '../../api';
import { Quota } from '../../parts/Quota';
import figures from '../../parts/figures.module.css';
import { useSpeech } from '../../speech';
import css from './deal.module.css';
import shared from '../ledger.module.css';
import { type Props, Lease } from './Lease';

/** What the quote means: margins by line, a lease, commission, and the year's quota. */
export function Deal({ view, onLease }: Props) {
  const { t, language } = useSpeech();
  const [deal, setDeal] = useState<DealView>({ agreements: [] });
  const { may } = view;
  useEffect(() => {
    let current = true;
    void ask('GET /quotes/{id}/deal', { at: { id: view.id } }).then((answer) => {
      if (current && answer.ok) setDeal(answer.value);
    });
    return () => {
      current = false;
    };
  }, [view.id, view.version]);
  const { commission, quota } = deal;
  return (
    <div className={css.deal}>
      <Lease view={view} onLease={onLease} />
      {may.seeCosts && <Margins view={view} />}
      <Agreements agreements={deal.agreements} view={view} />
      {commission && <Commission commission={commission} view={view} />}
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

/** What the person earns by it: what each line is expected to come to, and the rates below and above that. */
function Commission({
  commission,
  view,
}: {
  commission: NonNullable<DealView['commission']>;
  view: QuoteView;
}) {
  const { t, language } = useSpeech();
  const [targets, setTargets] = useState(false);
  const { decimals, currency } = view;
  const amount = (value: string) => money(value, language, decimals);
  return (
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
              {amount(exact(commission.net).minus(commission.above).times(commission.baseRate).toString())}
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
