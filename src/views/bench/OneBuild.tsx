import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Target } from '../../core/engine';
import type { BenchView } from '../../contract';
import type { Why } from '../../workers/bench/types';
import { classes, say, useLatest } from '../../ui';
import { sentences } from '../api';
import { useSpeech } from '../speech';
import css from './bench.module.css';
import { Contents, finderId } from './sheet/Contents';
import { Head } from './head/Head';
import { useCommands } from '../shell/commands';
import { Announcer } from './head/Announcer';
import { useHeldKeys } from './session/held-keys';
import { useBenchKeys, type Keys } from './keys';
import { useAfterPaint } from './session/painted';
import { Sheet } from './sheet/Sheet';
import type { SheetHandle } from './sheet/sheet-props';
import { BenchNow, Side } from './panels/Side';
import { Strip, type StripTab } from './head/Strip';
import { useBench, type Bench } from './session/useBench';
import type { RowActs } from './sheet/row-props';
import { useBuildActs } from './useBuildActs';
import { Words } from './words';

interface Props {
  view: BenchView;
  /** Goes to another variant. */
  onOpen: (id: string) => Promise<void>;
  onPrefer: (change: Partial<BenchView['preferences']>) => void;
}

/** A build on the Bench: what can be decided in the middle, what follows from it around. */
export function OneBuild(props: Props) {
  const { view, onOpen, onPrefer } = props;
  const [large, setLarge] = useState(false);
  const { bench, later, words, frozen, build, sheet, go, asked, strip, keeping } = useOneBuild(props);
  const clash = useClash(bench);
  const acts = useRowActs(bench, asked.set);
  const common = { view, words, frozen };
  return (
    <div className={classes(css.page, large && css.wideSide)} data-waiting={bench.waiting || undefined}>
      <Head
        view={view}
        bench={bench}
        frozen={frozen}
        keeping={keeping.is}
        onKeeping={keeping.set}
        onGo={go}
        onCopy={() => void build.copy()}
        onQuote={() => void build.onQuote()}
      />
      <Contents
        {...common}
        picture={later.picture}
        onGo={go}
        onOpen={(id) => void build.openVariant(id)}
        onAdd={(empty) => void build.addVariant(empty)}
        onCompare={() => strip.set('variants')}
      />
      <Sheet
        {...common}
        ref={sheet}
        bench={bench}
        later={later}
        clash={clash}
        asked={asked.is}
        acts={acts}
        onPrefer={onPrefer}
        onCloseWhy={() => {
          const row = asked.is?.target.on.split('.')[0];
          asked.set(null);
          if (row) setTimeout(() => go(row), 0);
        }}
        onTake={(decisions, row) => {
          asked.set(null);
          void bench.take(decisions).then(() => {
            if (row) go(row);
          });
        }}
        onMoved={() => void bench.settled().then(() => onOpen(view.build.id))}
      />
      <Announcer
        bench={bench}
        words={words}
        currency={view.tariff.currency}
        decimals={view.tariff.decimals}
      />
      <BenchNow value={bench}>
        <Side {...common} bench={later} large={large} onLarge={() => setLarge(!large)} onGo={go} />
      </BenchNow>
      <Strip
        {...common}
        tab={strip.is}
        onTab={strip.set}
        bench={later}
        onOpen={(id) => void build.openVariant(id)}
      />
    </div>
  );
}

/** A build with what is open beside it, its commands and its keys. */
function useOneBuild({ view, onOpen, onPrefer }: Props) {
  const { t, language } = useSpeech();
  // What the person prefers is no reason to begin anew.
  const [opened] = useState(view);
  const bench = useBench(opened);
  // The sheet, the part number and the net price show at once what was decided; the rest follows once that is
  // seen.
  const later = useAfterPaint(bench);
  const { outline } = opened;
  const { units, foldBarred } = view.preferences;
  const words = useMemo(() => new Words(outline, t, language, units), [outline, t, language, units]);
  const [asked, setAsked] = useState<{ target: Target; why: Why } | null>(null);
  const [strip, setStrip] = useState<StripTab>(view.may.making ? 'parts' : 'changed');
  const [keeping, setKeeping] = useState(false);
  const sheet = useRef<SheetHandle>(null);
  const frozen = !opened.mayChange;
  const go = useCallback((row: string) => sheet.current?.go(row), []);
  const obey = useHeldKeys({ busy: bench.busy, shown: bench.shownAll });
  // The first thing to do is where one begins, and where keys go that were typed before the page was ready.
  useEffect(() => {
    const first = Object.values(opened.picture.state.rows).find((row) => row.shown && row.todo);
    if (first) go(first.id);
    obey(window.earlyKeys?.() ?? []);
  }, [go, obey, opened]);
  useEffect(() => {
    if (bench.save === 'refused') say(sentences(bench.refusals, t('request.failed')), true);
  }, [bench.save, bench.refusals, t]);

  const build = useBuildActs({ view, bench, words, frozen, onOpen });
  const turn = {
    find: () => document.getElementById(finderId)?.focus(),
    fold: () => onPrefer({ foldBarred: !foldBarred }),
    units: () => onPrefer({ units: units === 'metric' ? 'imperial' : 'metric' }),
    strip: setStrip,
    keep: () => setKeeping(true),
  };
  useBuildCommands({ view, bench, build, frozen, turn });
  useBenchKeys({
    undo: bench.undo,
    redo: bench.redo,
    onQuote: build.onQuote,
    go,
    paste: build.paste,
    frozen,
    sheet,
    rows: bench.picture.state.rows,
    sections: outline.sections,
    ...turn,
    variant: (step) => {
      const next = variantBeside(view, step);
      if (next && next.id !== view.build.id) void build.openVariant(next.id);
    },
  });
  return {
    bench,
    later,
    words,
    frozen,
    build,
    sheet,
    go,
    asked: { is: asked, set: setAsked },
    strip: { is: strip, set: setStrip },
    keeping: { is: keeping, set: setKeeping },
  };
}

/** The variant so many steps on; after the last comes the first. */
function variantBeside(
  { variants, build }: BenchView,
  step: number,
): BenchView['variants'][number] | undefined {
  const at = variants.findIndex(({ id }) => id === build.id);
  return variants[(at + step + variants.length) % variants.length];
}

/** What rows call; the same functions all the time, so that rows that show the same stay as they are. */
function useRowActs(bench: Bench, onAsked: (asked: { target: Target; why: Why } | null) => void): RowActs {
  const latest = useLatest(bench);
  return useMemo(
    () => ({
      onDecide: (decision) => {
        onAsked(null);
        void latest.current.decide(decision);
      },
      onConsider: (decision) => latest.current.consider(decision),
      onRelease: (on) => {
        onAsked(null);
        void latest.current.release(on);
      },
      onWhy: (target) => void latest.current.why(target).then((why) => onAsked({ target, why })),
      onAnew: () => onAsked(null),
    }),
    [latest, onAsked],
  );
}

/** Why decisions clash: asked again for each new set of them; what came last stays until then. */
function useClash(bench: Bench): Why | null {
  const [clash, setClash] = useState<Why | null>(null);
  const latest = useLatest(bench);
  const clashes = bench.picture.state.clashes.length;
  const { decisions } = bench.content;
  if (clashes === 0 && clash) setClash(null);
  useEffect(() => {
    let current = true;
    if (clashes > 0)
      void latest.current.why().then((found) => {
        if (current) setClash(found);
      });
    return () => {
      current = false;
    };
  }, [decisions, clashes, latest]);
  return clash;
}

/** What search-or-do can do with the build. */
function useBuildCommands({
  view,
  bench,
  build,
  frozen,
  turn,
}: {
  view: BenchView;
  bench: Bench;
  build: ReturnType<typeof useBuildActs>;
  frozen: boolean;
  turn: Pick<Keys, 'find' | 'fold' | 'units' | 'strip' | 'keep'>;
}): void {
  const { t } = useSpeech();
  useCommands(() => [
    ...(frozen
      ? []
      : [
          { id: 'undo', text: t('bench.undo'), keys: 'Ctrl Z', act: () => void bench.undo() },
          { id: 'redo', text: t('bench.redo'), keys: 'Ctrl Shift Z', act: () => void bench.redo() },
        ]),
    {
      id: 'put',
      text: t(view.line || frozen ? 'bench.back' : 'bench.put'),
      keys: 'Ctrl Enter',
      act: () => void build.onQuote(),
    },
    { id: 'findRow', text: t('keys.find'), keys: '/', act: turn.find },
    { id: 'keep', text: t('saved.keep'), keys: 'F4', act: turn.keep },
    { id: 'copyNumber', text: t('bench.copy'), act: () => void build.copy() },
    { id: 'fold', text: t('keys.fold'), keys: 'F6', act: turn.fold },
    { id: 'variants', text: t('keys.variantsKey'), keys: 'F7', act: () => turn.strip('variants') },
    { id: 'best', text: t('keys.bestKey'), keys: 'F8', act: () => turn.strip('best') },
    { id: 'units', text: t('keys.units'), keys: 'F9', act: turn.units },
    ...(frozen ? [] : [{ id: 'variant', text: t('variant.add'), act: () => void build.addVariant(false) }]),
  ]);
}
