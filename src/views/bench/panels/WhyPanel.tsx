import { useLayoutEffect, useRef, useState } from 'react';
import { exact } from '../../../core/exact';
import type { Cause } from '../../../core/engine';
import type { Why, Way } from '../../../workers/bench/types';
import { moneyDifference } from '../../../i18n';
import { Button, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import css from './why.module.css';
import type { Words } from '../words';

interface Props {
  title: string;
  why: Why;
  words: Words;
  decimals: number;
  clash?: boolean;
  /** Another cause, where one is asked for. */
  second?: () => Promise<readonly Cause[]>;
  onTake: (way: Way) => void;
  onClose?: () => void;
}

/** The reason as a chain of sentences, and the ways out with their effect; a digit takes one. */
export function WhyPanel({ title, why, words, decimals, clash = false, second, onTake, onClose }: Props) {
  const { t } = useSpeech();
  const ref = useRef<HTMLElement>(null);
  const [told, setTold] = useState<{ of: Why; causes: readonly Cause[] }>();
  const other = told?.of === why ? told.causes : undefined;
  // Before it is seen, so that a digit typed at first sight is its own.
  useLayoutEffect(() => {
    if (clash) return;
    const show = () => ref.current?.scrollIntoView({ block: 'nearest' });
    ref.current?.focus({ preventScroll: true });
    show();
    // Once more when the rows that came into sight have their heights.
    const again = requestAnimationFrame(() => requestAnimationFrame(show));
    return () => cancelAnimationFrame(again);
  }, [clash, why]);
  return (
    <section
      ref={ref}
      tabIndex={-1}
      className={classes(css.why, clash && css.whyClash)}
      aria-label={title}
      onKeyDown={(event) => {
        const way = /^[1-9]$/.test(event.key) ? why.ways[Number(event.key) - 1] : undefined;
        if (way) {
          event.preventDefault();
          event.stopPropagation();
          onTake(way);
        }
        if (event.key === 'Escape' && onClose) {
          event.stopPropagation();
          onClose();
        }
      }}
    >
      <div className={css.whyHead}>
        <h3>{title}</h3>
        {onClose && (
          <Button look="plain" onClick={onClose}>
            {t('bench.close')}
          </Button>
        )}
      </div>
      <ul className={css.causes}>
        {why.causes.map((cause, index) => (
          <li key={String(index)}>
            {words.cause(cause)}
            {cause.kind === 'rule' && cause.help && (
              <>
                {' '}
                <a href={cause.help}>{t('bench.readMore')}</a>
              </>
            )}
          </li>
        ))}
      </ul>
      {second && why.causes.length > 0 && (
        <Second
          causes={other}
          words={words}
          onAsk={() =>
            void second().then((found) => {
              setTold({ of: why, causes: found });
              ref.current?.focus();
            })
          }
        />
      )}
      {why.ways.length === 0 ? (
        <p className={shared.quiet}>
          {why.causes.some((cause) => cause.kind === 'decision') ? t('bench.noWay') : t('bench.alone')}
        </p>
      ) : (
        <div className={css.ways} role="group" aria-label={t('bench.ways')}>
          {why.ways.map((way, index) => (
            <WayOut
              key={String(index)}
              {...{ way, words, decimals }}
              digit={index + 1}
              onTake={() => onTake(way)}
            />
          ))}
        </div>
      )}
    </section>
  );
}

/** Another cause, where it was asked for; else the question for it. */
function Second({
  causes,
  words,
  onAsk,
}: {
  causes: readonly Cause[] | undefined;
  words: Words;
  onAsk: () => void;
}) {
  const { t } = useSpeech();
  if (causes === undefined)
    return (
      <p>
        <button type="button" className={css.more} onClick={onAsk}>
          {t('bench.second')}
        </button>
      </p>
    );
  return (
    <div className={css.causes}>
      {causes.length === 0 ? (
        <p className={shared.quiet}>{t('bench.noSecond')}</p>
      ) : (
        <>
          <p className={shared.quiet}>{t('bench.alsoBecause')}</p>
          <ul>
            {causes.map((cause, index) => (
              <li key={String(index)}>{words.cause(cause)}</li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

/** A way out: what changes, what moves with it, and what it costs in time and money. */
function WayOut({
  way,
  digit,
  words,
  decimals,
  onTake,
}: {
  way: Way;
  /** The key that takes it. */
  digit: number;
  words: Words;
  decimals: number;
  onTake: () => void;
}) {
  const { t, language } = useSpeech();
  return (
    <button type="button" className={css.way} onClick={onTake}>
      <span>
        <span className={css.digit}>{digit}</span>{' '}
        {way.changes
          .map(({ on, from, to }) =>
            to === undefined
              ? t('bench.leaveOpen', { what: words.subject(on), from: words.value(on, from) })
              : t('bench.changeTo', {
                  what: words.subject(on),
                  from: words.value(on, from),
                  to: words.value(on, to),
                }),
          )
          .join('; ')}
        {way.given && (
          <span className={css.wayGiven}>
            {' '}
            · {t('bench.givenWay', { what: way.given.map((row) => words.row(row)).join(', ') })}
          </span>
        )}
        {way.moved.length > 0 && (
          <span className={css.wayMore}>
            {' '}
            · {t('bench.effect', { count: way.moved.length })}:{' '}
            {way.moved
              .map(
                (each) =>
                  `${words.row(each.row)} ${each.after === undefined ? t('bench.hidden') : words.value(each.row, each.after)}`,
              )
              .join(', ')}
          </span>
        )}
      </span>
      <span className={shared.figure}>
        {way.effect.leadDays
          ? `${way.effect.leadDays > 0 ? '+' : '−'}${t('unit.days', { count: Math.abs(way.effect.leadDays) })}`
          : ''}
      </span>
      <span className={shared.figure}>
        {moneyDifference(exact(way.effect.list).toDecimalPlaces(decimals).toString(), language, decimals)}
      </span>
    </button>
  );
}
