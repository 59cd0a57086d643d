import { useState } from 'react';
import { lettersOf, type DateParameter, type TextParameter } from '../../../core/model';
import { date } from '../../../i18n';
import { DayField } from '../../parts/DayField';
import { useAlive } from '../../../ui';
import { useSpeech } from '../../speech';
import css from '../bench.module.css';
import { Mortise } from './Mortise';
import { Release } from '../panels/Release';
import type { RowProps } from './row-props';
import { isFirmValue, sourceText } from './source';
import own from './typed-rows.module.css';

/** Where a value comes from, and the way back from a decision. */
function Origin({
  state,
  words,
  frozen,
  onRelease,
}: Pick<RowProps, 'state' | 'words' | 'frozen' | 'onRelease'>) {
  const { t } = useSpeech();
  return (
    <span className={css.quiet}>
      {state.todo ? (
        <span className={css.openHere}>
          <Mortise />
          <span className={css.openWord}>{t('bench.required')}</span>
        </span>
      ) : (
        <span className={css.source}>{sourceText(state.source, isFirmValue(state), t)}</span>
      )}
      {!frozen && (
        <Release
          on={state.id}
          name={words.row(state.id)}
          given={state.source === 'yours'}
          onRelease={onRelease}
        />
      )}
    </span>
  );
}

/** A day; what it may be stands beside it. */
export function DateRow({
  parameter,
  state,
  words,
  frozen,
  onDecide,
  onRelease,
  onWhy,
}: RowProps & { parameter: DateParameter }) {
  const { t, language } = useSpeech();
  const { id, optional, least, most } = parameter;
  const value = typeof state.value === 'string' ? state.value : '';
  const allowed = state.allowed ?? [];
  const decide = (day: string): void => {
    if (day === value && state.source === 'yours') return;
    // Emptying takes a decision back; what is optional and there by itself is left out.
    if (day === '') {
      if (state.source === 'yours' && value !== '') onRelease(id);
      else if (optional) onDecide({ on: id, value: null });
      return;
    }
    if (allowed.some((range) => range.least <= day && day <= range.most)) onDecide({ on: id, value: day });
    else onWhy({ on: id, value: day });
  };
  const ranges = allowed
    .map((range) =>
      range.least === range.most
        ? date(range.least, language)
        : `${date(range.least, language)} – ${date(range.most, language)}`,
    )
    .join(', ');
  return (
    <div className={own.typed}>
      <DayField
        label={words.row(id)}
        value={value}
        min={least}
        max={most}
        disabled={frozen}
        tab={id}
        onPick={decide}
      />
      <span className={css.quiet}>{ranges && t('bench.allowedDays', { ranges })}</span>
      <Origin state={state} words={words} frozen={frozen} onRelease={onRelease} />
    </div>
  );
}

/** Words to engrave or print, with the room that is left. */
export function TextRow(props: TextRowProps) {
  const { parameter, state, words, frozen, onRelease } = props;
  const { t } = useSpeech();
  // What is typed before the script runs would be lost: the field does not take the keyboard yet.
  const alive = useAlive();
  const { id, most, optional } = parameter;
  const { typed, shown, wrong, type, undo, decide } = useTypedText(props);
  const length = lettersOf(shown);
  const room = Math.max(0, ...(state.allowed ?? []).map((range) => Number(range.most)));
  return (
    <div className={own.typed}>
      <input
        type="text"
        className={own.textInput}
        data-tab={id}
        data-decided={typed === undefined}
        aria-label={words.row(id)}
        disabled={frozen}
        readOnly={!alive}
        aria-invalid={wrong !== undefined || length > most}
        aria-describedby={wrong ? `${id}-error` : undefined}
        placeholder={optional ? t('bench.leaveOut') : t('bench.type')}
        value={shown}
        onChange={(event) => type(event.target.value)}
        onBlur={() => {
          if (typed !== undefined) decide(typed);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) decide(shown);
          if (event.key === 'Escape') undo();
        }}
      />
      <span className={length > most ? css.rowError : css.quiet}>
        {t('bench.characters', { count: length, most: room || most })}
      </span>
      <Origin state={state} words={words} frozen={frozen} onRelease={onRelease} />
      {wrong && (
        <p id={`${id}-error`} className={css.rowError} role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}

type TextRowProps = RowProps & { parameter: TextParameter };

/** What is typed, what is wrong with it, and what becomes of it. */
function useTypedText({ parameter, state, onDecide, onRelease, onWhy, onAnew }: TextRowProps) {
  const { t } = useSpeech();
  const { id, most, optional } = parameter;
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<string>();
  const value = typeof state.value === 'string' ? state.value : '';
  /** What was decided stands in the field until the sheet shows it. */
  const [last, setLast] = useState<{ written: string; in: typeof state }>();
  const decided = last?.in === state ? last.written : undefined;
  const undo = (): void => {
    setTyped(undefined);
    setWrong(undefined);
  };
  /** Emptying takes a decision back; what is optional and there by itself is left out. */
  const empty = (): void => {
    undo();
    if (state.source === 'yours' && value !== '') onRelease(id);
    else if (optional && value !== '') onDecide({ on: id, value: null });
  };
  const decide = (text: string): void => {
    const written = text.trim();
    const size = lettersOf(written);
    if (written === '') empty();
    else if (size > most) {
      // What is too long is kept as it was typed until it is right: nothing is cut off.
      onAnew();
      setWrong(t('decision.tooLong', { length: size, most }));
    } else if (!fitsIn(state, size)) {
      setWrong(t('bench.textNotAllowed', { length: size, ranges: rangesText(state) }));
      onWhy({ on: id, value: written });
    } else {
      undo();
      if (written === value && state.source !== 'open') return;
      setLast({ written, in: state });
      onDecide({ on: id, value: written });
    }
  };
  const type = (text: string): void => {
    setTyped(text);
    setWrong(undefined);
  };
  return { typed, shown: typed ?? decided ?? value, wrong, type, undo, decide };
}

const fitsIn = ({ allowed = [] }: RowProps['state'], size: number): boolean =>
  allowed.some(({ least, most }) => Number(least) <= size && size <= Number(most));

/** Lengths that are allowed, in words. */
const rangesText = ({ allowed = [] }: RowProps['state']): string =>
  allowed.map(({ least, most }) => (least === most ? least : `${least}–${most}`)).join(', ') || '0';
