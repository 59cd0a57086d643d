import { memo, useState, type KeyboardEvent } from 'react';
import { Ban, RotateCcw, Repeat2 } from 'lucide-react';
import type { Feature, NumberParameter, Parameter, YesNoParameter } from '../../core/model';
import type { Decision, OptionState, RowState, Source, Standing, Target } from '../../core/engine';
import { exact, Exact } from '../../core/exact';
import type { Remark } from '../../workers/bench.worker';
import { moneyDifference } from '../../i18n';
import { classes } from '../../ui';
import { useSpeech } from '../speech';
import css from './bench.module.css';
import { Gauge } from './Gauge';
import { Mortise } from './Mortise';
import { DateRow, TextRow } from './TypedRows';
import { readTyped } from './typed';
import type { Words } from './words';

export interface RowProps {
  state: RowState;
  words: Words;
  differences: Readonly<Record<string, string>>;
  remarks: Readonly<Record<string, Remark>>;
  decimals: number;
  frozen: boolean;
  onDecide: (decision: Decision) => void;
  onRelease: (on: string) => void;
  onWhy: (target: Target) => void;
}

type ControlProps = RowProps & { feature: Feature | undefined; parameter: Parameter | undefined };

/** The control of a row. It is drawn again only when something that it shows has changed: most decisions change a few rows. */
export const RowControl = memo(function RowControl({ feature, parameter, ...props }: ControlProps) {
  if (feature) return <FeatureRow feature={feature} {...props} />;
  if (parameter?.type === 'number') return <NumberRow parameter={parameter} {...props} />;
  if (parameter?.type === 'yesno') return <YesNoRow parameter={parameter} {...props} />;
  if (parameter?.type === 'date') return <DateRow parameter={parameter} {...props} />;
  return parameter?.type === 'text' ? <TextRow parameter={parameter} {...props} /> : null;
}, looksAlike);

function looksAlike(before: ControlProps, after: ControlProps): boolean {
  return before.words === after.words && before.frozen === after.frozen && before.onDecide === after.onDecide && before.onWhy === after.onWhy && shownOf(before) === shownOf(after);
}

function shownOf({ feature, parameter, state, differences, remarks }: ControlProps): string {
  const keys = feature ? feature.options.map((option) => `${feature.id}.${option.id}`) : [parameter?.id ?? ''];
  return JSON.stringify([state, keys.map((key) => [differences[key], remarks[key]])]);
}

/** One tab: what it shows, and what taking it decides. */
interface TabInfo {
  key: string;
  name: string;
  standing: Standing;
  taken: boolean;
  source: Source;
  difference?: string | undefined;
  remark?: Remark | undefined;
  target: Target;
  /** What a click decides while it is free. */
  decision: Decision;
  changeable: boolean;
}

/** A feature: one choice as round, several as square controls, all as tabs on a rail. */
function FeatureRow({ feature, ...props }: RowProps & { feature: Feature }) {
  const { state, differences, remarks, words } = props;
  const many = feature.most > 1;
  const tabs = (state.options ?? []).map((option: OptionState): TabInfo => {
    const key = `${feature.id}.${option.id}`;
    const on = many ? key : feature.id;
    return {
      key, name: words.option(feature.id, option.id), standing: option.standing, taken: option.taken, source: option.source, difference: differences[key], remark: remarks[key],
      target: { on, value: many ? true : option.id }, decision: { on, value: many ? !option.taken : option.id }, changeable: option.changeable,
    };
  });
  return <TabRow {...props} tabs={tabs} many={many} />;
}

function YesNoRow({ parameter, ...props }: RowProps & { parameter: YesNoParameter }) {
  const { t } = useSpeech();
  const { state, differences } = props;
  const tab = (value: boolean, standing: Standing): TabInfo => ({
    key: `${parameter.id}.${String(value)}`, name: t(value ? 'bench.yes' : 'bench.no'), standing, taken: state.value === value, source: state.source, difference: state.value === value ? undefined : differences[parameter.id],
    target: { on: parameter.id, value }, decision: { on: parameter.id, value }, changeable: standing === 'free',
  });
  return <TabRow {...props} tabs={[tab(true, state.yes ?? 'barred'), tab(false, state.no ?? 'barred')]} many={false} />;
}

function TabRow({ state, tabs, many, words, decimals, frozen, onDecide, onRelease, onWhy }: RowProps & { tabs: TabInfo[]; many: boolean }) {
  const { t, language } = useSpeech();
  const here = tabs.filter((tab) => tab.standing !== 'barred' || tab.taken);
  const barred = tabs.filter((tab) => tab.standing === 'barred' && !tab.taken);
  const [active, setActive] = useState(0);
  const focusable = Math.min(active, here.length - 1);
  const act = (tab: TabInfo): void => {
    if (frozen) return;
    if (tab.standing !== 'free' && !tab.taken) onWhy(tab.target);
    else if (tab.taken && many && !tab.changeable) onWhy({ on: tab.target.on, value: false });
    else if (!tab.taken || many) onDecide(tab.decision);
  };
  const keys = (event: KeyboardEvent<HTMLDivElement>): void => {
    const buttons = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-tab]')];
    const at = buttons.indexOf(event.target as HTMLElement);
    if (at < 0) return;
    const go = (index: number) => { event.preventDefault(); setActive(index); buttons[index]?.focus(); };
    if (event.key === 'ArrowRight') go((at + 1) % buttons.length);
    else if (event.key === 'ArrowLeft') go((at - 1 + buttons.length) % buttons.length);
    else if (event.key.length === 1 && /[\p{L}\d]/u.test(event.key) && !event.ctrlKey && !event.metaKey && !event.altKey && !['n', 'p'].includes(event.key)) {
      const found = here.findIndex((tab) => tab.name.toLowerCase().startsWith(event.key.toLowerCase()));
      if (found >= 0) go(found);
    }
  };
  const under = (tab: TabInfo) => {
    if (tab.taken) return <span className={css.source}>{t(`source.${tab.source}`)}</span>;
    if (tab.standing === 'swap') {
      const changes = tab.remark?.kind === 'swap' ? tab.remark.changes : null;
      return changes === null ? t('bench.swap') : t(changes === 1 ? 'bench.needs' : 'bench.needsMore', { count: changes });
    }
    return tab.difference === undefined || state.value === undefined ? ' ' : <span className={css.price}>{moneyDifference(exact(tab.difference).toDecimalPlaces(decimals).toString(), language, decimals)}</span>;
  };
  const mine = (state.source === 'yours' && !many) ? state.id : null;
  return (
    <div className={css.tabs} role={many ? 'group' : 'radiogroup'} aria-label={words.row(state.id)} onKeyDown={keys}>
      {state.todo && <><Mortise /><span className={css.openWord}>{t('bench.required')}</span></>}
      {here.map((tab, index) => (
        <button
          key={tab.key} type="button" data-tab={tab.key} role={many ? 'checkbox' : 'radio'} aria-checked={tab.taken} tabIndex={index === focusable ? 0 : -1}
          className={classes(css.tab, tab.taken && css.taken, tab.standing === 'swap' && !tab.taken && css.swap, state.clashing && tab.taken && css.clashing)}
          onFocus={() => setActive(index)} onClick={() => act(tab)}
        >
          <span className={css.optionName}>{tab.standing === 'swap' && !tab.taken && <Repeat2 size={12} aria-hidden />}{tab.name}</span>
          <span className={css.under}>{under(tab)}</span>
        </button>
      ))}
      {mine && !frozen && <button type="button" className={css.release} aria-label={t('bench.release', { what: words.row(mine) })} title={t('bench.release', { what: words.row(mine) })} onClick={() => onRelease(mine)}><RotateCcw size={13} aria-hidden /></button>}
      {barred.length > 0 && (
        <div className={css.barredList}>
          {barred.map((tab) => (
            <button key={tab.key} type="button" className={css.barredOption} data-tab={tab.key} tabIndex={-1} onClick={() => onWhy(tab.target)}>
              <Ban size={12} style={{ flex: 'none', marginTop: 3 }} aria-hidden />
              <b style={{ fontWeight: 500 }}>{tab.name}</b> <span>{t('bench.barred')}{tab.remark?.kind === 'barred' ? `: ${tab.remark.causes.map((cause) => words.cause(cause)).join(' ')}` : ''}</span>
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

function NumberRow({ parameter, state, words, frozen, onDecide, onRelease, onWhy }: RowProps & { parameter: NumberParameter }) {
  const { t, language } = useSpeech();
  const { least, most, step, unit, id } = parameter;
  const [typed, setTyped] = useState<string>();
  const [error, setError] = useState<string>();
  const value = typeof state.value === 'string' ? state.value : undefined;
  const allowed = state.allowed ?? [];
  const plain = (text: string) => (language === 'de' ? text.replace('.', ',') : text);

  /** What is wrong with a number before it is decided, as a sentence; null where it may be taken. */
  const wrong = (written: string | null, original: string): string | null => {
    if (written === null) return t('decision.notANumber', { value: original });
    const number = exact(written);
    if (number.lt(least) || number.gt(most)) return t('decision.outOfRange', { value: plain(written), unit, least: plain(least), most: plain(most) });
    const steps = number.minus(least).div(step);
    if (!steps.isInteger()) {
      const below = exact(least).plus(steps.floor().times(step));
      return t('decision.betweenSteps', { value: plain(written), unit, below: plain(below.toString()), above: plain(below.plus(step).toString()) });
    }
    return null;
  };
  const isAllowed = (written: string): boolean => allowed.some((range) => exact(written).gte(range.least) && exact(written).lte(range.most));
  const decide = (text: string): void => {
    if (parameter.optional && text.trim() === '') {
      setTyped(undefined);
      if (value !== undefined) onDecide({ on: id, value: null });
      return;
    }
    const written = readTyped(text, unit);
    const problem = wrong(written, text);
    if (problem !== null || written === null) {
      setError(problem ?? undefined);
      return;
    }
    const plainValue = new Exact(written).toString();
    setTyped(undefined);
    if (plainValue === value && state.source === 'yours') return;
    if (!isAllowed(plainValue)) {
      setError(t('decision.notAllowed', { value: plain(plainValue), unit, ranges: allowed.map((range) => (range.least === range.most ? plain(range.least) : `${plain(range.least)}–${plain(range.most)}`)).join(', ') }));
      onWhy({ on: id, value: plainValue });
      return;
    }
    setError(undefined);
    onDecide({ on: id, value: plainValue });
  };
  return (
    <div>
      <div className={css.number}>
        <span className={css.numberField}>
          <input
            className={css.numberInput} data-tab={id} inputMode="decimal" aria-label={`${words.row(id)}${unit ? `, ${unit}` : ''}`} aria-invalid={error !== undefined} aria-describedby={error ? `${id}-error` : undefined}
            value={typed ?? (value === undefined ? '' : plain(value))} placeholder={parameter.optional ? t('bench.leaveOut') : t('bench.type')} disabled={frozen}
            onFocus={(event) => event.target.select()} onChange={(event) => { setTyped(event.target.value); setError(undefined); }}
            onBlur={() => { if (typed !== undefined && (typed.trim() !== '' || parameter.optional)) decide(typed); }}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) decide(typed ?? value ?? '');
              if (event.key === 'Escape') { setTyped(undefined); setError(undefined); }
              if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && !frozen) {
                event.preventDefault();
                const from = exact(value ?? least);
                decide((event.key === 'ArrowUp' ? from.plus(step) : from.minus(step)).toString());
              }
            }}
          />
          <span className={css.unit}>{unit}</span>
        </span>
        <Gauge least={least} most={most} step={step} allowed={allowed} value={value} label={`${words.row(id)}: ${allowed.map((range) => `${plain(range.least)} – ${plain(range.most)} ${unit}`).join(', ')}`} onPick={(picked) => { if (!frozen) decide(picked); }} />
        <span className={css.quiet}>
          {state.todo ? <span className={css.openHere}><Mortise /><span className={css.openWord}>{t('bench.required')}</span></span> : <span className={css.source}>{t(`source.${state.source}`)}</span>}
          {state.source === 'yours' && !frozen && <button type="button" className={css.release} aria-label={t('bench.release', { what: words.row(id) })} onClick={() => onRelease(id)}><RotateCcw size={13} aria-hidden /></button>}
        </span>
      </div>
      {error && <p id={`${id}-error`} className={css.rowError} role="alert">{error}</p>}
    </div>
  );
}

