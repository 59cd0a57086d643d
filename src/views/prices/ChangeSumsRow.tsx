import type { ChangeQuery, ChangeSums } from '../../contract';
import { useSpeech } from '../speech';
import { percentText } from './entry-words';
import css from './change.module.css';

type Only = ChangeQuery['only'];

/** What a price change comes to, and which of its rows are shown. */
export function ChangeSumsRow({
  sums,
  only,
  onOnly,
}: {
  sums: ChangeSums;
  only: Only;
  onOnly: (only: Only) => void;
}) {
  const { t, language } = useSpeech();
  const chip = (id: Only, text: string, loud = false) => (
    <button
      key={id ?? 'all'}
      type="button"
      className={css.chip}
      data-loud={loud || undefined}
      aria-pressed={only === id}
      onClick={() => onOnly(id)}
    >
      {text}
    </button>
  );
  const told = (['raised', 'lowered', 'same', 'fresh', 'ends'] as const).flatMap((id) =>
    sums[id] > 0 ? t(`change.sums.${id}`, { count: sums[id] }) : [],
  );
  return (
    <div className={css.sums}>
      {chip(undefined, t('change.sums.all', { count: sums.rows }))}
      {sums.wrong > 0 && chip('wrong', t('change.sums.wrong', { count: sums.wrong }), true)}
      {(sums.belowCost > 0 || sums.missing > 0) &&
        chip(
          'warned',
          [
            ...(sums.belowCost > 0 ? [t('change.sums.warned', { count: sums.belowCost })] : []),
            ...(sums.missing > 0 ? [t('change.sums.missing', { count: sums.missing })] : []),
          ].join(', '),
          sums.belowCost > 0,
        )}
      {sums.typed > 0 &&
        sums.typed < sums.rows &&
        chip('typed', t('change.sums.typed', { count: sums.typed }))}
      <span className={css.quiet}>
        {[
          ...told,
          ...(sums.mean === null
            ? []
            : [t('change.sums.mean', { mean: percentText(sums.mean, language, true) })]),
        ].join(' · ')}
      </span>
    </div>
  );
}
