/**
 * Bad input and forged requests: each a clear sentence at the right place and status, and nothing lost or
 * half done.
 */
import { expect, test, type APIRequestContext } from '@playwright/test';
import type { BenchView, QuoteView } from '../src/contract';
import { openQuote, option, password, people, ready, refusal, signIn, configure } from './people';

async function quoteWithBuild(
  request: APIRequestContext,
  decisions: { on: string; value: string | boolean }[],
): Promise<{ quote: QuoteView; build: string }> {
  const [customer] = (await (await request.get('/api/customers?find=callow')).json()) as { id: string }[];
  const quote = (await (
    await request.post('/api/quotes', { data: { customerId: customer?.id, title: 'Refusals' } })
  ).json()) as QuoteView;
  const { id } = (await (
    await request.post('/api/builds', { data: { quoteId: quote.id, modelId: 'ridgeback' } })
  ).json()) as { id: string };
  expect((await request.put(`/api/builds/${id}`, { data: { version: 1, decisions } })).status()).toBe(200);
  return { quote, build: id };
}
const complete = [
  { on: 'vehicle', value: 'articulated' },
  { on: 'length', value: 'm12' },
];

test.describe('signing in', () => {
  test('a wrong password, a missing one and an unknown person are told at the field', async ({ page }) => {
    await page.goto('/orders');
    await expect(page).toHaveURL(/sign-in\?to=%2Forders/);
    await ready(page);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('Type your e-mail.')).toBeVisible();
    await page.getByLabel('E-mail').fill(people.manager);
    await page.getByLabel('Password', { exact: true }).fill('wrong');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('E-mail and password do not match. Check both and try again.')).toBeVisible();
    await expect(page.getByLabel('Password', { exact: true })).toBeFocused();
    await page.getByLabel('Password', { exact: true }).fill(password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL(/\/orders$/);
  });

  test('too many tries from one place have to wait, however many come at once', async ({ request }) => {
    const data = { email: 'nobody@harrowmoor.example', password: 'x' };
    const answers = await Promise.all(
      Array.from({ length: 100 }, () => request.post('/api/session', { data })),
    );
    // Five at once, and on a slow machine those few that come free while the others arrive.
    const tried = answers.filter((each) => each.status() === 401).length;
    expect(tried).toBeGreaterThan(0);
    expect(tried).toBeLessThan(12);
    const late = answers.find((each) => each.status() === 429);
    expect(Number(late?.headers()['retry-after'])).toBeGreaterThan(0);
    expect(await refusal(late as NonNullable<typeof late>)).toMatchObject({
      status: 429,
      code: 'signIn.tooMany',
    });
  });

  test('works before the script of the page does, and puts no secret in an address', async ({ browser }) => {
    const page = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    await page.goto('/sign-in?to=%2Forders');
    await page.getByLabel('E-mail').fill(people.manager);
    await page.getByLabel('Password', { exact: true }).fill('wrong');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('E-mail and password do not match. Check both and try again.')).toBeVisible();
    expect(page.url()).not.toContain('wrong');
    await expect(page.getByLabel('E-mail')).toHaveValue(people.manager);
    await page.getByLabel('Password', { exact: true }).fill(password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL(/\/orders$/);
    await page.getByRole('button', { name: 'Sign out' }).click();
    await page.waitForURL(/\/sign-in$/);
  });

  test('an item is added before the script of the page runs, or what is wrong with it is said', async ({
    browser,
    request,
  }) => {
    expect(
      (await request.post('/api/session', { data: { email: people.engineer, password } })).status(),
    ).toBe(200);
    const [customer] = (await (await request.get('/api/customers?find=callow')).json()) as { id: string }[];
    const quote = (await (
      await request.post('/api/quotes', { data: { customerId: customer?.id, title: '' } })
    ).json()) as QuoteView;
    const context = await browser.newContext({
      javaScriptEnabled: false,
      storageState: await request.storageState(),
    });
    const page = await context.newPage();
    await page.goto(`/quotes/${quote.id}`);
    await page.getByLabel('Item number').fill('NO-SUCH');
    await page.getByRole('button', { name: 'Add item' }).click();
    await expect(
      page.getByText('No item has the number "NO-SUCH". Check it in the catalogue.'),
    ).toBeVisible();
    await expect(page.getByLabel('Item number')).toHaveValue('NO-SUCH');
    await page.getByLabel('Item number').fill('YE-KIOSK');
    await page.getByRole('button', { name: 'Add item' }).click();
    await page.waitForURL(`**/quotes/${quote.id}`);
    const after = (await (await request.get(`/api/quotes/${quote.id}`)).json()) as QuoteView;
    expect(after.lines.map(({ sku, quantity }) => [sku, quantity])).toEqual([['YE-KIOSK', 1]]);
  });

  test('nothing is answered without signing in, and a page of another site is turned away', async ({
    request,
  }) => {
    for (const path of [
      '/api/quotes',
      '/api/customers?find=a',
      '/api/search?find=a',
      '/api/builds/3f0d1f04-0000-4000-8000-000000000000',
    ])
      expect((await request.get(path)).status()).toBe(401);
    expect(
      (
        await request.post('/api/session', {
          data: { email: people.engineer, password },
          headers: { origin: 'http://elsewhere.example' },
        })
      ).status(),
    ).toBe(403);
  });
});

test.describe('signed in as an engineer', () => {
  test.beforeEach(async ({ page }) => {
    expect(
      (await page.request.post('/api/session', { data: { email: people.engineer, password } })).status(),
    ).toBe(200);
  });

  test('a malformed body, an unknown customer and an unknown quote', async ({ page }) => {
    const { request } = page;
    const broken = await request.post('/api/quotes', {
      headers: { 'content-type': 'application/json' },
      data: Buffer.from('{"customerId":'),
    });
    expect(await refusal(broken)).toMatchObject({
      status: 400,
      message: 'The request is not valid JSON. Nothing was changed.',
    });
    expect(
      await refusal(
        await request.post('/api/quotes', {
          data: { customerId: '3f0d1f04-0000-4000-8000-000000000000', title: '' },
        }),
      ),
    ).toMatchObject({ status: 422, code: 'quote.unknownCustomer', field: 'customerId' });
    expect(await refusal(await request.get('/api/quotes/not-a-quote'))).toMatchObject({
      status: 404,
      code: 'quote.missing',
    });
    expect((await page.goto('/quotes/not-a-quote'))?.status()).toBe(404);
    await expect(page.getByText('There is no such quote, or it is not yours.')).toBeVisible();
  });

  test('quantities and discounts out of reason leave the line as it was', async ({ page }) => {
    const { request } = page;
    const { quote, build } = await quoteWithBuild(request, complete);
    let view = (await (
      await request.post(`/api/builds/${build}/line`, { data: { version: quote.version, quantity: 1 } })
    ).json()) as QuoteView;
    const path = `/api/quotes/${quote.id}/lines/${view.lines[0]?.id ?? ''}`;
    for (const [change, code] of [
      [{ quantity: 0 }, 'quantity.range'],
      [{ quantity: 1e9 }, 'quantity.range'],
      [{ quantity: 'two' }, 'quantity.notANumber'],
      [{ quantity: 1.5 }, 'quantity.byPiece'],
      [{ quantity: 1.2345 }, 'quantity.fine'],
      [{ quantity: -3 }, 'quantity.range'],
      ...(
        [
          ['rate', '101', 'discount.range'],
          ['rate', '-1', 'discount.range'],
          ['rate', 'much', 'discount.notANumber'],
          ['rate', '1e308', 'discount.notANumber'],
          ['net', '1e308', 'amount.notANumber'],
          ['amount', '-5', 'amount.range'],
          ['amount', '999999999', 'line.hand'],
          ['margin', '100', 'margin.range'],
          ['price', '5', 'input.badKind'],
        ] as const
      ).map(([by, value, code]) => [{ hand: { by, value } }, code] as const),
      [{ price: '5' }, 'line.priceNotTyped'],
      [{ cost: '5' }, 'line.costNotTyped'],
      [{ cost: '1e308' }, 'amount.notANumber'],
      [{ cost: '-1' }, 'amount.range'],
      [{ alternative: true }, 'input.unknownField'],
      [{ term: { start: '2027-01-01', months: 12, days: 0 } }, 'line.notRecurring'],
      [{ term: { start: '2027-02-30', months: 12, days: 0 } }, 'input.badDate'],
      [{ net: '1.00' }, 'input.unknownField'],
      [{ price: { unitNet: '1' } }, 'input.invalid'],
    ] as const) {
      const found = await refusal(await request.patch(path, { data: { version: view.version, ...change } }));
      expect([change, found.status, found.code]).toEqual([change, 422, code]);
    }
    const after = (await (await request.get(`/api/quotes/${quote.id}`)).json()) as QuoteView;
    expect(after).toMatchObject({ version: view.version, totals: view.totals });

    // The same in the Ledger: what was typed stays at the cell with its sentence.
    await page.goto(`/quotes/${quote.id}`);
    await ready(page);
    for (const typed of ['0', '1000000000']) {
      await page.getByLabel('Quantity 1').fill(typed);
      await page.getByLabel('Quantity 1').press('Enter');
      await expect(page.getByText('The quantity must be more than 0 and at most 99,999.')).toBeVisible();
      await expect(page.getByLabel('Quantity 1')).toHaveValue(typed);
    }
    await page.getByLabel('Quantity 1').fill('two');
    await expect(page.getByText('Type a number, for instance 2.')).toBeVisible();
    await page.getByLabel('Quantity 1').press('Escape');
    await expect(page.getByLabel('Quantity 1')).toHaveValue('1');
    view = after;
  });

  test('a length out of range, between steps or forged is refused; a forged price or standing too', async ({
    page,
  }) => {
    const { request } = page;
    const { build } = await quoteWithBuild(request, complete);
    // How much is known of differences grows from one opening to the next; what is made does not.
    const seen = async () => ({
      ...((await (await request.get(`/api/builds/${build}`)).json()) as BenchView),
      differences: {},
    });
    const before = await seen();
    const send = (decisions: unknown, more: object = {}) =>
      request.put(`/api/builds/${build}`, { data: { version: 2, decisions, ...more } });
    const custom = (value: unknown) => [
      { on: 'vehicle', value: 'articulated' },
      { on: 'length', value: 'custom' },
      { on: 'customLength', value },
    ];
    expect(await refusal(await send(custom('31')))).toMatchObject({
      status: 422,
      code: 'decision.outOfRange',
      message: '31 m is outside 6 to 30 m.',
      field: 'customLength',
    });
    expect(await refusal(await send(custom('13.3')))).toMatchObject({
      status: 422,
      message: '13.3 m is between two steps. Take 13 or 13.5 m.',
    });
    expect(await refusal(await send(custom('long')))).toMatchObject({
      status: 422,
      code: 'decision.notANumber',
    });
    expect(await refusal(await send(custom(13.5)))).toMatchObject({
      status: 422,
      code: 'decision.wrongType',
    });
    expect(await refusal(await send([{ on: 'mounting', value: 'roof' }]))).toMatchObject({
      status: 422,
      code: 'decision.notAnOption',
    });
    expect(await refusal(await send([{ on: 'colour', value: 'red' }]))).toMatchObject({
      status: 422,
      code: 'decision.unknown',
    });
    expect(await refusal(await send(complete, { price: '1.00' }))).toMatchObject({
      status: 422,
      code: 'input.unknownField',
    });
    expect(await refusal(await send([{ on: 'mounting', value: 'pit', standing: 'free' }]))).toMatchObject({
      status: 422,
      code: 'input.unknownField',
    });
    expect(
      await refusal(await request.put(`/api/builds/${build}`, { data: { version: 1, decisions: complete } })),
    ).toMatchObject({ status: 409, code: 'build.stale' });
    expect(await seen()).toEqual(before);
  });

  test('decisions that cannot stand together are kept and shown, and cannot be sold', async ({ page }) => {
    const { request } = page;
    const { quote, build } = await quoteWithBuild(request, [
      ...complete,
      { on: 'mounting', value: 'pit' },
      { on: 'approachParts.steelRamps', value: true },
    ]);
    expect(
      await refusal(
        await request.post(`/api/builds/${build}/line`, { data: { version: quote.version, quantity: 1 } }),
      ),
    ).toMatchObject({ status: 422, code: 'line.clash' });
    await page.goto(`/bench/${build}`);
    await ready(page);
    const clash = page.getByRole('region', { name: 'These decisions cannot stand together' });
    await expect(clash).toContainText(
      'A pit or half-pit deck sits level with the road, so ramps are barred.',
    );
    await expect(option(page, 'approachParts', /Steel ramps/)).toBeChecked();
    await expect(option(page, 'mounting', /^Pit/)).toBeChecked();
    await clash.getByRole('button', { name: /Change Mounting from Pit to Surface/ }).click();
    await expect(clash).toHaveCount(0);
    await expect(page.getByRole('button', { name: 'Put on quote' })).toBeEnabled();
  });

  test('an unfinished build cannot be put on a quote; an empty quote cannot be accepted', async ({
    page,
  }) => {
    const { request } = page;
    const { quote, build } = await quoteWithBuild(request, [{ on: 'vehicle', value: 'rigid' }]);
    expect(
      await refusal(
        await request.post(`/api/builds/${build}/line`, { data: { version: quote.version, quantity: 1 } }),
      ),
    ).toMatchObject({ status: 422, message: 'One thing is still to be chosen on the Bench.' });
    expect(
      await refusal(
        await request.post(`/api/quotes/${quote.id}/accept`, { data: { version: quote.version } }),
      ),
    ).toMatchObject({ status: 422, code: 'quote.empty' });
    expect(
      await refusal(
        await request.post(`/api/quotes/${quote.id}/lines`, {
          data: { version: quote.version, sku: 'NOT-HERE', quantity: 1 },
        }),
      ),
    ).toMatchObject({
      status: 422,
      message: 'No item has the number "NOT-HERE". Check it in the catalogue.',
    });
    expect(
      await refusal(
        await request.post(`/api/quotes/${quote.id}/lines`, {
          data: { version: quote.version, sku: 'RIDGEBACK', quantity: 1 },
        }),
      ),
    ).toMatchObject({ status: 422, code: 'line.needsBuild' });
  });

  test('accepting twice, at once and one after the other, makes one order', async ({ page }) => {
    const { request } = page;
    const { quote, build } = await quoteWithBuild(request, complete);
    const view = (await (
      await request.post(`/api/builds/${build}/line`, { data: { version: quote.version, quantity: 1 } })
    ).json()) as QuoteView;
    const answers = await Promise.all(
      [1, 2, 3].map(() =>
        request.post(`/api/quotes/${quote.id}/accept`, { data: { version: view.version } }),
      ),
    );
    expect(answers.map((answer) => answer.status()).sort()).toEqual([200, 409, 409]);
    const again = await refusal(
      await request.post(`/api/quotes/${quote.id}/accept`, { data: { version: view.version + 1 } }),
    );
    expect(again).toMatchObject({ status: 409, code: 'quote.alreadyAccepted' });
    expect(again.message).toMatch(/^Quote Q-26-\d{4} is already accepted as order O-26-\d{4}\.$/);
    expect(
      await refusal(
        await request.patch(`/api/quotes/${quote.id}/lines/${view.lines[0]?.id ?? ''}`, {
          data: { version: view.version + 1, quantity: 5 },
        }),
      ),
    ).toMatchObject({ status: 409 });
    expect(
      await refusal(await request.put(`/api/builds/${build}`, { data: { version: 2, decisions: [] } })),
    ).toMatchObject({ status: 409, code: 'build.settled' });
    const search = (await (await request.get(`/api/search?find=${quote.number}`)).json()) as {
      kind: string;
    }[];
    expect(search.filter((hit) => hit.kind === 'quote')).toHaveLength(1);
  });
});

test('two people on one quote: the second is told who changed it, and sees the change', async ({
  browser,
}) => {
  const [first, second] = [
    await (await browser.newContext()).newPage(),
    await (await browser.newContext()).newPage(),
  ];
  await signIn(first, people.engineer);
  const id = await openQuote(first, 'corrie', 'Corrie Vale Council');
  await first.getByLabel('Item number').fill('SV-TRAIN-1');
  await first.getByRole('button', { name: 'Add item' }).click();
  await expect(first.getByText('Training, half day')).toBeVisible();
  await signIn(second, people.manager);
  await second.goto(`/quotes/${id}`);
  await ready(second);
  await first.getByLabel('Quantity 1').fill('4');
  await first.getByLabel('Quantity 1').press('Enter');
  await expect(first.getByTestId('net')).toHaveText('1,788.00');
  await second.getByLabel('Discount % 1').fill('10');
  await second.getByLabel('Discount % 1').press('Enter');
  await expect(second.getByText(/Mara Lindqvist changed this quote meanwhile/).first()).toBeVisible();
  await expect(second.getByLabel('Quantity 1')).toHaveValue('4');
  await expect(second.getByLabel('Discount % 1')).toHaveValue('10');
  await expect(second.getByTestId('net')).toHaveText('1,788.00');
  await second.getByLabel('Discount % 1').press('Enter');
  await expect(second.getByTestId('net')).toHaveText('1,609.20');
});

test('a build that cannot be saved while the server is away is kept and saved when it is back', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
  await page.route('**/api/builds/*', (route) => route.abort());
  await option(page, 'length', /15 m/).click();
  await expect(page.getByRole('status').filter({ hasText: 'Not saved' })).toBeVisible();
  await page.unroute('**/api/builds/*');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  await page.reload();
  await ready(page);
  await expect(option(page, 'length', /15 m/)).toBeChecked();
});
