import { useEffect, useRef, useState } from 'react';
import { proxy, wrap } from 'comlink';
import type { Decision } from '../../core/engine';
import { exact, readWritten } from '../../core/exact';
import type { BenchView, BestWish } from '../../core/quoting';
import { money, moneyDifference, percent } from '../../i18n';
import type { BestWorker } from '../../workers/best.worker';
import { Button } from '../../ui';
import { useSpeech } from '../speech';
import shared from './bench.module.css';
import css from './best.module.css';
import type { Bench, Judged } from './useBench';
import type { Words } from './words';

interface Props { bench: Bench; view: BenchView; words: Words; frozen: boolean }

interface Measured { id: string; name: string; unit: string; now: string | undefined }
interface Setting { weight: number; least: string; most: string }
interface Running { decisions: readonly Decision[]; judged: Judged | null; value: string; gap: string; proven: boolean }

const plain: Setting = { weight: 0, least: '', most: '' };
const mostWeight = 10;

/** The best complete build that keeps what is decided: what counts how much, what must hold, and the best so far with its gap. */
export function BestPanel({ bench, view, words, frozen }: Props) {
  const { t, language } = useSpeech();
  const [settings, setSettings] = useState<Readonly<Record<string, Setting>>>({ price: { ...plain, weight: mostWeight } });
  const [running, setRunning] = useState<{ stop: () => void } | null>(null);
  const [best, setBest] = useState<Running | null>(null);
  const [said, setSaid] = useState('');
  const { outline, tariff } = view;
  const { picture } = bench;
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);

  const measures: Measured[] = [
    { id: 'price', name: t('bench.list'), unit: tariff.currency, now: picture.price.list },
    ...picture.figures.flatMap(({ id }): Measured[] => {
      const calculation = outline.calculations.find((each) => each.id === id);
      return calculation?.type === 'number' ? [{ id, name: words.row(id), unit: calculation.unit ?? '', now: picture.calculated[id] }] : [];
    }),
  ];
  const of = (id: string): Setting => settings[id] ?? plain;
  const set = (id: string, change: Partial<Setting>) => setSettings((before) => ({ ...before, [id]: { ...(before[id] ?? plain), ...change } }));
  const bound = (text: string): string | undefined => { const read = readWritten(text, language); return read.is === 'number' ? read.value : undefined; };

  const look = () => {
    setBest(null);
    setSaid('');
    // Each measure counts by its share of what it is now, so that tonnes and money can stand on one scale.
    const scale = (measure: Measured) => (measure.now === undefined || exact(measure.now).isZero() ? exact(1) : exact(measure.now).abs());
    const wish: BestWish = {
      weights: measures.flatMap((measure) => (of(measure.id).weight === 0 ? [] : [{ measure: measure.id, weight: exact(of(measure.id).weight).times(1000).div(scale(measure)).toSignificantDigits(8).toString() }])),
      bounds: measures.flatMap(({ id }) => {
        const [least, most] = [bound(of(id).least), bound(of(id).most)];
        return least === undefined && most === undefined ? [] : [{ measure: id, ...(least === undefined ? {} : { least }), ...(most === undefined ? {} : { most }) }];
      }),
    };
    const worker = new Worker(new URL('../../workers/best.worker.ts', import.meta.url), { type: 'module' });
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
    const { document, context } = view;
    const content = bench.now();
    void wrap<BestWorker>(worker).run({ document, context, tariff }, { decisions: [...content.decisions], special: [...content.special] }, wish, proxy(({ value, gap, decisions }) => void show({ decisions, value, gap, proven: false })))
      .then(async (answer) => {
        if (answer.is === 'found') await show(answer);
        else setSaid(t(answer.is === 'none' ? 'best.none' : 'best.stopped'));
        end();
      });
  };
  const share = best && best.gap !== 'unknown' && !exact(best.value).isZero() ? exact(best.gap).div(exact(best.value).abs()).toString() : null;
  return (
    <div className={css.best}>
      <table className={css.table}>
        <thead><tr><th scope="col">{t('best.counts')}</th><th scope="col">{t('best.weight')}</th><th scope="col">{t('best.least')}</th><th scope="col">{t('best.most')}</th></tr></thead>
        <tbody>
          {measures.map(({ id, name, unit }) => (
            <tr key={id}>
              <th scope="row">{name} <span className={shared.quiet}>{unit}</span></th>
              <td><input type="range" min={0} max={mostWeight} step={1} value={of(id).weight} aria-label={t('best.weightOf', { what: name })} onChange={(event) => set(id, { weight: Number(event.target.value) })} /> <span className={shared.figure}>{of(id).weight}</span></td>
              <td><input type="text" inputMode="decimal" className={css.bound} aria-label={t('best.leastOf', { what: name })} value={of(id).least} onChange={(event) => set(id, { least: event.target.value })} /></td>
              <td><input type="text" inputMode="decimal" className={css.bound} aria-label={t('best.mostOf', { what: name })} value={of(id).most} onChange={(event) => set(id, { most: event.target.value })} /></td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className={css.answer} role="status" aria-label={t('bench.best')}>
        <p>{t('best.keeps')}</p>
        <div className={css.acts}>
          {running ? <Button onClick={running.stop}>{t('best.stop')}</Button> : <Button look="main" disabled={frozen || measures.every(({ id }) => of(id).weight === 0)} onClick={look}>{t('best.look')}</Button>}
          {best && <Button disabled={frozen} onClick={() => { stop.current?.(); void bench.take(best.decisions); }}>{t('best.take')}</Button>}
        </div>
        {running && !best && <p className={shared.quiet}>{t('best.looking')}</p>}
        {said && <p>{said}</p>}
        {best?.judged && (
          <>
            <p className={css.code}>{best.judged.number.text}</p>
            <dl className={css.figures}>
              <dt>{t('bench.list')}</dt><dd>{money(best.judged.price.list, language, tariff.decimals)} <span className={shared.quiet}>{moneyDifference(exact(best.judged.price.list).minus(picture.price.list).toDecimalPlaces(tariff.decimals).toString(), language, tariff.decimals)}</span></dd>
              {measures.slice(1).map(({ id, name, unit }) => {
                const calculation = outline.calculations.find((each) => each.id === id);
                const value = best.judged?.calculated[id];
                return [<dt key={`${id}t`}>{name}</dt>, <dd key={`${id}d`}>{value === undefined ? '·' : words.figure(value, unit, calculation?.decimals ?? 2)}</dd>];
              })}
            </dl>
            <p className={best.proven ? css.proven : shared.quiet}>{best.proven ? t('best.proven') : share === null ? t('best.soFar') : t('best.gap', { gap: percent(share, language, 1) })}{running ? ` ${t('best.going')}` : ''}</p>
          </>
        )}
      </div>
    </div>
  );
}
