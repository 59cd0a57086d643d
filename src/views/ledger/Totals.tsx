import type { QuoteFigure } from '../../core/pricing';
import type { QuoteView } from '../../core/quoting';
import { money, percent } from '../../i18n';
import { classes } from '../../ui';
import { useSpeech } from '../speech';
import { FourCell } from './FourCell';
import css from './ledger.module.css';
import type { Way } from './typed-amount';

interface Props {
  view: QuoteView;
  onType: (typed: { by: Way; value: string } | null) => Promise<string | null>;
  onExplain: (figure: QuoteFigure) => void;
}

/** What the quote comes to: a row that is typed into for all of it, and its sums, each of which tells how it came about. */
export function Totals({ view, onType, onExplain }: Props) {
  const { t, language } = useSpeech();
  const { totals, whole, decimals, currency, may } = view;
  const { comes } = whole;
  const amount = (value: string) => money(value, language, decimals);
  const four = (by: Way, value: string | undefined) => (
    <label className={css.wholeCell}>{t(`ledger.whole.${by}`)}<FourCell by={by} value={value} typed={whole.typed} label={t('ledger.wholeCell', { what: t(`ledger.whole.${by}`) })} decimals={decimals} disabled={!may.edit} onType={onType} /></label>
  );
  const row = (figure: QuoteFigure, value: string, sum = false) => (
    <>
      <dt className={classes(sum && css.sum)}>{t(`ledger.figure.${figure}`)}{sum && ` ${currency}`}</dt>
      <dd className={classes(css.figure, sum && css.sum)} {...(sum ? { 'data-testid': 'net' } : {})}>
        <button type="button" className={css.asks} onClick={() => onExplain(figure)} aria-label={t('ledger.explain', { what: t(`ledger.figure.${figure}`), value })}>{value}</button>
      </dd>
    </>
  );
  const recurs = totals.recurring !== '0';
  return (
    <div className={css.sums}>
      <fieldset className={css.whole}>
        <legend>{t('ledger.wholeQuote')}</legend>
        {comes.is === 'spread' ? <>
          {four('rate', comes.rate)}{four('amount', comes.amount)}{four('net', totals.net)}{may.seeCosts && four('margin', totals.margin)}
        </> : <p className={css.problem} role="alert">{t('quote.whole', { why: t(`quote.why.${comes.why}`) })}</p>}
      </fieldset>
      <dl className={css.totals} aria-label={t('ledger.totals')}>
        {row('list', amount(totals.list))}
        {row('reduction', amount(`-${totals.reduction}`.replace('--', '')))}
        {row('net', amount(totals.net), true)}
        {recurs && <>{row('oneTime', amount(totals.oneTime))}{row('recurring', amount(totals.recurring))}{row('perMonth', amount(totals.perMonth))}{row('firstYear', amount(totals.firstYear))}</>}
        {totals.cost !== undefined && row('cost', amount(totals.cost))}
        {totals.margin !== undefined && row('margin', percent(totals.margin, language, 1))}
      </dl>
    </div>
  );
}
