import { useState } from 'react';
import type { NumberParameter } from '../../../core/model';
import type { Decision } from '../../../core/engine';
import { exact, Exact } from '../../../core/exact';
import { number, own } from '../../../i18n';
import { useAlive } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { Gauge } from '../head/Gauge';
import { Mortise } from './Mortise';
import css from './number.module.css';
import { Release } from '../panels/Release';
import type { RowProps } from './row-props';
import { isFirmValue, sourceText } from './source';
import { nearestAllowed, readTyped, shownUnit, shownValue } from '../session/typed';

/** What is wrong with what was typed, and what could be taken instead. */
interface Wrong {
  sentence: string;
  offers: string[];
  /** The option that the number is, where it is a standard one. */
  standard?: Decision;
}

/**
 * A number: typed in any unit that fits, dragged on its gauge, or stepped. It is shown in the person's units
 * and kept in the model's.
 */
export function NumberRow({
  parameter,
  state,
  words,
  frozen,
  advice,
  onDecide,
  onRelease,
  onWhy,
  onAnew,
}: RowProps & { parameter: NumberParameter }) {
  const { t, language } = useSpeech();
  // What is typed before the script runs would be lost: the field does not take the keyboard yet.
  const alive = useAlive();
  const { least, most, step, unit, id } = parameter;
  const { units } = words;
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<Wrong>();
  /** What was typed was near a step, and became it. */
  const [stepped, setStepped] = useState<{ sentence: string; value: string }>();
  const value = typeof state.value === 'string' ? state.value : undefined;
  /** What was decided stands in the field until the sheet shows it. */
  const [last, setLast] = useState<{ plain: string; in: typeof state }>();
  const decided = last?.in === state ? last.plain : undefined;
  const allowed = state.allowed ?? [];
  const shown = (text: string): string => number(shownValue(text, unit, units), language, 12);
  const said = shownUnit(unit, units);
  const withUnit = (text: string): string => (said ? `${shown(text)} ${said}` : shown(text));
  const take = (offers: readonly string[]): string =>
    offers.length === 0
      ? ''
      : ` ${t(offers.length > 1 ? 'decision.takeEither' : 'decision.takeOne', { below: withUnit(offers[0] ?? ''), above: withUnit(offers[1] ?? '') })}`;

  /**
   * What is wrong with a number before it is decided, and what could be taken instead: only what can be had.
   */
  const problemOf = (plain: string): Wrong | undefined => {
    const typedNumber = exact(plain);
    const offers = nearestAllowed(plain, allowed, { least, step });
    const params = { value: shown(plain), unit: said, least: shown(least), most: shown(most) };
    if (typedNumber.lt(least) || typedNumber.gt(most))
      return { sentence: t('decision.outOfRange', params) + take(offers), offers };
    if (!typedNumber.minus(least).div(step).isInteger())
      return { sentence: t('decision.between', params) + take(offers), offers };
    return undefined;
  };
  const isAllowed = (plain: string): boolean =>
    allowed.some((range) => exact(plain).gte(range.least) && exact(plain).lte(range.most));
  const decide = (plain: string): void => {
    const problem = problemOf(plain);
    if (problem) {
      onAnew();
      setWrong(problem);
      return;
    }
    setTyped(undefined);
    if (plain === value && state.source === 'yours') {
      setWrong(undefined);
      return;
    }
    if (!isAllowed(plain)) {
      const option = parameter.standard?.values[plain];
      const place = id.slice(0, id.lastIndexOf('/') + 1);
      const of = parameter.standard && place + parameter.standard.of;
      if (of !== undefined && option !== undefined) {
        onAnew();
        setWrong({
          sentence: t('bench.isStandard', { value: withUnit(plain), what: words.row(of) }),
          offers: [],
          standard: { on: of, value: option },
        });
        return;
      }
      const offers = nearestAllowed(plain, allowed, { least, step });
      setWrong({
        sentence:
          t('decision.notAllowed', {
            value: shown(plain),
            unit: said,
            ranges: allowed
              .map((range) =>
                range.least === range.most
                  ? shown(range.least)
                  : `${shown(range.least)}–${shown(range.most)}`,
              )
              .join(', '),
          }) + take(offers),
        offers,
      });
      onWhy({ on: id, value: plain });
      return;
    }
    setWrong(undefined);
    setLast({ plain, in: state });
    onDecide({ on: id, value: plain });
  };
  const here = decided ?? value;
  const shownHere = here === undefined ? '' : shown(here);
  /** Emptying takes a decision back; what is optional and there by itself is left out. */
  const empty = (): void => {
    setTyped(undefined);
    setWrong(undefined);
    if (state.source === 'yours' && value !== undefined) onRelease(id);
    else if (parameter.optional && value !== undefined) onDecide({ on: id, value: null });
  };
  const read = (text: string): void => {
    if (text.trim() === '') {
      empty();
      return;
    }
    const steps = { least, most, step };
    const found = readTyped(text, unit, { language, units, steps });
    if (found.is === 'number') {
      const exactly = readTyped(text, unit, { language, units });
      const typedAs = exactly.is === 'number' ? exactly.value : found.value;
      setStepped(
        shown(typedAs) === shown(found.value)
          ? undefined
          : {
              sentence: t('decision.nearStep', {
                typed: text.trim(),
                value: number(shownValue(typedAs, unit, units), language, 4),
                step: shown(found.value),
                unit: said,
              }),
              value: found.value,
            },
      );
      decide(found.value);
      return;
    }
    onAnew();
    if (found.is === 'none')
      setWrong({
        sentence: t(unit ? 'decision.notANumberIn' : 'decision.notANumber', { value: text, unit: said }),
        offers: [],
      });
    else
      setWrong({
        sentence: t('decision.twoWays', {
          typed: text.trim(),
          one: withUnit(found.values[1]),
          other: withUnit(found.values[0]),
        }),
        offers: [...found.values].reverse(),
      });
  };
  return (
    <div>
      <div className={css.number}>
        <span className={css.numberField}>
          <input
            className={css.numberInput}
            data-tab={id}
            data-decided={typed === undefined}
            inputMode="decimal"
            aria-label={`${words.row(id)}${said ? `, ${said}` : ''}`}
            aria-invalid={wrong !== undefined}
            aria-describedby={wrong ? `${id}-error` : undefined}
            value={typed ?? shownHere}
            placeholder={parameter.optional ? t('bench.leaveOut') : t('bench.type')}
            disabled={frozen}
            readOnly={!alive}
            onFocus={(event) => event.target.select()}
            onChange={(event) => {
              setTyped(event.target.value);
              setWrong(undefined);
              setStepped(undefined);
            }}
            onBlur={() => {
              if (typed !== undefined) read(typed);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
                if (typed !== undefined) read(typed);
                else if (value !== undefined) decide(value);
              }
              if (event.key === 'Escape') {
                setTyped(undefined);
                setWrong(undefined);
              }
              if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && !frozen) {
                event.preventDefault();
                const from = exact(value ?? least);
                decide(
                  Exact.max(
                    least,
                    Exact.min(most, event.key === 'ArrowUp' ? from.plus(step) : from.minus(step)),
                  ).toString(),
                );
              }
            }}
          />
          <span className={css.unit}>{said}</span>
        </span>
        <Gauge
          least={least}
          most={most}
          step={step}
          allowed={allowed}
          value={value}
          write={(each) => number(shownValue(each, unit, units), language, 6)}
          label={`${words.row(id)}: ${allowed.map((range) => `${shown(range.least)} – ${shown(range.most)} ${said}`).join(', ')}`}
          onPick={(picked) => {
            if (!frozen) decide(picked);
          }}
        />
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
      </div>
      {advice && state.source === 'advised' && <p className={shared.quiet}>{own(advice, language)}</p>}
      {stepped && stepped.value === value && !wrong && (
        <p className={shared.quiet} role="status">
          {stepped.sentence}
        </p>
      )}
      {wrong && (
        <p id={`${id}-error`} className={shared.rowError} role="alert">
          {wrong.sentence}{' '}
          {wrong.offers.map((offer) => (
            <button
              key={offer}
              type="button"
              className={css.offer}
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => {
                setWrong(undefined);
                decide(offer);
              }}
            >
              {withUnit(offer)}
            </button>
          ))}
          {wrong.standard && (
            <button
              type="button"
              className={css.offer}
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => {
                setWrong(undefined);
                onDecide(wrong.standard as Decision);
              }}
            >
              {words.value(wrong.standard.on, wrong.standard.value)}
            </button>
          )}
        </p>
      )}
    </div>
  );
}
