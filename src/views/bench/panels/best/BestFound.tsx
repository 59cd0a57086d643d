import { Fragment } from 'react';
import { exact } from '../../../../core/exact';
import type { BenchPicture } from '../../../../core/builds';
import type { BenchView } from '../../../../contract';
import { money, moneyDifference, percent } from '../../../../i18n';
import { useSpeech } from '../../../speech';
import shared from '../../bench.module.css';
import type { Judged } from '../../session/bench-session';
import type { Words } from '../../words';
import css from './best.module.css';
import type { Best } from './useBest';
import { boundIn, settingOf, type Measured, type Settings } from './wish';

/** A gap as a share of the value beyond which it says nothing but that the search has only begun. */
const idleGap = 0.5;

interface Props {
  best: Best;
  judged: Judged;
  running: boolean;
  measures: readonly Measured[];
  settings: Settings;
  words: Words;
  picture: BenchPicture;
  tariff: BenchView['tariff'];
}

/** The build that was found: its number, how good it is, its figures, and what it would change. */
export function BestFound(props: Props) {
  const { best, judged, running, measures, settings, words, picture } = props;
  const { t, language } = useSpeech();
  const better = useBetter(props);
  const shown = new Set(picture.figures.map(({ id }) => id));
  const isTold = ({ id }: Measured): boolean => {
    const { weight, least, most } = settingOf(settings, id);
    const isBound = boundIn(least, language) !== undefined || boundIn(most, language) !== undefined;
    return id === 'price' || id === 'lead' || shown.has(id) || weight > 0 || isBound;
  };
  // What stood in a build inside goes with it.
  const moved = judged.moved.filter(({ row, after }) => after !== undefined || !row.includes('/'));
  return (
    <>
      <p className={css.code}>{judged.number.text}</p>
      <p className={best.proven ? css.proven : shared.quiet}>
        {better}
        {running ? ` ${t('best.going')}` : ''}
      </p>
      <dl className={css.figures}>
        {measures.filter(isTold).map((measure) => (
          <Fragment key={measure.id}>
            <dt>{measure.name}</dt>
            <Comes {...props} measure={measure} />
          </Fragment>
        ))}
      </dl>
      <h3 className={css.changes}>
        {t(moved.length === 0 ? 'best.changesNothing' : 'best.changes', { count: moved.length })}
      </h3>
      <ul className={css.moved}>
        {moved.map(({ row, before, after }) => (
          <li key={row}>
            {words.row(row)}: {before === undefined ? t('bench.open') : words.value(row, before)} →{' '}
            {after === undefined ? t('bench.hidden') : words.value(row, after)}
          </li>
        ))}
      </ul>
    </>
  );
}

/** How much better another build could still be. */
function useBetter({ best, judged, measures, settings, tariff }: Props): string {
  const { t, language } = useSpeech();
  if (best.proven) return t('best.proven');
  const share =
    best.gap !== 'unknown' && !exact(best.value).isZero()
      ? exact(best.gap).div(exact(best.value).abs())
      : null;
  if (!share || share.gt(idleGap)) return t('best.soFar');
  const onlyPrice = measures.every(({ id }) => settingOf(settings, id).weight > 0 === (id === 'price'));
  if (!onlyPrice) return t('best.gap', { gap: percent(share.toString(), language, 1) });
  const { decimals, currency } = tariff;
  const gap = exact(judged.price.list).times(share).toDecimalPlaces(decimals).toString();
  return t('best.gapMoney', { gap: `${money(gap, language, decimals)} ${currency}` });
}

/** What a measure comes to in the build found, and what a ceiling or a floor leaves. */
function Comes({
  measure,
  judged,
  settings,
  words,
  picture,
  tariff: { decimals },
}: Props & { measure: Measured }) {
  const { t, language } = useSpeech();
  const { id, unit } = measure;
  const value = comesTo(judged, id);
  if (value === undefined) return <dd>·</dd>;
  const written = (amount: string): string =>
    id === 'price' ? money(amount, language, measure.decimals) : words.figure(amount, unit, measure.decimals);
  const setting = settingOf(settings, id);
  const [least, most] = [boundIn(setting.least, language), boundIn(setting.most, language)];
  const left =
    most !== undefined
      ? t('best.room', { room: written(exact(most).minus(value).toString()), most: written(most) })
      : least !== undefined
        ? t('best.over', { over: written(exact(value).minus(least).toString()), least: written(least) })
        : undefined;
  const difference = exact(value).minus(picture.price.list).toDecimalPlaces(decimals).toString();
  return (
    <dd>
      {written(value)}
      {id === 'price' && (
        <span className={shared.quiet}> {moneyDifference(difference, language, decimals)}</span>
      )}
      {left !== undefined && <span className={css.room}>{left}</span>}
    </dd>
  );
}

function comesTo({ price, leadDays, calculated }: Judged, id: string): string | undefined {
  if (id === 'price') return price.list;
  if (id === 'lead') return leadDays === null ? undefined : String(leadDays);
  return calculated[id];
}
