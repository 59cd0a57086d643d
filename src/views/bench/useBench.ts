/** The Bench's state: what a person made of the build and what follows, undo, and saving as it is made. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { wrap, type Remote } from 'comlink';
import type { Scene } from '../../core/drawing';
import { differences, type Cause, type Decision, type Difference, type ReadBack, type Target } from '../../core/engine';
import type { BenchPicture, BenchView, BuildContent, PassedWarning, SpecialPart } from '../../core/quoting';
import type { BenchWorker, Remark, Why } from '../../workers/bench.worker';
import type { Refusal } from '../api';
import { History } from './history';
import { Saver } from './saver';
import { share } from './share';

export type SaveState = 'saved' | 'saving' | 'offline' | 'refused';

export type Judged = Pick<BenchPicture, 'price' | 'calculated' | 'leadDays' | 'number'>;

export interface Bench {
  content: BuildContent;
  picture: BenchPicture;
  /** By option: what it would do to the list price. */
  differences: Readonly<Record<string, string>>;
  scene: Scene | null;
  remarks: Readonly<Record<string, Remark>>;
  /** What the last decision moved besides its own row. */
  moved: readonly Difference[];
  save: SaveState;
  refusals: readonly Refusal[];
  canUndo: boolean;
  canRedo: boolean;
  decide(decision: Decision): Promise<void>;
  release(on: string): Promise<void>;
  take(decisions: readonly Decision[]): Promise<void>;
  /** Passes a warning with a reason; without one, takes the passing back. */
  pass(rule: string, reason: string | null): Promise<void>;
  /** Replaces an item by a special part; without one, takes the special part back. */
  replace(item: string, part: SpecialPart | null): Promise<void>;
  undo(): Promise<void>;
  redo(): Promise<void>;
  why(target?: Target): Promise<Why>;
  second(target: Target): Promise<Cause[]>;
  /** What the person made so far, whether it is shown yet or not. */
  now(): BuildContent;
  read(text: string): Promise<ReadBack>;
  /** What other decisions would come to, without taking them. */
  judge(decisions: readonly Decision[]): Promise<Judged | null>;
  /** Resolves when everything made so far is on the server. */
  settled(): Promise<void>;
}

export function useBench(view: BenchView): Bench {
  const [content, setContent] = useState<BuildContent>(view.content);
  const [picture, setPicture] = useState(view.picture);
  const [priceDifferences, setPriceDifferences] = useState<Readonly<Record<string, string>>>(view.differences);
  const [scene, setScene] = useState<{ key: string; scene: Scene } | null>(null);
  const [remarks, setRemarks] = useState<Record<string, Remark>>({});
  const [moved, setMoved] = useState<readonly Difference[]>([]);
  const [save, setSave] = useState<SaveState>('saved');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [reach, setReach] = useState({ undo: false, redo: false });
  // What is decided is known at once, before it is worked out, so that quick decisions never lose one another.
  const history = useMemo(() => new History(view.build.id, view.build.version, view.content), [view]);
  const saver = useMemo(() => new Saver(view.build.id, view.build.version), [view]);
  const worker = useRef<Remote<BenchWorker> | null>(null);
  const opened = useRef<Promise<void> | null>(null);
  const working = useRef<Promise<void>>(Promise.resolve());
  const turn = useRef(0);
  const drawn = useRef('');
  const numbers = useRef({ sequence: view.sequence, specialNumber: view.specialNumber });

  const draw = useCallback(async (decisions: readonly Decision[], mine: number) => {
    const fresh = await worker.current?.scene([...decisions], drawn.current);
    if (!fresh || mine !== turn.current) return;
    drawn.current = fresh.key;
    setScene(fresh);
  }, []);

  const show = useCallback(
    async (next: BuildContent, changed?: string) => {
      const mine = ++turn.current;
      await opened.current;
      const remote = worker.current;
      if (!remote) return;
      const made = { decisions: [...next.decisions], special: [...next.special] };
      const after = await remote.picture(made);
      // A later decision has overtaken this one; only the last is shown.
      if (mine !== turn.current) return;
      setPicture((before) => {
        const own = changed?.split('.')[0];
        setMoved(differences(before.state, after.state).filter((each) => each.row !== own));
        return { ...after, state: { ...after.state, rows: share(before.state.rows, after.state.rows) }, advice: share(before.advice, after.advice) };
      });
      setContent(next);
      setReach({ undo: history.canUndo, redo: history.canRedo });
      setSave('saving');
      saver.send(next, (result) => {
        setSave(result.state);
        if (result.version !== undefined) history.saved(result.version, next);
        setRefusals(result.refusals);
        const { sequence, specialNumber } = numbers.current;
        if (result.state !== 'saved' || mine !== turn.current || (result.sequence === sequence && result.specialNumber === specialNumber)) return;
        numbers.current = { sequence: result.sequence, specialNumber: result.specialNumber };
        void remote.register(numbers.current).then(async () => {
          if (mine === turn.current) setPicture(await remote.picture(made));
        });
      });
      // What takes longer comes after what was decided is seen.
      void remote.differences(made).then(async (prices) => {
        if (mine !== turn.current) return;
        setPriceDifferences(prices);
        await draw(next.decisions, mine);
        const fresh = await remote.remarks([...next.decisions]);
        if (mine === turn.current) setRemarks((before) => share(before, fresh));
      });
    },
    [draw, history, saver],
  );
  /** Shows what is made next; whoever waits for it to be settled waits for this first. */
  const go = (next: BuildContent, changed?: string): Promise<void> => {
    working.current = show(next, changed);
    return working.current;
  };

  useEffect(() => {
    const made = new Worker(new URL('../../workers/bench.worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<BenchWorker>(made);
    const { document, context, tariff, terms, facts, sequence, specialNumber } = view;
    worker.current = remote;
    opened.current = remote.open({ document, context, tariff, terms, facts, ...(sequence === undefined ? {} : { sequence }), ...(specialNumber === undefined ? {} : { specialNumber }) });
    setReach({ undo: history.canUndo, redo: history.canRedo });
    // What an earlier page left unsaved; what is decided from now on shows and saves itself.
    if (history.unsaved) {
      working.current = show(history.now);
      return () => made.terminate();
    }
    void opened.current.then(async () => {
      const mine = turn.current;
      await draw(view.content.decisions, mine);
      const found = await remote.remarks([...view.content.decisions]);
      if (mine === turn.current) setRemarks(found);
    });
    return () => made.terminate();
  }, [view, history, draw, show]);

  const step = (change: Partial<BuildContent>, changed?: string): Promise<void> => go(history.add({ ...history.now, ...change }), changed);
  const without = (on: string) => history.now.decisions.filter((each) => each.on !== on);
  const back = async (to: BuildContent | null): Promise<void> => {
    if (to) await go(to);
  };
  return {
    content, picture, differences: priceDifferences, scene: scene?.scene ?? null, remarks, moved, save, refusals,
    canUndo: reach.undo,
    canRedo: reach.redo,
    decide: (decision) => step({ decisions: [...without(decision.on), decision] }, decision.on),
    release: (on) => step({ decisions: without(on) }, on),
    take: (decisions) => step({ decisions }),
    pass: (rule, reason) => {
      const others = history.now.passed.filter((each) => each.rule !== rule);
      const passed: PassedWarning[] = reason === null ? others : [...others, { rule, reason, by: view.person, at: new Date().toISOString() }];
      return step({ passed });
    },
    replace: (item, part) => {
      const others = history.now.special.filter((each) => each.item !== item);
      return step({ special: part ? [...others, part] : others });
    },
    undo: () => back(history.undo()),
    redo: () => back(history.redo()),
    why: async (target) => {
      await opened.current;
      const { decisions, special } = history.now;
      return worker.current ? worker.current.why({ decisions: [...decisions], special: [...special] }, target) : { causes: [], ways: [] };
    },
    second: async (target) => {
      await opened.current;
      return worker.current ? worker.current.second([...history.now.decisions], target) : [];
    },
    now: () => history.now,
    read: async (text) => {
      await opened.current;
      return worker.current ? worker.current.read(text) : { is: 'unreadable', at: 0, segment: 0, allowed: [] };
    },
    judge: async (decisions) => {
      await opened.current;
      return worker.current ? worker.current.judge({ decisions: [...decisions], special: [...history.now.special] }) : null;
    },
    settled: async () => {
      await working.current;
      await saver.idle();
    },
  };
}
