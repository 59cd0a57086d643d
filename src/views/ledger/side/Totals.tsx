import { useState } from 'react';
import { Stamp, TriangleAlert } from 'lucide-react';
import { fixed, negative, textOf } from '../../../core/exact';
import { resaleOf, sumResale, type QuoteFigure } from '../../../core/pricing';
import { marginPercent, type QuoteView } from '../../../contract';
import { money, moneyIn, number, percent, shift } from '../../../i18n';
import { Button, classes, Said, useMedia } from '../../../ui';
import { useSpeech } from '../../speech';
import { EditCell } from '../grid/EditCell';
import { TypedFigureCell } from '../grid/TypedFigureCell';
import shared from '../ledger.module.css';
import { smallPage } from '../small';
import { needText } from './need-text';
import css from './totals.module.css';
import { wrongWith, type Way } from '../grid/typed-amount';

interface Props {
  view: QuoteView;
  onType: (typed: { by: Way; value: string } | null) => Promise<string | null>;
  onExplain: (figure: QuoteFigure) => void;
  onSignOff: () => void;
  /** Goes to a line. */
  onGo: (line: string) => void;
  /** Of a dealer: the share on all that is sold; gives the sentence of a refusal. */
  onResale: (percent: string) => Promise<string | null>;
}

/** Lines named that stand in the way; with each that is mended the next is. */
const mostNamed = 6;

/** Lines that count and cannot be sold as they are. */
export const brokenIn = ({ lines }: QuoteView): QuoteView['lines'] =>
  lines.filter((line) => !line.optional && !line.alternative && line.problems.length > 0);

/**
 * What the quote comes to: a row that is typed into for all of it, and its sums, each of which tells how it
 * came about.
 */
export function Totals(props: Props) {
  const { view, onResale } = props;
  const { t, language } = useSpeech();
  const { totals, decimals, currency } = view;
  // Where a line and its figures need the room, the net alone stays, and the rest comes when asked for.
  const small = useMedia(smallPage);
  const [unfolded, setUnfolded] = useState(false);
  const folded = small && !unfolded;
  return (
    <footer className={classes(css.foot, folded && css.folded)}>
      <Said text={t('said.net', { net: moneyIn(totals.net, currency, language, decimals) })} />
      {small && (
        <Button look="plain" aria-expanded={unfolded} onClick={() => setUnfolded(!unfolded)}>
          {t('ledger.allSums')}
        </Button>
      )}
      {view.resale ? <ResaleFoot view={view} onResale={onResale} /> : <WholeQuote {...props} />}
      <Signing {...props} />
      <Broken {...props} />
      <Sums {...props} />
      {!view.tax && view.lines.length > 0 && (
        <p className={css.noTax}>
          {t(view.taxApart ? 'ledger.taxApart' : 'ledger.noTax', { country: view.taxCountry })}
        </p>
      )}
    </footer>
  );
}

/** The discount of the whole quote, typed as any of its figures. */
function WholeQuote({ view, onType }: Props) {
  const { t } = useSpeech();
  const { totals, decimals, currency, may } = view;
  const { comes, typed } = view.whole;
  const figure = (by: Way, value: string | undefined) => (
    <label className={css.wholeCell}>
      {t(`ledger.whole.${by}`)}
      <TypedFigureCell
        by={by}
        value={value}
        typed={typed}
        label={t('ledger.wholeCell', { what: t(`ledger.whole.${by}`) })}
        currency={currency}
        decimals={decimals}
        disabled={!may.discount}
        onType={onType}
      />
    </label>
  );
  return (
    <div className={css.whole} role="group" aria-label={t('ledger.wholeQuote')}>
      <span className={css.legend}>{t('ledger.wholeQuote')}</span>
      {comes.is === 'spread' ? (
        <>
          {figure('rate', comes.rate)}
          {figure('amount', comes.amount)}
          {figure('net', totals.net)}
          {may.seeCosts && figure('margin', totals.margin)}
        </>
      ) : (
        <p className={shared.problem} role="alert">
          {t('quote.whole', { why: t(`quote.why.${comes.why}`) })}
        </p>
      )}
    </div>
  );
}

/** Who must sign, and whether that is asked. */
function Signing({ view, onSignOff }: Props) {
  const { t, language } = useSpeech();
  const { signOff } = view;
  if (!signOff || signOff.needs.length + signOff.history.length === 0) return null;
  const open = signOff.needs.filter((need) => !need.held);
  const waits = signOff.history.some((each) => each.state === 'asked');
  return (
    <p className={css.signing}>
      <Stamp size={14} aria-hidden />
      <span>
        {open.length === 0
          ? t(signOff.needs.length > 0 ? 'signOff.allHeld' : 'signOff.none')
          : open.map((need) => needText(need, t, language)).join(' ')}
        {waits && ` ${t('signOff.waits')}`}
      </span>
      <Button onClick={onSignOff}>
        {t(open.length > 0 && !waits && view.may.edit ? 'signOff.ask' : 'signOff.title')}
      </Button>
    </p>
  );
}

/** The lines that stand in the way of sending. */
function Broken({ view, onGo }: Props) {
  const { t } = useSpeech();
  const broken = view.may.edit ? brokenIn(view) : [];
  if (broken.length === 0) return null;
  return (
    <p className={css.broken}>
      <TriangleAlert size={14} aria-hidden />
      <span>{t('ledger.broken', { count: broken.length })}</span>
      {broken.slice(0, mostNamed).map(({ id, position }) => (
        <button key={id} type="button" className={shared.asks} onClick={() => onGo(id)}>
          {t('ledger.lineOf', { line: position })}
        </button>
      ))}
      {broken.length > mostNamed && <span>…</span>}
    </p>
  );
}

function Sums({ view, onExplain }: Props) {
  const { t, language } = useSpeech();
  const { totals, decimals, currency, tax } = view;
  const amount = (value: string) => money(value, language, decimals);
  const sum = (figure: QuoteFigure, value: string, roomy = false) => (
    <Sum figure={figure} value={value} roomy={roomy} onExplain={onExplain} />
  );
  const recurs = totals.recurring !== '0';
  return (
    <dl className={css.totals} aria-label={t('ledger.totals')}>
      {recurs && (
        <>
          {sum('oneTime', amount(totals.oneTime))}
          {sum('recurring', amount(totals.recurring))}
          {sum('perMonth', amount(totals.perMonth), true)}
          {sum('firstYear', amount(totals.firstYear))}
        </>
      )}
      {sum('list', amount(totals.list))}
      {sum('reduction', amount(textOf(negative(fixed(totals.reduction)))))}
      {totals.cost !== undefined && sum('cost', amount(totals.cost), recurs)}
      {totals.margin !== undefined && sum('margin', percent(totals.margin, language, 1))}
      {tax && (
        <>
          {sum('tax', amount(tax.tax))}
          {sum('gross', amount(tax.gross))}
        </>
      )}
      <Sum figure="net" value={amount(totals.net)} currency={currency} onExplain={onExplain} />
    </dl>
  );
}

/** A sum, which tells how it came about; the one with the currency is what all of it comes to. */
function Sum({
  figure,
  value,
  roomy = false,
  currency,
  onExplain,
}: {
  figure: QuoteFigure;
  value: string;
  /** Shown only where there is room. */
  roomy?: boolean;
  currency?: string;
  onExplain: Props['onExplain'];
}) {
  const { t } = useSpeech();
  const main = currency !== undefined;
  return (
    <div className={classes(css.sum, main && css.mainSum, roomy && css.roomy)}>
      <dt>
        {t(`ledger.figure.${figure}`)}
        {main && ` ${currency}`}
      </dt>
      <dd {...(main ? { 'data-testid': 'net' } : {})}>
        <button
          type="button"
          className={shared.asks}
          onClick={() => onExplain(figure)}
          aria-label={t('ledger.explain', { what: t(`ledger.figure.${figure}`), value })}
        >
          {value}
        </button>
      </dd>
    </div>
  );
}

/** What a dealer adds to the buying price, what all is sold for, and what is earned on it. */
function ResaleFoot({ view, onResale }: Pick<Props, 'view' | 'onResale'>) {
  const { t, language } = useSpeech();
  const { resale, decimals, currency } = view;
  if (!resale) return null;
  const lines = view.lines.filter((line) => !line.optional && !line.alternative);
  const { total, earned, share } = sumResale(
    lines.map(({ price, quantity, resale: own }) => ({
      net: price.net,
      total: resaleOf(price, quantity, resale.share, decimals, own).total,
    })),
  );
  return (
    <div className={css.whole} role="group" aria-label={t('resale.title')}>
      <span className={css.legend}>{t('resale.title')}</span>
      <label className={css.wholeCell}>
        {t('resale.share')}
        <EditCell
          label={t('resale.share')}
          value={number(shift(resale.share, 2), language, 2)}
          disabled={!view.may.edit}
          strong
          check={(typed) => wrongWith(marginPercent, typed, t)}
          onSave={onResale}
        />
      </label>
      <p className={css.resale} data-testid="resale">
        {t('resale.sold', { total: money(total, language, decimals), currency })}{' '}
        <span>
          {t('resale.earned', {
            earned: money(earned, language, decimals),
            share: share === undefined ? '–' : percent(share, language, 1),
          })}
        </span>
      </p>
    </div>
  );
}
