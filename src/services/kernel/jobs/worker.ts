/** Does jobs, one after another, for as long as the server runs. */
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { isUnavailable, type JobProgress, type JobRow } from '../../../data';
import { log } from '../log';
import { JobRefused, JobStopped, LeaseLost, type AnyJobKind, type JobAtWork, type JobKind } from './kind';
import { endAs, endWith, failLost, giveBack, keepInJob, renew, takeJob, type Lease } from './lease';
import { makeDue } from './schedule';

/** How a worker works; all in seconds. */
export interface WorkerTerms {
  /** A job belongs to whoever has not been heard of for so long no more. */
  lease: number;
  /** So often it is said that a job is being worked on, and asked whether it is to stop. */
  heartbeat: number;
  /** After each look that found nothing. */
  idle: number;
  /** After a try that failed. */
  pauseAfter: (tries: number) => number;
}

/** Ten seconds, then four times as long each time, an hour at most. */
export const growingPause = (tries: number): number => Math.min(3_600, 10 * 4 ** (tries - 1));

const usualTerms: WorkerTerms = { lease: 20, heartbeat: 2, idle: 1, pauseAfter: growingPause };
/** Of progress that is told more often, only so much is written. */
const betweenProgress = 500;

/** One that takes jobs of the kinds it knows. */
export class JobWorker {
  private readonly name = randomUUID();
  private readonly terms: WorkerTerms;
  private readonly kinds: ReadonlyMap<string, JobKind<unknown>>;
  private readonly closing = new AbortController();
  private loop: Promise<void> | undefined;

  constructor(kinds: readonly AnyJobKind[], terms: Partial<WorkerTerms> = {}) {
    this.kinds = new Map(kinds.map((kind) => [kind.kind, kind as unknown as JobKind<unknown>]));
    this.terms = { ...usualTerms, ...terms };
  }

  /** Works until it is closed. */
  start(): void {
    this.loop ??= this.work();
  }

  /** Takes no more; what it is at it gives back for somebody else to go on with. */
  async close(): Promise<void> {
    this.closing.abort(new LeaseLost());
    await this.loop;
  }

  private async work(): Promise<void> {
    while (!this.closing.signal.aborted) {
      let busy = false;
      try {
        await makeDue();
        await failLost();
        busy = await this.runNext();
      } catch (bug) {
        if (!isUnavailable(bug)) log.error({ bug }, 'jobs');
      }
      if (!busy)
        await pause(this.terms.idle * 1000, undefined, { signal: this.closing.signal, ref: false }).catch(
          () => undefined,
        );
    }
  }

  /** Does the next job that is due; false where there is none. */
  async runNext(): Promise<boolean> {
    const taken = await takeJob(this.name, this.terms.lease, [...this.kinds.keys()]);
    if (!taken) return false;
    const kind = this.kinds.get(taken.row.kind) as JobKind<unknown>;
    const at = new AtWork(taken.row, taken.lease, this.terms.heartbeat, this.closing.signal);
    try {
      const made = await kind.work(taken.row.input, at);
      at.signal.throwIfAborted();
      await endWith(taken.lease, () => kind.finish(made, taken.row.input, at));
    } catch (thrown) {
      await this.end(taken.row, taken.lease, at.signal.aborted ? at.signal.reason : thrown);
    } finally {
      at.rest();
    }
    return true;
  }

  /** What becomes of a job that did not end well. */
  private async end(row: JobRow, lease: Lease, thrown: unknown): Promise<void> {
    try {
      if (thrown instanceof JobStopped) await endAs(lease, 'stopped');
      else if (thrown instanceof JobRefused) {
        const { code, params } = thrown.failure;
        await endAs(lease, 'failed', { code, ...(params ? { params } : {}) });
      } else if (this.closing.signal.aborted)
        await giveBack(lease, 0, { counts: false, problem: row.problem });
      else if (!(thrown instanceof LeaseLost)) await this.afterBug(row, lease, thrown);
    } catch (lost) {
      if (!(lost instanceof LeaseLost)) throw lost;
    }
  }

  private async afterBug(row: JobRow, lease: Lease, bug: unknown): Promise<void> {
    log.warn({ bug, job: row.id, kind: row.kind, tries: lease.tries }, 'job failed');
    const problem = { code: 'job.bug', bug: bug instanceof Error ? bug.message.slice(0, 500) : String(bug) };
    if (lease.tries >= row.mostTries) await endAs(lease, 'failed', problem);
    else await giveBack(lease, this.terms.pauseAfter(lease.tries), { counts: true, problem });
  }
}

/** A job while it is worked on: it says now and then that it is, and learns that it is to stop. */
class AtWork implements JobAtWork {
  readonly id: string;
  readonly askedBy: string | null;
  readonly kept: unknown;
  readonly signal: AbortSignal;
  private readonly abort = new AbortController();
  private readonly beat: NodeJS.Timeout;
  private written = 0;

  constructor(
    row: JobRow,
    private readonly lease: Lease,
    heartbeat: number,
    closing: AbortSignal,
  ) {
    this.id = row.id;
    this.askedBy = row.askedBy;
    this.kept = row.kept ?? null;
    this.signal = AbortSignal.any([this.abort.signal, closing]);
    this.beat = setInterval(() => void this.renew().catch(() => undefined), heartbeat * 1000).unref();
  }

  async progress(progress: JobProgress): Promise<void> {
    this.signal.throwIfAborted();
    const now = performance.now();
    if (this.written > 0 && now - this.written < betweenProgress && progress.done < progress.of) return;
    this.written = now;
    await this.renew(progress);
    this.signal.throwIfAborted();
  }

  async keep(kept: unknown): Promise<void> {
    this.signal.throwIfAborted();
    await keepInJob(this.lease, kept);
  }

  rest(): void {
    clearInterval(this.beat);
  }

  private async renew(progress?: JobProgress): Promise<void> {
    try {
      const { stop } = await renew(this.lease, progress);
      if (stop) this.abort.abort(new JobStopped());
    } catch (thrown) {
      if (thrown instanceof LeaseLost) this.abort.abort(thrown);
      throw thrown;
    }
  }
}
