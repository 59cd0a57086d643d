import { memo, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import { flushSync } from 'react-dom';
import type { Decision, Target } from '../../../core/engine';
import type { BenchView } from '../../../contract';
import type { Why } from '../../../workers/bench/types';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { Help } from '../panels/Help';
import { MoveOver } from '../panels/MoveOver';
import { roughHeight } from './Row';
import { RowGroup } from './RowGroup';
import { SheetRow } from './SheetRow';
import css from './sheet.module.css';
import { AwayRows, NearRows, useComing } from './viewport';
import type { Bench } from '../session/useBench';
import { WhyPanel } from '../panels/WhyPanel';
import type { Words } from '../words';
import { alertMark } from './marks';
import { askedAt, focusRow, isWithin, opened, placeOf, useKeyboardKept } from './focus';
import { InsideNumber, Opener, Refusal, SheetTop } from './SheetParts';
import type { RowActs } from './row-props';

/** What others may ask of the sheet. */
export interface SheetHandle {
  /** Brings a row into view and to the keyboard, opening the build inside that it is in. */
  go(row: string): void;
  /** The row that has the keyboard. */
  rowInFocus(): string | undefined;
  help(row: string | undefined): void;
  /** Tells why the option in focus is not free. */
  why(row: string | undefined): void;
}

interface Props {
  ref: Ref<SheetHandle>;
  view: BenchView;
  bench: Bench;
  /** The Bench as rows out of sight may show it: until what changed in sight is painted, as it was. */
  later: Bench;
  words: Words;
  frozen: boolean;
  clash: Why | null;
  asked: { target: Target; why: Why } | null;
  acts: RowActs;
  onPrefer: (change: Partial<BenchView['preferences']>) => void;
  onCloseWhy: () => void;
  onTake: (decisions: readonly Decision[], row?: string) => void;
  onMoved: () => void;
}

/**
 * Rows that are drawn at once; beyond that they are drawn, some together, when they come near to the window.
 */
const drawnAtOnce = 80;
const together = 4;
/** Between the controls of two rows, in CSS pixels. */
const rowGap = 5;

/**
 * The sheet: every row of the model with its options, in sections, those of the builds inside behind the row
 * that brings them.
 */
export const Sheet = memo(
  function Sheet({
    ref,
    view,
    bench,
    later,
    words,
    frozen,
    clash,
    asked,
    acts,
    onPrefer,
    onCloseWhy,
    onTake,
    onMoved,
  }: Props) {
    const { t } = useSpeech();
    const { outline, tariff, preferences } = view;
    const { picture } = bench;
    const { rows } = picture.state;
    const element = useRef<HTMLDivElement>(null);
    const [helped, setHelped] = useState<string>();
    const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
    const known = useMemo(
      () => new Map([...outline.features, ...outline.parameters].map((each) => [each.id, each])),
      [outline],
    );
    const sketched = useMemo(() => new Set(outline.sketched), [outline]);
    const groups = useMemo(
      () => new Map(outline.sections.map((section) => [section, inGroups(section.rows)])),
      [outline],
    );
    const movedNow = useMovedRows(bench);
    const movedLater = useMovedRows(later);
    const sections = outline.sections.filter((section) => section.rows.some((id) => rows[id]?.shown));
    const many = sections.reduce((sum, section) => sum + section.rows.length, 0) > drawnAtOnce;
    const refused = useRefusals(bench);
    const come = useComing();
    const [{ away, near }] = useState(() => ({ away: new AwayRows(), near: new NearRows(element) }));
    const [watchGroup, watchRow] = useWatch(away, come);
    const held = useKeyboardKept(element, rows, outline);
    useImperativeHandle(ref, () => ({
      go: (row) => {
        flushSync(() => {
          const place = placeOf(outline, row);
          setClosed((before) => opened(before, place));
          near.call(row);
        });
        focusRow(element.current, row);
      },
      rowInFocus: () =>
        element.current?.ownerDocument.activeElement?.closest<HTMLElement>('[data-row]')?.dataset.row,
      help: (row) => setHelped((before) => (before === row ? undefined : row)),
      why: (row) => {
        const target = row === undefined ? undefined : askedAt(element.current, known.get(row), rows[row]);
        if (target) acts.onWhy(target);
      },
    }));
    const toggle = (place: string) =>
      setClosed((before) =>
        before.has(place)
          ? new Set([...before].filter((each) => each !== place))
          : new Set([...before, place]),
      );
    const rowOf = (id: string, drawn: boolean) => {
      const [at, movedRows] = away.has(id) ? [later, movedLater] : [bench, movedNow];
      const state = at.picture.state.rows[id];
      if (!state?.shown) return null;
      const refusal = refused.get(id);
      const asking = asked && asked.target.on.split('.')[0] === id ? asked : null;
      return (
        <SheetRow
          key={id}
          id={id}
          row={known.get(id)}
          sketched={sketched.has(id)}
          state={state}
          words={words}
          differences={at.differences.get(id) ?? none}
          remarks={at.remarks.get(id) ?? none}
          decimals={tariff.decimals}
          frozen={frozen}
          folded={preferences.foldBarred}
          facts={view.facts}
          advice={at.picture.advice[id]}
          moved={movedRows.has(id)}
          drawn={drawn}
          watch={many ? undefined : watchRow}
          helped={helped === id}
          onHelp={setHelped}
          {...acts}
        >
          {refusal !== undefined && (
            <Refusal sentence={refusal} onAgain={frozen ? undefined : () => void bench.again()} />
          )}
          {helped === id && (
            <Help
              row={id}
              known={known.get(id)}
              sketched={sketched.has(id)}
              bench={bench}
              drawing={view.document.drawing}
              words={words}
              onClose={() => setHelped(undefined)}
            />
          )}
          {asking && (
            <WhyPanel
              title={t('bench.why', { what: askedOf(asking.target, words) })}
              why={asking.why}
              words={words}
              decimals={tariff.decimals}
              second={() => bench.second(asking.target)}
              onClose={onCloseWhy}
              onTake={(way) => onTake(way.decisions, id)}
            />
          )}
        </SheetRow>
      );
    };

    return (
      <div
        className={css.sheet}
        ref={element}
        role="region"
        aria-label={t('bench.sheet')}
        tabIndex={-1}
        onFocus={held}
      >
        <SheetTop sheet={element} rows={rows} preferences={preferences} onPrefer={onPrefer} />
        {frozen && (
          <p className={shared.note}>
            {alertMark}
            {t('bench.settledQuote')}
          </p>
        )}
        {!frozen && view.modelVersion.newest > view.modelVersion.number && (
          <MoveOver view={view} bench={bench} words={words} onMoved={onMoved} />
        )}
        {clash && (
          <WhyPanel
            clash
            title={t('bench.clashTitle')}
            why={clash}
            words={words}
            decimals={tariff.decimals}
            onTake={(way) => onTake(way.decisions)}
          />
        )}
        {sections.map((section) => {
          const { place } = section;
          // A build inside says its part number once, and opens and closes there.
          const first = place !== undefined && sections.find((each) => each.place === place) === section;
          const within = place !== undefined && isWithin(closed, place);
          if (within && !(first && closed.has(place))) return null;
          const folded = first && closed.has(place);
          const title = folded ? (words.place(place) ?? '') : words.section(section);
          return (
            <section
              data-section={title}
              key={`${place ?? ''}/${section.id}`}
              aria-label={words.section(section)}
              className={classes(place !== undefined && css.inside)}
              style={place === undefined ? undefined : { marginLeft: 12 * (place.split('/').length / 3) }}
            >
              <h2 className={css.sectionTitle}>
                {first && <Opener name={words.place(place)} folded={folded} onToggle={() => toggle(place)} />}
                {title}
                {first && <InsideNumber place={place} sections={sections} picture={picture} />}
              </h2>
              {!within &&
                groups.get(section)?.map((group) => {
                  const height = group.reduce(
                    (sum, id) => sum + (rows[id]?.shown ? roughHeight(known.get(id)) + rowGap : 0),
                    0,
                  );
                  return (
                    height > 0 && (
                      <RowGroup
                        key={group[0]}
                        rows={group}
                        height={height}
                        near={many ? near : null}
                        watch={watchGroup}
                      >
                        {(drawn) => group.map((id) => rowOf(id, drawn))}
                      </RowGroup>
                    )
                  );
                })}
            </section>
          );
        })}
      </div>
    );
  },
  (before, after) => {
    for (const key of ['view', 'words', 'frozen', 'clash', 'asked', 'acts'] as const)
      if (before[key] !== after[key]) return false;
    for (const key of ['picture', 'moved', 'remarks', 'differences', 'scene', 'refusals'] as const)
      if (before.bench[key] !== after.bench[key] || before.later[key] !== after.later[key]) return false;
    return true;
  },
);

const useMovedRows = ({ moved }: Bench): ReadonlySet<string> =>
  useMemo(() => new Set(moved.map((each) => each.row)), [moved]);

/** Nothing is told of a row's options. */
const none = {};

const inGroups = (rows: readonly string[]): string[][] =>
  Array.from({ length: Math.ceil(rows.length / together) }, (_, at) =>
    rows.slice(at * together, (at + 1) * together),
  );

const useRefusals = ({ refusals }: Bench): ReadonlyMap<string, string> =>
  // What the server did not take is told where it was decided, and stays as it was decided.
  useMemo(
    () =>
      new Map(
        refusals.flatMap(({ field, message }) =>
          field === undefined ? [] : [[field.split('.')[0] ?? field, message] as const],
        ),
      ),
    [refusals],
  );

/** Watches what comes into sight and goes out of it. */
function useWatch(away: AwayRows, come: ReturnType<typeof useComing>) {
  return useMemo(() => {
    const watch = (element: HTMLElement | null, ids: readonly string[]) => {
      come(element);
      return element ? away.watch(element, ids) : undefined;
    };
    return [
      watch,
      (row: HTMLElement | null) => watch(row, row?.dataset.row === undefined ? [] : [row.dataset.row]),
    ] as const;
  }, [away, come]);
}

/** What is asked why, in words. */
const askedOf = ({ on, value }: Target, words: Words): string =>
  on.includes('.') || typeof value === 'boolean' ? words.subject(on) : words.value(on, value);
