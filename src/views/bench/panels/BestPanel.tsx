import { useEffect, useMemo, useRef, useState } from 'react';
import { proxy, wrap } from 'comlink';
import type { Decision } from '../../../core/engine';
import { exact, readWritten } from '../../../core/exact';
import { seenRows, type BestWish } from '../../../core/builds';
import { type BenchView } from '../../../contract';
import { money, moneyDifference, number, percent } from '../../../i18n';
import type { BestWorker } from '../../../workers/best.worker';
import { Button, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import css from './best.module.css';
import type { Judged } from '../session/bench-session';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';

interface Props {
  bench: Bench;
  view: BenchView;
  words: Words;
  frozen: boolean;
}

interface Measured {
  id: string;
  name: string;
  unit: string;
  decimals: number;
  now: string | undefined;
}
interface Setting {
  weight: number;
  least: string;
  most: string;
}
interface Running {
  decisions: readonly Decision[];
  judged: Judged | null;
  value: string;
  gap: string;
  proven: boolean;
}

const plain: Setting = { weight: 0, least: '', most: '' };
const mostWeight = 10;
/** A gap as a share of the value beyond which it says nothing but that the search has only begun. */
const idleGap = 0.5;

/**
 * The best complete build that keeps what is decided, and what is there by itself but for the rows set free:
 * what counts how much, what must hold, what it would change, and how much better another could be.
 */
export function BestPanel({ bench, view, words, frozen }: Props) {
  const { t, language } = useSpeech();
  const [settings, setSettings] = useState<Readonly<Record<string, Setting>>>({
    price: { ...plain, weight: mostWeight },
  });
  const [free, setFree] = useState<ReadonlySet<string>>(new Set());
  const [running, setRunning] = useState<{ stop: () => void } | null>(null);
  const [best, setBest] = useState<Running | null>(null);
  const [said, setSaid] = useState('');
  const { outline, tariff } = view;
  const { picture } = bench;
  const { decimals, currency } = tariff;
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  const seen = useMemo(() => {
    const rows = new Set(seenRows(picture.state));
    return outline.sections
      .map((section) => ({ section, rows: section.rows.filter((row) => rows.has(row)) }))
      .filter(({ rows }) => rows.length > 0);
  }, [outline, picture.state]);

  const shown = new Set(picture.figures.map(({ id }) => id));
  const calculations = outline.calculations
    .filter(({ type }) => type === 'number')
    .sort((a, b) => Number(shown.has(b.id)) - Number(shown.has(a.id)));
  const measures: Measured[] = [
    { id: 'price', name: t('bench.list'), unit: currency, decimals, now: picture.price.list },
    ...(view.may.making
      ? [
          {
            id: 'lead',
            name: t('bench.lead'),
            unit: t('best.days'),
            decimals: 0,
            now: picture.leadDays === null ? undefined : String(picture.leadDays),
          },
        ]
      : []),
    ...calculations.map((each): Measured => ({
      id: each.id,
      name: words.row(each.id),
      unit: each.unit ?? '',
      decimals: each.decimals ?? 2,
      now: picture.calculated[each.id],
    })),
  ];
  const of = (id: string): Setting => settings[id] ?? plain;
  const set = (id: string, change: Partial<Setting>) =>
    setSettings((before) => ({ ...before, [id]: { ...(before[id] ?? plain), ...change } }));
  const bound = (text: string): string | undefined => {
    const read = readWritten(text, language);
    return read.is === 'number' ? read.value : undefined;
  };
  /** What is wrong with a bound as it is typed. */
  const wrong = (text: string): string | undefined => {
    if (text.trim() === '') return undefined;
    const read = readWritten(text, language);
    if (read.is === 'twoWays')
      return t('decision.twoWays', {
        typed: text.trim(),
        one: number(read.values[1], language),
        other: number(read.values[0], language),
      });
    return read.is === 'none' ? t('decision.notANumber', { value: text.trim() }) : undefined;
  };
  const problem = measures
    .flatMap(({ id }) => [wrong(of(id).least), wrong(of(id).most)])
    .find((each) => each !== undefined);
  const toggle = (rows: readonly string[]) =>
    setFree((before) => {
      const all = rows.every((row) => before.has(row));
      return new Set(all ? [...before].filter((row) => !rows.includes(row)) : [...before, ...rows]);
    });

  const look = () => {
    setBest(null);
    setSaid('');
    // Each measure counts by its share of what it is now, so that tonnes and money can stand on one scale.
    const scale = (measure: Measured) =>
      measure.now === undefined || exact(measure.now).isZero() ? exact(1) : exact(measure.now).abs();
    const wish: BestWish = {
      weights: measures.flatMap((measure) =>
        of(measure.id).weight === 0
          ? []
          : [
              {
                measure: measure.id,
                weight: exact(of(measure.id).weight)
                  .times(1000)
                  .div(scale(measure))
                  .toSignificantDigits(8)
                  .toString(),
              },
            ],
      ),
      bounds: measures.flatMap(({ id }) => {
        const [least, most] = [bound(of(id).least), bound(of(id).most)];
        return least === undefined && most === undefined
          ? []
          : [
              {
                measure: id,
                ...(least === undefined ? {} : { least }),
                ...(most === undefined ? {} : { most }),
              },
            ];
      }),
      free: [...free],
    };
    const worker = new Worker(new URL('../../../workers/best.worker.ts', import.meta.url), {
      type: 'module',
    });
    const end = () => {
      worker.terminate();
      stop.current = null;
      setRunning(null);
    };
    stop.current = end;
    setRunning({ stop: end });
    const show = async (found: Omit<Running, 'judged'>) => {
      const judged = await bench.judge(found.decisions);
      setBest((before) => (before?.proven && !found.proven ? before : { ...found, judged }));
    };
    const { document, context, asked, facts } = view;
    const content = bench.now();
    void wrap<BestWorker>(worker)
      .run(
        { document, context, asked, tariff, facts },
        { decisions: [...content.decisions], special: [...content.special] },
        wish,
        proxy(({ value, gap, decisions }) => void show({ decisions, value, gap, proven: false })),
      )
      .then(async (answer) => {
        if (answer.is === 'found') await show(answer);
        else setSaid(t(answer.is === 'none' ? 'best.none' : 'best.stopped'));
        end();
      });
  };
  const { judged } = best ?? {};
  /** What a measure comes to in the build found. */
  const comes = (id: string): string | undefined =>
    id === 'price'
      ? judged?.price.list
      : id === 'lead'
        ? judged?.leadDays === null || judged === null || judged === undefined
          ? undefined
          : String(judged.leadDays)
        : judged?.calculated[id];
  const written = ({ id, unit, decimals: digits }: Measured, value: string): string =>
    id === 'price' ? money(value, language, digits) : words.figure(value, unit, digits);
  /** What a ceiling, or a floor, leaves. */
  const room = (measure: Measured, value: string): string | undefined => {
    const [least, most] = [bound(of(measure.id).least), bound(of(measure.id).most)];
    if (most !== undefined)
      return t('best.room', {
        room: written(measure, exact(most).minus(value).toString()),
        most: written(measure, most),
      });
    return least === undefined
      ? undefined
      : t('best.over', {
          over: written(measure, exact(value).minus(least).toString()),
          least: written(measure, least),
        });
  };
  const share =
    best && best.gap !== 'unknown' && !exact(best.value).isZero()
      ? exact(best.gap).div(exact(best.value).abs())
      : null;
  // What stood in a build inside goes with it.
  const told = (judged?.moved ?? []).filter(({ row, after }) => after !== undefined || !row.includes('/'));
  const onlyPrice = measures.every(({ id }) => of(id).weight > 0 === (id === 'price'));
  const better = (): string => {
    if (!best || best.proven) return t('best.proven');
    if (!share || share.gt(idleGap)) return t('best.soFar');
    return onlyPrice && judged
      ? t('best.gapMoney', {
          gap: `${money(exact(judged.price.list).times(share).toDecimalPlaces(decimals).toString(), language, decimals)} ${currency}`,
        })
      : t('best.gap', { gap: percent(share.toString(), language, 1) });
  };
  return (
    <div className={css.best}>
      <div className={css.asked}>
        <table className={css.table}>
          <thead>
            <tr>
              <th scope="col">{t('best.counts')}</th>
              <th scope="col">{t('best.weight')}</th>
              <th scope="col">{t('best.least')}</th>
              <th scope="col">{t('best.most')}</th>
            </tr>
          </thead>
          <tbody>
            {measures.map(({ id, name, unit }) => (
              <tr key={id}>
                <th scope="row">
                  {name} <span className={shared.quiet}>{unit}</span>
                </th>
                <td>
                  <input
                    type="range"
                    min={0}
                    max={mostWeight}
                    step={1}
                    value={of(id).weight}
                    aria-label={t('best.weightOf', { what: name })}
                    onChange={(event) => set(id, { weight: Number(event.target.value) })}
                  />{' '}
                  <span className={shared.figure}>{of(id).weight}</span>
                </td>
                <td>
                  <input
                    type="text"
                    inputMode="decimal"
                    className={css.bound}
                    aria-label={t('best.leastOf', { what: name })}
                    aria-invalid={wrong(of(id).least) !== undefined}
                    value={of(id).least}
                    onChange={(event) => set(id, { least: event.target.value })}
                  />
                </td>
                <td>
                  <input
                    type="text"
                    inputMode="decimal"
                    className={css.bound}
                    aria-label={t('best.mostOf', { what: name })}
                    aria-invalid={wrong(of(id).most) !== undefined}
                    value={of(id).most}
                    onChange={(event) => set(id, { most: event.target.value })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {problem && (
          <p className={shared.rowError} role="alert">
            {problem}
          </p>
        )}
      </div>
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
      <div className={css.answer} role="status" aria-label={t('bench.best')}>
        <p>{t('best.keeps')}</p>
        <div className={css.acts}>
          {running ? (
            <Button onClick={running.stop}>{t('best.stop')}</Button>
          ) : (
            <Button
              look="main"
              disabled={frozen || problem !== undefined || measures.every(({ id }) => of(id).weight === 0)}
              onClick={look}
            >
              {t('best.look')}
            </Button>
          )}
          {best && (
            <Button
              disabled={frozen}
              onClick={() => {
                stop.current?.();
                void bench.takeWhole(best.decisions).then(() => setBest(null));
              }}
            >
              {t('best.take')}
            </Button>
          )}
        </div>
        {running && !best && <p className={shared.quiet}>{t('best.looking')}</p>}
        {said && <p>{said}</p>}
        {judged && (
          <>
            <p className={css.code}>{judged.number.text}</p>
            <p className={best?.proven ? css.proven : shared.quiet}>
              {better()}
              {running ? ` ${t('best.going')}` : ''}
            </p>
            <dl className={css.figures}>
              {measures
                .filter(
                  ({ id }) =>
                    id === 'price' ||
                    id === 'lead' ||
                    shown.has(id) ||
                    of(id).weight > 0 ||
                    room({ id, name: '', unit: '', decimals: 0, now: undefined }, '0') !== undefined,
                )
                .map((measure) => {
                  const value = comes(measure.id);
                  const left = value === undefined ? undefined : room(measure, value);
                  return [
                    <dt key={`${measure.id}t`}>{measure.name}</dt>,
                    <dd key={`${measure.id}d`}>
                      {value === undefined ? '·' : written(measure, value)}
                      {measure.id === 'price' && value !== undefined && (
                        <span className={shared.quiet}>
                          {' '}
                          {moneyDifference(
                            exact(value).minus(picture.price.list).toDecimalPlaces(decimals).toString(),
                            language,
                            decimals,
                          )}
                        </span>
                      )}
                      {left !== undefined && <span className={css.room}>{left}</span>}
                    </dd>,
                  ];
                })}
            </dl>
            <h3 className={css.changes}>
              {t(told.length === 0 ? 'best.changesNothing' : 'best.changes', { count: told.length })}
            </h3>
            <ul className={css.moved}>
              {told.map(({ row, before, after }) => (
                <li key={row}>
                  {words.row(row)}: {before === undefined ? t('bench.open') : words.value(row, before)} →{' '}
                  {after === undefined ? t('bench.hidden') : words.value(row, after)}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </div>
  );
}
