/** How the server fares, for whoever measures it. */
import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { Logger } from 'pino';

const every = 10_000;
const inMegabytes = (bytes: number): number => Math.round(bytes / 1024 / 102.4) / 10;
const inMilliseconds = (nanoseconds: number): number => Math.round(nanoseconds / 1e5) / 10;

/**
 * Writes every ten seconds how late the event loop was and what memory is held, where IUNCTURA_FIGURES asks
 * for it; what is garbage is collected before, where Node.js runs with --expose-gc, so that what is held can
 * be told from it.
 */
export function writeFigures(log: Logger): void {
  if (!process.env.IUNCTURA_FIGURES) return;
  const delay = monitorEventLoopDelay({ resolution: 10 });
  delay.enable();
  setInterval(() => {
    const loop = {
      p50: inMilliseconds(delay.percentile(50)),
      p99: inMilliseconds(delay.percentile(99)),
      most: inMilliseconds(delay.max),
    };
    const collect = (globalThis as { gc?: () => void }).gc;
    if (process.env.IUNCTURA_FIGURES === 'collected') collect?.();
    const { heapUsed, rss } = process.memoryUsage();
    log.info({ figures: { loop, heap: inMegabytes(heapUsed), resident: inMegabytes(rss) } });
    delay.reset();
  }, every).unref();
}
