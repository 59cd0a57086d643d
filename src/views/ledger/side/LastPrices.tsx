import { useEffect, useState } from 'react';
import type { LastPrice, LineView, QuoteView } from '../../../contract';
import { date, moneyIn } from '../../../i18n';
import { ask } from '../../api';
import figures from '../../parts/figures.module.css';
import { useSpeech } from '../../speech';
import css from './deal.module.css';

/** What the customer was offered for the same item before, and what became of it. */
export function LastPrices({ view, line }: { view: QuoteView; line: LineView }) {
  const { t, language } = useSpeech();
  const [last, setLast] = useState<LastPrice[]>();
  useEffect(() => {
    let current = true;
    setLast(undefined);
    void ask('GET /quotes/{id}/lines/{line}/last', { at: { id: view.id, line: line.id } }).then((answer) => {
      if (current && answer.ok) setLast(answer.value);
    });
    return () => {
      current = false;
    };
  }, [view.id, line.id]);
  if (!last) return null;
  return (
    <section className={css.last} aria-label={t('last.title')}>
      <h3>{t('last.title')}</h3>
      {last.length === 0 ? (
        <p className={css.quiet}>{t('last.none', { customer: view.customer.name })}</p>
      ) : (
        <table className={figures.figures}>
          <tbody>
            {last.map((each) => (
              <tr key={`${each.quoteId}${String(each.revision)}`}>
                <td>
                  <a href={`/quotes/${each.quoteId}?revision=${String(each.revision)}`}>{each.number}</a>{' '}
                  {date(each.on.slice(0, 10), language)}
                  <span className={css.under}>
                    {t('last.how', { state: t(`state.${each.state}`), quantity: each.quantity })}
                  </span>
                </td>
                <td>{moneyIn(each.unitNet, each.currency, language, each.decimals)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
