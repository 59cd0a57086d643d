/** The search for the best build, beside the Bench: what it found so far, and its end. */
import { useEffect, useRef, useState } from 'react';
import { proxy, wrap } from 'comlink';
import type { Decision } from '../../../../core/engine';
import type { BestWish } from '../../../../core/builds';
import type { BenchView } from '../../../../contract';
import type { BestWorker } from '../../../../workers/best.worker';
import { useSpeech } from '../../../speech';
import type { Judged } from '../../session/bench-session';
import type { Bench } from '../../session/useBench';

/** The best build found so far. */
export interface Best {
  decisions: readonly Decision[];
  judged: Judged | null;
  value: string;
  gap: string;
  proven: boolean;
}

/** A search that can be begun and stopped. */
export interface Search {
  best: Best | null;
  /** Why there is none. */
  said: string;
  running: boolean;
  look: (wish: BestWish) => void;
  stop: () => void;
  /** Forgets what was found. */
  forget: () => void;
}

/** Looks for the best build in a worker of its own, which ends with the panel. */
export function useBest(bench: Bench, view: BenchView): Search {
  const { t } = useSpeech();
  const [running, setRunning] = useState(false);
  const [best, setBest] = useState<Best | null>(null);
  const [said, setSaid] = useState('');
  const end = useRef<(() => void) | null>(null);
  useEffect(() => () => end.current?.(), []);
  const look = (wish: BestWish) => {
    setBest(null);
    setSaid('');
    const worker = new Worker(new URL('../../../../workers/best.worker.ts', import.meta.url), {
      type: 'module',
    });
    const stop = () => {
      worker.terminate();
      end.current = null;
      setRunning(false);
    };
    end.current = stop;
    setRunning(true);
    const show = async (found: Omit<Best, 'judged'>) => {
      const judged = await bench.judge(found.decisions);
      setBest((before) => (before?.proven && !found.proven ? before : { ...found, judged }));
    };
    const { document, context, asked, tariff, facts } = view;
    const { decisions, special } = bench.now();
    void wrap<BestWorker>(worker)
      .run(
        { document, context, asked, tariff, facts },
        { decisions, special },
        wish,
        proxy((so) => void show({ decisions: so.decisions, value: so.value, gap: so.gap, proven: false })),
      )
      .then(async (answer) => {
        if (answer.is === 'found') await show(answer);
        else setSaid(t(answer.is === 'none' ? 'best.none' : 'best.stopped'));
        stop();
      });
  };
  return { best, said, running, look, stop: () => end.current?.(), forget: () => setBest(null) };
}
