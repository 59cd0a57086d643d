/** What each role sees and may do; a dealer meets no cost in any payload. */
import { expect, test, type Page } from '@playwright/test';
import type { QuoteView } from '../src/contract';
import {
  atDesk,
  configure,
  demoQuote,
  openQuote,
  option,
  password,
  people,
  quoteOf,
  ready,
  refusal,
  signIn,
} from './people';

test('a dealer quotes for an own customer and no payload on the way tells a cost', async ({ page }) => {
  const leaks: string[] = [];
  const bodies: Promise<void>[] = [];
  page.on('response', (response) => {
    // What is told live never ends, and so is never read to its end.
    if (/\/_astro\/|\/live$/.test(response.url())) return;
    bodies.push(
      response.text().then(
        (body) => {
          const found =
            /&quot;(cost|costs|unitCost|margin|rates|markUp)&quot;|"(cost|costs|unitCost|margin|rates|markUp)":/.exec(
              body,
            );
          if (found) leaks.push(`${response.url()}: ${found[0]}`);
        },
        () => undefined,
      ),
    );
  });
  await atDesk(page, people.dealer);
  await expect(page.getByRole('link', { name: 'Orders' })).toHaveCount(0);
  const id = await openQuote(page, 'salt', 'Saltmarsh Farm Partners');
  await configure(page);
  await option(page, 'vehicle', /Rigid/).click();
  await option(page, 'length', /8 m/).first().click();
  await expect(page.getByText('Complete.')).toBeVisible();
  await expect(page.getByText('Margin')).toHaveCount(0);
  await page.getByRole('button', { name: 'Put on quote' }).click();
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  await expect(page.getByRole('columnheader', { name: 'Margin' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Mark as accepted' })).toHaveCount(0);
  await page.goto('/catalogue');
  await page.goto('/quotes');
  for (const path of [`/api/quotes/${id}`, '/api/quotes', '/api/search?find=ridge'])
    expect((await page.request.get(path)).status()).toBe(200);
  await Promise.all(bodies);
  expect(bodies.length).toBeGreaterThan(8);
  expect(leaks).toEqual([]);

  // The same look finds the costs of those who may see them, so it would find a leak.
  const view = await quoteOf(page, id);
  expect(Object.keys(view.lines[0]?.price ?? {})).not.toContain('cost');
  expect(
    await refusal(await page.request.post(`/api/quotes/${id}/accept`, { data: { version: view.version } })),
  ).toMatchObject({ status: 403, message: 'Your role does not allow this. Ask a sales manager.' });
});

const asRole = async (page: Page, email: string) =>
  expect((await page.request.post('/api/session', { data: { email, password } })).status()).toBe(200);

test('a dealer cannot find, open or sell to what is not theirs', async ({ page, browser }) => {
  await asRole(page, people.engineer);
  const quotes = (
    (await (await page.request.get('/api/quotes')).json()) as { rows: { id: string; number: string }[] }
  ).rows;
  const view = (await (await page.request.get(`/api/quotes/${quotes[0]?.id ?? ''}`)).json()) as QuoteView;
  expect(view.totals.cost ?? view.lines.length).toBeDefined();
  const [foreign] = (await (await page.request.get('/api/customers?find=callow')).json()) as { id: string }[];

  const dealer = await (await browser.newContext()).newPage();
  await asRole(dealer, people.dealer);
  expect(await (await dealer.request.get('/api/customers?find=callow')).json()).toEqual([]);
  expect(
    ((await (await dealer.request.get('/api/customers?find=dunmere')).json()) as { number: string }[])
      .map((each) => each.number)
      .sort(),
  ).toEqual(['C-1011', 'C-1012']);
  expect((await dealer.request.get(`/api/quotes/${view.id}`)).status()).toBe(404);
  expect((await dealer.request.get(`/api/quotes/${view.id}/paper.pdf`)).status()).toBe(404);
  const build = view.lines.find((line) => line.buildId)?.buildId ?? quotes[0]?.id ?? '';
  expect((await dealer.request.get(`/api/builds/${build}`)).status()).toBe(404);
  expect(
    await refusal(await dealer.request.post('/api/quotes', { data: { customerId: foreign?.id, title: '' } })),
  ).toMatchObject({ status: 422, code: 'quote.unknownCustomer' });
  const own = ((await (await dealer.request.get('/api/quotes')).json()) as { rows: { owner: string }[] })
    .rows;
  expect(new Set(own.map((quote) => quote.owner))).toEqual(new Set(['Rhona Pike']));
});

test('a modeller reads prices and costs but opens no quotes; a manager sees margins', async ({
  page,
  browser,
}) => {
  await atDesk(page, people.modeller);
  await expect(page.getByRole('button', { name: 'New quote' })).toHaveCount(0);
  await page.goto('/catalogue');
  await ready(page);
  await expect(page.getByRole('columnheader', { name: 'Cost' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Add/ })).toHaveCount(0);
  const [customer] = (await (await page.request.get('/api/customers?find=callow')).json()) as {
    id: string;
  }[];
  expect(
    (await page.request.post('/api/quotes', { data: { customerId: customer?.id, title: '' } })).status(),
  ).toBe(403);

  const manager = await (await browser.newContext()).newPage();
  await signIn(manager, people.manager);
  await manager.goto(`/quotes/${(await demoQuote(manager, 'North Face, new gate')).id}`);
  await ready(manager);
  await expect(manager.getByRole('columnheader', { name: 'Margin' })).toBeVisible();
  await expect(manager.getByRole('heading', { name: 'Callowhill Quarries Ltd' })).toBeVisible();
});

test('the catalogue names what is sold and in which list', async ({ page }) => {
  await signIn(page, people.engineer);
  await page.goto('/catalogue');
  await ready(page);
  await expect(page.getByRole('row', { name: /RIDGEBACK/ })).toBeVisible();
  await page.getByRole('button', { name: /^Vessel kits/ }).click();
  await expect(page.getByRole('row', { name: /PL-CELL-00500 .* 8 d pc 95\.00 221\.50/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /RIDGEBACK/ })).toHaveCount(0);
  await page.getByLabel('Find in the catalogue').fill('zebra');
  await expect(page.getByText('No item has "zebra".')).toBeVisible();
});
