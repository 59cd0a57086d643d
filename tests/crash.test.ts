/**
 * The server and its database are killed again and again while somebody works: what was acknowledged is
 * there, once; what was not may be sent again.
 */
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { expect, request, test, type APIRequestContext, type APIResponse } from '@playwright/test';
import type { QuoteView } from '../src/contract';
import { password, people } from './people';

const root = process.getuid?.() === 0;
const folder = root
  ? `/var/lib/iunctura/crash-${String(process.pid)}`
  : join(process.cwd(), 'var', `crash-${String(process.pid)}`);
const env = { ...process.env, IUNCTURA_DATA: folder };
const cluster = (...args: string[]): string =>
  execFileSync('bin/cluster', args, { env, stdio: ['ignore', 'pipe', 'ignore'] })
    .toString()
    .trim();
const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

let keeper: ChildProcess;
let base = '';
let url = '';

/** The server's own process, beneath the one that starts it again. */
function serverPid(): number | undefined {
  try {
    return Number(
      execFileSync('ps', ['-o', 'pid=', '--ppid', String(keeper.pid), '-C', 'node'])
        .toString()
        .trim()
        .split(/\s+/)
        .find((pid) => readFileSync(`/proc/${pid}/stat`, 'utf8').split(' ')[3] === String(keeper.pid)),
    );
  } catch {
    return undefined;
  }
}

async function untilReady(context: APIRequestContext): Promise<void> {
  await expect
    .poll(
      () =>
        context.get(`${base}/api/health`, { timeout: 2_000 }).then(
          (answer) => answer.status(),
          () => 0,
        ),
      { timeout: 60_000 },
    )
    .toBe(200);
}

test.beforeAll(async () => {
  url = cluster('start', 'iunctura_crash_test');
  execFileSync('npx', ['tsx', 'scripts/prepare.ts'], { env: { ...env, DATABASE_URL: url }, stdio: 'ignore' });
  const port = await freePort();
  base = `http://127.0.0.1:${String(port)}`;
  keeper = spawn('bin/serve', [], {
    env: { ...env, DATABASE_URL: url, PORT: String(port), LOG: 'var/crash-server.log' },
    stdio: 'ignore',
  });
});

test.afterAll(async () => {
  keeper.kill('SIGTERM');
  await new Promise((done) => keeper.once('exit', done));
  cluster('stop');
  execFileSync('rm', ['-rf', folder]);
});

test('what was acknowledged outlives every kill, once', async () => {
  const context = await request.newContext({ baseURL: base });
  await untilReady(context);
  const signIn = () => context.post('/api/session', { data: { email: people.engineer, password } });
  expect((await signIn()).status()).toBe(200);
  const [customer] = (await (await context.get('/api/customers?find=callow')).json()) as { id: string }[];
  let quote = (await (
    await context.post('/api/quotes', { data: { customerId: customer?.id, title: 'Crash' } })
  ).json()) as QuoteView;
  const acknowledged = new Set<number>();
  let kills = 0;

  /** Sends until it is answered, the same each time. */
  const insist = async (data: object, key: string): Promise<APIResponse> => {
    for (let tries = 0; tries < 300; tries++) {
      const answer = await context
        .post(`/api/quotes/${quote.id}/lines`, { data, headers: { 'idempotency-key': key }, timeout: 8_000 })
        .catch(() => null);
      if (answer && answer.status() < 500) return answer;
      await pause(200);
    }
    throw new Error('never answered');
  };

  for (let count = 1; count <= 40; count++) {
    const sending = insist(
      { version: quote.version, sku: 'YE-KIOSK', quantity: count },
      `crash-${String(count)}`,
    );
    // Now and then somewhere in the middle of it.
    if (count % 9 === 0) {
      await pause((count * 7) % 40);
      const pid = serverPid();
      if (pid) {
        process.kill(pid, 'SIGKILL');
        kills += 1;
      }
    }
    if (count === 20 || count === 33) {
      await pause(count % 13);
      execFileSync('kill', [
        '-9',
        readFileSync(`${folder}/data/postmaster.pid`, 'utf8').split('\n')[0] ?? '',
      ]);
      kills += 1;
      cluster('start', 'iunctura_crash_test');
    }
    const answer = await sending;
    expect([count, answer.status(), await answer.text()]).toEqual([count, 200, expect.any(String)]);
    quote = (await answer.json()) as QuoteView;
    acknowledged.add(count);
  }
  expect(kills).toBeGreaterThanOrEqual(6);
  const after = (await (await context.get(`/api/quotes/${quote.id}`)).json()) as QuoteView;
  expect(after.lines.map(({ quantity }) => quantity)).toEqual([...acknowledged]);
  expect(after.version).toBe(quote.version);
});

test('told to stop, it finishes what is under way, and is not started again', async () => {
  const context = await request.newContext({ baseURL: base });
  await untilReady(context);
  expect((await context.post('/api/session', { data: { email: people.engineer, password } })).status()).toBe(
    200,
  );
  const [first] = ((await (await context.get('/api/quotes')).json()) as { rows: { id: string }[] }).rows;
  // Takes long enough to be under way when it is told.
  const reading = context.post(`/api/quotes/${first?.id ?? ''}/numbers`, {
    data: { numbers: Array.from({ length: 10_000 }, (_, at) => `XX-${String(at * 7919)}`) },
  });
  await pause(200);
  const ended = new Promise<number | null>((done) => keeper.once('exit', done));
  keeper.kill('SIGTERM');
  const answer = await reading;
  expect(answer.status()).toBe(200);
  expect((await answer.json()) as unknown[]).toHaveLength(10_000);
  expect(await ended).toBe(0);
  expect(
    await context.get('/api/health').then(
      () => 'there',
      () => 'gone',
    ),
  ).toBe('gone');
  keeper = spawn('sleep', ['60']);
});
