import { partKinds, type LinesChoice } from '../../../core/paper';
import { own } from '../../../i18n';
import { Select } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Paper } from '../session/usePaper';
import css from '../paper.module.css';

const choices = {
  prices: ['each', 'sums', 'none'],
  discounts: ['line', 'sum', 'none'],
  parts: ['bundles', 'priced', 'named', 'none'],
  chosen: ['table', 'prose', 'short', 'none'],
} as const;

/** How lines, their prices, discounts, parts and chosen values are shown. */
export function LineSettings({ paper, block }: { paper: Paper; block: string }) {
  const { t, language } = useSpeech();
  const { composition, session, view } = paper;
  const { lines } = composition;
  const change = (more: Partial<LinesChoice>): void =>
    session.change((now) => ({ ...now, lines: { ...now.lines, ...more } }), block);
  const choice = <K extends keyof typeof choices>(which: K) => (
    <Select
      label={t(`composer.lines.${which}`)}
      disabled={!view.mayEdit}
      value={lines[which]}
      options={choices[which].map((value) => ({
        value,
        text: t(`composer.lines.${which}As.${value}` as 'composer.lines.pricesAs.each'),
      }))}
      onChange={(event) => change({ [which]: event.target.value })}
    />
  );
  const yesno = (which: 'numbers' | 'groups') => (
    <label className={css.check}>
      <input
        type="checkbox"
        checked={lines[which]}
        disabled={!view.mayEdit}
        onChange={(event) => change({ [which]: event.target.checked })}
      />
      {t(`composer.lines.${which}`)}
    </label>
  );
  return (
    <div className={css.two}>
      {choice('prices')}
      {choice('discounts')}
      {choice('chosen')}
      {choice('parts')}
      {lines.parts !== 'none' && (
        <fieldset className={css.kinds}>
          <legend>{t('composer.lines.kinds')}</legend>
          {partKinds.map((kind) => (
            <label key={kind} className={css.check}>
              <input
                type="checkbox"
                checked={lines.kinds.includes(kind)}
                disabled={!view.mayEdit}
                onChange={(event) =>
                  change({
                    kinds: partKinds.filter((each) =>
                      each === kind ? event.target.checked : lines.kinds.includes(each),
                    ),
                  })
                }
              />
              {t(`composer.lines.kind.${kind}`)}
            </label>
          ))}
        </fieldset>
      )}
      <Select
        label={t('composer.lines.under')}
        disabled={!view.mayEdit}
        value={lines.under}
        options={[
          { value: '', text: t('composer.nothing') },
          ...view.texts
            .filter(({ place }) => place === 'line')
            .map(({ code, name }) => ({ value: code, text: own(name, language) })),
        ]}
        onChange={(event) => change({ under: event.target.value })}
      />
      <div className={css.checks}>
        {yesno('numbers')}
        {yesno('groups')}
      </div>
    </div>
  );
}
