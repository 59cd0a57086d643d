import { useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { exact, shownUnit, shownValue } from '../../../core/exact';
import { moneyDifference, number, own } from '../../../i18n';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { Mortise } from './Mortise';
import css from './option-table.module.css';
import { Release } from '../panels/Release';
import type { RowProps } from './row-props';
import { isFirmTab, sourceText } from './source';
import { actOn, barredText, consider, swapText } from './tab-acts';
import type { TabInfo } from './tab-info';
import { barredMark, swapMark } from './marks';

const rowHeight = 26;
const mostShown = 8;

type Props = RowProps & { tabs: TabInfo[]; many: boolean };

/**
 * The options of a large feature: a field that finds, and a row each with code, mass and what it does to the
 * price. Only what is in sight is drawn.
 */
export function OptionTable(props: Props) {
  const { state, tabs, many, words, frozen, advice, onRelease } = props;
  const { t, language } = useSpeech();
  const scroller = useRef<HTMLDivElement>(null);
  const { text, list, at, type, act, keys, virtual } = useFittingOptions(props, scroller);
  const hidden = props.folded ? tabs.filter(isFoldedAway).length : 0;
  const taken = tabs.filter((tab) => tab.taken).map((tab) => tab.name);
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
          placeholder={taken.join(', ') || t('bench.findOption', { count: tabs.length })}
          value={text}
          onChange={(event) => type(event.target.value)}
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
                  isFoldedAway(tab) && css.barred,
                )}
                style={{ transform: `translateY(${String(start)}px)`, height: rowHeight }}
                onPointerDown={(event) => event.preventDefault()}
                onClick={() => act(index)}
              >
                <OptionCells {...props} tab={tab} />
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** What goes away where barred options are folded. */
const isFoldedAway = (tab: TabInfo): boolean => tab.standing === 'barred' && !tab.taken;

/** How far each key goes down the list. */
const steps: Readonly<Record<string, number>> = {
  ArrowDown: 1,
  ArrowUp: -1,
  PageDown: mostShown,
  PageUp: -mostShown,
};

/** The options that fit what is typed, what is barred behind the others, and the one that Enter takes. */
function useFittingOptions(
  { tabs, many, folded, frozen, onDecide, onConsider, onWhy }: Props,
  scroller: RefObject<HTMLDivElement | null>,
) {
  const [text, setText] = useState('');
  const [active, setActive] = useState(0);
  const wanted = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const fits = (tab: TabInfo) =>
    wanted.every((word) => tab.name.toLowerCase().includes(word) || tab.code?.toLowerCase().includes(word));
  const rank = (tab: TabInfo) => (tab.taken ? 0 : tab.standing === 'barred' ? 2 : 1);
  const list = tabs
    .filter((tab) => fits(tab) && !(folded && isFoldedAway(tab)))
    .sort((a, b) => rank(a) - rank(b));
  const at = Math.min(active, Math.max(0, list.length - 1));
  // oxlint-disable-next-line react/incompatible-library -- it is not handed on to anything memoised
  const virtual = useVirtualizer({
    count: list.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  });
  const act = (index: number): void => {
    setActive(index);
    if (list[index]) actOn(list[index], many, { frozen, onDecide, onWhy });
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>): void => {
    const step = steps[event.key];
    if (step !== undefined) {
      event.preventDefault();
      const next = Math.max(0, Math.min(list.length - 1, at + step));
      setActive(next);
      if (list[next]) consider(list[next], many, { frozen, onConsider });
      virtual.scrollToIndex(next);
    } else if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) act(at);
    else if (event.key === 'Escape' && text !== '') {
      event.stopPropagation();
      setText('');
    }
  };
  const type = (typed: string): void => {
    setText(typed);
    setActive(0);
  };
  return { text, list, at, type, act, keys, virtual };
}

/** An option: its name, code, why it is taken or not free, mass, and what it does to the price. */
function OptionCells({ tab, tabs, many, words, decimals }: Props & { tab: TabInfo }) {
  const { t, language } = useSpeech();
  const mass =
    tab.mass === undefined
      ? ''
      : `${number(shownValue(tab.mass, 'kg', words.units), language, 1)} ${shownUnit('kg', words.units)}`;
  return (
    <>
      <span className={css.mark} data-many={many} aria-hidden />
      <span className={css.name} title={tab.name}>
        {tab.name}
      </span>
      <span className={shared.code}>{tab.code}</span>
      <span className={css.said}>
        {tab.taken ? (
          <span className={shared.source}>{sourceText(tab.source, isFirmTab(tab, tabs, many), t)}</span>
        ) : tab.standing === 'swap' ? (
          <>
            {swapMark} {swapText(tab, t)}
          </>
        ) : (
          tab.standing === 'barred' && (
            <>
              {barredMark} {barredText(tab, words, t)}
            </>
          )
        )}
      </span>
      <span className={shared.figure}>{mass}</span>
      <span className={classes(shared.figure, shared.price)}>
        {tab.taken || tab.difference === undefined
          ? ''
          : moneyDifference(exact(tab.difference).toDecimalPlaces(decimals).toString(), language, decimals)}
      </span>
    </>
  );
}
