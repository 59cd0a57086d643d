/** The specification package of a site with 100 positions, each a build of its own with its drawings. */
import type { APIRequestContext, Browser } from '@playwright/test';

type Row = (name: string, times: number[], goal?: number) => void;

interface Decided {
  content: { decisions: unknown[] };
}

const positions = 100;
const goal = 20_000;

/** As an engineer asks for it, as a folder and as one document. */
export async function timePackage(browser: Browser, baseURL: string, row: Row): Promise<void> {
  const context = await browser.newContext({ baseURL });
  const { request } = context;
  const post = <T>(path: string, data: object): Promise<T> => asked<T>(request, 'post', path, data);
  await post('/api/session', { email: 'mara@harrowmoor.example', password: 'harrowmoor' });
  const get = async <T>(path: string): Promise<T> => (await (await request.get(path)).json()) as T;
  const [customer] = await get<{ id: string }[]>('/api/customers?find=callow');
  const decisions = await decisionsOf(get);
  const rows: object[] = [];
  for (let at = 0; at < positions; at += 1) {
    const { id } = await post<{ id: string }>('/api/builds', {
      customerId: customer?.id,
      modelId: 'ridgeback',
    });
    await asked(request, 'put', `/api/builds/${id}`, { version: 1, decisions });
    rows.push({
      tag: `Gate ${String(at + 1)}`,
      area: `Area ${String(at % 6)}`,
      quantity: '1',
      remark: '',
      of: { is: 'build', build: id },
    });
  }
  const { id, version } = await post<{ id: string; version: number }>('/api/schedules', {
    name: 'Timing',
    customer: customer?.id,
  });
  await asked(request, 'put', `/api/schedules/${id}/positions`, { version, rows });
  for (const as of ['zip', 'pdf']) {
    const from = performance.now();
    const { job } = await post<{ job: string }>(`/api/schedules/${id}/package`, {
      as,
      language: 'en',
      drawings: true,
      dataSheets: true,
    });
    for (;;) {
      const { state, problem } = await get<{ state: string; problem: unknown }>(`/api/jobs/${job}`);
      if (state === 'done') break;
      if (state !== 'waiting' && state !== 'running') throw new Error(JSON.stringify(problem));
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    row(`package of ${String(positions)} positions, as ${as}`, [performance.now() - from], goal);
  }
  await context.close();
}

/** Decisions of a build of the demo that is whole. */
async function decisionsOf(get: <T>(path: string) => Promise<T>): Promise<unknown[]> {
  const hits = await get<{ kind: string; id: string }[]>(
    `/api/search?find=${encodeURIComponent('Timber gate, running it')}`,
  );
  const quote = hits.find(({ kind }) => kind === 'quote')?.id ?? '';
  const { lines } = await get<{ lines: { buildId?: string }[] }>(`/api/quotes/${quote}`);
  const build = lines.find(({ buildId }) => buildId !== undefined)?.buildId ?? '';
  return (await get<Decided>(`/api/builds/${build}`)).content.decisions;
}

async function asked<T>(
  request: APIRequestContext,
  method: 'post' | 'put',
  path: string,
  data: object,
): Promise<T> {
  const answer = await request[method](path, { data });
  if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
  return (await answer.json()) as T;
}
