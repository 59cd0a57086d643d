/**
 * Work for visitors, done so that those who work here do not wait for it: one piece at a time, and after each
 * a rest. While others are busy a piece takes longer, and so does the rest after it.
 */
import { setTimeout as pause } from 'node:timers/promises';
import { NotDone } from './threads/pool';

interface Limits {
  /** How long a rest is, in times of what the piece before it took. */
  rest: number;
  /** So many wait at most; who comes then is told to come again. */
  waiting: number;
}

/** A line of those who wait for their turn. */
export class Turns {
  private last: Promise<unknown> = Promise.resolve();
  private waiting = 0;

  constructor(private readonly limits: Limits) {}

  /** Does the work when its turn comes. Who has left by then is passed over. Throws NotDone where too many wait. */
  async take<T>(work: () => Promise<T>, signal?: AbortSignal): Promise<T> {
    if (this.waiting >= this.limits.waiting) throw new NotDone('full');
    this.waiting += 1;
    let took = 0;
    const mine = this.last.then(async () => {
      this.waiting -= 1;
      if (signal?.aborted === true) throw new NotDone('gone');
      const began = performance.now();
      try {
        return await work();
      } finally {
        took = performance.now() - began;
      }
    });
    const rested = () => (took > 0 ? pause(Math.ceil(took * this.limits.rest)) : undefined);
    this.last = mine.then(rested, rested);
    return mine;
  }
}
