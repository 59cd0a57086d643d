import type { LastPrice, LineView, QuoteView } from '../../../contract';
import { date, moneyIn } from '../../../i18n';
import { ask } from '../../api';
import { useAnswer } from '../../parts/useAnswer';
import figures from '../../parts/figures.module.css';
import { useSpeech } from '../../speech';
import css from './deal.module.css';

/** What the customer was offered for the same item before, and what became of it. */
export function LastPrices({ view, line }: { view: QuoteView; line: LineView }) {
  const { t, language } = useSpeech();
  const { answer } = useAnswer<LastPrice[]>([view.id, line.id].join(), () =>
    ask('GET /quotes/{id}/lines/{line}/last', { at: { id: view.id, line: line.id } }),
  );
  if (!answer?.ok) return null;
  const last = answer.value;
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
