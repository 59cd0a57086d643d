import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Maximize2, Minimize2 } from 'lucide-react';
import {
  explain,
  notesOn,
  quoteWalk,
  sidesOf,
  type ExplainedLine,
  type Figure,
  type LinePrice,
  type LineRecurring,
  type PricedQuote,
} from '../../core/pricing';
import type { LeaseInput, LineView, QuoteView, RatesInput } from '../../core/quoting';
import { date, money, number, own, percent } from '../../i18n';
import { Button, classes } from '../../ui';
import { useSpeech } from '../speech';
import { Bridge, type BridgeStep } from './Bridge';
import { stepName } from '../parts/step-name';
import { Deal } from './Deal';
import { Explained } from './Explained';
import css from './ledger.module.css';
import { LastPrices } from './LastPrices';
import { Rates } from './Rates';
import { Revisions } from './Revisions';
import { SignOff, type SignOffActs } from './SignOff';

/**
 * What the side pane shows: the walk of a line or of the quote, and how figures came about, the last asked
 * last; sign-off, or all revisions.
 */
export interface SideView {
  is: 'walk' | 'signOff' | 'revisions' | 'deal';
  line?: string | undefined;
  asked: readonly Figure[];
}

interface Props {
  view: QuoteView;
  side: SideView;
  onChange: (side: SideView | undefined) => void;
  signing: SignOffActs;
  onLease: (lease: LeaseInput | null) => Promise<string | null>;
  onRates: (line: LineView, rates: RatesInput | null) => Promise<string | null>;
}

const shares = new Set(['margin', 'markUp']);

export function Side({ view, side, onChange, signing, onLease, onRates }: Props) {
  const { t, language } = useSpeech();
  const { decimals } = view;
  const amount = (value: string) => money(value, language, decimals);
  const [lines, priced] = useMemo(
    (): [ExplainedLine[], PricedQuote] => [
      view.lines.map(({ id, quantity, alternative, optional }) => ({
        id,
        counts: !alternative && !optional,
        terms: { quantity },
      })),
      {
        lines: view.lines.map(({ id, price }) => ({ id, price, problems: [] })),
        totals: view.totals,
        whole: view.whole.comes,
        ...(view.tax ? { tax: view.tax } : {}),
      },
    ],
    [view],
  );
  const nameOf = (figure: Figure): string => {
    if (figure.of === 'quote') return t(`ledger.figure.${figure.what}`);
    const position = view.lines.find((each) => each.id === figure.line)?.position ?? 0;
    const period =
      figure.period === undefined
        ? undefined
        : view.lines.find((each) => each.id === figure.line)?.price.subscriptions?.[figure.period]?.recurring;
    if (period)
      return t('ledger.figureOfTerm', {
        what: t(`ledger.figure.${figure.what}`),
        line: position,
        base: period.baseMonths,
      });
    return t('ledger.figureOf', { what: t(`ledger.figure.${figure.what}`), line: position });
  };
  const [wide, setWide] = useState(false);
  const pane = useKeyboardIn(side.is);
  const asked = side.asked[side.asked.length - 1];
  // The walk beside a figure is that of its line.
  const of = asked?.of === 'line' ? asked.line : side.line;
  const line = view.lines.find((each) => each.id === of);
  const explanation = asked && explain(lines, priced, decimals, asked);
  const title =
    side.is === 'signOff'
      ? t('signOff.title')
      : side.is === 'revisions'
        ? t('revision.title')
        : side.is === 'deal'
          ? t('deal.title')
          : line
            ? t('ledger.walkOf', { line: line.position })
            : t('ledger.walkAll');
  return (
    <aside
      ref={pane}
      className={classes(css.side, wide && css.wide)}
      tabIndex={0}
      aria-label={title}
      onKeyDown={(event) => {
        if (
          event.key === 'Escape' &&
          !event.defaultPrevented &&
          !(event.target as HTMLElement).matches('input, textarea')
        )
          onChange(undefined);
      }}
    >
      <div className={css.sideHead}>
        <h2>{title}</h2>
        <Button
          look="plain"
          aria-pressed={wide}
          title={t(wide ? 'ledger.narrower' : 'ledger.wider')}
          aria-label={t(wide ? 'ledger.narrower' : 'ledger.wider')}
          onClick={() => setWide(!wide)}
        >
          {wide ? <Minimize2 size={14} aria-hidden /> : <Maximize2 size={14} aria-hidden />}
        </Button>
        <Button look="plain" onClick={() => onChange(undefined)}>
          {t('bench.close')}
        </Button>
      </div>
      {side.is === 'signOff' ? (
        <SignOff view={view} {...signing} />
      ) : side.is === 'revisions' ? (
        <Revisions view={view} />
      ) : side.is === 'deal' ? (
        <Deal view={view} onLease={onLease} />
      ) : line ? (
        <LineWalk line={line} title={title} view={view} amount={amount} onRates={onRates} />
      ) : (
        <QuoteWalk title={title} view={view} amount={amount} />
      )}
      {explanation && (
        <Explained
          explanation={explanation}
          nameOf={nameOf}
          decimals={decimals}
          shown={(value, figure) => (shares.has(figure.what) ? percent(value, language, 2) : amount(value))}
          onAsk={(figure) => onChange({ ...side, asked: [...side.asked, figure] })}
          onBack={
            side.asked.length > 1 ? () => onChange({ ...side, asked: side.asked.slice(0, -1) }) : undefined
          }
        />
      )}
    </aside>
  );
}

/**
 * A pane that opens has the keyboard, where there is something to write in its first field; it keeps it where
 * what had it is gone, and closed, gives it back.
 */
function useKeyboardIn(shows: SideView['is']) {
  const pane = useRef<HTMLElement>(null);
  const from = useRef<Element | null>(null);
  useEffect(() => {
    const aside = pane.current;
    if (!aside) return;
    if (!aside.contains(document.activeElement)) from.current = document.activeElement;
    (shows === 'signOff'
      ? (aside.querySelector<HTMLElement>('textarea, table input') ?? aside)
      : aside
    ).focus({ preventScroll: true });
  }, [shows]);
  const within = useRef(false);
  useEffect(() => {
    if (within.current && document.activeElement === document.body)
      pane.current?.focus({ preventScroll: true });
    within.current = pane.current?.contains(document.activeElement) ?? false;
  });
  // As it goes: a moment later neither the pane nor the keyboard in it is there any more.
  useLayoutEffect(
    () => () => {
      if (pane.current?.contains(document.activeElement) && from.current instanceof HTMLElement)
        from.current.focus({ preventScroll: true });
    },
    [],
  );
  return pane;
}

interface WalkProps {
  title: string;
  view: QuoteView;
  amount: (value: string) => string;
}

function LineWalk({
  line,
  title,
  view,
  amount,
  onRates,
}: WalkProps & { line: LineView; onRates: Props['onRates'] }) {
  const { t } = useSpeech();
  const { price } = line;
  const { recurring, subscriptions = [] } = price;
  return (
    <>
      {(price.stretches ?? []).length > 0 && (
        <table className={css.stretches} aria-label={t('ledger.stretches')}>
          <tbody>
            {price.stretches?.map((stretch) => (
              <tr key={stretch.from}>
                <td>
                  {stretch.below === undefined
                    ? t('ledger.stretchFrom', { from: stretch.from })
                    : t('ledger.stretch', { from: stretch.from, below: stretch.below })}
                </td>
                <td>
                  {stretch.rate === undefined ? stretch.quantity : `${stretch.quantity} × ${stretch.rate}`}
                </td>
                <td>{amount(stretch.amount)}</td>
              </tr>
            ))}
            {price.least !== undefined && (
              <tr>
                <td colSpan={2}>{t('ledger.least')}</td>
                <td>{amount(price.least)}</td>
              </tr>
            )}
          </tbody>
        </table>
      )}
      {line.usage && (
        <Rates
          line={line}
          currency={view.currency}
          mayEdit={view.may.agreeRates}
          onChange={(rates) => onRates(line, rates)}
        />
      )}
      <PriceBridge label={title} price={price} amount={amount} />
      <p className={css.sideNote}>
        {price.per !== 'line' && <span>{t('walk.times', { quantity: line.quantity })}</span>}
        {price.once && <span>{t('ledger.plusOnce', { net: amount(price.once.net) })}</span>}
        {subscriptions.length > 0 && (
          <span>{t('ledger.oneTime', { net: amount(sidesOf(price)[0]?.net ?? price.net) })}</span>
        )}
        {recurring && (
          <span>
            {t('ledger.overTerm', {
              months: recurring.months,
              days: recurring.days > 0 ? t('ledger.termDays', { count: recurring.days }) : '',
              base: recurring.baseMonths,
            })}
          </span>
        )}
        {price.share !== undefined && <span>{t('ledger.lessShare', { amount: amount(price.share) })}</span>}
        <b>
          {t('walk.total')} {amount(price.net)} {view.currency}
        </b>
        {recurring && (
          <span>
            {t('ledger.monthly', { month: amount(recurring.perMonth), year: amount(recurring.firstYear) })}
          </span>
        )}
      </p>
      {notesOn(price, line.method).map((note) => (
        <p key={note} className={css.sideNote}>
          <span>{t(`walk.note.${note}`)}</span>
        </p>
      ))}
      {subscriptions.map(
        (each, index) =>
          each.recurring && (
            <Subscription
              key={index}
              price={each}
              recurring={each.recurring}
              quantity={line.quantity}
              amount={amount}
            />
          ),
      )}
      <LastPrices view={view} line={line} />
    </>
  );
}

/** What recurs inside a build, walked by itself. */
function Subscription({
  price,
  recurring,
  quantity,
  amount,
}: {
  price: LinePrice;
  recurring: LineRecurring;
  quantity: number;
  amount: (value: string) => string;
}) {
  const { t, language } = useSpeech();
  const title = t('walk.recurs', { from: date(recurring.from, language), to: date(recurring.to, language) });
  return (
    <section
      className={css.recurs}
      aria-label={`${title}, ${t('walk.forMonths', { count: recurring.baseMonths })}`}
    >
      <h3>
        {title} <span>{t('walk.forMonths', { count: recurring.baseMonths })}</span>
      </h3>
      <PriceBridge label={title} price={price} amount={amount} />
      <p className={css.sideNote}>
        <span>{t('walk.times', { quantity })}</span>
        {price.once && <span>{t('ledger.plusOnce', { net: amount(price.once.net) })}</span>}
        <span>
          {t('ledger.overTerm', {
            months: recurring.months,
            days: recurring.days > 0 ? t('ledger.termDays', { count: recurring.days }) : '',
            base: recurring.baseMonths,
          })}
        </span>
        {price.share !== undefined && <span>{t('ledger.lessShare', { amount: amount(price.share) })}</span>}
        <b>
          {t('walk.overTerm')} {amount(price.net)}
        </b>
        <span>
          {t('ledger.monthly', { month: amount(recurring.perMonth), year: amount(recurring.firstYear) })}
        </span>
      </p>
    </section>
  );
}

function PriceBridge({
  label,
  price,
  amount,
}: {
  label: string;
  price: LinePrice;
  amount: (value: string) => string;
}) {
  const { t, language } = useSpeech();
  const why = (step: LinePrice['steps'][number]): string =>
    [
      ...(step.rate ? [percent(step.rate, language)] : []),
      ...(step.lost ?? []).map((other) =>
        t(`walk.lost.${other.why}`, { name: own(other.name, language), off: amount(other.off) }),
      ),
    ].join(' · ');
  const steps = price.steps.map((step, index): BridgeStep => ({
    key: `${step.kind}${String(index)}`,
    name: stepName(step, t, language),
    note: why(step) || undefined,
    amount: step.amount,
    total: step.total,
  }));
  return (
    <Bridge
      label={label}
      steps={steps}
      shown={(value, key) => (key.startsWith('rounding') ? number(value, language, 8) : amount(value))}
      net={{ name: t(price.per === 'line' ? 'ledger.netForAll' : 'walk.net'), amount: price.unitNet }}
      cost={price.unitCost === undefined ? undefined : { name: t('walk.cost'), amount: price.unitCost }}
    />
  );
}

function QuoteWalk({ title, view, amount }: WalkProps) {
  const { t } = useSpeech();
  const steps = quoteWalk(view.lines.filter((line) => !line.alternative && !line.optional)).map(
    (step): BridgeStep => ({
      key: step.kind,
      name: t(`walk.${step.kind}`),
      amount: step.amount,
      total: step.total,
    }),
  );
  return (
    <Bridge
      label={title}
      steps={steps}
      shown={amount}
      net={{ name: t('walk.net'), amount: view.totals.net }}
      cost={view.totals.cost === undefined ? undefined : { name: t('walk.cost'), amount: view.totals.cost }}
    />
  );
}
