import { useEffect, useState } from 'react';
import { X } from 'lucide-react';
import type { EntryHistory, EntryView, ListHead } from '../../contract';
import { date, own } from '../../i18n';
import { Button } from '../../ui';
import { ask } from '../api';
import { useSpeech } from '../speech';
import { entryText } from './entry-words';
import { Tried } from './Tried';
import shared from '../parts/side/room-page.module.css';
import css from './prices.module.css';

interface Props {
  entry: EntryView;
  list: ListHead;
  onClose: () => void;
}

/** An entry tried at quantities, and what it was and will be. */
export function EntryAside({ entry, list, onClose }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const { sku, inside } = entry;
  const [history, setHistory] = useState<EntryHistory | null>(null);
  useEffect(() => {
    let wanted = true;
    void ask('GET /prices/entry', { query: { list: list.code, sku, inside } }).then((answer) => {
      if (wanted && answer.ok) setHistory(answer.value);
    });
    return () => {
      wanted = false;
    };
  }, [list.code, sku, inside]);
  return (
    <aside className={css.aside} aria-label={sku}>
      <header className={css.asideHead}>
        <h2>
          <a href={`/items/${encodeURIComponent(sku)}`} className={css.code}>
            {sku}
          </a>{' '}
          {own(entry.name, language)}
        </h2>
        <Button look="plain" aria-label={t('prices.close')} onClick={onClose}>
          <X size={15} aria-hidden />
        </Button>
      </header>
      {inside !== '' && <p className={shared.quiet}>{t('prices.inside', { bundle: inside })}</p>}
      <section>
        <h3>
          {t('prices.tried')}, {list.currency}
        </h3>
        <Tried entry={entry.now.entry} cost={entry.cost} decimals={list.decimals} />
      </section>
      <section>
        <h3>{t('prices.past')}</h3>
        <ol className={css.past}>
          {history?.rows.map(({ from, to, entry: then, stand, change }) => (
            <li key={from} data-stand={stand}>
              <span className={css.past1}>
                {date(from, language)} · {t(`prices.now.${stand}`)}
                {to !== null && ` · ${t('prices.until', { to: date(to, language) })}`}
              </span>
              <span>{entryText(then, list.decimals, words)}</span>
              <span className={shared.quiet}>
                {change ? (
                  <a href={`/prices/changes/${change.id}`}>
                    {t('prices.by', { name: change.name, by: change.by })}
                  </a>
                ) : (
                  t('prices.ever')
                )}
              </span>
            </li>
          ))}
        </ol>
      </section>
    </aside>
  );
}
