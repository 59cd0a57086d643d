/** Price changes in a large house: a formula over all entries, a sheet of 20,000 rows, and what it would do to open quotes. */
import type { APIRequestContext, Browser } from '@playwright/test';

type Row = (name: string, times: number[], goal?: number) => void;

interface Job {
  state: string;
  outcome: Record<string, number> | null;
}

const list = 'EUR-2026';
const rows = 20_000;

/** All of it, as the modeller; `npm run demo:large` makes the house. */
export async function timePrices(browser: Browser, baseURL: string, row: Row): Promise<void> {
  const { request } = await browser.newContext({ baseURL });
  await request.post('/api/session', {
    data: { email: 'wen@harrowmoor.example', password: 'harrowmoor' },
  });
  const day = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  const begin = async (name: string): Promise<{ id: string }> =>
    answered(await request.post('/api/prices/changes', { data: { name, inForce: day(9) } }));
  const { id } = await begin('Timing');
  const timed = async <T>(name: string, goal: number, work: () => Promise<T>): Promise<T> => {
    const from = performance.now();
    const value = await work();
    row(name, [performance.now() - from], goal);
    return value;
  };
  const made = await timed('a price change over every entry of a list', 10_000, async () =>
    answered<{ made: number; change: { head: { version: number } } }>(
      await request.post(`/api/prices/changes/${id}/formula`, {
        data: { version: 1, list, formula: '+3.5 %, to the next 0.50' },
      }),
    ),
  );
  console.log(`  ${String(made.made)} entries`);
  const other = await begin('Timing of a sheet');
  const page = async (at: number): Promise<{ rows: { sku: string }[] }> =>
    answered(await request.get(`/api/prices/lists/${list}?page=${String(at)}`));
  const skus: string[] = [];
  for (let at = 0; skus.length < rows; at += 1) {
    const { rows: some } = await page(at);
    if (some.length === 0) break;
    skus.push(...some.map(({ sku }) => sku));
  }
  const sheet = ['Item,Price', ...[...new Set(skus)].map((sku, at) => `${sku},${String(100 + at)}.50`)].join(
    '\n',
  );
  await timed(`a sheet of ${String(new Set(skus).size)} rows, until it is shown`, 20_000, async () => {
    const file = await answered<{ id: string }>(
      await request.post('/api/files?name=prices.csv', {
        data: Buffer.from(sheet),
        headers: { 'content-type': 'application/octet-stream' },
      }),
    );
    const { job } = await answered<{ job: string }>(
      await request.post(`/api/prices/changes/${other.id}/sheet`, {
        data: { version: 1, file: file.id, list },
      }),
    );
    await over(request, job);
    await answered(await request.get(`/api/prices/changes/${other.id}`));
  });
  const quotes = await timed('what it would do to all open quotes and orders', 5 * 60_000, async () => {
    const { job } = await answered<{ job: string }>(
      await request.post(`/api/prices/changes/${id}/impact`, { data: { version: made.change.head.version } }),
    );
    return (await over(request, job)).outcome?.documents ?? 0;
  });
  console.log(`  ${String(quotes)} quotes and orders; the goal is a minute for each 1,000`);
}

async function answered<T>(answer: Awaited<ReturnType<APIRequestContext['get']>>): Promise<T> {
  if (!answer.ok()) throw new Error(await answer.text());
  return (await answer.json()) as T;
}

/** Waits for the end of a job. */
async function over(request: APIRequestContext, id: string): Promise<Job> {
  for (;;) {
    const job = await answered<Job>(await request.get(`/api/jobs/${id}`));
    if (job.state === 'done') return job;
    if (job.state !== 'waiting' && job.state !== 'running') throw new Error(JSON.stringify(job));
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
