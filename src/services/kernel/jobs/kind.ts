/**
 * What a job is. A kind says how its work is done; whoever wants some asks for a job of that kind, and a worker
 * of any instance does it, once in effect: what comes of it is written in the transaction that ends the job.
 */
import type { JobProgress } from '../../../data';
import type { Failure } from '../failure';

/** A job as its work knows it. */
export interface JobAtWork<Kept = unknown> {
  readonly id: string;
  /** Who asked for it; null where a schedule did. */
  readonly askedBy: string | null;
  /** Aborted when the job is to stop, or has come to belong to another worker. */
  readonly signal: AbortSignal;
  /** What an earlier try kept; null at first. */
  readonly kept: Kept | null;
  /**
   * Tells how far it is. Long work calls this now and then: it is where it learns that it is to stop, and
   * throws then. Few of many calls reach the database.
   */
  progress(progress: JobProgress): Promise<void>;
  /** Keeps what a later try can go on from, if this one is cut off. */
  keep(kept: Kept): Promise<void>;
}

/** How a kind of work is done. */
export interface JobKind<Input, Made = unknown, Outcome = unknown, Kept = unknown> {
  /** Its name in records and texts. */
  readonly kind: string;
  /** Tries at most; each after a longer pause. One that is refused is not tried again. */
  readonly tries: number;
  /** The long part, outside of any transaction. It may be done more than once, so it changes nothing. */
  work(input: Input, job: JobAtWork<Kept>): Promise<Made>;
  /** What comes of it, in the transaction that ends the job: done once. */
  finish(made: Made, input: Input, job: JobAtWork<Kept>): Promise<Outcome>;
}

/** Any kind, for those who only hand it on. */
export type AnyJobKind = JobKind<never, never>;

/** Thrown by work that cannot be done, and could not be at another try. */
export class JobRefused extends Error {
  constructor(readonly failure: Failure) {
    super(failure.code);
  }
}

/** Thrown from `progress` and `keep` where the job is to stop. */
export class JobStopped extends Error {
  constructor() {
    super('stopped');
  }
}

/** Thrown from `progress`, `keep` and the end where another worker has the job by now. */
export class LeaseLost extends Error {
  constructor() {
    super('another worker has this job');
  }
}
