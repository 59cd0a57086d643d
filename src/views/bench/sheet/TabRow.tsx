import { useCallback, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { exact } from '../../../core/exact';
import { moneyDifference, own } from '../../../i18n';
import { useLatest } from '../../../ui';
import { useSpeech, type InWords } from '../../speech';
import shared from '../bench.module.css';
import { Mortise } from './Mortise';
import { Release } from '../panels/Release';
import type { RowProps } from './row-props';
import { isFirmTab, sourceText } from './source';
import css from './tabs.module.css';
import { barredLineMark } from './marks';
import { Tab } from './Tab';
import { actOn, barredText, consider, swapText } from './tab-acts';
import type { TabInfo } from './tab-info';
import { useTypeAhead } from './useTypeAhead';

type Props = RowProps & { tabs: TabInfo[]; many: boolean };

/** A row whose options are tabs. */
export function TabRow(props: Props) {
  const { state, tabs, many, words, frozen, folded, advice, onRelease } = props;
  const speech = useSpeech();
  const { t, language } = speech;
  const here = tabs.filter((tab) => tab.standing !== 'barred' || tab.taken);
  const barred = tabs.filter((tab) => tab.standing === 'barred' && !tab.taken);
  const [unfolded, setUnfolded] = useState(false);
  const group = useRef<HTMLDivElement>(null);
  const away = folded && !unfolded;
  const { focusable, focus, take, keys } = useTabs(props, group, here, away ? [] : barred);
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
            under={underTab(tab, props, speech)}
            hint={hintOf(tab, props, speech)}
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
      <Barred {...props} barred={barred} away={away} onUnfold={() => setUnfolded(true)} />
    </div>
  );
}

/** Which tab has the keyboard, and what keys and clicks on tabs do; `barred` are those that can be seen. */
function useTabs(
  { many, frozen, onDecide, onConsider, onWhy }: Props,
  group: RefObject<HTMLDivElement | null>,
  here: readonly TabInfo[],
  barred: readonly TabInfo[],
) {
  const [active, setActive] = useState(0);
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
    const found = [...here, ...barred].findIndex((tab) => tab.name.toLowerCase().startsWith(typed));
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
  return { focusable: Math.min(active, here.length - 1), focus, take, keys };
}

/** Beneath the name of an option: why it is taken, or what taking it does. */
function underTab(tab: TabInfo, { tabs, many, decimals }: Props, { t, language }: InWords): string {
  if (tab.taken && tab.unsold !== undefined) return tab.unsold;
  if (tab.taken) return sourceText(tab.source, isFirmTab(tab, tabs, many), t);
  if (tab.standing === 'swap') return swapText(tab, t);
  return tab.difference === undefined
    ? '\u00a0'
    : moneyDifference(exact(tab.difference).toDecimalPlaces(decimals).toString(), language, decimals);
}

function hintOf(tab: TabInfo, { tabs, many, advice }: Props, { t, language }: InWords): string | undefined {
  if (!tab.taken) return undefined;
  if (tab.source === 'follows') return t(isFirmTab(tab, tabs, many) ? 'bench.firm' : 'bench.notFirm');
  return tab.source === 'advised' ? own(advice, language) || t('bench.mayChange') : undefined;
}

/** The options that cannot be had, each with why, or folded away into how many they are. */
function Barred({
  barred,
  away,
  words,
  onWhy,
  onUnfold,
}: Props & { barred: readonly TabInfo[]; away: boolean; onUnfold: () => void }) {
  const { t } = useSpeech();
  if (barred.length === 0) return null;
  if (away)
    return (
      <button type="button" className={css.foldedAway} aria-expanded={false} onClick={onUnfold}>
        {t('bench.folded', { count: barred.length })}
      </button>
    );
  return (
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
  );
}
