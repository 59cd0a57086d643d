/** The Bench's state: what a person made of the build and what follows, undo, and saving as it is made. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { wrap, type Remote } from 'comlink';
import type { Scene } from '../../../core/drawing';
import {
  differences,
  type Cause,
  type Decision,
  type Difference,
  type ReadBack,
  type Target,
} from '../../../core/engine';
import type { BenchPicture, BuildContent, PassedWarning, SpecialPart } from '../../../core/builds';
import type { BenchView } from '../../../contract';
import type { BenchWorker, Made, Opening, Remark, Why } from '../../../workers/bench.worker';
import { withChanges } from '../../../workers/changes';
import type { Refusal } from '../../api';
import { Ahead } from './ahead';
import { History } from './history';
import { painted } from './painted';
import { lineToBuild, noRefusals, Saver } from './saver';
import { byRow, type ByRow } from './slices';

/** Whether what is made is stored. */
export type SaveState = 'saved' | 'saving' | 'offline' | 'refused';

export type Judged = Pick<BenchPicture, 'price' | 'calculated' | 'leadDays' | 'number'> & {
  moved: Difference[];
};

/** What one can do. The same functions all the time. */
export interface BenchActs {
  decide: (decision: Decision) => Promise<void>;
  /** Works out what a decision would come to, so that it shows at once when it is made. */
  consider: (decision: Decision) => void;
  release: (on: string) => Promise<void>;
  take: (decisions: readonly Decision[], special?: readonly SpecialPart[]) => Promise<void>;
  /** Passes a warning with a reason; without one, takes the passing back. */
  pass: (rule: string, reason: string | null) => Promise<void>;
  /** Replaces an item by a special part; without one, takes the special part back. */
  replace: (item: string, part: SpecialPart | null) => Promise<void>;
  undo: () => Promise<void>;
  redo: () => Promise<void>;
  why: (target?: Target) => Promise<Why>;
  second: (target: Target) => Promise<Cause[]>;
  /** The drawing of some complete build that keeps what is decided. */
  example: () => Promise<Scene | null>;
  /** What the person made so far, whether it is shown yet or not. */
  now: () => BuildContent;
  read: (text: string) => Promise<ReadBack>;
  /** What other decisions would come to, without taking them. */
  judge: (decisions: readonly Decision[]) => Promise<Judged | null>;
  /** Takes a whole build with as few decisions as it takes to come to it. */
  takeWhole: (whole: readonly Decision[]) => Promise<void>;
  /** Sends again what the server did not take. */
  again: () => Promise<void>;
  /** Something decided is not shown yet; resolves when the last is. */
  busy: () => boolean;
  shownAll: () => Promise<void>;
  /** Resolves when nothing is under way any more: whether everything made so far is on the server. */
  settled: () => Promise<boolean>;
}

/** What a decision comes to; all of it is shown at once. */
interface Shown {
  content: BuildContent;
  picture: BenchPicture;
  /** What the last decision moved besides its own row. */
  moved: readonly Difference[];
  canUndo: boolean;
  canRedo: boolean;
}

/** What the Bench shows and does. */
export interface Bench extends BenchActs, Shown {
  /** What an option would do to the list price, where that is sure. */
  differences: ByRow<string>;
  /** These are being worked out anew. */
  waiting: boolean;
  scene: Scene | null;
  remarks: ByRow<Remark>;
  /**
   * Working days as the server worked them out, for those who are not told how it is made; undefined while it
   * is at it.
   */
  servedLead: number | null | undefined;
  save: SaveState;
  refusals: readonly Refusal[];
}

/** What a picture becomes, and what moves with that. */
interface Step {
  from: BenchPicture;
  picture: BenchPicture;
  moved: readonly Difference[];
}

const stepTo = (from: BenchPicture, picture: BenchPicture): Step => ({
  from,
  picture,
  moved: differences(from.state, picture.state),
});

const madeOf = ({ decisions, special }: BuildContent): Made => ({
  decisions: [...decisions],
  special: [...special],
});

/** The session of a build, as the page draws it. */
export function useBench(view: BenchView): Bench {
  // What is decided is known at once, before it is worked out, so that quick decisions never lose one
  // another.
  const history = useMemo(() => new History(view.build.id, view.build.version, view.content), [view]);
  const saver = useMemo(
    () => new Saver(lineToBuild(view.build.id), history.base, (content) => history.has(content)),
    [view, history],
  );
  const [shown, setShown] = useState<Shown>({
    content: view.content,
    picture: view.picture,
    moved: [],
    canUndo: false,
    canRedo: false,
  });
  const [priceDifferences, setPriceDifferences] = useState(() => byRow(view.differences));
  const [servedLead, setServedLead] = useState<number | null | undefined>(view.leadDays);
  /**
   * What options would do to the price is being worked out anew: nothing is shown that may become another
   * figure.
   */
  const [waiting, setWaiting] = useState(false);
  const [scene, setScene] = useState<Scene | null>(view.scene);
  const [remarks, setRemarks] = useState<ByRow<Remark>>(new Map());
  const [saving, setSaving] = useState<{ save: SaveState; refusals: readonly Refusal[] }>({
    save: 'saved',
    refusals: noRefusals,
  });
  // The one for what is waited for, and the one for what comes after it.
  const worker = useRef<Remote<BenchWorker> | null>(null);
  const follower = useRef<Remote<BenchWorker> | null>(null);
  const opened = useRef<Promise<void> | null>(null);
  const working = useRef<Promise<void>>(Promise.resolve());
  const turn = useRef(0);
  /** Decisions that are not shown yet. */
  const busy = useRef(0);
  const drawn = useRef('');
  /** The follower is at what takes longest. */
  const remarking = useRef(false);
  const numbers = useRef({ registered: view.registered, specialNumber: view.specialNumber });
  // What the worker has told so far, whether it is shown or was overtaken.
  const known = useRef({ picture: view.picture, remarks: {} });

  const [ahead] = useState(
    () =>
      new Ahead(async (made): Promise<Step | undefined> => {
        const changes = await worker.current?.ahead(made);
        return changes === undefined
          ? undefined
          : stepTo(known.current.picture, withChanges(known.current.picture, changes));
      }),
  );

  const pictureOf = useCallback(
    async (remote: Remote<BenchWorker>, made: Made): Promise<BenchPicture> => {
      ahead.moved();
      const changes = await remote.picture(made);
      known.current.picture = withChanges(known.current.picture, changes);
      return known.current.picture;
    },
    [ahead],
  );

  /**
   * What takes longer, after what was decided is seen: drawing and remarks, and prices of options where they
   * may have changed.
   */
  const fill = useCallback(async (content: BuildContent, mine: number) => {
    const remote = follower.current;
    if (!remote) return;
    const [decisions, special] = [[...content.decisions], [...content.special]];
    const fresh = await remote.scene(decisions, drawn.current);
    if (mine !== turn.current) return;
    if (fresh) {
      drawn.current = fresh.key;
      setScene(fresh.scene);
    }
    remarking.current = true;
    let effects: Record<string, string> | null = null;
    while (!effects) {
      effects = await remote.effects({ decisions, special });
      // What was stopped for a decision that came to nothing is begun again.
      if (mine !== turn.current) return;
    }
    const sure = effects;
    setPriceDifferences((before) => byRow(sure, before));
    setWaiting(false);
    const changes = await remote.remarks(decisions);
    known.current.remarks = withChanges(known.current.remarks, changes);
    if (mine !== turn.current) return;
    setRemarks((before) => byRow(known.current.remarks, before));
    remarking.current = false;
  }, []);

  const show = useCallback(
    async (next: BuildContent, changed?: string) => {
      const mine = ++turn.current;
      const made = madeOf(next);
      const foreseen = ahead.take(made);
      if (!foreseen) await opened.current;
      const remote = worker.current;
      if (!remote) return;
      const pictured = foreseen ? undefined : pictureOf(remote, made);
      // What is waited for gets the processor.
      if (remarking.current) void follower.current?.stop();
      const picture = pictured ? await pictured : foreseen?.picture;
      // A later decision has overtaken this one; only the last is shown.
      if (!picture || mine !== turn.current) return;
      const own = changed?.split('.')[0];
      // In the task of the key, or the one that brought the answer: one of its own would wait behind the
      // frame that the key began.
      flushSync(() => {
        setWaiting(true);
        setShown((before) => {
          const step = foreseen?.from === before.picture ? foreseen : stepTo(before.picture, picture);
          return {
            content: next,
            picture,
            moved: step.moved.filter((each) => each.row !== own),
            canUndo: history.canUndo,
            canRedo: history.canRedo,
          };
        });
        setSaving((before) => ({ ...before, save: 'saving' }));
        // It is the server's to say where the page is not told how things are made.
        if (!view.may.making) setServedLead(undefined);
      });
      if (foreseen) {
        ahead.moved();
        known.current.picture = picture;
        // Before it is asked anything else; the frame need not wait for it.
        void remote.took(made);
      }
      // Nothing comes between a decision and the sight of it, which may be a frame away; what is not sent yet
      // is kept should the page go.
      await painted();
      history.write();
      await painted();
      if (mine !== turn.current) return;
      saver.send(next, (result) => {
        // That an earlier decision is saved says nothing of this one.
        if (mine === turn.current || result.state !== 'saved')
          setSaving({ save: result.state, refusals: result.refusals });
        if (result.version !== undefined) history.saved(result.version, next);
        if (result.state === 'saved' && mine === turn.current && result.leadDays !== undefined)
          setServedLead(result.leadDays);
        const { registered, specialNumber } = numbers.current;
        if (
          result.state !== 'saved' ||
          mine !== turn.current ||
          (JSON.stringify(result.registered) === JSON.stringify(registered) &&
            result.specialNumber === specialNumber)
        )
          return;
        numbers.current = { registered: result.registered, specialNumber: result.specialNumber };
        void remote.register(numbers.current).then(async () => {
          const numbered = await pictureOf(remote, made);
          if (mine === turn.current) setShown((before) => ({ ...before, picture: numbered }));
        });
      });
      void fill(next, mine);
    },
    [ahead, fill, history, pictureOf, saver, view],
  );

  useEffect(() => {
    const { document, context, asked, tariff, terms, facts, registered, specialNumber, picture, may } = view;
    const opening: Opening = {
      document,
      context,
      asked,
      tariff,
      terms,
      facts,
      registered,
      specialNumber,
      picture,
      may,
    };
    const begun: Worker[] = [];
    const begin = () => {
      const made = new Worker(new URL('../../../workers/bench.worker.ts', import.meta.url), {
        type: 'module',
      });
      begun.push(made);
      return wrap<BenchWorker>(made);
    };
    let left = false;
    const leave = () => history.write();
    window.addEventListener('pagehide', leave);
    worker.current = begin();
    // The second begins once the first is at work, and finds its script there already.
    opened.current = worker.current.open(opening).then(() => {
      if (left) return;
      void worker.current?.rehearse();
      follower.current = begin();
      void follower.current.open(opening);
    });
    // Workers begin with what the page was given.
    known.current = { picture, remarks: {} };
    setShown((before) => ({ ...before, canUndo: history.canUndo, canRedo: history.canRedo }));
    // What an earlier page left unsaved; what is decided from now on shows and saves itself.
    if (history.unsaved) working.current = show(history.now);
    else void opened.current.then(() => fill(history.now, turn.current));
    return () => {
      left = true;
      history.write();
      window.removeEventListener('pagehide', leave);
      for (const each of begun) each.terminate();
    };
  }, [view, history, fill, show]);

  const acts = useMemo((): BenchActs => {
    /** Shows what is made next; whoever waits for it to be settled waits for this first. */
    const go = (next: BuildContent, changed?: string): Promise<void> => {
      busy.current += 1;
      working.current = show(next, changed).finally(() => {
        busy.current -= 1;
      });
      return working.current;
    };
    const step = (change: Partial<BuildContent>, changed?: string): Promise<void> =>
      go(history.add({ ...history.now, ...change }), changed);
    const deciding = (decision: Decision) => ({ decisions: [...without(decision.on), decision] });
    const without = (on: string) => history.now.decisions.filter((each) => each.on !== on);
    const back = async (to: BuildContent | null): Promise<void> => {
      if (to) await go(to);
    };
    /** Asks the worker, or gives what stands for an answer where there is none. */
    const asked = async <T>(ask: (remote: Remote<BenchWorker>) => Promise<T>, none: T): Promise<T> => {
      await opened.current;
      return worker.current ? ask(worker.current) : none;
    };
    return {
      decide: (decision) => step(deciding(decision), decision.on),
      consider: (decision) =>
        void opened.current?.then(() => ahead.look(madeOf({ ...history.now, ...deciding(decision) }))),
      release: (on) => step({ decisions: without(on) }, on),
      take: (decisions, special) => step({ decisions, ...(special ? { special } : {}) }),
      pass: (rule, reason) => {
        const others = history.now.passed.filter((each) => each.rule !== rule);
        const passed: PassedWarning[] =
          reason === null
            ? others
            : [...others, { rule, reason, by: view.person, at: new Date().toISOString() }];
        return step({ passed });
      },
      replace: (item, part) => {
        const others = history.now.special.filter((each) => each.item !== item);
        return step({ special: part ? [...others, part] : others });
      },
      takeWhole: async (whole) =>
        step({
          decisions: await asked(
            (remote) => remote.fewest([...history.now.decisions], [...whole]),
            [...whole],
          ),
        }),
      again: () => go(history.now),
      undo: () => back(history.undo()),
      redo: () => back(history.redo()),
      why: (target) =>
        asked(
          (remote) =>
            remote.why({ decisions: [...history.now.decisions], special: [...history.now.special] }, target),
          { causes: [], ways: [] },
        ),
      second: (target) => asked((remote) => remote.second([...history.now.decisions], target), []),
      example: async () => {
        await opened.current;
        return follower.current ? follower.current.example([...history.now.decisions]) : null;
      },
      now: () => history.now,
      read: (text) =>
        asked<ReadBack>((remote) => remote.read(text), { is: 'unreadable', at: 0, segment: 0, allowed: [] }),
      judge: (decisions) =>
        asked<Judged | null>(
          (remote) => remote.judge({ decisions: [...decisions], special: [...history.now.special] }),
          null,
        ),
      busy: () => busy.current > 0,
      shownAll: () => working.current,
      settled: async () => {
        await working.current;
        return saver.idle();
      },
    };
  }, [ahead, history, saver, show, view.person]);
  return useMemo(
    () => ({
      ...acts,
      ...shown,
      ...saving,
      differences: priceDifferences,
      waiting,
      scene,
      remarks,
      servedLead,
    }),
    [acts, shown, saving, priceDifferences, waiting, scene, remarks, servedLead],
  );
}
