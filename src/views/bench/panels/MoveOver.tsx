import { useState } from 'react';
import type { BenchView, MoveView } from '../../../contract';
import { moneyDifference } from '../../../i18n';
import { exact } from '../../../core/exact';
import { Button, say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import css from '../sheet/sheet.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';

/** A newer version of the model is published: what would change, and the way over to it. */
export function MoveOver({
  view,
  bench,
  words,
  onMoved,
}: {
  view: BenchView;
  bench: Bench;
  words: Words;
  onMoved: () => void;
}) {
  const { t, language } = useSpeech();
  const [seen, setSeen] = useState<MoveView>();
  const { number, newest } = view.modelVersion;
  const look = async () => {
    await bench.settled();
    const answer = await ask('GET /builds/{id}/move', { at: { id: view.build.id } });
    if (answer.ok) setSeen(answer.value);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const move = async () => {
    const now = await ask('GET /builds/{id}', { at: { id: view.build.id } });
    const answer = now.ok
      ? await ask('POST /builds/{id}/move', {
          at: { id: view.build.id },
          input: { version: now.value.build.version },
        })
      : now;
    if (answer.ok) onMoved();
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <section className={css.moveOver} aria-label={t('move.title')}>
      <p>{t('move.newer', { number: String(number), newest: String(newest) })}</p>
      {!seen && <Button onClick={() => void look()}>{t('move.look')}</Button>}
      {seen && (
        <>
          {seen.changes.length === 0 && seen.dropped.length === 0 ? (
            <p>{t('move.nothing')}</p>
          ) : (
            <ul>
              {seen.changes.map((each) => (
                <li key={each.row}>
                  {words.row(each.row)}: {words.value(each.row, each.after)}{' '}
                  <span className={shared.quiet}>
                    {t('bench.was')} {words.value(each.row, each.before)}
                  </span>
                </li>
              ))}
              {seen.dropped.map((on) => (
                <li key={on}>{t('move.dropped', { what: words.subject(on) })}</li>
              ))}
            </ul>
          )}
          <p>
            {t('move.list', {
              difference: moneyDifference(
                exact(seen.list.after)
                  .minus(seen.list.before)
                  .toDecimalPlaces(view.tariff.decimals)
                  .toString(),
                language,
                view.tariff.decimals,
              ),
            })}
            {seen.clashes > 0 ? ` ${t('move.clashes', { count: seen.clashes })}` : ''}
          </p>
          <Button look="main" onClick={() => void move()}>
            {t('move.go', { newest: String(newest) })}
          </Button>
        </>
      )}
    </section>
  );
}
