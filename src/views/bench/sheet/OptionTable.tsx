import { useRef, useState, type KeyboardEvent } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { exact } from '../../../core/exact';
import { moneyDifference, number, own } from '../../../i18n';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { Mortise } from './Mortise';
import css from './option-table.module.css';
import { Release } from '../panels/Release';
import type { RowProps } from './row-props';
import { isFirmTab, sourceText } from './source';
import { actOn, barredText, consider, swapText } from './TabRow';
import type { TabInfo } from './tab-info';
import { shownUnit, shownValue } from '../session/typed';
import { barredMark, swapMark } from './marks';

const rowHeight = 26;
const mostShown = 8;

/**
 * The options of a large feature: a field that finds, and a row each with code, mass and what it does to the
 * price. Only what is in sight is drawn.
 */
export function OptionTable({
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
  const [text, setText] = useState('');
  const [active, setActive] = useState(0);
  const scroller = useRef<HTMLDivElement>(null);
  const wanted = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const fits = (tab: TabInfo) =>
    wanted.every((word) => tab.name.toLowerCase().includes(word) || tab.code?.toLowerCase().includes(word));
  const rank = (tab: TabInfo) => (tab.taken ? 0 : tab.standing === 'barred' ? 2 : 1);
  // What is barred stands apart at the end.
  const list = tabs
    .filter((tab) => fits(tab) && (!folded || tab.standing !== 'barred' || tab.taken))
    .sort((a, b) => rank(a) - rank(b));
  const hidden = folded ? tabs.filter((tab) => tab.standing === 'barred' && !tab.taken).length : 0;
  const at = Math.min(active, Math.max(0, list.length - 1));
  // eslint-disable-next-line react-hooks/incompatible-library -- it is not handed on to anything memoised
  const virtual = useVirtualizer({
    count: list.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  });
  const act = (tab: TabInfo | undefined): void => {
    if (tab) actOn(tab, many, { frozen, onDecide, onWhy });
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>): void => {
    const to =
      event.key === 'ArrowDown'
        ? at + 1
        : event.key === 'ArrowUp'
          ? at - 1
          : event.key === 'PageDown'
            ? at + mostShown
            : event.key === 'PageUp'
              ? at - mostShown
              : null;
    if (to !== null) {
      event.preventDefault();
      const next = Math.max(0, Math.min(list.length - 1, to));
      setActive(next);
      if (list[next]) consider(list[next], many, { frozen, onConsider });
      virtual.scrollToIndex(next);
    } else if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) act(list[at]);
    else if (event.key === 'Escape' && text !== '') {
      event.stopPropagation();
      setText('');
    }
  };
  const taken = tabs.filter((tab) => tab.taken);
  const mass = (tab: TabInfo) =>
    tab.mass === undefined
      ? ''
      : `${number(shownValue(tab.mass, 'kg', words.units), language, 1)} ${shownUnit('kg', words.units)}`;
  const said = (tab: TabInfo) => {
    if (tab.taken)
      return <span className={shared.source}>{sourceText(tab.source, isFirmTab(tab, tabs, many), t)}</span>;
    if (tab.standing === 'swap')
      return (
        <>
          {swapMark} {swapText(tab, t)}
        </>
      );
    return tab.standing === 'barred' ? (
      <>
        {barredMark} {barredText(tab, words, t)}
      </>
    ) : (
      ''
    );
  };
  const id = `options-${state.id}`;
  return (
    <div className={css.table}>
      <div className={css.head}>
        {state.todo && (
          <span className={css.todo}>
            <Mortise />
            <b>{t('bench.required')}</b>
          </span>
        )}
        <input
          type="text"
          role="combobox"
          className={css.find}
          data-tab={state.id}
          aria-label={words.row(state.id)}
          aria-controls={id}
          aria-expanded
          aria-autocomplete="list"
          aria-activedescendant={list[at] ? `${id}-${String(at)}` : undefined}
          placeholder={
            taken.map((tab) => tab.name).join(', ') || t('bench.findOption', { count: tabs.length })
          }
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setActive(0);
          }}
          onKeyDown={keys}
        />
        <span className={shared.quiet}>
          {t('bench.ofMany', { count: list.length, all: tabs.length })}
          {hidden > 0 ? ` · ${t('bench.folded', { count: hidden })}` : ''}
        </span>
        {!many && !frozen && (
          <Release
            on={state.id}
            name={words.row(state.id)}
            given={state.source === 'yours'}
            onRelease={onRelease}
          />
        )}
      </div>
      {advice && state.source === 'advised' && <p className={shared.quiet}>{own(advice, language)}</p>}
      <div
        ref={scroller}
        className={css.scroller}
        style={{ height: Math.min(mostShown, Math.max(1, list.length)) * rowHeight + 2 }}
      >
        {list.length === 0 && <p className={shared.quiet}>{t('bench.noneFound', { text })}</p>}
        <div
          id={id}
          role="listbox"
          aria-label={words.row(state.id)}
          aria-multiselectable={many}
          style={{ height: virtual.getTotalSize(), position: 'relative' }}
        >
          {virtual.getVirtualItems().map(({ index, start }) => {
            const tab = list[index] as TabInfo;
            return (
              <div
                key={tab.key}
                id={`${id}-${String(index)}`}
                role="option"
                aria-selected={tab.taken}
                aria-setsize={list.length}
                aria-posinset={index + 1}
                className={classes(
                  css.option,
                  index === at && css.active,
                  tab.taken && css.taken,
                  tab.standing === 'barred' && !tab.taken && css.barred,
                )}
                style={{ transform: `translateY(${String(start)}px)`, height: rowHeight }}
                onPointerDown={(event) => event.preventDefault()}
                onClick={() => {
                  setActive(index);
                  act(tab);
                }}
              >
                <span className={css.mark} data-many={many} aria-hidden />
                <span className={css.name} title={tab.name}>
                  {tab.name}
                </span>
                <span className={shared.code}>{tab.code}</span>
                <span className={css.said}>{said(tab)}</span>
                <span className={shared.figure}>{mass(tab)}</span>
                <span className={classes(shared.figure, shared.price)}>
                  {tab.taken || tab.difference === undefined
                    ? ''
                    : moneyDifference(
                        exact(tab.difference).toDecimalPlaces(decimals).toString(),
                        language,
                        decimals,
                      )}
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
