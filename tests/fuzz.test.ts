/**
 * Whatever is sent to whatever endpoint or page, the answer says what is wrong: never a failure of the
 * server.
 */
import { readdirSync } from 'node:fs';
import { expect, test, type APIRequestContext } from '@playwright/test';
import fc from 'fast-check';
import type { QuoteView } from '../src/contract';
import { contract } from '../src/contract/all';
import { password, people } from './people';

interface Endpoint {
  method: string;
  path: string;
}

/** Every endpoint that the contract declares, and every page, from where they stand. */
function endpoints(): Endpoint[] {
  const declared = Object.keys(contract).map((way): Endpoint => {
    const [method = '', path = ''] = way.split(' ');
    return { method, path: `/api${path.replace(/\{(\w+)\}/g, '[$1]')}` };
  });
  const pages = readdirSync('src/pages', { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(ts|astro)$/.test(name) && !name.startsWith('api/'))
    .map((name) => `/${name.replace(/\.(ts|astro)$/, '').replace(/(^|\/)index$/, '')}`);
  return [...declared, ...pages.flatMap((path) => ['GET', 'POST'].map((method) => ({ method, path })))];
}

/** Ids as they are not: dashes alone, other things, none. */
const badIds = [
  'abc',
  '------------------------------------',
  '3f0d1f04-0000-4000-8000-00000000000g',
  '3f0d1f04-0000-4000-8000-000000000000',
  '%00',
  '%ED%A0%80',
  '..%2f..%2fetc',
  '__proto__',
  'constructor',
  '99999999999999999999',
  "'; drop table quotes; --",
  '%E2%82',
  'x'.repeat(3000),
];
const texts = [
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\ud800',
  '\udfff\ud800',
  '\u202e',
  '＝1+1',
  'é'.repeat(300),
  'x'.repeat(5000),
  '1e999',
  '-0',
  'NaN',
  '١٢',
  '{{7*7}}',
  "' or 1=1 --",
  '%',
  '_',
  '\\',
];
const numbers = [0, -1, 1, 1.5, 1e308, -1e308, 2 ** 53, 2 ** 31, 99_999, 100_000, Number.MIN_VALUE];

const { value: json } = fc.letrec<{ value: unknown }>((tie) => ({
  value: fc.oneof(
    { maxDepth: 3 },
    fc.constantFrom<unknown>(null, true, false, ...numbers, ...texts, ...badIds),
    fc.array(tie('value'), { maxLength: 4 }),
    fc.dictionary(
      fc.constantFrom(
        'version',
        'lines',
        'quantity',
        'hand',
        'by',
        'value',
        'decisions',
        'on',
        'email',
        'password',
        'customerId',
        'term',
        'start',
        'months',
        '__proto__',
        'constructor',
        'toString',
        '',
        'x',
      ),
      tie('value'),
      { maxKeys: 6 },
    ),
  ),
}));

/** Bodies that are no JSON, or JSON that nobody should have to read. */
const broken = fc.constantFrom(
  '',
  '{',
  '[',
  '"',
  '{"a":',
  '[1,]',
  'nul',
  '\u0000',
  '\ufeff{}',
  '{"version":1}x',
  '['.repeat(20_000),
  `${'['.repeat(20_000)}${']'.repeat(20_000)}`,
  `${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}`,
  '{"__proto__":{"version":1}}',
  '{"constructor":{"prototype":{}}}',
  '"\\ud800"',
  '{"title":"\\u0000"}',
  '1'.repeat(400),
  `{"a":"${'x'.repeat(1_200_000)}"}`,
);
const body = fc.oneof(
  { weight: 3, arbitrary: json.map((value) => JSON.stringify(value)) },
  { weight: 1, arbitrary: broken },
);

async function send(
  request: APIRequestContext,
  method: string,
  path: string,
  text: string | undefined,
): Promise<number> {
  const answer = await request.fetch(path, {
    method,
    maxRedirects: 0,
    headers: { 'content-type': 'application/json' },
    ...(text === undefined ? {} : { data: Buffer.from(text) }),
    failOnStatusCode: false,
  });
  return answer.status();
}

/** A body that is right, but for one value somewhere in it. */
function spoiled(right: Record<string, unknown>): fc.Arbitrary<string> {
  return fc
    .tuple(fc.constantFrom(...Object.keys(right)), json)
    .map(([key, value]) => JSON.stringify({ ...right, [key]: value }));
}

test('nothing that is sent makes the server fail', async ({ request }) => {
  expect((await request.post('/api/session', { data: { email: people.engineer, password } })).status()).toBe(
    200,
  );
  const [customer] = (await (await request.get('/api/customers?find=callow')).json()) as { id: string }[];
  const quote = (await (
    await request.post('/api/quotes', { data: { customerId: customer?.id, title: 'Fuzz' } })
  ).json()) as QuoteView;
  const view = (await (
    await request.post(`/api/quotes/${quote.id}/lines`, {
      data: { version: quote.version, sku: 'YE-KIOSK', quantity: 1 },
    })
  ).json()) as QuoteView;
  const build = (await (
    await request.post('/api/builds', { data: { quoteId: quote.id, modelId: 'ridgeback' } })
  ).json()) as { id: string };
  const real: Record<string, string> = {
    id: quote.id,
    line: view.lines[0]?.id ?? '',
    signOff: quote.id,
    format: 'csv',
    number: 'W-26-0001-1',
  };
  const right = {
    version: view.version,
    quantity: 1,
    hand: { by: 'rate', value: '1' },
    term: { start: '2027-01-01', months: 12, days: 0 },
    rates: { each: ['1'] },
    lines: [real.line],
    rows: [{ line: real.line, quantity: 1 }],
    sku: 'YE-KIOSK',
    decisions: [{ on: 'vehicle', value: 'mining' }],
    passed: [],
    special: [],
    whole: { by: 'rate', value: '1' },
    title: 'x',
    numbers: ['a'],
    reason: 'price',
    note: '',
    customerId: customer?.id,
    to: 1,
    from: 1,
    group: 'a',
    weights: [{ measure: 'price', weight: '1' }],
    bounds: [],
  };
  const all = endpoints().filter(
    ({ method, path }) =>
      path !== '/sign-out' && !(method === 'POST' && ['/sign-in', '/api/session'].includes(path)),
  );
  expect(all.length).toBeGreaterThan(60);
  const failed: unknown[] = [];
  for (const { method, path } of all) {
    const filled = fc
      .record(
        Object.fromEntries(
          [...path.matchAll(/\[(\w+)\]/g)].map(([, name]) => {
            const own =
              path.startsWith('/api/builds') && name === 'id' ? build.id : (real[name ?? ''] ?? 'x');
            return [
              name ?? '',
              fc.oneof(
                { weight: 3, arbitrary: fc.constant(own) },
                { weight: 2, arbitrary: fc.constantFrom(...badIds) },
              ),
            ];
          }),
        ),
      )
      .map((values) => path.replace(/\[(\w+)\]/g, (_, name: string) => values[name] ?? ''));
    const query = fc.oneof(
      fc.constant(''),
      fc.constantFrom(
        '?revision=0',
        '?revision=99999999999',
        '?revision=x',
        '?find=%00',
        '?find=%ED%A0%80',
        '?find=%25_%5C',
        '?page=-1',
        '?page=1e9',
        '?sort=nothing',
        '?states=a,b',
        '?before=1e300&after=x',
        '?to=abc',
        '?quote=abc',
        '?view=__proto__',
        `?find=${'x'.repeat(4000)}`,
      ),
    );
    // Read only where nothing is to be sent; whatever is sent must not make it fail.
    const sent = method === 'GET' ? fc.constant(undefined) : fc.oneof(body, spoiled(right));
    await fc.assert(
      fc.asyncProperty(filled, query, sent, async (address, asked, text) => {
        const status = await send(request, method, address + asked, text);
        if (status >= 500)
          failed.push({ method, address: address + asked, text: text?.slice(0, 200), status });
      }),
      { numRuns: method === 'GET' ? 8 : 20, seed: 7 },
    );
  }
  expect(failed).toEqual([]);
});

test('what is no address, no method and no body of a reasonable size is turned away', async ({ request }) => {
  for (const path of [
    '/api/saved/abc',
    '/api/builds/------------------------------------',
    '/bench/------------------------------------',
    '/orders/abc',
    '/quotes/abc',
    '/_image?href=/mark.svg',
    '/api/nothing',
    '/%ff',
    '/api/quotes/%00',
  ]) {
    const status = await send(request, 'GET', path, undefined);
    expect([path, status >= 300 && status < 500]).toEqual([path, true]);
  }
  expect(await send(request, 'TRACE', '/', undefined).catch(() => 405)).toBe(405);
  expect(await send(request, 'OPTIONS', '/api/quotes', undefined)).toBe(405);
  for (const fields of [
    'email=%00&password=%00',
    'email=mara%40harrowmoor.example&password=%00',
    'email=%ED%A0%80',
    '%',
    `email=${'x'.repeat(9000)}`,
  ]) {
    const answer = await request.post('/sign-in', {
      data: fields,
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      maxRedirects: 0,
    });
    expect([fields.slice(0, 60), answer.status() >= 400 && answer.status() < 500]).toEqual([
      fields.slice(0, 60),
      true,
    ]);
  }
  expect(await send(request, 'POST', '/api/session', `{"email":"${'x'.repeat(5000)}","password":"x"}`)).toBe(
    413,
  );
});

test('a body is measured while it arrives: what is too long is cut off, not kept', async ({ baseURL }) => {
  const { hostname, port } = new URL(baseURL ?? '');
  const net = await import('node:net');
  const told = await new Promise<{ sent: number; answer: string }>((done) => {
    let [sent, answer] = [0, ''];
    const socket = net.connect(Number(port), hostname);
    const piece = 'x'.repeat(64 * 1024);
    const more = () => {
      // Two hundred megabytes, in pieces of a length that is not told before.
      while (sent < 200 * 1024 * 1024 && socket.writable) {
        sent += piece.length;
        if (!socket.write(`${piece.length.toString(16)}\r\n${piece}\r\n`)) {
          socket.once('drain', more);
          return;
        }
      }
    };
    socket.on('data', (data) => {
      answer += data.toString();
    });
    socket.on('error', () => undefined);
    socket.on('close', () => done({ sent, answer }));
    socket.write(
      'POST /api/session HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ntransfer-encoding: chunked\r\n\r\n',
    );
    more();
  });
  expect(told.answer).toMatch(/^HTTP\/1\.1 413/);
  expect(told.sent).toBeLessThan(20 * 1024 * 1024);
});

test('what is asked from another site is refused, whatever it says of itself', async ({
  request,
  baseURL,
}) => {
  const origin = new URL(baseURL ?? '').origin;
  const post = async (headers: Record<string, string>) =>
    (
      await request.post('/api/session', {
        data: { email: 'nobody@harrowmoor.example', password: '' },
        headers,
      })
    ).status();
  expect(await post({ origin })).toBe(422);
  expect(await post({})).toBe(422);
  expect(await post({ 'sec-fetch-site': 'same-origin' })).toBe(422);
  for (const headers of [
    { origin: 'http://elsewhere.example' },
    { origin: origin.replace('http:', 'https:') },
    { origin: 'null' },
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site' },
  ])
    expect([headers, await post(headers as unknown as Record<string, string>)]).toEqual([headers, 403]);
});

test('everything that leaves the server has the headers that keep it safe, and a page runs only what was built', async ({
  page,
  request,
}) => {
  expect((await request.post('/api/session', { data: { email: people.engineer, password } })).status()).toBe(
    200,
  );
  for (const path of ['/mark.svg', '/sign-in', '/api/health', '/api/nothing', '/', '/plain.css']) {
    const headers = (await request.get(path)).headers();
    expect([path, headers['x-content-type-options'], headers['x-frame-options']]).toEqual([
      path,
      'nosniff',
      'DENY',
    ]);
  }
  // What a page contains by whatever mistake does not run, for its hash is not among those of what was built.
  await page.goto('/sign-in');
  const policy = (await page.request.get('/sign-in')).headers()['content-security-policy'] ?? '';
  expect(policy).not.toContain("script-src 'self' 'unsafe-inline'");
  expect(policy).toContain("style-src-attr 'unsafe-inline'");
  await page.route('**/sign-in', async (route) => {
    const answer = await route.fetch();
    await route.fulfill({
      response: answer,
      body: (await answer.text()).replace('</body>', '<script>document.title = "taken over"</script></body>'),
    });
  });
  await page.goto('/sign-in');
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  expect(await page.title()).not.toBe('taken over');
});
