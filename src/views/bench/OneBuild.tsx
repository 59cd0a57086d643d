import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Decision, Target } from '../../core/engine';
import type { BenchView } from '../../contract';
import type { Why } from '../../workers/bench/types';
import { classes, say, useLatest } from '../../ui';
import { ask, sentences } from '../api';
import { useSpeech } from '../speech';
import css from './bench.module.css';
import { Contents, finderId } from './sheet/Contents';
import { Head } from './head/Head';
import { useCommands } from '../shell/commands';
import { Announcer } from './head/Announcer';
import { useHeldKeys } from './session/held-keys';
import { useBenchKeys } from './keys';
import { useAfterPaint } from './session/painted';
import { Sheet, type SheetHandle } from './sheet/Sheet';
import { BenchNow, Side } from './panels/Side';
import { Strip, type StripTab } from './head/Strip';
import { useBench } from './session/useBench';
import { Words } from './words';

interface Props {
  view: BenchView;
  /** Goes to another variant. */
  onOpen: (id: string) => Promise<void>;
  onPrefer: (change: Partial<BenchView['preferences']>) => void;
}

/** A build on the Bench: what can be decided in the middle, what follows from it around. */
export function OneBuild({ view, onOpen, onPrefer }: Props) {
  const { t, language } = useSpeech();
  // What the person prefers is no reason to begin anew.
  const [opened] = useState(view);
  const bench = useBench(opened);
  const { picture } = bench;
  // The sheet, the part number and the net price show at once what was decided; the rest follows once that is
  // seen.
  const later = useAfterPaint(bench);
  const { outline, quote } = opened;
  const { units, foldBarred } = view.preferences;
  const words = useMemo(() => new Words(outline, t, language, units), [outline, t, language, units]);
  const [asked, setAsked] = useState<{ target: Target; why: Why } | null>(null);
  const [clash, setClash] = useState<Why | null>(null);
  const [strip, setStrip] = useState<StripTab>(view.may.making ? 'parts' : 'changed');
  const [keeping, setKeeping] = useState(false);
  const [large, setLarge] = useState(false);
  const sheet = useRef<SheetHandle>(null);
  const frozen = !opened.mayChange;
  const clashes = picture.state.clashes.length;

  const go = useCallback((row: string) => sheet.current?.go(row), []);
  const why = async (target: Target) => setAsked({ target, why: await bench.why(target) });
  const closeWhy = () => {
    const row = asked?.target.on.split('.')[0];
    setAsked(null);
    if (row) setTimeout(() => go(row), 0);
  };

  // The same functions all the time, so that rows that show the same stay as they are.
  const latest = useLatest({ bench, why });
  const acts = useMemo(
    () => ({
      onDecide: (decision: Decision) => {
        setAsked(null);
        void latest.current.bench.decide(decision);
      },
      onConsider: (decision: Decision) => latest.current.bench.consider(decision),
      onRelease: (on: string) => {
        setAsked(null);
        void latest.current.bench.release(on);
      },
      onWhy: (target: Target) => void latest.current.why(target),
      onAnew: () => setAsked(null),
    }),
    [latest],
  );

  const obey = useHeldKeys({ busy: bench.busy, shown: bench.shownAll });
  // The first thing to do is where one begins, and where keys go that were typed before the page was ready.
  useEffect(() => {
    const first = Object.values(opened.picture.state.rows).find((row) => row.shown && row.todo);
    if (first) go(first.id);
    obey(window.earlyKeys?.() ?? []);
  }, [go, obey, opened]);

  // Asked again for each new set of decisions that clash; what came last stays until then.
  if (clashes === 0 && clash) setClash(null);
  const { decisions } = bench.content;
  useEffect(() => {
    let current = true;
    if (clashes > 0)
      void latest.current.bench.why().then((found) => {
        if (current) setClash(found);
      });
    return () => {
      current = false;
    };
  }, [decisions, clashes, latest]);

  useEffect(() => {
    if (bench.save === 'refused') say(sentences(bench.refusals, t('request.failed')), true);
  }, [bench.save, bench.refusals, t]);

  const onQuote = async () => {
    if (!quote) return;
    // What the server did not take must not go on as if it had.
    if (!(await bench.settled()) && !frozen) {
      say(t('bench.refusedBuild'), true);
      return;
    }
    if (view.line || frozen) {
      window.location.assign(`/quotes/${quote.id}`);
      return;
    }
    const now = await ask('GET /quotes/{id}', { at: { id: quote.id } });
    const answer = now.ok
      ? await ask('POST /builds/{id}/line', {
          at: { id: view.build.id },
          input: {
            version: now.value.version,
            quantity: 1,
          },
        })
      : now;
    if (answer.ok) window.location.assign(`/quotes/${quote.id}`);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const openVariant = async (id: string) => {
    await bench.settled();
    await onOpen(id);
  };
  const addVariant = async (empty: boolean) => {
    await bench.settled();
    const answer = await ask('POST /builds/{id}/variants', { at: { id: view.build.id }, input: { empty } });
    if (answer.ok) await onOpen(answer.value.id);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const copy = async () => {
    await navigator.clipboard.writeText(picture.number.text);
    say(t('bench.copied'));
  };
  const paste = async (text: string) => {
    const number = text.trim();
    // The server knows what is registered, and the schemes of before; the page alone reads what its own
    // scheme says.
    const answer = await ask('POST /builds/{id}/read', {
      at: { id: view.build.id },
      input: {
        number: number.slice(0, 200),
      },
    });
    if (answer.ok) {
      const { decisions, special, typed, scheme } = answer.value;
      await bench.take(decisions, view.may.special ? special : []);
      const texts = typed.map((row) => words.row(row));
      say(
        [
          scheme === undefined
            ? t('bench.pasted', { number })
            : t('bench.pastedBy', { number, version: scheme }),
          ...(texts.length > 0 ? [t('bench.pastedTyped', { rows: texts.join(', ') })] : []),
        ].join(' '),
      );
      return;
    }
    if (answer.status !== 0) {
      say(sentences(answer.failures, t('number.unknown', { text: number })), true);
      return;
    }
    const read = await bench.read(text);
    if (read.is === 'build' && read.sequence === undefined) {
      await bench.take(read.decisions, []);
      say(t('bench.pasted', { number }));
    } else if (read.is === 'build') say(t('bench.away'), true);
    else if (read.is === 'forbidden') say(t('number.forbidden', { text: text.trim() }), true);
    else
      say(
        t('number.unreadable', {
          text: text.trim(),
          rest: text.trim().slice(read.at) || '…',
          allowed: read.allowed.slice(0, 8).join(', '),
        }),
        true,
      );
  };

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
      act: () => void onQuote(),
    },
    { id: 'findRow', text: t('keys.find'), keys: '/', act: () => document.getElementById(finderId)?.focus() },
    { id: 'keep', text: t('saved.keep'), keys: 'F4', act: () => setKeeping(true) },
    { id: 'copyNumber', text: t('bench.copy'), act: () => void copy() },
    { id: 'fold', text: t('keys.fold'), keys: 'F6', act: () => onPrefer({ foldBarred: !foldBarred }) },
    { id: 'variants', text: t('keys.variantsKey'), keys: 'F7', act: () => setStrip('variants') },
    { id: 'best', text: t('keys.bestKey'), keys: 'F8', act: () => setStrip('best') },
    {
      id: 'units',
      text: t('keys.units'),
      keys: 'F9',
      act: () => onPrefer({ units: units === 'metric' ? 'imperial' : 'metric' }),
    },
    ...(frozen ? [] : [{ id: 'variant', text: t('variant.add'), act: () => void addVariant(false) }]),
  ]);
  useBenchKeys({
    undo: bench.undo,
    redo: bench.redo,
    onQuote,
    go,
    paste,
    frozen,
    sheet,
    rows: picture.state.rows,
    sections: outline.sections,
    find: () => document.getElementById(finderId)?.focus(),
    fold: () => onPrefer({ foldBarred: !foldBarred }),
    units: () => onPrefer({ units: units === 'metric' ? 'imperial' : 'metric' }),
    strip: setStrip,
    keep: () => setKeeping(true),
    variant: (step) => {
      const { variants } = view;
      const at = variants.findIndex((each) => each.id === view.build.id);
      const next = variants[(at + step + variants.length) % variants.length];
      if (next && next.id !== view.build.id) void openVariant(next.id);
    },
  });

  return (
    <div className={classes(css.page, large && css.wideSide)} data-waiting={bench.waiting || undefined}>
      <Head
        view={view}
        bench={bench}
        frozen={frozen}
        keeping={keeping}
        onKeeping={setKeeping}
        onGo={go}
        onCopy={() => void copy()}
        onQuote={() => void onQuote()}
      />
      <Contents
        view={view}
        picture={later.picture}
        words={words}
        onGo={go}
        onOpen={(id) => void openVariant(id)}
        onAdd={(empty) => void addVariant(empty)}
        onCompare={() => setStrip('variants')}
        frozen={frozen}
      />
      <Sheet
        ref={sheet}
        view={view}
        bench={bench}
        later={later}
        words={words}
        frozen={frozen}
        clash={clash}
        asked={asked}
        acts={acts}
        onPrefer={onPrefer}
        onCloseWhy={closeWhy}
        onTake={(decisions, row) => {
          setAsked(null);
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
        <Side
          bench={later}
          view={view}
          words={words}
          frozen={frozen}
          large={large}
          onLarge={() => setLarge(!large)}
          onGo={go}
        />
      </BenchNow>
      <Strip
        tab={strip}
        onTab={setStrip}
        bench={later}
        view={view}
        words={words}
        frozen={frozen}
        onOpen={(id) => void openVariant(id)}
      />
    </div>
  );
}
