import type { ItemUse, ItemView, KeptChange } from '../../contract';
import { date, money, own } from '../../i18n';
import { useSpeech } from '../speech';
import css from './item.module.css';

/** What an item lists at today, where it is used, and who changed it. */
export function ItemAside({ view }: { view: ItemView }) {
  const { t } = useSpeech();
  return (
    <aside className={css.aside} aria-label={t('items.about')}>
      <Prices prices={view.prices} />
      <Uses uses={view.uses} />
      <History history={view.history} />
    </aside>
  );
}

function Prices({ prices }: Pick<ItemView, 'prices'>) {
  const { t, language } = useSpeech();
  return (
    <section>
      <h2>{t('items.prices')}</h2>
      {prices.length === 0 ? (
        <p className={css.quiet}>{t('items.noPrices')}</p>
      ) : (
        <table className={css.prices}>
          <thead>
            <tr>
              <th scope="col">{t('items.list')}</th>
              <th scope="col">{t('items.price')}</th>
              <th scope="col">{t('items.cost')}</th>
            </tr>
          </thead>
          <tbody>
            {prices.map(({ list, name, currency, decimals, method, price, cost }) => (
              <tr key={list}>
                <th scope="row">{own(name, language)}</th>
                <td>
                  {price === null
                    ? t(`items.method.${method}` as 'items.method.unit')
                    : `${money(price, language, decimals)} ${currency}`}
                </td>
                <td>{money(cost, language, decimals)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Uses({ uses }: { uses: readonly ItemUse[] }) {
  const { t, language } = useSpeech();
  return (
    <section>
      <h2>{t('items.uses')}</h2>
      {uses.length === 0 && <p className={css.quiet}>{t('items.noUses')}</p>}
      <ul className={css.uses}>
        {uses.map(({ is, name, path, count }, at) => (
          <li key={at}>
            <span className={css.quiet}>{t(`items.use.${is}`)}</span>{' '}
            {path === '' ? own(name, language) : <a href={path}>{own(name, language)}</a>}
            {count > 1 && <span className={css.quiet}> × {count}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A value of the history in a few words. */
function shortly(text: string, none: string): string {
  const value = JSON.parse(text) as unknown;
  if (value === null || value === '') return none;
  const plain =
    typeof value === 'object'
      ? Object.values(value)
          .filter((each) => typeof each === 'string')
          .join(' / ')
      : '';
  const shown = plain === '' ? (typeof value === 'string' ? value : text) : plain;
  return shown.length > 60 ? `${shown.slice(0, 59)}…` : shown;
}

function History({ history }: { history: readonly KeptChange[] }) {
  const { t, language } = useSpeech();
  return (
    <section>
      <h2>{t('items.history')}</h2>
      {history.length === 0 && <p className={css.quiet}>{t('items.noHistory')}</p>}
      <ol className={css.history}>
        {history.map(({ at, by, action, changes }) => (
          <li key={at}>
            <span className={css.quiet}>
              {date(at.slice(0, 10), language)} · {by}
            </span>
            {action === 'item.added' ? (
              <span>{t('items.added')}</span>
            ) : (
              changes.map(({ field, from, to }) => (
                <span key={field}>
                  {t(`items.field.${field}` as 'items.field.cost')}: {shortly(from, '–')} → {shortly(to, '–')}
                </span>
              ))
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
