import type { DrawingsChoice } from '../../../core/paper';
import { own } from '../../../i18n';
import { useSpeech } from '../../speech';
import type { Paper } from '../session/usePaper';
import css from '../paper.module.css';

/** Which views stand in the document, and whether it is seen in space. */
export function DrawingSettings({ paper }: { paper: Paper }) {
  const { t, language } = useSpeech();
  const { composition, session, view } = paper;
  const { drawings } = composition;
  const change = (more: Partial<DrawingsChoice>): void =>
    session.change((now) => ({ ...now, drawings: { ...now.drawings, ...more } }), 'drawings');
  const all = view.views.map(({ id }) => id);
  const shown = drawings.views.length === 0 ? all : drawings.views;
  if (all.length === 0) return <p className={css.quiet}>{t('composer.noDrawings')}</p>;
  return (
    <div className={css.checks}>
      {view.views.map(({ id, name }) => (
        <label key={id} className={css.check}>
          <input
            type="checkbox"
            checked={shown.includes(id)}
            disabled={!view.mayEdit || (shown.length === 1 && shown.includes(id))}
            onChange={(event) => {
              const next = all.filter((each) => (each === id ? event.target.checked : shown.includes(each)));
              change({ views: next.length === all.length ? [] : next });
            }}
          />
          {own(name, language)}
        </label>
      ))}
      <label className={css.check}>
        <input
          type="checkbox"
          checked={drawings.space}
          disabled={!view.mayEdit}
          onChange={(event) => change({ space: event.target.checked })}
        />
        {t('composer.inSpace')}
      </label>
    </div>
  );
}
