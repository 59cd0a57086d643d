/** The price walk of a line, with how its parts recur, and that of the quote. */
import { notesOn, quoteWalk, sidesOf, type LinePrice, type LineRecurring } from '../../../core/pricing';
import type { LineView, QuoteView } from '../../../contract';
import { date, number, own, percent } from '../../../i18n';
import { useSpeech } from '../../speech';
import { Bridge, type BridgeStep } from '../Bridge';
import { stepName } from '../../parts/step-name';
import css from '../ledger.module.css';
import { LastPrices } from './LastPrices';
import { Rates } from '../grid/Rates';
import { type SideProps } from './side-view';

interface WalkProps {
  title: string;
  view: QuoteView;
  amount: (value: string) => string;
}

/** The price walk of a line. */
export function LineWalk({
  line,
  title,
  view,
  amount,
  onRates,
}: WalkProps & { line: LineView; onRates: SideProps['onRates'] }) {
  const { t } = useSpeech();
  const { price } = line;
  const { subscriptions = [] } = price;
  return (
    <>
      <Tiers price={price} amount={amount} />
      {line.usage && (
        <Rates
          line={line}
          currency={view.currency}
          mayEdit={view.may.agreeRates}
          onChange={(rates) => onRates(line, rates)}
        />
      )}
      <PriceBridge label={title} price={price} amount={amount} />
      <Comes line={line} view={view} amount={amount} />
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

/** How the quantity is priced, tier by tier, and the charge that is due in any case. */
function Tiers({ price, amount }: { price: LinePrice; amount: (value: string) => string }) {
  const { t } = useSpeech();
  const { tiers = [], least } = price;
  if (tiers.length === 0) return null;
  return (
    <table className={css.tiers} aria-label={t('ledger.tiers')}>
      <tbody>
        {tiers.map((tier) => (
          <tr key={tier.from}>
            <td>
              {tier.below === undefined
                ? t('ledger.tierFrom', { from: tier.from })
                : t('ledger.tier', { from: tier.from, below: tier.below })}
            </td>
            <td>{tier.rate === undefined ? tier.quantity : `${tier.quantity} × ${tier.rate}`}</td>
            <td>{amount(tier.amount)}</td>
          </tr>
        ))}
        {least !== undefined && (
          <tr>
            <td colSpan={2}>{t('ledger.least')}</td>
            <td>{amount(least)}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** From the price of one to what the line comes to. */
function Comes({ line, view, amount }: Omit<WalkProps, 'title'> & { line: LineView }) {
  const { t } = useSpeech();
  const { price } = line;
  const { recurring, subscriptions = [] } = price;
  return (
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

/** The price walk of the whole quote. */
export function QuoteWalk({ title, view, amount }: WalkProps) {
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
