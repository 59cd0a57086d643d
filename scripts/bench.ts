/**
 * How fast it is: the engine on Ridgeback in Node.js, and from click to painted state in headless Chromium.
 * `npm run bench`; for the second part a demo must be running (BASE_URL where it is not at port 4600).
 */
import { readFileSync } from 'node:fs';
import { chromium } from 'playwright-core';
import { createEngine, type Decision, type Engine } from '../src/core/engine';
import { compileModel, type CompiledModel } from '../src/core/model';

const target = 100;
const percentile = (sorted: number[], share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? NaN;
function row(name: string, times: number[], goal?: number): void {
  const sorted = [...times].sort((a, b) => a - b);
  const [p50, p95] = [percentile(sorted, 0.5), percentile(sorted, 0.95)];
  const verdict = goal === undefined ? '' : p95 <= goal ? `within ${String(goal)} ms` : `MISSES ${String(goal)} ms`;
  console.log(`${name.padEnd(46)} n=${String(times.length).padStart(4)}  p50 ${p50.toFixed(1).padStart(7)} ms  p95 ${p95.toFixed(1).padStart(7)} ms  ${verdict}`);
}
const timed = <T>(times: number[], work: () => T): T => {
  const start = performance.now();
  const result = work();
  times.push(performance.now() - start);
  return result;
};

/** The same pseudo-random numbers in every run. */
let seed = 20261124;
const random = (below: number): number => {
  seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
  return seed % below;
};

/** A decision that is free in the state before. */
function freeDecision(engine: Engine, model: CompiledModel, decisions: Decision[]): Decision | undefined {
  const { rows } = engine.state({ decisions });
  const choices = model.document.features.flatMap((feature) =>
    (rows[feature.id]?.shown ? (rows[feature.id]?.options ?? []) : []).filter((option) => option.standing === 'free' && !option.taken)
      .map((option): Decision => (feature.most > 1 ? { on: `${feature.id}.${option.id}`, value: true } : { on: feature.id, value: option.id })),
  );
  return choices[random(choices.length)];
}

const compile: number[] = [];
const given: unknown = JSON.parse(readFileSync('demo/models/ridgeback.json', 'utf8'));
let model: CompiledModel | undefined;
for (let run = 0; run < 10; run++) {
  const result = timed(compile, () => compileModel(given));
  if (result.ok) model = result.model;
}
if (!model) throw new Error('Ridgeback does not compile');
row('Ridgeback: compile', compile);
const [states, reasons, ways, first]: number[][] = [[], [], [], []];
for (let talk = 0; talk < 20; talk++) {
  const engine = createEngine(model, { date: '2026-06-01', values: { region: ['eu', 'uk', 'na'][talk % 3] as string } });
  let decisions: Decision[] = [];
  timed(first as number[], () => engine.state({ decisions }));
  for (let step = 0; step < 10; step++) {
    const next = freeDecision(engine, model, decisions);
    if (!next) break;
    decisions = [...decisions.filter((each) => each.on !== next.on), next];
    const state = timed(states as number[], () => engine.state({ decisions }));
    const swap = Object.values(state.rows).flatMap((each) => (each.shown ? (each.options ?? []).filter((option) => option.standing === 'swap').map((option) => ({ row: each.id, option: option.id })) : []))[0];
    if (!swap) continue;
    const many = (model.document.features.find((each) => each.id === swap.row)?.most ?? 1) > 1;
    const wish = many ? { on: `${swap.row}.${swap.option}`, value: true } : { on: swap.row, value: swap.option };
    timed(reasons as number[], () => engine.reason({ decisions }, wish));
    timed(ways as number[], () => engine.waysOut({ decisions }, wish));
  }
}
row('Ridgeback: first state in a context', first as number[]);
row('Ridgeback: new state after a decision', states as number[], target);
row('Ridgeback: reason', reasons as number[]);
row('Ridgeback: ways out with their effect', ways as number[]);

const baseURL = process.env.BASE_URL ?? 'http://127.0.0.1:4600';
if (!(await fetch(`${baseURL}/api/health`).then((answer) => answer.ok, () => false))) {
  console.log(`No demo at ${baseURL}; start one with bin/start to time the Bench in Chromium.`);
  process.exit(0);
}
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });
const page = await (await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } })).newPage();
await page.request.post('/api/session', { data: { email: 'mara@harrowmoor.example', password: 'harrowmoor' } });
const [customer] = (await (await page.request.get('/api/customers?find=norrvik')).json()) as { id: string }[];
const quote = (await (await page.request.post('/api/quotes', { data: { customerId: customer?.id, title: 'Timing' } })).json()) as { id: string };
const build = (await (await page.request.post('/api/builds', { data: { quoteId: quote.id, modelId: 'ridgeback' } })).json()) as { id: string };
await page.goto(`/bench/${build.id}`, { waitUntil: 'networkidle' });
await page.waitForTimeout(3000);
const painted: number[] = [];
const steps: [string, string][] = [['vehicle', 'Articulated'], ['length', '18 m'], ['width', '3.2 m'], ['finish', 'Hot-dip'], ['mounting', 'Pit'], ['mounting', 'Surface'], ['cellKind', 'Analogue'], ['junctionBox', '10 channels'], ['cellKind', 'Digital'], ['dust', 'Zone 22'], ['dust', 'None'], ['surface', 'Concrete'], ['surface', 'Checker'], ['approachParts', 'Guide rails'], ['approachParts', 'Traffic'], ['warranty', '10 years'], ['response', '4 hours'], ['warranty', '15 years'], ['length', 'Custom'], ['length', '12 m'], ['temperature', 'Cold'], ['temperature', 'Standard'], ['vehicle', 'Rigid'], ['vehicle', 'Road train']];
for (const [rowId, text] of steps) {
  const took = await page.evaluate(async ([wantedRow, wantedText]) => {
    const tab = [...document.querySelectorAll<HTMLElement>(`[data-row="${wantedRow ?? ''}"] [data-tab]`)].find((each) => each.textContent?.includes(wantedText ?? ''));
    if (!tab || tab.getAttribute('aria-checked') === 'true') return null;
    const start = performance.now();
    tab.click();
    for (let frames = 0; frames < 300; frames++) {
      await new Promise((next) => requestAnimationFrame(next));
      if (tab.getAttribute('aria-checked') === 'true') return performance.now() - start;
    }
    return null;
  }, [rowId, text]);
  if (took !== null) painted.push(took);
  await page.waitForTimeout(700);
}
row('Bench in Chromium: click to painted state', painted, target);
await browser.close();
