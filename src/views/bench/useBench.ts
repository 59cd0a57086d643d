/** The Bench's state: decisions and what follows from them, undo, and saving as it is made. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { wrap, type Remote } from 'comlink';
import type { Decision, Difference, Target } from '../../core/engine';
import { differences } from '../../core/engine';
import type { BenchPicture, BenchView } from '../../core/quoting';
import type { BenchWorker, Remark, Why } from '../../workers/bench.worker';
import { ask, type Refusal } from '../api';

export type SaveState = 'saved' | 'saving' | 'offline' | 'refused';

export interface Bench {
  decisions: readonly Decision[];
  picture: BenchPicture;
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
  undo(): Promise<void>;
  redo(): Promise<void>;
  why(target?: Target): Promise<Why>;
  /** Resolves when everything decided so far is on the server. */
  settled(): Promise<void>;
}

const retrySeconds = 3;
const mostSteps = 50;

export function useBench(view: BenchView): Bench {
  const [decisions, setDecisions] = useState<readonly Decision[]>(view.build.decisions);
  const [picture, setPicture] = useState(view.picture);
  const [remarks, setRemarks] = useState<Record<string, Remark>>({});
  const [moved, setMoved] = useState<readonly Difference[]>([]);
  const [save, setSave] = useState<SaveState>('saved');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  // What is decided is known at once, before it is worked out, so that quick decisions never lose one another.
  const history = useRef<History>({ past: [], now: view.build.decisions, future: [] });
  const [reach, setReach] = useState({ past: 0, future: 0 });
  const worker = useRef<Remote<BenchWorker> | null>(null);
  const opened = useRef<Promise<void> | null>(null);
  const turn = useRef(0);
  const sequence = useRef(view.sequence);
  const saver = useRef(new Saver(view.build.id, view.build.version));

  useEffect(() => {
    const made = new Worker(new URL('../../workers/bench.worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<BenchWorker>(made);
    const { document, context, tariff, terms, facts, sequence } = view;
    worker.current = remote;
    opened.current = remote.open({ document, context, tariff, terms, facts, ...(sequence === undefined ? {} : { sequence }) });
    void opened.current.then(async () => setRemarks(await remote.remarks(view.build.decisions)));
    return () => made.terminate();
  }, [view]);

  const show = useCallback(
    async (next: readonly Decision[], changed?: string) => {
      const mine = ++turn.current;
      await opened.current;
      const remote = worker.current;
      if (!remote) return;
      const after = await remote.picture([...next]);
      // A later decision has overtaken this one; only the last is shown.
      if (mine !== turn.current) return;
      setPicture((before) => {
        const own = changed?.split('.')[0];
        setMoved(differences(before.state, after.state).filter((each) => each.row !== own));
        return after;
      });
      setDecisions(next);
      setReach({ past: history.current.past.length, future: history.current.future.length });
      setSave('saving');
      void saver.current.send(next, (result) => {
        setSave(result.state);
        setRefusals(result.refusals);
        if (result.state === 'saved' && mine === turn.current && result.sequence !== sequence.current) {
          sequence.current = result.sequence;
          void remote.register(result.sequence).then(async () => {
            if (mine === turn.current) setPicture(await remote.picture([...next]));
          });
        }
      });
      const fresh = await remote.remarks([...next]);
      if (mine === turn.current) setRemarks(fresh);
    },
    [],
  );

  const step = async (next: readonly Decision[], changed?: string) => {
    const { past, now } = history.current;
    history.current = { past: [...past.slice(1 - mostSteps), now], now: next, future: [] };
    await show(next, changed);
  };
  const without = (on: string) => history.current.now.filter((each) => each.on !== on);
  const { past, future } = reach;
  return {
    decisions, picture, remarks, moved, save, refusals,
    canUndo: past > 0,
    canRedo: future > 0,
    decide: (decision) => step([...without(decision.on), decision], decision.on),
    release: (on) => step(without(on), on),
    take: (next) => step(next),
    undo: async () => {
      const { past: before, now, future: after } = history.current;
      const last = before[before.length - 1];
      if (!last) return;
      history.current = { past: before.slice(0, -1), now: last, future: [now, ...after] };
      await show(last);
    },
    redo: async () => {
      const { past: before, now, future: after } = history.current;
      const [next] = after;
      if (!next) return;
      history.current = { past: [...before, now], now: next, future: after.slice(1) };
      await show(next);
    },
    why: async (target) => {
      await opened.current;
      if (!worker.current) return { causes: [], ways: [] };
      return worker.current.why([...history.current.now], target);
    },
    settled: () => saver.current.idle(),
  };
}

interface History {
  past: (readonly Decision[])[];
  now: readonly Decision[];
  future: (readonly Decision[])[];
}

interface Saved {
  state: SaveState;
  refusals: readonly Refusal[];
  sequence?: number;
}

/** Sends decisions one after another; while one is under way, only the newest of the next waits. Retries while the server is away. */
class Saver {
  private waiting: { decisions: readonly Decision[]; tell: (saved: Saved) => void } | null = null;
  private running: Promise<void> | null = null;

  constructor(
    private readonly id: string,
    private version: number,
  ) {}

  send(decisions: readonly Decision[], tell: (saved: Saved) => void): void {
    this.waiting = { decisions, tell };
    this.running ??= this.run().finally(() => {
      this.running = null;
    });
  }

  async idle(): Promise<void> {
    while (this.running) await this.running;
  }

  private async run(): Promise<void> {
    while (this.waiting) {
      const { decisions, tell } = this.waiting;
      this.waiting = null;
      const answer = await ask<{ version: number; sequence?: number }>('PUT', `/api/builds/${this.id}`, { version: this.version, decisions });
      if (answer.ok) {
        this.version = answer.value.version;
        tell({ state: 'saved', refusals: [], ...(answer.value.sequence === undefined ? {} : { sequence: answer.value.sequence }) });
      } else if (answer.status === 0 || answer.status >= 500) {
        tell({ state: 'offline', refusals: [] });
        this.waiting ??= { decisions, tell };
        await new Promise((done) => setTimeout(done, retrySeconds * 1000));
      } else {
        tell({ state: 'refused', refusals: answer.failures });
      }
    }
  }
}
