/** Inside a thread: takes one job after another, and says so where it must first be given something. */
import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { flag, type JobMessage, type Need, type ReplyMessage, type ThreadData } from './message';

/** Thrown by a task that misses what it keeps between jobs; it is begun again once that is there. */
export class Wanting extends Error {
  constructor(readonly needs: Need[]) {
    super('wanting');
  }
}

/** What a task has around it in its thread. */
export interface Surroundings {
  /**
   * Whether the job shall end; a background thread stands still here while a job is under way that somebody
   * waits for.
   */
  stopped: () => boolean;
  progress: (value: unknown) => void;
}

/** Milliseconds that a background thread stands still at most before its next step. */
const longestStand = 1_000;

/** Tasks by name. */
export type Tasks = Readonly<Record<string, (input: never, around: Surroundings) => unknown>>;

/** Serves tasks; `take` puts away what the server gives when it was wanted. */
export function serveTasks(tasks: Tasks, take: (need: Need, value: unknown) => void = () => undefined): void {
  const port = parentPort;
  if (!port) throw new Error('this runs in a thread');
  const { flags, urgent, background } = workerData as ThreadData;
  const [own, all] = [new Int32Array(flags), new Int32Array(urgent)];
  if (background) {
    try {
      // On Linux this is said of the thread alone: everything else goes first.
      setPriority(0, 15);
    } catch {
      // Where it may not be said, the thread stands still by itself all the same.
    }
  }
  const stopped = (): boolean => {
    // Not for ever: where somebody always waits for something, it goes on in small steps.
    const until = performance.now() + longestStand;
    for (
      let waiting = Atomics.load(all, 0);
      background && waiting > 0 && Atomics.load(own, flag.stop) === 0 && performance.now() < until;
      waiting = Atomics.load(all, 0)
    )
      Atomics.wait(all, 0, waiting, 100);
    return Atomics.load(own, flag.stop) === 1;
  };
  const reply = (message: ReplyMessage) => port.postMessage(message);
  port.on('message', ({ id, task, input, provided = [] }: JobMessage) => {
    void (async () => {
      try {
        for (const { need, value } of provided) take(need, value);
        const run = tasks[task];
        if (!run) throw new Error(`no task ${task}`);
        reply({
          id,
          is: 'done',
          value: await run(input as never, {
            stopped,
            progress: (value) => reply({ id, is: 'progress', value }),
          }),
        });
      } catch (thrown) {
        if (thrown instanceof Wanting) reply({ id, is: 'wants', needs: thrown.needs });
        else if (thrown instanceof Error)
          reply({ id, is: 'failed', name: thrown.name, message: thrown.message, stack: thrown.stack });
        else reply({ id, is: 'failed', name: 'Error', message: String(thrown) });
      }
    })();
  });
}
