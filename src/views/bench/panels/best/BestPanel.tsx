import { useMemo, useState } from 'react';
import { seenRows } from '../../../../core/builds';
import { type BenchView } from '../../../../contract';
import { Button, classes } from '../../../../ui';
import { useSpeech } from '../../../speech';
import shared from '../../bench.module.css';
import type { Bench } from '../../session/useBench';
import type { Words } from '../../words';
import { BestAsked, mostWeight } from './BestAsked';
import { BestFound } from './BestFound';
import css from './best.module.css';
import { useBest } from './useBest';
import { plain, settingOf, wishOf, wrongBound, type Measured, type Setting, type Settings } from './wish';

interface Props {
  bench: Bench;
  view: BenchView;
  words: Words;
  frozen: boolean;
}

/**
 * The best complete build that keeps what is decided, and what is there by itself but for the rows set free:
 * what counts how much, what must hold, what it would change, and how much better another could be.
 */
export function BestPanel({ bench, view, words, frozen }: Props) {
  const { t, language } = useSpeech();
  const [settings, setSettings] = useState<Settings>({ price: { ...plain, weight: mostWeight } });
  const [free, setFree] = useState<ReadonlySet<string>>(new Set());
  const search = useBest(bench, view);
  const { best, said, running } = search;
  const measures = useMeasures(bench, view, words);
  const set = (id: string, change: Partial<Setting>) =>
    setSettings((before) => ({ ...before, [id]: { ...settingOf(before, id), ...change } }));
  const problem = measures
    .flatMap(({ id }) => [settingOf(settings, id).least, settingOf(settings, id).most])
    .map((text) => wrongBound(text, language, t))
    .find((each) => each !== undefined);
  const wantsNothing = measures.every(({ id }) => settingOf(settings, id).weight === 0);
  const take = () => {
    search.stop();
    if (best) void bench.takeWhole(best.decisions).then(search.forget);
  };
  return (
    <div className={css.best}>
      <BestAsked measures={measures} settings={settings} problem={problem} onSet={set} />
      <FreeRows bench={bench} view={view} words={words} free={free} onFree={setFree} />
      <div className={css.answer} role="status" aria-label={t('bench.best')}>
        <p>{t('best.keeps')}</p>
        <div className={css.acts}>
          {running ? (
            <Button onClick={search.stop}>{t('best.stop')}</Button>
          ) : (
            <Button
              look="main"
              disabled={frozen || problem !== undefined || wantsNothing}
              onClick={() => search.look(wishOf(measures, settings, free, language))}
            >
              {t('best.look')}
            </Button>
          )}
          {best && (
            <Button disabled={frozen} onClick={take}>
              {t('best.take')}
            </Button>
          )}
        </div>
        {running && !best && <p className={shared.quiet}>{t('best.looking')}</p>}
        {said && <p>{said}</p>}
        {best?.judged && (
          <BestFound
            {...{ best, running, measures, settings, words }}
            judged={best.judged}
            picture={bench.picture}
            tariff={view.tariff}
          />
        )}
      </div>
    </div>
  );
}

/** What a build can be judged by: price, lead time where it is told, and calculations, those on show first. */
function useMeasures({ picture }: Bench, { outline, tariff, may }: BenchView, words: Words): Measured[] {
  const { t } = useSpeech();
  const shown = new Set(picture.figures.map(({ id }) => id));
  const calculations = outline.calculations
    .filter(({ type }) => type === 'number')
    .sort((a, b) => Number(shown.has(b.id)) - Number(shown.has(a.id)));
  const lead = picture.leadDays === null ? undefined : String(picture.leadDays);
  return [
    {
      id: 'price',
      name: t('bench.list'),
      unit: tariff.currency,
      decimals: tariff.decimals,
      now: picture.price.list,
    },
    ...(may.making
      ? [{ id: 'lead', name: t('bench.lead'), unit: t('best.days'), decimals: 0, now: lead }]
      : []),
    ...calculations.map((each): Measured => ({
      id: each.id,
      name: words.row(each.id),
      unit: each.unit ?? '',
      decimals: each.decimals ?? 2,
      now: picture.calculated[each.id],
    })),
  ];
}

/** Rows that have a value by themselves, by section: those set free may become another. */
function FreeRows({
  bench: { picture },
  view: { outline },
  words,
  free,
  onFree,
}: Pick<Props, 'bench' | 'view' | 'words'> & {
  free: ReadonlySet<string>;
  onFree: (free: ReadonlySet<string>) => void;
}) {
  const { t } = useSpeech();
  const seen = useMemo(() => {
    const rows = new Set(seenRows(picture.state));
    return outline.sections
      .map((section) => ({ section, rows: section.rows.filter((row) => rows.has(row)) }))
      .filter(({ rows }) => rows.length > 0);
  }, [outline, picture.state]);
  const toggle = (rows: readonly string[]) => {
    const all = rows.every((row) => free.has(row));
    onFree(new Set(all ? [...free].filter((row) => !rows.includes(row)) : [...free, ...rows]));
  };
  return (
    <div className={css.free} role="group" aria-label={t('best.free')}>
      <p className={shared.quiet}>{t('best.freeHow')}</p>
      {seen.map(({ section, rows }) => (
        <p key={`${section.place ?? ''}/${section.id}`} className={css.freeRows}>
          <button
            type="button"
            className={classes(css.chip, css.chipAll)}
            aria-pressed={rows.every((row) => free.has(row))}
            onClick={() => toggle(rows)}
          >
            {words.section(section)}
          </button>
          {rows.map((row) => (
            <button
              key={row}
              type="button"
              className={css.chip}
              aria-pressed={free.has(row)}
              title={`${words.row(row)}: ${words.value(row, picture.state.rows[row]?.value)}`}
              onClick={() => toggle([row])}
            >
              {words.label(row)}
            </button>
          ))}
        </p>
      ))}
    </div>
  );
}
