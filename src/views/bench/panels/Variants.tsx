import { useState } from 'react';
import { Trash2 } from 'lucide-react';
import type { BenchView, VariantView } from '../../../contract';
import { exact } from '../../../core/exact';
import { money, moneyDifference } from '../../../i18n';
import { Button, classes, say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useAnswer } from '../../parts/useAnswer';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import css from './variants.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';

interface Props {
  bench: Bench;
  view: BenchView;
  words: Words;
  frozen: boolean;
  onOpen: (variant: string) => void;
}

/**
 * The variants of this talk next to each other: what differs, what each costs and weighs, and the way of one
 * or several onto the quote.
 */
export function Variants({ bench, view, words, frozen, onOpen }: Props) {
  const { t, language } = useSpeech();
  const { settled } = bench;
  // Read again once what was decided is saved; what was read last is shown until then.
  const [asked, setAsked] = useState<unknown>(null);
  if (bench.save === 'saved' && asked !== bench.content) setAsked(bench.content);
  const { last, again } = useAnswer<VariantView[]>(asked, async () => {
    await settled();
    return ask('GET /builds/{id}/variants', { at: { id: view.build.id } });
  });
  const variants = last?.ok ? last.value : [];
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set([view.build.id]));
  const [alternatives, setAlternatives] = useState(false);
  const { decimals, currency } = view.tariff;
  const base = variants.find((each) => each.id === view.build.id) ?? variants[0];
  const rows = view.outline.sections.flatMap((section) => section.rows);
  const valueIn = (variant: VariantView, row: string) =>
    variant.shown.includes(row) ? words.value(row, variant.values[row]) : '–';
  const differing = rows.filter((row) => new Set(variants.map((each) => valueIn(each, row))).size > 1);
  const send = async () => {
    const quoteId = view.quote?.id;
    if (quoteId === undefined) return;
    const now = await ask('GET /quotes/{id}', { at: { id: quoteId } });
    const builds = variants
      .filter((each) => chosen.has(each.id) && each.line === undefined)
      .map((each) => each.id);
    const answer = now.ok
      ? await ask('POST /quotes/{id}/variants', {
          at: { id: quoteId },
          input: {
            version: now.value.version,
            builds,
            alternatives,
          },
        })
      : now;
    if (answer.ok) window.location.assign(`/quotes/${quoteId}`);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const remove = async (variant: VariantView) => {
    const answer = await ask('DELETE /builds/{id}', { at: { id: variant.id } });
    if (!answer.ok) {
      say(sentences(answer.failures, t('request.failed')), true);
      return;
    }
    const other = variants.find((each) => each.id !== variant.id);
    if (other) onOpen(variant.id === view.build.id ? other.id : view.build.id);
    await again();
  };
  if (!base) return <p className={shared.note}>{t('variant.reading')}</p>;
  if (variants.length === 1) return <p className={shared.note}>{t('variant.only')}</p>;
  const ready = variants.filter((each) => chosen.has(each.id) && each.complete && each.line === undefined);
  return (
    <div className={css.variants}>
      <table className={classes(shared.table, css.table)}>
        <thead>
          <tr>
            <th scope="col">{t('variant.differs', { count: differing.length })}</th>
            {variants.map((each) => (
              <th
                key={each.id}
                scope="col"
                className={classes(css.letter, each.id === view.build.id && css.here)}
              >
                {!frozen && each.line === undefined && (
                  <input
                    type="checkbox"
                    aria-label={t('variant.choose', { letter: each.letter })}
                    checked={chosen.has(each.id)}
                    disabled={!each.complete}
                    onChange={() =>
                      setChosen(
                        chosen.has(each.id)
                          ? new Set([...chosen].filter((id) => id !== each.id))
                          : new Set([...chosen, each.id]),
                      )
                    }
                  />
                )}
                <button
                  type="button"
                  className={css.open}
                  onClick={() => {
                    if (each.id !== view.build.id) onOpen(each.id);
                  }}
                >
                  {each.letter}
                </button>
                {!frozen && each.line === undefined && (
                  <Button
                    look="plain"
                    aria-label={t('variant.remove', { letter: each.letter })}
                    title={t('variant.remove', { letter: each.letter })}
                    onClick={() => void remove(each)}
                  >
                    <Trash2 size={12} aria-hidden />
                  </Button>
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {differing.map((row) => (
            <tr key={row}>
              <th scope="row">{words.row(row)}</th>
              {variants.map((each) => (
                <td key={each.id}>{valueIn(each, row)}</td>
              ))}
            </tr>
          ))}
          <tr className={css.sum}>
            <th scope="row">
              {t('bench.net')} {currency}
            </th>
            {variants.map((each) => (
              <td key={each.id}>
                <span className={shared.code}>{money(each.unitNet, language, decimals)}</span>{' '}
                {each.id !== base.id && (
                  <span className={shared.quiet}>
                    {moneyDifference(exact(each.unitNet).minus(base.unitNet).toString(), language, decimals)}
                  </span>
                )}
              </td>
            ))}
          </tr>
          <tr>
            <th scope="row">{t('bench.lead')}</th>
            {variants.map((each) => (
              <td key={each.id}>
                {each.leadDays === null ? '·' : t('bench.days', { count: each.leadDays })}
              </td>
            ))}
          </tr>
          {base.figures.map(({ id }) => {
            const calculation = view.outline.calculations.find((each) => each.id === id);
            const written = (variant: VariantView) => {
              const value = variant.figures.find((each) => each.id === id)?.value ?? null;
              return value === null
                ? '·'
                : calculation?.type === 'number'
                  ? words.figure(value, calculation.unit ?? '', calculation.decimals ?? 2)
                  : value;
            };
            return new Set(variants.map(written)).size > 1 ? (
              <tr key={id}>
                <th scope="row">{words.row(id)}</th>
                {variants.map((each) => (
                  <td key={each.id}>{written(each)}</td>
                ))}
              </tr>
            ) : null;
          })}
          <tr>
            <th scope="row">{t('work.partNumber')}</th>
            {variants.map((each) => (
              <td key={each.id} className={shared.code}>
                {each.partNumber}
                {each.line === undefined ? (
                  ''
                ) : (
                  <span className={shared.quiet}> {t('variant.onLine', { line: each.line })}</span>
                )}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {!frozen && view.quote && (
        <div className={css.acts}>
          <Button look="main" disabled={ready.length === 0} onClick={() => void send()}>
            {t('variant.send', { letters: ready.map((each) => each.letter).join(', ') || '–' })}
          </Button>
          <label>
            <input
              type="checkbox"
              checked={alternatives}
              disabled={
                ready.length === 0 ||
                ready.length + variants.filter((each) => each.line !== undefined).length < 2
              }
              onChange={(event) => setAlternatives(event.target.checked)}
            />{' '}
            {t('variant.alternatives')}
          </label>
        </div>
      )}
    </div>
  );
}
