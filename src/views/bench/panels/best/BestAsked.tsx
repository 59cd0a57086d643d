import { useSpeech } from '../../../speech';
import shared from '../../bench.module.css';
import css from './best.module.css';
import { settingOf, wrongBound, type Measured, type Setting, type Settings } from './wish';

/** What counts most. */
export const mostWeight = 10;

interface Props {
  measures: readonly Measured[];
  settings: Settings;
  /** What is wrong with a bound. */
  problem: string | undefined;
  onSet: (id: string, change: Partial<Setting>) => void;
}

/** What counts how much, and between which bounds it must be. */
export function BestAsked({ measures, settings, problem, onSet }: Props) {
  const { t } = useSpeech();
  return (
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
          {measures.map((measure) => (
            <Measure
              key={measure.id}
              measure={measure}
              setting={settingOf(settings, measure.id)}
              onSet={(change) => onSet(measure.id, change)}
            />
          ))}
        </tbody>
      </table>
      {problem && (
        <p className={shared.rowError} role="alert">
          {problem}
        </p>
      )}
    </div>
  );
}

function Measure({
  measure: { name, unit },
  setting,
  onSet,
}: {
  measure: Measured;
  setting: Setting;
  onSet: (change: Partial<Setting>) => void;
}) {
  const { t, language } = useSpeech();
  const bound = (of: 'least' | 'most') => (
    <td>
      <input
        type="text"
        inputMode="decimal"
        className={css.bound}
        aria-label={t(`best.${of}Of`, { what: name })}
        aria-invalid={wrongBound(setting[of], language, t) !== undefined}
        value={setting[of]}
        onChange={(event) => onSet({ [of]: event.target.value })}
      />
    </td>
  );
  return (
    <tr>
      <th scope="row">
        {name} <span className={shared.quiet}>{unit}</span>
      </th>
      <td>
        <input
          type="range"
          min={0}
          max={mostWeight}
          step={1}
          value={setting.weight}
          aria-label={t('best.weightOf', { what: name })}
          onChange={(event) => onSet({ weight: Number(event.target.value) })}
        />{' '}
        <span className={shared.figure}>{setting.weight}</span>
      </td>
      {bound('least')}
      {bound('most')}
    </tr>
  );
}
