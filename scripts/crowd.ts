/**
 * A crowd at one server: `npm run crowd` starts an instance of its own before a database of its own, lets
 * people work there, and prints
 * what they waited for.
 *   npm run crowd                     all of it, with 50 people for two minutes
 *   npm run crowd -- edits lists      parts of it: edits, accepts, lists, lines, people, best, numbers,
 * shares, memory
 *   SECONDS=30 npm run crowd          how long the 50 people work; MINUTES=20 how long the memory is watched
 */
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { readFileSync, mkdirSync, openSync } from 'node:fs';
import { createServer } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';

const wanted = process.argv.slice(2);
const runs = (part: string): boolean => (wanted.length === 0 ? part !== 'memory' : wanted.includes(part));
const seconds = Number(process.env.SECONDS) || 120;
const minutes = Number(process.env.MINUTES) || 20;
const people = 50;
const password = 'harrowmoor';
const items = [
  'SILL-1212-X',
  'SV-COMM',
  'YE-KIOSK',
  'SV-CALIB',
  'BC-IP66',
  'SV-TRAIN-1',
  'YE-BOLL',
  'SILL-1515-X',
];

type Line = { id: string; position: number };
type Quote = { id: string; version: number; stand?: string; lines: Line[] };

const percentile = (times: readonly number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))] ?? NaN;
const ms = (time: number): string => `${time.toFixed(0)} ms`;
const row = (name: string, ...cells: string[]): void =>
  console.log(`${name.padEnd(58)}${cells.map((cell) => cell.padStart(14)).join('')}`);

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

/** An instance before a database with the demo, the generated large model, and fifty more engineers. */
async function begin(): Promise<{ base: string; server: ChildProcess; database: pg.Client; log: string }> {
  mkdirSync('var', { recursive: true });
  const url = execFileSync('bin/cluster', ['start', 'iunctura_crowd_test'], {
    stdio: ['ignore', 'pipe', 'ignore'],
  })
    .toString()
    .trim();
  execFileSync(process.execPath, ['scripts/empty-database.mjs', url]);
  const env = { ...process.env, DATABASE_URL: url, NODE_ENV: 'production' };
  execFileSync('npx', ['tsx', 'scripts/prepare.ts'], { env, stdio: 'ignore' });
  execFileSync(process.execPath, ['scripts/bundled.mjs', 'publish-generated'], { env, stdio: 'ignore' });
  const database = new pg.Client({ connectionString: url });
  await database.connect();
  await database.query(
    `insert into users (id, email, name, language, role, password_hash, preferences) select gen_random_uuid(), 'crowd' || n || '@harrowmoor.example', 'Engineer ' || n, language, role, password_hash, '{}' from users, generate_series(1, ${String(people)}) n where email = 'mara@harrowmoor.example'`,
  );
  const port = await freePort();
  const log = `var/crowd-server.log`;
  const out = openSync(log, 'w');
  const flags = runs('memory') ? ['--expose-gc'] : [];
  const server = spawn(process.execPath, [...flags, 'dist/serve.mjs'], {
    // Customers come from addresses of their own, as a proxy in front tells them.
    env: {
      ...env,
      PORT: String(port),
      IUNCTURA_FIGURES: runs('memory') ? 'collected' : '1',
      TRUSTED_PROXIES: 'loopback',
    },
    stdio: ['ignore', out, out],
  });
  const base = `http://127.0.0.1:${String(port)}`;
  for (let tries = 0; tries < 100; tries++) {
    if (
      await fetch(`${base}/api/health`).then(
        (answer) => answer.ok,
        () => false,
      )
    )
      return { base, server, database, log };
    await pause(100);
  }
  throw new Error(`the server did not start: ${readFileSync(log, 'utf8')}`);
}

const { base, server, database, log } = await begin();
console.log(`Server with process id ${String(server.pid)} at ${base}\n`);

/** Somebody who is signed in. */
class Person {
  private cookie = '';

  constructor(readonly email: string) {}

  async signIn(): Promise<this> {
    const answer = await fetch(`${base}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: this.email, password }),
    });
    if (!answer.ok) throw new Error(`${this.email}: ${String(answer.status)}`);
    this.cookie = answer.headers
      .getSetCookie()
      .map((each) => each.split(';')[0])
      .join('; ');
    return this;
  }

  async ask<T>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
    signal?: AbortSignal,
  ): Promise<{ status: number; value: T; took: number }> {
    const start = performance.now();
    const answer = await fetch(base + path, {
      method,
      headers: {
        cookie: this.cookie,
        ...headers,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(signal ? { signal } : {}),
    });
    const text = await answer.text();
    const took = performance.now() - start;
    return {
      status: answer.status,
      value: (answer.headers.get('content-type')?.includes('json') ? JSON.parse(text) : text) as T,
      took,
    };
  }

  /** A quote with so many lines. */
  async quote(lines: number): Promise<Quote> {
    const customers = (await this.ask<{ id: string }[]>('GET', '/api/customers?find=hallersee')).value;
    const opened = (
      await this.ask<Quote>('POST', '/api/quotes', { customerId: customers[0]?.id, title: 'Crowd' })
    ).value;
    const rows = Array.from({ length: lines }, (_, at) => ({
      sku: items[at % items.length],
      quantity: 1 + (at % 5),
    }));
    return (
      await this.ask<Quote>('POST', `/api/quotes/${opened.id}/lines/several`, {
        version: opened.version,
        rows,
      })
    ).value;
  }

  /** Types a quantity into a line; the quote goes on to its next version. */
  async edit(quote: Quote, at: number, to: number): Promise<{ status: number; took: number }> {
    const line = quote.lines[at % quote.lines.length] as Line;
    const answer = await this.ask<Quote & { fields?: { version?: number; stand?: string } }>(
      'PATCH',
      `/api/quotes/${quote.id}/lines/${line.id}`,
      { version: quote.version, quantity: to },
      quote.stand ? { 'quote-stand': quote.stand } : {},
    );
    if (answer.status === 200) {
      quote.version = answer.value.fields?.version ?? answer.value.version;
      const stand = answer.value.fields?.stand ?? answer.value.stand;
      if (stand) quote.stand = stand;
    }
    return answer;
  }
}

const crowd: Person[] = [];
for (let at = 1; at <= people; at++)
  crowd.push(await new Person(`crowd${String(at)}@harrowmoor.example`).signIn());
const [first] = crowd as [Person];
const statuses = (answers: readonly { status: number }[]): string =>
  [
    ...answers.reduce(
      (all, { status }) => all.set(status, (all.get(status) ?? 0) + 1),
      new Map<number, number>(),
    ),
  ]
    .map(([status, count]) => `${String(count)} x ${String(status)}`)
    .join(', ');

/** The worst of what the event loop's delays were while something ran, as the server writes them. */
async function loopWhile<T>(work: () => Promise<T>): Promise<[T, string]> {
  const before = readFileSync(log, 'utf8').length;
  const result = await work();
  await pause(10_500);
  const delays = readFileSync(log, 'utf8')
    .slice(before)
    .split('\n')
    .flatMap((line) =>
      line.includes('"figures"')
        ? [(JSON.parse(line) as { figures: { loop: { p99: number; most: number } } }).figures.loop]
        : [],
    );
  return [
    result,
    `p99 ${String(
      percentile(
        delays.map(({ p99 }) => p99),
        0.5,
      ),
    )} ms (worst ten seconds ${String(Math.max(...delays.map(({ p99 }) => p99)))}, longest ${String(Math.max(...delays.map(({ most }) => most)))})`,
  ];
}

async function edits(): Promise<void> {
  const quotes: [Person, Quote][] = [];
  for (let at = 0; at < 100; at++) {
    const person = crowd[at % people] as Person;
    quotes.push([person, await person.quote(10)]);
  }
  for (let round = 1; round <= 3; round++) {
    const start = performance.now();
    const answers = await Promise.all(quotes.map(([person, quote], at) => person.edit(quote, at, 2 + round)));
    row(
      `100 edits of 100 quotes at once, round ${String(round)}`,
      statuses(answers),
      `all ${ms(performance.now() - start)}`,
      `p95 ${ms(
        percentile(
          answers.map(({ took }) => took),
          0.95,
        ),
      )}`,
    );
  }
}

async function accepts(): Promise<void> {
  const engineer = await new Person('mara@harrowmoor.example').signIn();
  for (const keyed of [false, true]) {
    const quote = await engineer.quote(5);
    const start = performance.now();
    const answers = await Promise.all(
      Array.from({ length: 20 }, () =>
        engineer.ask<{ number?: string }>(
          'POST',
          `/api/quotes/${quote.id}/accept`,
          { version: quote.version },
          keyed ? { 'idempotency-key': `accept-${quote.id}` } : {},
        ),
      ),
    );
    const { rows } = await database.query<{ count: string }>(
      'select count(*) from orders where quote_id = $1',
      [quote.id],
    );
    const numbers = new Set(answers.flatMap(({ status, value }) => (status === 200 ? [value.number] : [])));
    row(
      `20 acceptances of one quote at once${keyed ? ', under one key' : ''}`,
      statuses(answers),
      `${rows[0]?.count ?? ''} order(s)`,
      `${String(numbers.size)} number(s)`,
      `all ${ms(performance.now() - start)}`,
    );
  }
}

async function lists(): Promise<void> {
  await database.query(`with made as (insert into quotes (id, number, title, customer_id, owner_id, version, created_at, updated_at, updated_by)
      select gen_random_uuid(), 'Q-25-' || lpad(n::text, 5, '0'), 'Yard ' || n, c.id, u.id, 1, now() - n * interval '1 minute', now() - n * interval '1 minute', u.id
      from generate_series(1, 5000) n join lateral (select id from customers where dealer_id is null order by md5(n::text || id::text) limit 1) c on true join lateral (select id from users where role = 'engineer' order by md5(n::text || id::text) limit 1) u on true returning id),
    revised as (insert into quote_revisions (id, quote_id, number, state, price_list, customer, valid_until) select gen_random_uuid(), made.id, 1, 'draft', r.price_list, r.customer, r.valid_until from made, (select * from quote_revisions where price_list = 'EUR' or true limit 1) r returning id)
    insert into revision_facts select id, 1000 + random() * 100000, 3, 0, true, null, (select stamp from reference_stamp) from revised`);
  await database.query('analyze');
  for (const [name, path] of [
    ['List of 5,000 quotes, newest first', '/api/quotes'],
    ['found by a word', '/api/quotes?find=yard'],
    ['sorted by net, page 20', '/api/quotes?sort=net&page=20'],
    ['Desk', '/'],
    ['Search', '/api/search?find=yard 12'],
  ] as const) {
    const times: number[] = [];
    for (let turn = 0; turn < 25; turn++) times.push((await first.ask('GET', path)).took);
    row(name, `p50 ${ms(percentile(times, 0.5))}`, `p95 ${ms(percentile(times, 0.95))}`);
  }
}

async function lines(): Promise<void> {
  const [few, many] = [await first.quote(10), await first.quote(1_000)];
  const [small, large]: [number[], number[]] = [[], []];
  // Turn by turn, so that both meet the machine at the same pace.
  for (let turn = 0; turn < 45; turn++) {
    const [a, b] = [
      (await first.edit(few, turn, 2 + (turn % 7))).took,
      (await first.edit(many, turn * 13, 2 + (turn % 7))).took,
    ];
    if (turn >= 5) {
      small.push(a);
      large.push(b);
    }
  }
  row(
    'One edit in a quote of 10 lines',
    `p50 ${ms(percentile(small, 0.5))}`,
    `p95 ${ms(percentile(small, 0.95))}`,
  );
  row(
    'One edit in a quote of 1,000 lines',
    `p50 ${ms(percentile(large, 0.5))}`,
    `p95 ${ms(percentile(large, 0.95))}`,
    `${(percentile(large, 0.5) / percentile(small, 0.5)).toFixed(1)} times`,
  );
}

interface Kept {
  kind: string;
  took: number;
  status: number;
}

/**
 * People who work: forty of a hundred times they edit, fifty they read, ten they search or open a page;
 * between two of these they think for a second.
 */
async function work(until: number): Promise<Kept[]> {
  const quotes = await Promise.all(crowd.map((person) => person.quote(12)));
  const kept: Kept[] = [];
  await Promise.all(
    crowd.map(async (person, at) => {
      const quote = quotes[at] as Quote;
      let seed = at + 1;
      const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
      await pause(random() * 1000);
      while (performance.now() < until) {
        const dice = random();
        const [kind, answer] =
          dice < 0.4
            ? (['edit', person.edit(quote, Math.floor(random() * 12), 1 + Math.floor(random() * 9))] as const)
            : dice < 0.7
              ? (['read', person.ask('GET', `/api/quotes/${quote.id}`)] as const)
              : dice < 0.9
                ? (['list', person.ask('GET', '/api/quotes')] as const)
                : dice < 0.95
                  ? (['search', person.ask('GET', '/api/search?find=callow')] as const)
                  : (['page', person.ask('GET', `/quotes/${quote.id}`)] as const);
        const { took, status } = await answer.catch(() => ({ took: NaN, status: 0 }));
        kept.push({ kind, took, status });
        await pause(700 + random() * 600);
      }
    }),
  );
  return kept;
}

function tell(title: string, kept: readonly Kept[], loop: string): number {
  const wrong = kept.filter(({ status }) => status !== 200);
  row(
    title,
    `${String(kept.length)} asked`,
    `${String(wrong.length)} wrong`,
    wrong.length > 0 ? statuses(wrong) : '',
  );
  for (const kind of ['edit', 'read', 'list', 'search', 'page']) {
    const times = kept.flatMap((each) => (each.kind === kind ? [each.took] : []));
    row(
      `  ${kind}`,
      String(times.length),
      `p50 ${ms(percentile(times, 0.5))}`,
      `p95 ${ms(percentile(times, 0.95))}`,
      `most ${ms(Math.max(...times))}`,
    );
  }
  row('  the event loop is late by', loop);
  return percentile(
    kept.flatMap((each) => (each.kind === 'edit' ? [each.took] : [])),
    0.95,
  );
}

/** Fifty choices of the large model, each counted otherwise, so that the best build is not soon proven. */
const wish = {
  weights: Array.from({ length: 60 }, (_, at) => at)
    .filter((at) => at % 10 !== 0)
    .slice(0, 50)
    .map((at) => ({
      measure: `if f${String(at)} = "o1" then ${String(3 + ((at * 7) % 11))} else if f${String(at)} = "o2" then ${String(1 + ((at * 5) % 13))} else ${String(2 + (at % 9))}`,
      weight: '1',
    })),
  bounds: [],
};

/** Four people who ask for best builds of the large model, one after another, until told to stop. */
async function askForBest(until: number): Promise<string> {
  const asked = await Promise.all(
    crowd.slice(0, 4).map(async (person) => {
      const quote = await person.quote(1);
      const { value } = await person.ask<{ id: string }>('POST', '/api/builds', {
        quoteId: quote.id,
        modelId: 'generated',
      });
      let answered = 0;
      while (performance.now() < until) {
        const stop = new AbortController();
        const timer = setTimeout(() => stop.abort(), Math.max(1, until - performance.now()));
        const answer = await person
          .ask('POST', `/api/builds/${value.id}/best`, wish, {}, stop.signal)
          .catch(() => null);
        clearTimeout(timer);
        if (answer?.status === 200) answered += 1;
        else if (answer)
          throw new Error(
            `a best build was answered with ${String(answer.status)}: ${JSON.stringify(answer.value)}`,
          );
      }
      return answered;
    }),
  );
  return `${String(asked.reduce((sum, each) => sum + each, 0))} best builds found meanwhile`;
}

let alone: number | undefined;
async function peopleAlone(): Promise<void> {
  const [kept, loop] = await loopWhile(() => work(performance.now() + seconds * 1000));
  alone = tell(`${String(people)} people for ${String(seconds)} s`, kept, loop);
}

async function peopleAndBest(): Promise<void> {
  const until = performance.now() + seconds * 1000;
  const [[kept, best], loop] = await loopWhile(() => Promise.all([work(until), askForBest(until)]));
  const beside = tell(`The same, and four of them ask for best builds (${best})`, kept, loop);
  if (alone !== undefined)
    row('  p95 of an edit against that without', `${(beside / alone).toFixed(2)} times`);
}

async function numbers(): Promise<void> {
  const quote = await first.quote(1);
  for (const count of [1_000, 10_000]) {
    const answer = await first.ask('POST', `/api/quotes/${quote.id}/numbers`, {
      numbers: Array.from({ length: count }, (_, at) => `XX-${String(at * 7919)}-${String(at)}`),
    });
    row(`${String(count)} unknown numbers read`, String(answer.status), ms(answer.took));
  }
}

/** Twenty at work: each types a quantity, and half a second later the next; what they waited for. */
async function twentyAtWork(quotes: readonly [Person, Quote][], until: number): Promise<number[]> {
  const waits: number[] = [];
  await Promise.all(
    quotes.map(async ([person, quote]) => {
      for (let at = 0; performance.now() < until; at++) {
        const { status, took } = await person.edit(quote, at, 1 + (at % 9));
        if (status !== 200) throw new Error(`an edit was answered ${String(status)}`);
        waits.push(took);
        await pause(500);
      }
    }),
  );
  return waits;
}

const openAs = async (path: string, address: string): Promise<{ status: number; took: number }> => {
  const start = performance.now();
  const answer = await fetch(base + path, { headers: { 'x-forwarded-for': address } });
  await answer.arrayBuffer();
  return { status: answer.status, took: performance.now() - start };
};

/** A hundred customers open their links at once, again and again, beside twenty engineers; and one comes too often. */
async function shares(): Promise<void> {
  const quotes: [Person, Quote][] = [];
  for (const person of crowd.slice(0, 20)) quotes.push([person, await person.quote(10)]);
  const links: string[] = [];
  const until = new Date(Date.now() + 20 * 24 * 60 * 60 * 1000).toISOString().slice(0, 10);
  for (let at = 0; at < 10; at++) {
    const quote = await first.quote(10);
    await first.ask('POST', `/api/quotes/${quote.id}/send`, { version: quote.version });
    const made = await first.ask<{ link: string }>('POST', `/api/quotes/${quote.id}/shares`, { until });
    links.push(new URL(made.value.link).pathname);
  }
  const p95 = (waits: readonly number[]): number => percentile(waits, 0.95);
  const span = 20_000;
  const ratios: number[] = [];
  for (let round = 1; round <= 3; round++) {
    const alone = await twentyAtWork(quotes, performance.now() + span);
    const end = performance.now() + span;
    const opened: { status: number; took: number }[] = [];
    const customers = async (): Promise<void> => {
      for (let wave = 0; performance.now() < end; wave++) {
        opened.push(
          ...(await Promise.all(
            Array.from({ length: 100 }, (_, at) =>
              openAs(links[at % links.length] as string, `198.51.100.${String(at + 1)}`),
            ),
          )),
        );
        await pause(4_000);
      }
    };
    const [beside] = await Promise.all([twentyAtWork(quotes, end), customers()]);
    ratios.push(p95(beside) / p95(alone));
    row(
      `20 engineers, and 100 shares at once beside them, round ${String(round)}`,
      `p95 ${ms(p95(alone))}`,
      `p95 ${ms(p95(beside))}`,
      `${(ratios.at(-1) ?? NaN).toFixed(2)} times`,
    );
    row(
      '  the shares',
      statuses(opened),
      `p95 ${ms(
        percentile(
          opened.map(({ took }) => took),
          0.95,
        ),
      )}`,
    );
  }
  const many = await Promise.all(
    Array.from({ length: 600 }, () => openAs(links[0] as string, '203.0.113.9')),
  );
  row('600 requests of one address', statuses(many));
  row('  and one of another meanwhile', statuses([await openAs(links[0] as string, '203.0.113.10')]));
}

async function memory(): Promise<void> {
  const until = performance.now() + minutes * 60_000;
  const kept = await work(until);
  const figures = readFileSync(log, 'utf8')
    .split('\n')
    .flatMap((line) =>
      line.includes('"figures"')
        ? [(JSON.parse(line) as { figures: { heap: number; resident: number } }).figures]
        : [],
    );
  const each = 6;
  console.log(
    `Memory over ${String(minutes)} minutes of mixed load (${String(kept.length)} asked, ${String(kept.filter(({ status }) => status !== 200).length)} wrong), least of each minute, in MB:`,
  );
  for (let at = 0; at + each <= figures.length; at += each) {
    const [heap, resident] = [
      Math.min(...figures.slice(at, at + each).map((one) => one.heap)),
      Math.min(...figures.slice(at, at + each).map((one) => one.resident)),
    ];
    row(`  minute ${String(at / each + 1)}`, `heap ${heap.toFixed(1)}`, `resident ${resident.toFixed(0)}`);
  }
}

try {
  if (runs('edits')) await edits();
  if (runs('accepts')) await accepts();
  if (runs('lists')) await lists();
  if (runs('lines')) await lines();
  if (runs('numbers')) await numbers();
  if (runs('people')) await peopleAlone();
  if (runs('best')) await peopleAndBest();
  if (runs('shares')) await shares();
  if (wanted.includes('memory')) await memory();
} finally {
  await database.end();
  server.kill('SIGTERM');
}
