import { useEffect, useMemo, useState } from 'react';
import { termKinds } from '../../core/terms';
import type { TermHistory, TermRowView, TermsView } from '../../contract';
import { date, dateTime } from '../../i18n';
import type { GridColumn } from '../../ui/grid';
import { ask } from '../api';
import { useSpeech } from '../speech';
import { useTermColumns } from './useTermColumns';
import shared from '../parts/side/room-page.module.css';
import css from './terms.module.css';

/** What a row of terms was and will be, and who changed it. */
export function TermAside({ view, row }: { view: TermsView; row: TermRowView }) {
  const { t, language } = useSpeech();
  const { kind } = view;
  const columns = useTermColumns(kind, view.choices);
  const [history, setHistory] = useState<TermHistory | null>(null);
  useEffect(() => {
    let wanted = true;
    void ask('GET /terms/history/{kind}/{id}', { at: { kind, id: row.id } }).then((answer) => {
      if (wanted) setHistory(answer.ok ? answer.value : null);
    });
    return () => {
      wanted = false;
    };
  }, [kind, row.id, row.version]);
  const byId = useMemo(() => new Map(columns.map((column) => [column.id, column])), [columns]);
  const told = (field: string, value: unknown): string => shownBy(byId.get(field), value);
  return (
    <aside className={css.aside} aria-label={t('terms.history')}>
      {termKinds[kind].dated && (
        <section>
          <h2>{t('terms.history')}</h2>
          <ol className={css.past}>
            {history?.rows.map(({ id, from, to, stand, cells }) => (
              <li key={id} data-stand={stand}>
                <span className={shared.quiet}>
                  {from === null ? t('terms.ever') : date(from, language)}
                  {to !== null && ` ${t('terms.until', { to: date(to, language) })}`} ·{' '}
                  {t(`terms.is.${stand}`)}
                </span>
                <span>
                  {termKinds[kind].fields
                    .filter(({ is }) => is !== 'text')
                    .flatMap(({ id: field }) => {
                      const value = cells[field] ?? '';
                      return value === '' ? [] : told(field, value);
                    })
                    .join(' · ')}
                </span>
              </li>
            ))}
          </ol>
        </section>
      )}
      <section>
        <h2>{t('terms.who')}</h2>
        {history?.changes.length === 0 && <p className={shared.quiet}>{t('terms.noHistory')}</p>}
        <ol className={css.past}>
          {history?.changes.map(({ at, by, action, changes }, index) => (
            <li key={index}>
              <span className={shared.quiet}>{t('terms.changedBy', { by, at: dateTime(at, language) })}</span>
              <span>{t(`terms.action.${action.replace('term.', '')}` as 'terms.action.added')}</span>
              {changes.map(({ field, from, to }) => (
                <span key={field}>
                  {byId.get(field)?.title ?? field}: {told(field, JSON.parse(from))} →{' '}
                  {told(field, JSON.parse(to))}
                </span>
              ))}
            </li>
          ))}
        </ol>
      </section>
    </aside>
  );
}

/** A value as its column shows it. */
function shownBy(column: GridColumn | undefined, value: unknown): string {
  if (typeof value !== 'string' || value === '') return '–';
  return column?.shown?.(value) ?? value;
}
