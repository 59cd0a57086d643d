import { useState } from 'react';
import type { NumberParameter } from '../../core/model';
import { exact, Exact } from '../../core/exact';
import { number, own } from '../../i18n';
import { useSpeech } from '../speech';
import shared from './bench.module.css';
import { Gauge } from './Gauge';
import { Mortise } from './Mortise';
import css from './number.module.css';
import { Release } from './Release';
import type { RowProps } from './Row';
import { isFirmValue, sourceText } from './source';
import { readTyped, shownUnit, shownValue } from './typed';

/** A number: typed in any unit that fits, dragged on its gauge, or stepped. It is shown in the person's units and kept in the model's. */
export function NumberRow({ parameter, state, words, frozen, advice, onDecide, onRelease, onWhy }: RowProps & { parameter: NumberParameter }) {
  const { t, language } = useSpeech();
  const { least, most, step, unit, id } = parameter;
  const { units } = words;
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<{ sentence: string; offers: string[] }>();
  /** What was typed was near a step, and became it. */
  const [stepped, setStepped] = useState<{ sentence: string; value: string }>();
  const value = typeof state.value === 'string' ? state.value : undefined;
  const allowed = state.allowed ?? [];
  const shown = (text: string): string => {
    const written = shownValue(text, unit, units);
    return language === 'de' ? written.replace('.', ',') : written;
  };
  const said = shownUnit(unit, units);

  const outside = (written: string): string => t('decision.outOfRange', { value: shown(written), unit: said, least: shown(least), most: shown(most) });
  /** What is wrong with a number before it is decided, and what could be taken instead. */
  const problemOf = (written: string | null, original: string): typeof wrong => {
    if (written === null) return { sentence: t(unit ? 'decision.notANumberIn' : 'decision.notANumber', { value: original, unit: said }), offers: [] };
    const typedNumber = exact(written);
    const steps = typedNumber.minus(least).div(step);
    if (typedNumber.lt(least)) return { sentence: outside(written), offers: [least] };
    if (typedNumber.gt(most)) return { sentence: outside(written), offers: [exact(least).plus(exact(most).minus(least).div(step).floor().times(step)).toString()] };
    if (steps.isInteger()) return undefined;
    const below = exact(least).plus(steps.floor().times(step));
    const offers = [below, below.plus(step)].filter((each) => each.lte(most)).map(String);
    return { sentence: t('decision.betweenSteps', { value: shown(written), unit: said, below: shown(offers[0] ?? least), above: shown(offers[1] ?? most) }), offers };
  };
  const isAllowed = (written: string): boolean => allowed.some((range) => exact(written).gte(range.least) && exact(written).lte(range.most));
  const take = (plain: string): void => {
    setTyped(undefined);
    if (plain === value && state.source === 'yours') return;
    if (!isAllowed(plain)) {
      setWrong({ sentence: t('decision.notAllowed', { value: shown(plain), unit: said, ranges: allowed.map((range) => (range.least === range.most ? shown(range.least) : `${shown(range.least)}–${shown(range.most)}`)).join(', ') }), offers: [] });
      onWhy({ on: id, value: plain });
      return;
    }
    setWrong(undefined);
    onDecide({ on: id, value: plain });
  };
  const decide = (text: string): void => {
    if (parameter.optional && text.trim() === '') {
      setTyped(undefined);
      if (value !== undefined) onDecide({ on: id, value: null });
      return;
    }
    const written = readTyped(text, unit, units, { least, most, step });
    const problem = problemOf(written, text);
    if (problem || written === null) {
      setWrong(problem);
      return;
    }
    const plain = new Exact(written).toString();
    const exactly = readTyped(text, unit, units) ?? plain;
    setStepped(shown(exactly) === shown(plain) ? undefined : { sentence: t('decision.nearStep', { typed: text.trim(), value: number(shownValue(exactly, unit, units), language, 4), step: shown(plain), unit: said }), value: plain });
    take(plain);
  };
  return (
    <div>
      <div className={css.number}>
        <span className={css.numberField}>
          <input
            className={css.numberInput} data-tab={id} data-decided={typed === undefined} inputMode="decimal" aria-label={`${words.row(id)}${said ? `, ${said}` : ''}`} aria-invalid={wrong !== undefined} aria-describedby={wrong ? `${id}-error` : undefined}
            value={typed ?? (value === undefined ? '' : shown(value))} placeholder={parameter.optional ? t('bench.leaveOut') : t('bench.type')} disabled={frozen}
            onFocus={(event) => event.target.select()} onChange={(event) => { setTyped(event.target.value); setWrong(undefined); setStepped(undefined); }}
            onBlur={() => { if (typed !== undefined && (typed.trim() !== '' || parameter.optional)) decide(typed); }}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) decide(typed ?? (value === undefined ? '' : shown(value)));
              if (event.key === 'Escape') { setTyped(undefined); setWrong(undefined); }
              if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && !frozen) {
                event.preventDefault();
                const from = exact(value ?? least);
                take(Exact.max(least, Exact.min(most, event.key === 'ArrowUp' ? from.plus(step) : from.minus(step))).toString());
              }
            }}
          />
          <span className={css.unit}>{said}</span>
        </span>
        <Gauge least={least} most={most} step={step} allowed={allowed} value={value} write={(each) => number(shownValue(each, unit, units), language, 6)} label={`${words.row(id)}: ${allowed.map((range) => `${shown(range.least)} – ${shown(range.most)} ${said}`).join(', ')}`} onPick={(picked) => { if (!frozen) take(picked); }} />
        <span className={shared.quiet}>
          {state.todo ? <span className={shared.openHere}><Mortise /><span className={shared.openWord}>{t('bench.required')}</span></span> : <span className={shared.source}>{sourceText(state.source, isFirmValue(state), t)}</span>}
          {!frozen && <Release on={id} name={words.row(id)} given={state.source === 'yours'} onRelease={onRelease} />}
        </span>
      </div>
      {advice && state.source === 'advised' && <p className={shared.quiet}>{own(advice, language)}</p>}
      {stepped && stepped.value === value && !wrong && <p className={shared.quiet} role="status">{stepped.sentence}</p>}
      {wrong && (
        <p id={`${id}-error`} className={shared.rowError} role="alert">
          {wrong.sentence} {wrong.offers.map((offer) => <button key={offer} type="button" className={css.offer} onPointerDown={(event) => event.preventDefault()} onClick={() => { setWrong(undefined); take(offer); }}>{shown(offer)} {said}</button>)}
        </p>
      )}
    </div>
  );
}
