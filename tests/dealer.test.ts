/**
 * A dealer buys at the dealer's price, sells at an own one, and the quotation tells the customer only that.
 */
import { expect, test } from '@playwright/test';
import { cell, openQuote, people, quoteOf, refusal, saved, signIn } from './people';

test('a dealer marks up what is bought, all of it and one line by itself', async ({ page }) => {
  await signIn(page, people.dealer);
  const id = await openQuote(page, 'saltmarsh', 'Saltmarsh Farm Partners');
  for (const item of ['YE-KIOSK', 'SV-COMM']) {
    await page.getByLabel('Item number').fill(item);
    await page.getByRole('button', { name: 'Add item' }).click();
    await expect(page.getByRole('row', { name: new RegExp(item) })).toBeVisible();
  }
  const table = page.getByRole('grid', { name: /^Q-/ });
  await expect(table.getByRole('columnheader', { name: 'You sell', exact: true })).toBeVisible();
  await expect(table.getByRole('columnheader', { name: /Margin|Cost/ })).toHaveCount(0);
  await expect(cell(page, 'Unit net 1')).toBeDisabled();
  await cell(page, 'On top, %').fill('20');
  await cell(page, 'On top, %').press('Enter');
  const before = await quoteOf(page, id);
  const buys = Number(before.lines[0]?.price.unitNet);
  await expect(cell(page, 'You sell 1')).toHaveValue(
    (Math.round(buys * 120) / 100).toLocaleString('en-GB', { minimumFractionDigits: 2 }),
  );
  await cell(page, 'You sell 2').fill('1,000');
  await cell(page, 'You sell 2').press('Enter');
  await saved(page);
  const sold = Math.round(buys * 120) / 100 + 1000;
  await expect(page.getByTestId('resale')).toContainText(
    sold.toLocaleString('en-GB', { minimumFractionDigits: 2 }),
  );
  await cell(page, 'On top, %').fill('a lot');
  await expect(page.getByText('Type a percentage, for instance 32.')).toBeVisible();
  await cell(page, 'On top, %').press('Escape');

  // No discount on what is bought, whatever is sent; and no cost, margin or limit in any payload.
  const view = await quoteOf(page, id);
  const forged = await refusal(
    await page.request.patch(`/api/quotes/${id}/lines/${view.lines[0]?.id ?? ''}`, {
      data: { version: view.version, hand: { by: 'rate', value: '50' } },
    }),
  );
  expect([forged.status, forged.code]).toEqual([403, 'refused.permission']);
  for (const path of [
    '',
    '/deal',
    '/freshening',
    '/revisions?before=1&after=1',
    '/lines.csv',
    '/lines.csv?internal',
  ]) {
    const body = await (await page.request.get(`/api/quotes/${id}${path}`)).text();
    expect(body).not.toMatch(
      /"(cost|costs|unitCost|margin|rates|markUp|limits|commission|quota)":|Margin|\bCost\b/,
    );
  }
});
