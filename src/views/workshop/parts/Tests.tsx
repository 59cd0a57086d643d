import { Play, Trash2 } from 'lucide-react';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

/** Kept try-outs with what is expected of them, run at each edit. */
export function Tests({ draft }: { draft: Draft }) {
  const { t } = useSpeech();
  const { document, session } = draft;
  const tests = document.tests ?? [];
  const results = new Map(draft.tests.map((each) => [each.id, each]));
  if (tests.length === 0) return <p className={css.empty}>{t('draft.test.none')}</p>;
  return (
    <ul className={css.cards} aria-label={t('draft.part.tests')}>
      {tests.map(({ id, decisions, expect }) => {
        const result = results.get(id);
        const red = (result?.failures.length ?? 0) > 0;
        return (
          <li key={id} className={css.card} data-bad={red || undefined}>
            <div className={css.cardHead}>
              <span className={css.code}>{id}</span>
              {result && (
                <span className={css.verdict}>{red ? t('draft.test.red') : t('draft.test.green')}</span>
              )}
              <span className={css.quiet}>
                {t('draft.test.decisions', { count: Object.keys(decisions).length })}
                {expect.partNumber === undefined ? '' : ` · ${expect.partNumber}`}
              </span>
              <span className={css.push} />
              <Button
                look="plain"
                aria-label={`${t('draft.test.see')}: ${id}`}
                title={t('draft.test.see')}
                onClick={() => {
                  session.begin();
                  for (const [on, value] of Object.entries(decisions)) session.decide(on, value);
                }}
              >
                <Play size={14} aria-hidden />
              </Button>
              <Button
                look="plain"
                aria-label={t('draft.test.remove', { id })}
                onClick={() => session.edit({ do: 'remove', at: ['tests', id] })}
              >
                <Trash2 size={14} aria-hidden />
              </Button>
            </div>
            {red && (
              <ul className={css.failures}>
                {result?.failures.map(({ at, expected, found }) => (
                  <li key={at}>
                    {t('draft.test.found', {
                      at,
                      expected: JSON.stringify(expected),
                      found: JSON.stringify(found),
                    })}
                  </li>
                ))}
              </ul>
            )}
          </li>
        );
      })}
    </ul>
  );
}
