import type { ShelvedView } from '../../../contract';
import { dateTime } from '../../../i18n';
import { useSpeech } from '../../speech';
import { MakeAnew } from './MakeAnew';
import css from './sent.module.css';

interface Props {
  shelf: readonly ShelvedView[];
  onMade: () => void;
}

/** What was made, as it was; what is of something that moved on since says so, and is made anew where it can be. */
export function Shelf({ shelf, onMade }: Props) {
  const { t, language } = useSpeech();
  if (shelf.length === 0) return null;
  return (
    <section aria-label={t('sent.shelf')}>
      <h3>{t('sent.shelf')}</h3>
      <ul className={css.list}>
        {shelf.map((row) => (
          <li key={row.id}>
            <a href={`/api/shelf/${row.id}`}>{row.name}</a>
            {row.movedOn && <MakeAnew row={row} onMade={onMade} />}
            <span className={css.under}>
              {row.quote?.revision != null && `${t('revision.one', { number: row.quote.revision })} · `}
              {dateTime(row.madeAt, language)} · {row.madeBy} ·{' '}
              <code title={row.hash}>{row.hash.slice(0, 12)}</code>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
