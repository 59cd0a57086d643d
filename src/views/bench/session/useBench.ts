/** The session of a build, as the page draws it. */
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { flushSync } from 'react-dom';
import { wrap } from 'comlink';
import type { BenchView } from '../../../contract';
import type { BenchComputation } from '../../../workers/bench/computation';
import { BenchSession, type BenchStand, type Surroundings } from './bench-session';
import { painted } from './painted';
import { lineToBuild } from './saver';

/** What one can do. The same functions all the time. */
export type BenchActs = Pick<
  BenchSession,
  | 'decide'
  | 'consider'
  | 'release'
  | 'take'
  | 'pass'
  | 'replace'
  | 'undo'
  | 'redo'
  | 'why'
  | 'second'
  | 'example'
  | 'now'
  | 'read'
  | 'judge'
  | 'takeWhole'
  | 'again'
  | 'busy'
  | 'shownAll'
  | 'settled'
>;

/** What the Bench shows and does. */
export interface Bench extends BenchActs, BenchStand {}

const begin: Surroundings['begin'] = () => {
  const worker = new Worker(new URL('../../../workers/bench.worker.ts', import.meta.url), { type: 'module' });
  return { remote: wrap<BenchComputation>(worker), end: () => worker.terminate() };
};

const actsOf = (session: BenchSession): BenchActs => ({
  decide: session.decide,
  consider: session.consider,
  release: session.release,
  take: session.take,
  pass: session.pass,
  replace: session.replace,
  undo: session.undo,
  redo: session.redo,
  why: session.why,
  second: session.second,
  example: session.example,
  now: session.now,
  read: session.read,
  judge: session.judge,
  takeWhole: session.takeWhole,
  again: session.again,
  busy: session.busy,
  shownAll: session.shownAll,
  settled: session.settled,
});

/** Begins the session of a build with the page, and ends it with that; `view` is what it begins with. */
export function useBench(view: BenchView): Bench {
  const [session] = useState(
    () => new BenchSession(view, { line: lineToBuild(view.build.id), begin, painted, atOnce: flushSync }),
  );
  const stand = useSyncExternalStore(session.subscribe, session.seen, session.seen);
  useEffect(() => {
    const close = session.open();
    const leave = () => session.keep();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      close();
    };
  }, [session]);
  const acts = useMemo(() => actsOf(session), [session]);
  return useMemo(() => ({ ...acts, ...stand }), [acts, stand]);
}
