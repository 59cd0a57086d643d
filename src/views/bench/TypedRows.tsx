import { useState } from 'react';
import type { DateParameter, TextParameter } from '../../core/model';
import { date } from '../../i18n';
import { DayField } from '../parts/DayField';
import { useSpeech } from '../speech';
import css from './bench.module.css';
import { Mortise } from './Mortise';
import { Release } from './Release';
import type { RowProps } from './Row';
import { isFirmValue, sourceText } from './source';
import own from './typed-rows.module.css';

/** Where a value comes from, and the way back from a decision. */
function Origin({ state, words, frozen, onRelease }: Pick<RowProps, 'state' | 'words' | 'frozen' | 'onRelease'>) {
  const { t } = useSpeech();
  return (
    <span className={css.quiet}>
      {state.todo ? <span className={css.openHere}><Mortise /><span className={css.openWord}>{t('bench.required')}</span></span> : <span className={css.source}>{sourceText(state.source, isFirmValue(state), t)}</span>}
      {!frozen && <Release on={state.id} name={words.row(state.id)} given={state.source === 'yours'} onRelease={onRelease} />}
    </span>
  );
}

/** A day; what it may be stands beside it. */
export function DateRow({ parameter, state, words, frozen, onDecide, onRelease, onWhy }: RowProps & { parameter: DateParameter }) {
  const { t, language } = useSpeech();
  const { id, optional, least, most } = parameter;
  const value = typeof state.value === 'string' ? state.value : '';
  const allowed = state.allowed ?? [];
  const decide = (day: string): void => {
    if (day === value && state.source === 'yours') return;
    if (day === '') {
      if (optional) onDecide({ on: id, value: null });
      return;
    }
    if (allowed.some((range) => range.least <= day && day <= range.most)) onDecide({ on: id, value: day });
    else onWhy({ on: id, value: day });
  };
  const ranges = allowed.map((range) => (range.least === range.most ? date(range.least, language) : `${date(range.least, language)} – ${date(range.most, language)}`)).join(', ');
  return (
    <div className={own.typed}>
      <DayField label={words.row(id)} value={value} min={least} max={most} disabled={frozen} tab={id} onPick={decide} />
      <span className={css.quiet}>{ranges && t('bench.allowedDays', { ranges })}</span>
      <Origin state={state} words={words} frozen={frozen} onRelease={onRelease} />
    </div>
  );
}

/** Words to engrave or print, with the room that is left. */
export function TextRow({ parameter, state, words, frozen, onDecide, onRelease, onWhy }: RowProps & { parameter: TextParameter }) {
  const { t } = useSpeech();
  const { id, most, optional } = parameter;
  const [typed, setTyped] = useState<string>();
  const value = typeof state.value === 'string' ? state.value : '';
  const shown = typed ?? value;
  const length = [...shown].length;
  const room = Math.max(0, ...(state.allowed ?? []).map((range) => Number(range.most)));
  const decide = (text: string): void => {
    setTyped(undefined);
    const written = text.trim();
    if (written === value && state.source !== 'open') return;
    if (written === '') {
      if (optional) onDecide({ on: id, value: null });
      return;
    }
    const size = [...written].length;
    const fits = (state.allowed ?? []).some((range) => Number(range.least) <= size && size <= Number(range.most));
    if (fits) onDecide({ on: id, value: written });
    else onWhy({ on: id, value: written });
  };
  return (
    <div className={own.typed}>
      <input
        type="text" className={own.textInput} data-tab={id} data-decided={typed === undefined} aria-label={words.row(id)} disabled={frozen} maxLength={most} placeholder={optional ? t('bench.leaveOut') : t('bench.type')} value={shown}
        onChange={(event) => setTyped(event.target.value)} onBlur={() => { if (typed !== undefined) decide(typed); }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) decide(shown);
          if (event.key === 'Escape') setTyped(undefined);
        }}
      />
      <span className={css.quiet}>{t('bench.characters', { count: length, most: room || most })}</span>
      <Origin state={state} words={words} frozen={frozen} onRelease={onRelease} />
    </div>
  );
}
