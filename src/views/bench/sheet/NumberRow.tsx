import { useState, type KeyboardEvent } from 'react';
import type { NumberParameter } from '../../../core/model';
import { exact, Exact } from '../../../core/exact';
import { own } from '../../../i18n';
import { useAlive } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { Gauge } from '../head/Gauge';
import { Release } from '../panels/Release';
import { Mortise } from './Mortise';
import css from './number.module.css';
import type { RowProps } from './row-props';
import { isFirmValue, sourceText } from './source';
import { TypedNumber, type Wrong } from './typed-number';

type Props = RowProps & { parameter: NumberParameter };

/**
 * A number: typed in any unit that fits, dragged on its gauge, or stepped. It is shown in the person's units
 * and kept in the model's.
 */
export function NumberRow(props: Props) {
  const { parameter, state, words, frozen, advice, onDecide } = props;
  const { language } = useSpeech();
  const { least, most, step, id } = parameter;
  const entry = useEntry(props);
  const { told, wrong, stepped, value, decide } = entry;
  const allowed = state.allowed ?? [];
  const ranges = allowed.map(
    (range) => `${told.shown(range.least)} – ${told.shown(range.most)} ${told.unit}`,
  );
  return (
    <div>
      <div className={css.number}>
        <NumberField entry={entry} {...props} />
        <Gauge
          least={least}
          most={most}
          step={step}
          allowed={allowed}
          value={value}
          write={(each) => told.shown(each, 6)}
          label={`${words.row(id)}: ${ranges.join(', ')}`}
          onPick={(picked) => {
            if (!frozen) decide(picked);
          }}
        />
        <Whose {...props} />
      </div>
      {advice && state.source === 'advised' && <p className={shared.quiet}>{own(advice, language)}</p>}
      {stepped && stepped.value === value && !wrong && (
        <p className={shared.quiet} role="status">
          {stepped.sentence}
        </p>
      )}
      {wrong && (
        <Problem
          id={`${id}-error`}
          wrong={wrong}
          write={(offer) => told.withUnit(offer)}
          standard={wrong.standard && words.value(wrong.standard.on, wrong.standard.value)}
          onTake={(offer) => {
            entry.clear();
            decide(offer);
          }}
          onStandard={() => {
            entry.clear();
            if (wrong.standard) onDecide(wrong.standard);
          }}
        />
      )}
    </div>
  );
}

/** What is typed into the field, what is wrong with it, and what is decided by it. */
function useEntry({ parameter, state, words, onDecide, onRelease, onWhy, onAnew }: Props) {
  const { t, language } = useSpeech();
  const told = new TypedNumber(parameter, words, t, language);
  const { id, optional } = parameter;
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<Wrong>();
  /** What was typed was near a step, and became it. */
  const [stepped, setStepped] = useState<{ sentence: string; value: string }>();
  /** What was decided stands in the field until the sheet shows it. */
  const [last, setLast] = useState<{ plain: string; in: typeof state }>();
  const value = typeof state.value === 'string' ? state.value : undefined;
  const here = last?.in === state ? last.plain : value;
  const decide = (plain: string): void => {
    const judged = told.judge(plain, state.allowed ?? []);
    // What can never be had stays as it was typed, to be mended.
    if (judged.is !== 'wrong') setTyped(undefined);
    const isDecided = judged.is !== 'wrong' && plain === value && state.source === 'yours';
    if (judged.is !== 'sound' && !isDecided) {
      setWrong(judged.wrong);
      if (judged.is === 'forbidden') onWhy({ on: id, value: plain });
      else onAnew();
      return;
    }
    setWrong(undefined);
    if (isDecided) return;
    setLast({ plain, in: state });
    onDecide({ on: id, value: plain });
  };
  /** Emptying takes a decision back; what is optional and there by itself is left out. */
  const empty = (): void => {
    setTyped(undefined);
    setWrong(undefined);
    if (state.source === 'yours' && value !== undefined) onRelease(id);
    else if (optional && value !== undefined) onDecide({ on: id, value: null });
  };
  const read = (text: string): void => {
    const found = told.read(text);
    if (found.is === 'empty') empty();
    else if (found.is === 'wrong') {
      onAnew();
      setWrong(found.wrong);
    } else {
      setStepped(found.stepped === undefined ? undefined : { sentence: found.stepped, value: found.value });
      decide(found.value);
    }
  };
  return {
    told,
    typed,
    wrong,
    stepped,
    value,
    shown: typed ?? (here === undefined ? '' : told.shown(here)),
    decide,
    read,
    type: (text: string) => {
      setTyped(text);
      setWrong(undefined);
      setStepped(undefined);
    },
    clear: () => setWrong(undefined),
    leave: () => {
      setTyped(undefined);
      setWrong(undefined);
    },
  };
}

function NumberField({
  entry,
  parameter: { id, least, most, step, optional },
  words,
  frozen,
}: Props & { entry: ReturnType<typeof useEntry> }) {
  const { t } = useSpeech();
  // What is typed before the script runs would be lost: the field does not take the keyboard yet.
  const alive = useAlive();
  const { told, typed, wrong, value, shown, decide, read } = entry;
  const keys = (event: KeyboardEvent<HTMLInputElement>): void => {
    const { key } = event;
    if (key === 'Enter' && !event.ctrlKey && !event.metaKey) {
      if (typed !== undefined) read(typed);
      else if (value !== undefined) decide(value);
    }
    if (key === 'Escape') entry.leave();
    if ((key === 'ArrowUp' || key === 'ArrowDown') && !frozen) {
      event.preventDefault();
      const from = exact(value ?? least);
      const next = key === 'ArrowUp' ? from.plus(step) : from.minus(step);
      decide(Exact.max(least, Exact.min(most, next)).toString());
    }
  };
  return (
    <span className={css.numberField}>
      <input
        className={css.numberInput}
        data-tab={id}
        data-decided={typed === undefined}
        inputMode="decimal"
        aria-label={`${words.row(id)}${told.unit ? `, ${told.unit}` : ''}`}
        aria-invalid={wrong !== undefined}
        aria-describedby={wrong ? `${id}-error` : undefined}
        value={shown}
        placeholder={optional ? t('bench.leaveOut') : t('bench.type')}
        disabled={frozen}
        readOnly={!alive}
        onFocus={(event) => event.target.select()}
        onChange={(event) => entry.type(event.target.value)}
        onBlur={() => {
          if (typed !== undefined) read(typed);
        }}
        onKeyDown={keys}
      />
      <span className={css.unit}>{told.unit}</span>
    </span>
  );
}

/** By whom it is so, or that it is still to do; what is the person's own can be taken back. */
function Whose({ parameter: { id }, state, words, frozen, onRelease }: Props) {
  const { t } = useSpeech();
  return (
    <span className={shared.quiet}>
      {state.todo ? (
        <span className={shared.openHere}>
          <Mortise />
          <span className={shared.openWord}>{t('bench.required')}</span>
        </span>
      ) : (
        <span className={shared.source}>{sourceText(state.source, isFirmValue(state), t)}</span>
      )}
      {!frozen && (
        <Release on={id} name={words.row(id)} given={state.source === 'yours'} onRelease={onRelease} />
      )}
    </span>
  );
}

/** What is wrong, and each thing that can be taken instead with one key. */
function Problem({
  id,
  wrong,
  write,
  standard,
  onTake,
  onStandard,
}: {
  id: string;
  wrong: Wrong;
  write: (offer: string) => string;
  /** The option that it is, in words. */
  standard: string | undefined;
  onTake: (offer: string) => void;
  onStandard: () => void;
}) {
  const offered = (text: string, onClick: () => void) => (
    <button
      key={text}
      type="button"
      className={css.offer}
      onPointerDown={(event) => event.preventDefault()}
      onClick={onClick}
    >
      {text}
    </button>
  );
  return (
    <p id={id} className={shared.rowError} role="alert">
      {wrong.sentence} {wrong.offers.map((offer) => offered(write(offer), () => onTake(offer)))}
      {standard !== undefined && offered(standard, onStandard)}
    </p>
  );
}
