/**
 * Takes the pictures of docs/screenshots from a running demo: `npm run screenshots`, with BASE_URL where it
 * is not at port 4600.
 */
import { chromium } from '@playwright/test';

const baseURL = process.env.BASE_URL ?? 'http://127.0.0.1:4600';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--enable-unsafe-swiftshader',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const page = await (
  await browser.newContext({
    baseURL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    reducedMotion: 'reduce',
  })
).newPage();
const still = async () => {
  await page.waitForLoadState('networkidle');
  await page.waitForFunction(() => document.querySelectorAll('astro-island[ssr]').length === 0);
};
const shoot = async (name) => {
  await still();
  await page.waitForTimeout(900);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  console.log(name);
};

const ask = async (method, path, data) => (await page.request.fetch(path, { method, data })).json();

/** A quote of the demo by its title; where an order was made of it, that is opened. */
const openQuote = async (title) => {
  const found = await page.request.get('/api/search', { params: { find: title } });
  const hit = (await found.json()).find(({ kind }) => kind === 'quote');
  await page.goto(`/quotes/${hit.id}`);
  const { order } = await (await page.request.get(`/api/quotes/${hit.id}`)).json();
  if (order) await page.goto(`/orders/${order.id}`);
};

await page.goto('/sign-in');
await page.getByLabel('E-mail').fill('mara@harrowmoor.example');
await page.getByLabel('Password', { exact: true }).fill('harrowmoor');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.waitForURL('**/');
await shoot('desk');
await page.goto('/catalogue');
await shoot('catalogue');
await page.goto('/quotes');
await shoot('quotes');
await openQuote('North Face, new gate');
await page.waitForURL(/quotes\/./);
await still();
const northFace = page.url();
await openQuote('Timber gate, running it');
await page.waitForURL(/quotes\/./);
await still();
await page.getByRole('button', { name: /^Net of line 9/ }).click();
await shoot('ledger');
await page.goto(`${northFace}/paper`);
await page.getByRole('img', { name: /^Page 1 of/ }).waitFor();
await page.getByRole('button', { name: 'Settings of Lines and sums' }).click();
await shoot('composer');
// A mail before it goes, what the customer sees on a phone, and what colleagues say.
await page.goto(`${northFace}/send`);
await still();
await shoot('send');
const { rows: sent } = await (await page.request.get('/api/quotes?states=sent')).json();
const shown = sent.find(({ net }) => Number(net) > 10_000) ?? sent[0];
const until = new Date(Date.now() + 30 * 86_400_000).toISOString().slice(0, 10);
const { link } = await ask('POST', `/api/quotes/${shown.id}/shares`, {
  name: shown.customer,
  address: '',
  until,
});
await page.setViewportSize({ width: 390, height: 844 });
await page.goto(new URL(link).pathname);
await shoot('share');
await page.setViewportSize({ width: 1280, height: 800 });
const north = northFace.split('/').pop();
const { lines } = await (await page.request.get(`/api/quotes/${north}`)).json();
const built = lines.find(({ buildId }) => buildId);
const [, item] = await (await page.request.get(`/api/quotes/${north}/lines/${built.id}/items`)).json();
await ask('POST', `/api/quotes/${north}/notes`, {
  words: 'Ms Kestrel decides; her brother signs. Call after four.',
});
await ask('POST', `/api/quotes/${north}/requests`, {
  kind: 'technical',
  role: 'modeller',
  line: built.id,
  item: item.sku,
  words: 'The quarry floor is salted in winter. Can it be galvanised to 120 µm, and what would that cost?',
});
await ask('POST', `/api/quotes/${north}/follow-ups`, {
  day: new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10),
  words: 'Ask for the foundation drawing',
});
await page.goto(`${northFace}?side=colleagues`);
await shoot('colleagues');
const site = await ask('POST', '/api/schedules', {
  name: 'North face, gates and lanes',
  site: 'By the river',
  quote: north,
});
const place = (tag, area, of, quantity = '1', remark = '') => ({ tag, area, quantity, remark, of });
const goods = (sku) => ({ is: 'item', sku });
const [{ of: weighbridge }] = site.positions;
await ask('PUT', `/api/schedules/${site.id}/positions`, {
  version: site.version,
  rows: [
    place('WB-101', 'North gate', weighbridge, '1', 'Pit poured in March'),
    place('WB-102', 'North gate', weighbridge, '1', 'As WB-101, mirrored'),
    place('FS-110', 'North gate', goods('SILL-1212-X'), '2', 'Beside the workshop'),
    place('KI-120', 'North gate', goods('YE-KIOSK')),
    place('WB-201', 'Quay', weighbridge, '1', 'Cable to the office: 40 m'),
    place('FS-210', 'Quay', goods('SILL-1515-X')),
    place('BO-220', 'Quay', goods('YE-BOLL'), '6', 'Two at each corner'),
    place('HUT-230', 'Quay', { is: 'words', text: 'Ticket hut, by the customer' }),
  ],
});
await page.goto(`/schedules/${site.id}`);
await shoot('schedule');
await page.goto(northFace);
await still();
await page.getByRole('link', { name: /^RB-060/ }).click();
await page.waitForURL(/bench/);
await still();
await shoot('bench');
await page.locator('[data-row="mounting"]').getByRole('radio', { name: /^Pit/ }).click();
await shoot('bench-why-and-how');
await page.keyboard.press('Escape');

const [customer] = await ask('GET', '/api/customers?find=callow');
const quote = await ask('POST', '/api/quotes', { customerId: customer.id, title: 'North gate' });
const begin = async (modelId, decisions) => {
  const { id } = await ask('POST', '/api/builds', { quoteId: quote.id, modelId });
  await ask('PUT', `/api/builds/${id}`, {
    version: 1,
    decisions: Object.entries(decisions).map(([on, value]) => ({ on, value })),
  });
  return id;
};
const deck = { vehicle: 'articulated', capacity: 'c60', length: 'm18' };
const first = await begin('ridgeback', {
  ...deck,
  'approachParts.steelRamps': true,
  'approachParts.trafficLights': true,
});
await page.goto(`/bench/${first}`);
await still();
await page.getByRole('button', { name: 'Another variant, as this one stands' }).click();
await page.getByRole('button', { name: 'Variant B' }).waitFor();
await page
  .locator('[data-row="surface"]')
  .getByRole('radio', { name: /Concrete/ })
  .click();
await page
  .locator('[data-row="approachParts"]')
  .getByRole('checkbox', { name: /Walkways/ })
  .click();
await page.keyboard.press('F7');
await page.getByRole('row', { name: /^Approach parts/ }).waitFor();
await shoot('bench-variants');
const gate = await begin('quarryGate', {
  'scale/ridgeback/1/vehicle': 'articulated',
  'scale/ridgeback/1/length': 'm12',
  'gateParts.kiosk': true,
  'gateParts.loop': true,
  plateText: 'Callowhill gate',
});
await page.goto(`/bench/${gate}`);
await still();
await page.getByRole('complementary').getByRole('button', { name: /^List/ }).click();
await shoot('bench-bundle');
await openQuote('Fell End, second deck');
await page.waitForURL(/orders\/./);
await shoot('order');
await page.getByRole('link', { name: /^W-.*-1$/ }).click();
await page.waitForURL(/work/);
await shoot('work-order');
// What a manager is asked to sign.
await page.request.post('/api/session', {
  data: { email: 'tobias@harrowmoor.example', password: 'harrowmoor' },
});
await openQuote('Bauhof Nord');
await page.waitForURL(/quotes\/./);
await still();
await shoot('sign-off');
// A draft of a model, with a rule that is looked at, tried out beside it.
await page.request.post('/api/session', {
  data: { email: 'wen@harrowmoor.example', password: 'harrowmoor' },
});
await page.goto('/models');
await still();
await page
  .getByRole('row', { name: /Ridgeback/ })
  .getByRole('button', { name: 'Begin a draft' })
  .click();
await page.waitForURL(/models\/./);
await still();
await page
  .locator('aside')
  .getByRole('radio', { name: /Articulated/ })
  .click();
await page.locator('aside').getByRole('radio', { name: /18 m/ }).click();
await page
  .getByRole('navigation', { name: 'Parts of the model' })
  .getByRole('button', { name: 'Rules' })
  .click();
await page.getByRole('list', { name: 'Rules' }).getByRole('button').nth(5).click();
await page.waitForTimeout(2500);
await shoot('workshop');
// What is sold, and for what.
await page.goto('/items');
await still();
await page.getByRole('button', { name: /^Floor scales/ }).click();
await shoot('items');
const inForce = new Date(Date.now() + 45 * 86_400_000).toISOString().slice(0, 10);
const change = await ask('POST', '/api/prices/changes', { name: 'Yard, spring', inForce });
await ask('POST', `/api/prices/changes/${change.id}/formula`, {
  version: 1,
  list: 'EUR-2026',
  formula: '+3.5 %, to the next 0.50',
  family: 'yard',
});
await page.goto(`/prices/changes/${change.id}`);
await still();
await page.getByRole('gridcell', { name: 'YE-CARD' }).click();
await page.getByRole('button', { name: 'Edit YE-CARD' }).click();
await shoot('price-change');
await browser.close();
