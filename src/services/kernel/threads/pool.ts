/**
 * Threads for work that would keep everybody else waiting. Jobs of one person are done in their order; among
 * people they take turns, so that nobody waits for all of somebody else's. A job ends when whoever asked goes
 * away: one that waits is dropped, one under way is told to stop. Past its deadline it is told to stop too,
 * and where it does not, its thread is ended and another one begun.
 */
import { AsyncResource } from 'node:async_hooks';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { requestContext } from '../request';
import { hurry, noHurry, urgent } from './hurry';
import { flag, type JobMessage, type Need, type ReplyMessage, type ThreadData } from './message';

/** How many threads, and how much may wait. */
export interface PoolOptions {
  /** Of the file in dist that the thread runs. */
  file: string;
  /** Milliseconds that a job may take once it is under way. */
  deadline: number;
  /** Megabytes of heap. */
  memory: number;
  /** Jobs that may wait; more are refused at once. */
  most?: number;
  /** Stands still while another pool has something to do. */
  background?: boolean;
}

/** How a job may be cut short. */
export interface JobOptions {
  /** Whose it is, for taking turns. */
  of?: string;
  /** Gives what the thread does not hold (any more). */
  provide?: (need: Need) => Promise<unknown>;
  progress?: (value: unknown) => void;
  /** Instead of the signal of the request under way. */
  signal?: AbortSignal | undefined;
}

/**
 * A job was not done: whoever asked went away, it took too long, it took too much memory, or too many wait
 * already.
 */
export class NotDone extends Error {
  constructor(readonly why: 'gone' | 'late' | 'memory' | 'full') {
    super(`a job was not done: ${why}`);
  }
}

/** Of a task that threw what it throws on purpose, by its name. */
export class TaskFailure extends Error {
  constructor(
    override readonly name: string,
    message: string,
    stack?: string,
  ) {
    super(message);
    if (stack) this.stack = stack;
  }
}

interface Job extends JobMessage {
  of: string;
  provide: (need: Need) => Promise<unknown>;
  progress: (value: unknown) => void;
  settle: (outcome: { value: unknown } | { failure: Error }) => void;
  /** Whoever asked has an answer, or is gone. */
  over: boolean;
}

/** After its deadline a job has this long to stop by itself, in milliseconds. */
const grace = 3_000;

/** Threads that do jobs one after another; one that dies is replaced. */
export class Pool {
  private thread: Worker | undefined;
  private readonly flags = new SharedArrayBuffer(4);
  private readonly waiting = new Map<string, Job[]>();
  private current: { job: Job; timers: NodeJS.Timeout[] } | undefined;
  private count = 0;
  private size = 0;

  constructor(private readonly options: PoolOptions) {}

  /** How many jobs wait. */
  get length(): number {
    return this.size;
  }

  run<T>(
    task: string,
    input: unknown,
    {
      of = requestContext()?.person ?? '',
      provide = () => Promise.resolve(undefined),
      progress = () => undefined,
      signal = requestContext()?.signal,
    }: JobOptions = {},
  ): Promise<T> {
    if (signal?.aborted) return Promise.reject(new NotDone('gone'));
    if (this.size >= (this.options.most ?? 500)) return Promise.reject(new NotDone('full'));
    return new Promise<T>((resolve, reject) => {
      const onGone = () => this.drop(job, new NotDone('gone'));
      const job: Job = {
        id: ++this.count,
        task,
        input,
        of,
        provide: AsyncResource.bind(provide),
        progress,
        over: false,
        settle: (outcome) => {
          job.over = true;
          signal?.removeEventListener('abort', onGone);
          if ('value' in outcome) resolve(outcome.value as T);
          else reject(outcome.failure);
        },
      };
      signal?.addEventListener('abort', onGone, { once: true });
      this.enqueue(job, 'last');
      this.next();
    });
  }

  /** Ends the thread, and with it what is under way. */
  async close(): Promise<void> {
    const { thread } = this;
    this.thread = undefined;
    this.done()?.settle({ failure: new NotDone('gone') });
    await thread?.terminate();
  }

  private enqueue(job: Job, place: 'first' | 'last'): void {
    const own = this.waiting.get(job.of);
    if (!own) this.waiting.set(job.of, [job]);
    else if (place === 'first') own.unshift(job);
    else own.push(job);
    this.size += 1;
  }

  /** The next job of the person whose turn it is, who goes to the end of the round with the rest. */
  private take(): Job | undefined {
    const turn = this.waiting.entries().next();
    if (turn.done) return undefined;
    const [of, jobs] = turn.value;
    this.waiting.delete(of);
    const job = jobs.shift();
    if (jobs.length > 0) this.waiting.set(of, jobs);
    this.size -= 1;
    return job;
  }

  private next(): void {
    if (this.current) return;
    const job = this.take();
    if (!job) return;
    const { id, task, input, provided } = job;
    const own = new Int32Array(this.flags);
    Atomics.store(own, flag.stop, 0);
    if (!this.options.background) hurry();
    const stop = setTimeout(() => Atomics.store(own, flag.stop, 1), this.options.deadline);
    const end = setTimeout(() => this.abandon(new NotDone('late')), this.options.deadline + grace);
    this.current = { job, timers: [stop, end] };
    const thread = this.started();
    // Only while a job is under way does the thread keep the process alive.
    thread.ref();
    thread.postMessage({ id, task, input, ...(provided ? { provided } : {}) } satisfies JobMessage);
  }

  /** Ends the turn of the job under way. */
  private done(): Job | undefined {
    const { current } = this;
    if (!current) return undefined;
    current.timers.forEach((timer) => clearTimeout(timer));
    this.current = undefined;
    this.thread?.unref();
    if (!this.options.background) noHurry();
    return current.job;
  }

  private started(): Worker {
    if (this.thread) return this.thread;
    const data: ThreadData = { flags: this.flags, urgent, background: this.options.background ?? false };
    const thread = new Worker(join(process.cwd(), 'dist', `${this.options.file}.mjs`), {
      workerData: data,
      execArgv: [],
      resourceLimits: { maxOldGenerationSizeMb: this.options.memory },
    });
    thread.on('message', (message: ReplyMessage) => this.hear(message));
    thread.on('error', (thrown: Error & { code?: string }) => {
      if (this.thread === thread)
        this.abandon(thrown.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new NotDone('memory') : thrown);
    });
    this.thread = thread;
    return thread;
  }

  /** Gives the thread up, with the job that it has. */
  private abandon(failure: Error): void {
    const { thread } = this;
    this.thread = undefined;
    void thread?.terminate();
    this.done()?.settle({ failure });
    this.next();
  }

  private hear(message: ReplyMessage): void {
    const { current } = this;
    if (current?.job.id !== message.id) return;
    if (message.is === 'progress') return current.job.progress(message.value);
    const job = this.done();
    if (message.is === 'done') job?.settle({ value: message.value });
    else if (message.is === 'failed')
      job?.settle({ failure: new TaskFailure(message.name, message.message, message.stack) });
    else if (job) void this.fetch(job, message.needs);
    this.next();
  }

  /** Gets what a job wants while others have their turn, and begins it again. */
  private async fetch(job: Job, needs: readonly Need[]): Promise<void> {
    try {
      job.provided = [
        ...(job.provided ?? []),
        ...(await Promise.all(needs.map(async (need) => ({ need, value: await job.provide(need) })))),
      ];
      // Whoever asked may have gone meanwhile.
      if (job.over) return;
      this.enqueue(job, 'first');
      this.next();
    } catch (failure) {
      job.settle({ failure: failure as Error });
    }
  }

  private drop(job: Job, failure: Error): void {
    if (this.current?.job === job) {
      Atomics.store(new Int32Array(this.flags), flag.stop, 1);
      return job.settle({ failure });
    }
    const own = this.waiting.get(job.of);
    const at = own?.indexOf(job) ?? -1;
    if (own && at >= 0) {
      own.splice(at, 1);
      this.size -= 1;
      if (own.length === 0) this.waiting.delete(job.of);
    }
    job.settle({ failure });
  }
}
