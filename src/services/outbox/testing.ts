/** For tests of what goes out: quotes ready to be sent, and the work that waits done. */
import type { QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import type { Result } from '../kernel/failure';
import type { AnyJobKind } from '../kernel/jobs/kind';
import { JobWorker } from '../kernel/jobs/worker';
import { addSeveral } from '../quotes/lines/quote-builds';
import { openQuote } from '../quotes/quotes';
import { keepJob } from '../shares/keep-job';
import { mailJob } from './job';

/** What a use case came to; throws where it was refused. */
export const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};

/** The codes of a refusal; none where all went well. */
export const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.failures.map(({ code }) => code);

/** A draft that can be sent. */
export async function readyQuote(actor: Actor, customer = 'C-1001', title = 'Sending'): Promise<QuoteView> {
  const row = await connected().records.customers.findOne({ where: { number: customer } });
  const quote = value(await openQuote(actor, { customerId: row?.id ?? '', title }));
  return value(
    await addSeveral(actor, quote.id, {
      version: quote.version,
      rows: [
        { sku: 'SILL-1212-X', quantity: 2 },
        { sku: 'BC-IP66', quantity: 1 },
      ],
    }),
  );
}

/** A worker that tries again at once. */
export const promptWorker = (): JobWorker =>
  new JobWorker([mailJob, keepJob] as unknown as AnyJobKind[], {
    lease: 30,
    heartbeat: 30,
    pauseAfter: () => 0,
  });

/** Does all that waits, so many jobs at most. */
export async function workAll(most = 100): Promise<void> {
  const worker = promptWorker();
  for (let at = 0; at < most && (await worker.runNext()); at++);
}
