/** Whoever runs the house: what is done apart from whoever asked for it, and who did what. */
import { expect, test, type Page } from '@playwright/test';
import { atDesk, openQuote, people, quoteOf, ready, refusal, signIn } from './people';

/** Goes to a place under More, which says where one is. */
async function place(page: Page, name: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Places' }).locator('summary').click();
  await page.getByRole('link', { name }).click();
}

test('begins a job, sees what came of it, and finds who began it', async ({ page }) => {
  await atDesk(page, people.administrator);
  await place(page, 'Jobs');
  await page.waitForURL('**/jobs');
  await ready(page);
  await page.getByRole('button', { name: 'Check lists against prices' }).click();
  const job = page.getByRole('row', { name: /Check lists against prices/ }).first();
  await expect(job).toContainText('Ines Farrow');
  // It prices every quote anew, in the background behind whatever else the tests ask for.
  await expect(job).toContainText('done', { timeout: 240_000 });
  await expect(job).toContainText('All as pricing says');
  await page.getByRole('tab', { name: /^failed/ }).click();
  await expect(page.getByText('There are no jobs in this state.')).toBeVisible();

  await place(page, 'Audit');
  await page.waitForURL('**/audit');
  await ready(page);
  await page.getByLabel('Number or name begins with').fill('house.facts');
  const entry = page.getByRole('row', { name: /began a job/ }).first();
  await expect(entry).toContainText('Ines Farrow');
  await page.getByLabel('Person').selectOption({ label: 'Mara Lindqvist' });
  await expect(page.getByText('Nobody did anything of that kind.')).toBeVisible();
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const written = page.getByRole('status', { name: 'Write the audit into a file' });
  await expect(written).toContainText('0 entries', { timeout: 60_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    written.getByRole('link', { name: 'Save the file' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^audit-\d{4}-\d{2}-\d{2}\.csv$/);
});

test('finds what an engineer did to a quote, by its number; an engineer does not come in', async ({
  browser,
}) => {
  const [ines, mara] = [await browser.newPage(), await browser.newPage()];
  await signIn(mara, people.engineer);
  const { number } = await quoteOf(mara, await openQuote(mara, 'callow', 'Callowhill Quarries Ltd'));
  expect((await mara.goto('/jobs'))?.status()).toBe(404);
  expect((await mara.goto('/audit'))?.status()).toBe(404);
  expect((await mara.request.get('/api/audit')).status()).toBe(403);

  await signIn(ines, people.administrator);
  await ines.goto('/audit');
  await ready(ines);
  await ines.getByLabel('Number or name begins with').fill(number.toLowerCase());
  await expect(ines.getByRole('row', { name: /opened a quote/ })).toHaveCount(1);
  await expect(ines.getByRole('row', { name: /opened a quote/ })).toContainText(number);
  // No say in prices: a quote is looked at and not changed.
  await expect(ines.getByRole('link', { name: 'Orders' })).toHaveCount(0);
  const answer = await ines.request.post('/api/quotes', { data: { customerId: 'a', title: '' } });
  expect(answer.status()).toBe(403);
  expect(await refusal(answer)).toBeTruthy();
});
