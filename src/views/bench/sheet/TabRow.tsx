import { memo, useCallback, useRef, useState, type KeyboardEvent } from 'react';
import type { Decision, Standing, Target } from '../../../core/engine';
import { exact } from '../../../core/exact';
import { moneyDifference, own, type Translate } from '../../../i18n';
import { classes, useLatest } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { Mortise } from './Mortise';
import { Release } from '../panels/Release';
import type { RowProps } from './row-props';
import { isFirmTab, sourceText } from './source';
import css from './tabs.module.css';
import type { Words } from '../words';
import { barredLineMark, swapMark } from './marks';
import type { TabInfo } from './tab-info';

/** What a click on an option decides, or whose no it asks about; null where it does nothing. */
function stepOn(tab: TabInfo, many: boolean): { decide: Decision } | { why: Target } | null {
  if (tab.standing !== 'free' && !tab.taken) return { why: tab.target };
  if (tab.taken && many && !tab.changeable) return { why: { on: tab.target.on, value: false } };
  return !tab.taken || many ? { decide: tab.decision } : null;
}

/** What a click on an option does: decide where it is free, tell why where it is not. */
export function actOn(
  tab: TabInfo,
  many: boolean,
  { frozen, onDecide, onWhy }: Pick<RowProps, 'frozen' | 'onDecide' | 'onWhy'>,
): void {
  const step = frozen ? null : stepOn(tab, many);
  if (step && 'decide' in step) onDecide(step.decide);
  else if (step) onWhy(step.why);
}

/** An option has the keyboard, or the pointer is down on it: its decision may come next. */
export function consider(
  tab: TabInfo,
  many: boolean,
  { frozen, onConsider }: Pick<RowProps, 'frozen' | 'onConsider'>,
): void {
  const step = frozen ? null : stepOn(tab, many);
  if (step && 'decide' in step) onConsider(step.decide);
}

/** How many decisions a swap changes, in words. */
export function swapText({ remark, unproven }: TabInfo, t: Translate): string {
  if (unproven) return t('bench.unproven');
  const changes = remark?.kind === 'swap' ? remark.changes : null;
  return changes === null
    ? t('bench.swap')
    : t(changes === 1 ? 'bench.needs' : 'bench.needsMore', { count: changes });
}

/** Why an option cannot be had, in words. */
export const barredText = ({ remark, unproven }: TabInfo, words: Words, t: Translate): string =>
  unproven
    ? t('bench.unproven')
    : `${t('bench.barred')}${remark?.kind === 'barred' ? `: ${remark.causes.map((cause) => words.cause(cause)).join(' ')}` : ''}`;

/** Letters typed one after another find an option; a pause begins a new word. */
export function useTypeAhead(find: (typed: string) => boolean): (event: KeyboardEvent) => boolean {
  const typed = useRef({ text: '', at: 0 });
  return (event) => {
    const letter =
      event.key.length === 1 &&
      /[\p{L}\d]/u.test(event.key) &&
      !event.ctrlKey &&
      !event.metaKey &&
      !event.altKey;
    if (!letter) {
      typed.current = { text: '', at: 0 };
      return false;
    }
    const fresh = event.timeStamp - typed.current.at > 800;
    // Alone these two lead to what is to do; within a word they are letters.
    if (fresh && ['n', 'p'].includes(event.key)) return false;
    const text = (fresh ? '' : typed.current.text) + event.key.toLowerCase();
    typed.current = { text, at: event.timeStamp };
    const found = find(text);
    if (found) {
      event.preventDefault();
      event.stopPropagation();
    }
    return found;
  };
}

interface TabProps {
  id: string;
  name: string;
  under: string;
  hint: string | undefined;
  many: boolean;
  taken: boolean;
  standing: Standing;
  clashing: boolean;
  inTabOrder: boolean;
  /** Its place among the tabs of the row. */
  at: number;
  onFocus: (at: number) => void;
  onTake: (at: number) => void;
}

/** As many characters stand beneath a name without making its tab wider. */
const mostBeneath = 10;

const Tab = memo(function Tab({
  id,
  name,
  under,
  hint,
  many,
  taken,
  standing,
  clashing,
  inTabOrder,
  at,
  onFocus,
  onTake,
}: TabProps) {
  const swap = standing === 'swap' && !taken;
  return (
    <button
      type="button"
      data-tab={id}
      role={many ? 'checkbox' : 'radio'}
      aria-checked={taken}
      tabIndex={inTabOrder ? 0 : -1}
      className={classes(css.tab, taken && css.taken, swap && css.swap, clashing && css.clashing)}
      onFocus={() => onFocus(at)}
      onClick={() => onTake(at)}
    >
      {swap && swapMark}
      {name}
      <span
        className={classes(
          css.under,
          under.length > mostBeneath && css.wide,
          taken ? shared.source : !swap && shared.price,
        )}
        title={hint}
      >
        {under}
      </span>
    </button>
  );
});

/** A row whose options are tabs. */
export function TabRow({
  state,
  tabs,
  many,
  words,
  decimals,
  frozen,
  folded,
  advice,
  onDecide,
  onConsider,
  onRelease,
  onWhy,
}: RowProps & { tabs: TabInfo[]; many: boolean }) {
  const { t, language } = useSpeech();
  const here = tabs.filter((tab) => tab.standing !== 'barred' || tab.taken);
  const barred = tabs.filter((tab) => tab.standing === 'barred' && !tab.taken);
  const [active, setActive] = useState(0);
  const [unfolded, setUnfolded] = useState(false);
  const group = useRef<HTMLDivElement>(null);
  const focusable = Math.min(active, here.length - 1);
  // What a tab calls stays the same, so that a tab that shows nothing new is not drawn again.
  const latest = useLatest({
    take: (at: number) => {
      const tab = here[at];
      if (tab) actOn(tab, many, { frozen, onDecide, onWhy });
    },
    consider: (at: number) => {
      const tab = here[at];
      if (tab) consider(tab, many, { frozen, onConsider });
    },
  });
  const take = useCallback((at: number) => latest.current.take(at), [latest]);
  const focus = useCallback(
    (at: number) => {
      setActive(at);
      latest.current.consider(at);
    },
    [latest],
  );
  const typeAhead = useTypeAhead((typed) => {
    const found = [...here, ...(folded && !unfolded ? [] : barred)].findIndex((tab) =>
      tab.name.toLowerCase().startsWith(typed),
    );
    if (found < 0) return false;
    if (found < here.length) setActive(found);
    group.current?.querySelectorAll<HTMLElement>('[data-tab]')[found]?.focus();
    return true;
  });
  const keys = (event: KeyboardEvent<HTMLDivElement>): void => {
    const buttons = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-tab]')];
    const at = buttons.indexOf(event.target as HTMLElement);
    if (at < 0) return;
    const go = (index: number) => {
      event.preventDefault();
      setActive(index);
      buttons[index]?.focus();
    };
    if (event.key === 'ArrowRight') go((at + 1) % buttons.length);
    else if (event.key === 'ArrowLeft') go((at - 1 + buttons.length) % buttons.length);
    else typeAhead(event);
  };
  const under = (tab: TabInfo): string => {
    if (tab.taken) return sourceText(tab.source, isFirmTab(tab, tabs, many), t);
    if (tab.standing === 'swap') return swapText(tab, t);
    return tab.difference === undefined
      ? '\u00a0'
      : moneyDifference(exact(tab.difference).toDecimalPlaces(decimals).toString(), language, decimals);
  };
  const hint = (tab: TabInfo): string | undefined => {
    if (!tab.taken) return undefined;
    if (tab.source === 'follows') return t(isFirmTab(tab, tabs, many) ? 'bench.firm' : 'bench.notFirm');
    return tab.source === 'advised' ? own(advice, language) || t('bench.mayChange') : undefined;
  };
  return (
    <div ref={group} role={many ? 'group' : 'radiogroup'} aria-label={words.row(state.id)} onKeyDown={keys}>
      <div className={css.rail}>
        {state.todo && (
          <>
            <Mortise />
            <span className={shared.openWord}>{t('bench.required')}</span>
          </>
        )}
        {here.map((tab, index) => (
          <Tab
            key={tab.key}
            id={tab.key}
            name={tab.name}
            under={under(tab)}
            hint={hint(tab)}
            many={many}
            taken={tab.taken}
            standing={tab.standing}
            clashing={state.clashing && tab.taken}
            inTabOrder={index === focusable}
            onFocus={focus}
            onTake={take}
            at={index}
          />
        ))}
        {!many && !frozen && (
          <Release
            on={state.id}
            name={words.row(state.id)}
            given={state.source === 'yours'}
            onRelease={onRelease}
          />
        )}
      </div>
      {advice && state.source === 'advised' && <p className={css.advice}>{own(advice, language)}</p>}
      {barred.length > 0 &&
        (folded && !unfolded ? (
          <button
            type="button"
            className={css.foldedAway}
            aria-expanded={false}
            onClick={() => setUnfolded(true)}
          >
            {t('bench.folded', { count: barred.length })}
          </button>
        ) : (
          <div className={css.barredList}>
            {barred.map((tab) => (
              <button
                key={tab.key}
                type="button"
                className={css.barredOption}
                data-tab={tab.key}
                tabIndex={-1}
                onClick={() => onWhy(tab.target)}
              >
                {barredLineMark}
                <b>{tab.name}</b> <span>{barredText(tab, words, t)}</span>
              </button>
            ))}
          </div>
        ))}
    </div>
  );
}
