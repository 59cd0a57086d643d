/**
 * Whoever comes without signing in, such as by a share, comes so often at most, counted by their address: beyond that
 * they are told when to come again, and nothing is worked out for them.
 */
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

/** Requests of one address in so many seconds; a firm behind one address has many people. */
const most = { points: 400, duration: 60 };
const limiter = new RateLimiterMemory(most);

/** Counts a request; gives 0, or after how many seconds the next may come. */
export async function spend(address: string): Promise<number> {
  try {
    await limiter.consume(address);
    return 0;
  } catch (thrown) {
    if (thrown instanceof RateLimiterRes) return Math.max(1, Math.ceil(thrown.msBeforeNext / 1000));
    throw thrown;
  }
}
