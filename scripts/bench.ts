/**
 * How fast it is: the engine on Ridgeback and on generated models of two sizes, beside two other solvers on
 * the same questions,
 * in a web worker of headless Chromium, and from key to painted state on the Bench and the Ledger.
 * `npm run bench [ridgeback|large|huge|peers|worker|pricing|workshop|paper|painted|ledger|composer|prices|items|package ...]`; the last six need a demo
 * running (BASE_URL where it is not at port 4600).
 */
import { execFileSync } from 'node:child_process';
import { buildSync } from 'esbuild';
import { chromium, type Browser, type Page } from '@playwright/test';
import { cnfOf, createEngine, type Decision, type Engine, type State, type Target } from '../src/core/engine';
import {
  generatedModel,
  huge,
  large,
  randomFrom,
  type Size,
} from '../src/core/engine/testing/generated-models';
import { compileModel, type CompiledModel } from '../src/core/model';
import { pricer, type QuoteLine } from '../src/core/pricing';
import { demoDocument } from './demo-documents';
import { timeComposer } from './bench-composer';
import { timeLedger } from './bench-ledger';
import { timePackage } from './bench-package';
import { timePaper } from './bench-paper';
import { timeItems } from './bench-items';
import { timePrices } from './bench-prices';
import { timeWorkshop } from './bench-workshop';
import { askLogicSolver, askMinisat } from './peers';

const parts = process.argv.slice(2);
const wanted = (part: string): boolean => parts.length === 0 || parts.includes(part);
const context = { date: '2026-06-01', values: {} };

const percentile = (sorted: number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? NaN;
function row(name: string, times: number[], goal?: number): void {
  const sorted = [...times].sort((a, b) => a - b);
  const [p50, p95] = [percentile(sorted, 0.5), percentile(sorted, 0.95)];
  const verdict =
    goal === undefined ? '' : p95 <= goal ? `within ${String(goal)} ms` : `MISSES ${String(goal)} ms`;
  console.log(
    `${name.padEnd(48)} n=${String(times.length).padStart(4)}  p50 ${p50.toFixed(1).padStart(7)} ms  p95 ${p95.toFixed(1).padStart(7)} ms  ${verdict}`,
  );
}
const timed = <T>(times: number[], work: () => T): T => {
  const start = performance.now();
  const result = work();
  times.push(performance.now() - start);
  return result;
};

interface Times {
  states: number[];
  reasons: number[];
  ways: number[];
}

function wishes(model: CompiledModel, { rows }: State, standing: 'free' | 'swap'): Target[] {
  return model.document.features.flatMap((feature) =>
    (rows[feature.id]?.shown ? (rows[feature.id]?.options ?? []) : [])
      .filter((option) => option.standing === standing && !option.taken)
      .map((option): Target =>
        feature.most > 1
          ? { on: `${feature.id}.${option.id}`, value: true }
          : { on: feature.id, value: option.id },
      ),
  );
}

/**
 * Random free decisions, one after another; at each step a reason and ways out for something that is not
 * free.
 */
function talk(engine: Engine, steps: number, random: (below: number) => number, times: Times): Decision[] {
  let decisions: Decision[] = [];
  let state = engine.state({ decisions });
  for (let step = 0; step < steps; step++) {
    const free = wishes(engine.model, state, 'free');
    const next = free[random(free.length)];
    if (!next) break;
    decisions = [...decisions.filter((each) => each.on !== next.on), next];
    const input = { decisions };
    state = timed(times.states, () => engine.state(input));
    const refused = wishes(engine.model, state, 'swap');
    const wish = refused[random(refused.length)];
    if (!wish || step % 4 !== 0) continue;
    timed(times.reasons, () => engine.reason(input, wish));
    timed(times.ways, () => engine.changesNeeded(input, wish));
  }
  return decisions;
}

function compiled(given: unknown, times: number[], runs: number): CompiledModel {
  for (let run = 0; ; run++) {
    const result = timed(times, () => compileModel(given));
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    if (run === runs - 1) return result.model;
  }
}

if (wanted('ridgeback')) {
  const compile: number[] = [];
  const model = compiled(demoDocument('ridgeback'), compile, 10);
  const times: Times = { states: [], reasons: [], ways: [] };
  const [first, full, best]: [number[], number[], number[]] = [[], [], []];
  const random = randomFrom(20261124);
  for (let turn = 0; turn < 20; turn++) {
    const engine = createEngine(model, {
      date: '2026-06-01',
      values: { region: ['eu', 'uk', 'na'][turn % 3] as string },
    });
    timed(first, () => engine.state({ decisions: [] }));
    const decisions = talk(engine, 12, random, times);
    const refused = wishes(model, engine.state({ decisions }), 'swap')[0];
    if (refused) timed(full, () => engine.waysOut({ decisions }, refused));
    if (turn % 5 === 0)
      timed(best, () =>
        engine.best(
          { decisions: [] },
          {
            minimize: [
              { formula: 'deckMass', weight: '1' },
              { formula: 'installationHours', weight: '100' },
            ],
          },
        ),
      );
  }
  row('Ridgeback: compile', compile);
  row('Ridgeback: first state in a context', first);
  row('Ridgeback: new state after a decision', times.states, 16);
  row('Ridgeback: reason', times.reasons, 30);
  row('Ridgeback: size of the smallest way out', times.ways, 30);
  row('Ridgeback: ways out, each with its whole state', full);
  row('Ridgeback: best build by mass and hours, proven', best);
}

function timeGenerated(
  name: string,
  size: Size,
  goals: { compile: number; state: number; reason?: number },
): void {
  const compile: number[] = [];
  const model = compiled(generatedModel(size), compile, name === 'large' ? 8 : 4);
  const [made, times]: [number[], Times] = [[], { states: [], reasons: [], ways: [] }];
  const engine = timed(made, () => createEngine(model, context));
  const first: number[] = [];
  timed(first, () => engine.state({ decisions: [] }));
  talk(engine, 200, randomFrom(7), times);
  row(`${name}: compile`, compile, goals.compile);
  row(`${name}: engine made, once a context`, made);
  row(`${name}: first state, once a context`, first);
  row(`${name}: new state after a decision`, times.states, goals.state);
  row(`${name}: reason`, times.reasons, goals.reason);
  row(`${name}: size of the smallest way out`, times.ways, goals.reason);
  if (name === 'large') {
    const best: number[] = [];
    const minimize = model.document.features.slice(0, 60).flatMap((feature, at) =>
      feature.options.map((option, index) => ({
        formula:
          feature.most > 1
            ? `if list contains(${feature.id}, "${option.id}") then 1 else 0`
            : `if ${feature.id} = "${option.id}" then 1 else 0`,
        weight: String(((at * 7 + index * 13) % 17) + 1),
      })),
    );
    const answer = timed(best, () => engine.best({ decisions: [] }, { minimize }, { budget: 20_000 }));
    row(
      `large: best build over 60 features, ${answer.is === 'found' && answer.proven ? 'proven' : 'not proven'}`,
      best,
    );
  }
  console.log(`${name}: heap in use ${(process.memoryUsage().heapUsed / 1e6).toFixed(0)} MB`);
}
if (wanted('large')) timeGenerated('large', large, { compile: 300, state: 16, reason: 30 });
if (wanted('huge')) timeGenerated('huge', huge, { compile: 3_000, state: 150 });

if (wanted('peers')) {
  const model = compiled(generatedModel(large), [], 1);
  const cnf = cnfOf(model, context);
  if (!cnf) throw new Error('the generated model needs arithmetic');
  const engine = createEngine(model, context);
  const random = randomFrom(3);
  const fixed = new Set(model.document.rules.flatMap((rule) => (rule.kind === 'show' ? [rule.of] : [])));
  const [ours, first]: [number[], number[]] = [[], []];
  timed(first, () => engine.state({ decisions: [] }));
  const script = await askLogicSolver(cnf);
  let decisions: Decision[] = [];
  const peers: { script: number; native: number }[] = [];
  for (let step = 0; step < 12; step++) {
    const free = wishes(model, engine.state({ decisions }), 'free').filter(
      ({ on }) => !fixed.has(on.split('.')[0] as string) && !decisions.some((each) => each.on === on),
    );
    decisions = [...decisions, free[random(free.length)] as Decision];
    timed(ours, () => engine.state({ decisions }));
    if (step % 6 !== 5) continue;
    const assume = decisions.map(
      ({ on, value }) =>
        cnf.values.find((each) => each.on === on && each.value === String(value))?.literal as number,
    );
    const [mine, theirs] = [script(assume), askMinisat(cnf, assume)];
    if (mine.free.size !== theirs.free.size) throw new Error('the peers do not agree');
    peers.push({ script: mine.milliseconds, native: theirs.milliseconds });
  }
  const mean = (list: number[]) => list.reduce((sum, each) => sum + each, 0) / list.length;
  const own = mean(ours);
  console.log(
    `standings of large after a decision:   ours ${own.toFixed(1)} ms (with defaults, sources and rows; from nothing ${mean(first).toFixed(0)} ms)`,
  );
  console.log(
    `  logic-solver, one process, learning kept  ${mean(peers.map((each) => each.script)).toFixed(0)} ms: ours takes 1/${(mean(peers.map((each) => each.script)) / own).toFixed(0)} (goal 1/5)`,
  );
  console.log(
    `  native minisat, solving alone             ${mean(peers.map((each) => each.native)).toFixed(0)} ms: ours takes 1/${(mean(peers.map((each) => each.native)) / own).toFixed(0)} (goal 1/1)`,
  );
}

const launch = (): Promise<Browser> =>
  chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });

if (wanted('worker')) {
  // The engine as a worker of a page: the same random talk, timed inside the worker.
  const [file] = buildSync({
    entryPoints: ['scripts/bench-worker.ts'],
    bundle: true,
    platform: 'browser',
    format: 'iife',
    write: false,
    logLevel: 'error',
  }).outputFiles;
  const browser = await launch();
  const page = await browser.newPage();
  const times = await page.evaluate(
    (source) =>
      new Promise<number[]>((done) => {
        const worker = new Worker(URL.createObjectURL(new Blob([source], { type: 'text/javascript' })));
        worker.onmessage = (event) => done(event.data as number[]);
      }),
    file?.text ?? '',
  );
  await browser.close();
  row('large: new state, in a worker of Chromium', times, 16);
}

if (wanted('pricing')) {
  // A quote of a thousand lines, three parts each, with everything that a walk can have.
  const random = randomFrom(20261127);
  const amount = () => `${String(random(9_000) + 10)}.${String(random(90) + 10)}`;
  const name = { en: 'A thing' };
  const made = (at: number): QuoteLine => ({
    id: `line-${String(at)}`,
    sku: `SKU-${String(at)}`,
    family: `family-${String(at % 12)}`,
    counts: at % 20 !== 0,
    locked: at % 15 === 0,
    discountable: true,
    offer: {
      is: 'build',
      unpriced: [],
      cost: { unit: amount(), once: '0' },
      parts: [
        { id: 'a', kind: 'part', name, amount: amount() },
        { id: 'b', kind: 'option', name, amount: amount() },
        at % 5 === 0
          ? {
              id: 'c',
              kind: 'part',
              name,
              amount: amount(),
              recurs: { baseMonths: 12, start: context.date, months: 18 },
            }
          : { id: 'c', kind: 'surcharge', name, rate: '0.06', amount: amount() },
      ],
    },
    terms: {
      quantity: random(20) + 1,
      day: context.date,
      agreements: [
        { id: 'key', name, rate: '0.08' },
        { id: 'old', name, rate: '0.05' },
      ],
      quantityDiscount: { name, by: 'whole', levels: [{ from: '10', rate: '0.02' }] },
      promotions: [{ id: 'p', name, rate: '0.01' }],
      hand: { by: 'rate', value: `0.0${String(random(9) + 1)}` },
    },
  });
  const whole = { decimals: 2, whole: { by: 'rate', value: '0.03' } } as const;
  const [full, edited]: [number[], number[]] = [[], []];
  for (let turn = 0; turn < 60; turn++) {
    const lines = Array.from({ length: 1000 }, (_, at) => made(at));
    const price = pricer();
    timed(full, () => price(lines, whole));
    // A quote is opened once and edited many times; most are only walked here.
    for (let edit = 0; edit < (turn % 12 === 5 ? 80 : 0); edit++) {
      const at = random(1000);
      const next = lines.map((line, index) =>
        index === at ? { ...line, terms: { ...line.terms, quantity: random(20) + 1 } } : line,
      );
      timed(edited, () => price(next, whole));
    }
  }
  // The first turns are for the compiler.
  row('quote of 1,000 lines, 3,000 parts: whole walk', full.slice(10), 60);
  row('  one edited line', edited.slice(80), 5);
}

if (wanted('workshop')) timeWorkshop(row);
if (wanted('paper')) await timePaper(row);

if (['painted', 'ledger', 'composer', 'prices', 'items', 'package'].some(wanted)) {
  const baseURL = process.env.BASE_URL ?? 'http://127.0.0.1:4600';
  if (
    !(await fetch(`${baseURL}/api/health`).then(
      (answer) => answer.ok,
      () => false,
    ))
  )
    console.log(
      `No demo at ${baseURL}; start one with bin/start to time the Bench, the Ledger and the composer in Chromium.`,
    );
  else {
    if (wanted('painted')) await timePainting(baseURL);
    if (wanted('ledger')) {
      const browser = await launch();
      await timeLedger(browser, baseURL, row);
      await browser.close();
    }
    // Only where it is asked for: it puts price changes into the house.
    if (parts.includes('prices')) {
      const browser = await launch();
      await timePrices(browser, baseURL, row);
      await browser.close();
    }
    if (parts.includes('items')) {
      const browser = await launch();
      await timeItems(browser, baseURL, row);
      await browser.close();
    }
    if (parts.includes('package')) {
      const browser = await launch();
      await timePackage(browser, baseURL, row);
      await browser.close();
    }
    if (wanted('composer')) {
      const browser = await launch();
      await timeComposer(browser, baseURL, row);
      await browser.close();
    }
  }
}

/** From key to painted state on the Bench, with the processor four times slower than it is. */
async function timePainting(baseURL: string): Promise<void> {
  const browser = await launch();
  const page = await (
    await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } })
  ).newPage();
  await page.request.post('/api/session', {
    data: { email: 'mara@harrowmoor.example', password: 'harrowmoor' },
  });
  const slow = await page.context().newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  await paintRidgeback(page);
  if (publishLarge()) await paintLarge(page);
  await browser.close();
}

async function begin(page: Page, modelId: string): Promise<void> {
  const [customer] = (await (await page.request.get('/api/customers?find=norrvik')).json()) as {
    id: string;
  }[];
  const quote = (await (
    await page.request.post('/api/quotes', { data: { customerId: customer?.id, title: 'Timing' } })
  ).json()) as { id: string };
  const build = (await (
    await page.request.post('/api/builds', { data: { quoteId: quote.id, modelId } })
  ).json()) as { id: string };
  await page.goto(`/bench/${build.id}`, { waitUntil: 'networkidle' });
  await page.waitForTimeout(6000);
}

/**
 * Presses Enter on an option and waits until the frame that shows it taken is painted; null where it is not
 * there, taken, or not free.
 * Net price and part number come in the same frame. By hand, nothing is worked out: the page only marks the
 * option, which is the least that any page takes.
 */
async function press(page: Page, rowId: string, text: string, byHand = false): Promise<number | null> {
  const ready = await page.evaluate(
    async ([wantedRow, wantedText, hand]) => {
      const tab = [
        ...document.querySelectorAll<HTMLElement>(`[data-row="${wantedRow}"] [data-tab][role]`),
      ].find((each) => each.textContent.includes(wantedText));
      // What needs other changes first shows a sign, and tells why instead of being taken.
      if (!tab || tab.getAttribute('aria-checked') === 'true' || tab.querySelector('svg')) return false;
      tab.focus();
      await new Promise((next) => setTimeout(next, 250));
      const took = new Promise<number | null>((tell) => {
        window.addEventListener(
          'keydown',
          (event) => {
            const start = performance.now();
            const watch = new MutationObserver(() => {
              if (tab.getAttribute('aria-checked') !== 'true') return;
              watch.disconnect();
              requestAnimationFrame(
                () =>
                  void (
                    window as unknown as {
                      scheduler: { postTask(task: () => void, options: object): Promise<void> };
                    }
                  ).scheduler.postTask(
                    () => {
                      if (hand) tab.setAttribute('aria-checked', 'false');
                      tell(performance.now() - start);
                    },
                    { priority: 'user-blocking' },
                  ),
              );
            });
            watch.observe(tab, { attributes: true, attributeFilter: ['aria-checked'] });
            if (hand) {
              event.preventDefault();
              tab.setAttribute('aria-checked', 'true');
            }
            setTimeout(() => tell(null), 5000);
          },
          { once: true, capture: true },
        );
      });
      Object.assign(window, { took });
      return true;
    },
    [rowId, text, byHand ? 'yes' : ''] as const,
  );
  if (!ready) return null;
  // A finger leaves a key long after the answer; let go at once, the key would ask for a frame of its own
  // amid the one that is timed.
  await page.keyboard.down('Enter');
  const took = await page.evaluate(() => (window as unknown as { took: Promise<number | null> }).took);
  await page.keyboard.up('Enter');
  return took;
}

/**
 * How fast the processor is at the moment: a shared machine changes its pace, and figures of two runs compare
 * only by their ratio to this.
 */
function count(): number {
  const start = performance.now();
  let sum = 0;
  for (let at = 0; at < 2_000_000; at++) sum = Math.imul(sum ^ at, 31);
  return performance.now() - start + (sum === 1 ? 1 : 0);
}

async function paintRidgeback(page: Page): Promise<void> {
  await begin(page, 'ridgeback');
  const [painted, floor, counted]: [number[], number[], number[]] = [[], [], []];
  const steps: [string, string][] = [
    ['vehicle', 'Articulated'],
    ['length', '18 m'],
    ['width', '3.2 m'],
    ['finish', 'Hot-dip'],
    ['mounting', 'Pit'],
    ['mounting', 'Surface'],
    ['cellKind', 'Analogue'],
    ['junctionBox', '10 channels'],
    ['cellKind', 'Digital'],
    ['dust', 'Zone 22'],
    ['dust', 'None'],
    ['surface', 'Concrete'],
    ['surface', 'Checker'],
    ['approachParts', 'Guide rails'],
    ['approachParts', 'Traffic'],
    ['warranty', '10 years'],
    ['response', '4 hours'],
    ['warranty', '15 years'],
    ['length', 'Custom'],
    ['length', '12 m'],
    ['temperature', 'Cold'],
    ['temperature', 'Standard'],
    ['vehicle', 'Rigid'],
    ['vehicle', 'Road train'],
  ];
  // The 95th of a hundred means little of fewer.
  for (let turn = 0; turn < 5; turn++) {
    for (const [rowId, text] of steps) {
      const least = await press(page, rowId, text, true);
      const took = await press(page, rowId, text);
      if (took !== null) painted.push(took);
      if (took !== null && least !== null) floor.push(least);
      counted.push(await page.evaluate(count));
      await page.waitForTimeout(700);
    }
  }
  row('Bench, key to painted, 4x slower: Ridgeback', painted, 100);
  row('  a fixed count in the same page', counted);
  row('  the same key, only marking the option', floor);
}

/** The generated large model, published beside the demo's where its database is at hand. */
function publishLarge(): boolean {
  try {
    const url =
      process.env.DATABASE_URL ??
      (process.env.BASE_URL
        ? ''
        : execFileSync('bin/cluster', ['start', 'iunctura'], { encoding: 'utf8' }).trim());
    if (!url) return false;
    execFileSync('npx', ['tsx', 'scripts/publish-generated.ts'], {
      env: { ...process.env, DATABASE_URL: url },
      stdio: 'ignore',
    });
    return true;
  } catch {
    console.log(
      'The generated large model could not be published; DATABASE_URL names the database of the demo.',
    );
    return false;
  }
}

async function paintLarge(page: Page): Promise<void> {
  await begin(page, 'generated');
  const random = randomFrom(20261126);
  const [painted, scrolled]: [number[], number[]] = [[], []];
  for (let step = 0; step < 40; step++) {
    const tab = await page.evaluate((at) => {
      const free = [
        ...document.querySelectorAll<HTMLElement>('[data-tab][role][aria-checked="false"]'),
      ].filter((each) => each.querySelector('svg') === null && each.checkVisibility());
      const one = free[at % Math.max(1, free.length)];
      return one ? [one.closest<HTMLElement>('[data-row]')?.dataset.row ?? '', one.textContent] : null;
    }, random(100_000));
    const took = tab && (await press(page, tab[0] as string, tab[1] as string));
    if (took !== null) painted.push(took);
    await page.waitForTimeout(500);
    // The longest frame while the sheet is scrolled by a page.
    scrolled.push(
      await page.evaluate(async () => {
        const sheet = document.querySelector('[role="region"][tabindex="-1"]');
        let longest = 0;
        for (let frame = 0; frame < 12; frame++) {
          const start = performance.now();
          sheet?.scrollBy(0, 60);
          await new Promise((next) => requestAnimationFrame(next));
          longest = Math.max(longest, performance.now() - start);
        }
        return longest;
      }),
    );
  }
  row('Bench, key to painted, 4x slower: large', painted);
  row('Bench, longest frame of scrolling, 4x slower: large', scrolled);
}
