import type { ReactNode } from 'react';
import type { LinePrice } from '../../core/pricing';
import { date, money, number, percent } from '../../i18n';
import { useSpeech } from '../speech';
import { stepName } from './step-name';
import css from './walk.module.css';

interface Props {
  price: LinePrice;
  quantity: number;
  currency: string;
  decimals: number;
}

/** From list price to net, step by step, each with its reason; what recurs after what is due once. */
export function Walk({ price, quantity, currency, decimals }: Props) {
  const { t, language } = useSpeech();
  const amount = (value: string) => money(value, language, decimals);
  const { subscriptions = [] } = price;
  return (
    <table className={css.walk}>
      <caption className={css.quiet} style={{ textAlign: 'right' }}>
        {currency}
      </caption>
      <tbody>
        <Steps price={price} decimals={decimals} />
        {subscriptions.map(
          ({ recurring, ...own }, index) =>
            recurring && (
              <Subscription
                key={index}
                heading={t('walk.recurs', {
                  from: date(recurring.from, language),
                  to: date(recurring.to, language),
                })}
                total={
                  <>
                    <td>
                      {t('walk.overTerm')} <span className={css.rate}>{t('walk.times', { quantity })}</span>
                    </td>
                    <td>{amount(own.net)}</td>
                  </>
                }
              >
                <Steps price={{ ...own, recurring }} decimals={decimals} />
              </Subscription>
            ),
        )}
        {(quantity !== 1 || price.once || subscriptions.length > 0) && (
          <tr className={css.net}>
            <td>
              {t('walk.total')} <span className={css.rate}>{t('walk.times', { quantity })}</span>
            </td>
            <td>{amount(price.net)}</td>
          </tr>
        )}
        {price.cost !== undefined && (
          <tr>
            <td>{t('walk.cost')}</td>
            <td>{amount(price.cost)}</td>
          </tr>
        )}
        {price.margin !== undefined && (
          <tr>
            <td>{t('walk.margin')}</td>
            <td>{percent(price.margin, language, 1)}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** The steps of a price, and what they come to. */
function Steps({ price, decimals }: Pick<Props, 'price' | 'decimals'>) {
  const { t, language } = useSpeech();
  const amount = (value: string) => money(value, language, decimals);
  return (
    <>
      {price.steps.map((step, index) => (
        <tr key={`${step.kind}${String(index)}`}>
          <td>
            {stepName(step, t, language)}{' '}
            {step.rate && <span className={css.rate}>{percent(step.rate, language)}</span>}
          </td>
          <td>{step.kind === 'rounding' ? number(step.amount, language, 6) : amount(step.amount)}</td>
        </tr>
      ))}
      <tr className={css.net}>
        <td>
          {t('walk.net')}
          {price.recurring && (
            <>
              {' '}
              <span className={css.rate}>{t('walk.forMonths', { count: price.recurring.baseMonths })}</span>
            </>
          )}
        </td>
        <td>{amount(price.unitNet)}</td>
      </tr>
      {price.once && (
        <tr className={css.net}>
          <td>{t('walk.once')}</td>
          <td>{amount(price.once.net)}</td>
        </tr>
      )}
    </>
  );
}

function Subscription({
  heading,
  total,
  children,
}: {
  heading: string;
  total: ReactNode;
  children: ReactNode;
}) {
  return (
    <>
      <tr>
        <th colSpan={2} scope="rowgroup" className={css.heading}>
          {heading}
        </th>
      </tr>
      {children}
      <tr className={css.net}>{total}</tr>
    </>
  );
}
