/** What is typed into the Ledger is kept until it is stored, whatever comes between. */
import { expect, test } from '@playwright/test';
import { cell, openQuote, password, people, quoteOf, ready, saved, signIn, type } from './people';

test('edits outlast a server that is away, and a session that is over', async ({ page, context }) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  const { version } = await quoteOf(page, id);
  expect(
    (
      await page.request.post(`/api/quotes/${id}/lines`, {
        data: { version, sku: 'SILL-1212-X', quantity: 1 },
      })
    ).ok(),
  ).toBe(true);
  await page.reload();
  await ready(page);
  const stored = async () => (await quoteOf(page, id)).lines[0];
  await page.route('**/api/quotes/**', (route) => route.abort());
  await type(page, 'Quantity 1', '3');
  await expect(page.getByText('One change not stored yet')).toBeVisible();
  await type(page, 'Discount % 1', '2');
  await expect(page.getByText('2 changes not stored yet')).toBeVisible();
  // What was typed shows, and nothing says that it is saved.
  await expect(cell(page, 'Quantity 1')).toHaveValue('3');
  await expect(page.getByText('Saved', { exact: true })).toHaveCount(0);
  await page.unroute('**/api/quotes/**');
  await saved(page);
  expect(await stored()).toMatchObject({ quantity: 3, hand: { by: 'rate', value: '0.02' } });

  await context.clearCookies();
  await type(page, 'Quantity 1', '5');
  const [other] = await Promise.all([
    context.waitForEvent('page'),
    page.getByRole('alert').getByRole('link', { name: 'Sign in' }).click(),
  ]);
  await other.getByLabel('E-mail').fill(people.engineer);
  await other.getByLabel('Password', { exact: true }).fill(password);
  await other.getByRole('button', { name: 'Sign in', exact: true }).click();
  await other.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
  await other.close();
  await saved(page);
  expect((await stored())?.quantity).toBe(5);
});

test('a second window of one’s own is no somebody else', async ({ page, context }) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  const { version } = await quoteOf(page, id);
  expect(
    (
      await page.request.post(`/api/quotes/${id}/lines/several`, {
        data: {
          version,
          rows: [
            { sku: 'SILL-1212-X', quantity: 1 },
            { sku: 'SV-COMM', quantity: 1 },
          ],
        },
      })
    ).ok(),
  ).toBe(true);
  await page.reload();
  await ready(page);
  const other = await context.newPage();
  await other.goto(`/quotes/${id}`);
  await ready(other);
  await type(page, 'Quantity 1', '4');
  await saved(page);
  await type(other, 'Quantity 2', '6');
  await saved(other);
  await expect
    .poll(async () => (await quoteOf(page, id)).lines.map(({ quantity }) => quantity))
    .toEqual([4, 6]);
  await expect(cell(other, 'Quantity 1')).toHaveValue('4');
  await expect(other.getByText(/meanwhile/)).toHaveCount(0);
});
