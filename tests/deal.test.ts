/** What a quote means for who sells it: a lease, margins, commission, the year. */
import { expect, test } from '@playwright/test';
import { cell, openQuote, people, quoteOf, saved, signIn } from './people';

test('a lease is worked out beside the price, and offered on the quotation', async ({ page }) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  for (const [item, net] of [
    ['SV-ENGINEER', '48,000.00'],
    ['DK-SITE', '48,890.00'],
  ] as const) {
    await page.getByLabel('Item number').fill(item);
    await page.getByRole('button', { name: 'Add item' }).click();
    await expect(page.getByRole('row', { name: new RegExp(item) })).toBeVisible();
    if (item === 'SV-ENGINEER') {
      await cell(page, 'Unit list 1').fill('48,000');
      await cell(page, 'Unit list 1').press('Enter');
      await expect(page.getByTestId('net')).toHaveText(net);
    }
  }
  await saved(page);
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Deal' }).click();
  const lease = page.getByRole('region', { name: 'Lease' });
  // What recurs is not leased: 48,000.00 over 36 months at 5.4 % a year.
  await expect(lease.getByTestId('lease')).toContainText('1,447.24 EUR');
  await expect(lease.getByTestId('lease')).toContainText('at 0.45 % a month');
  await lease.getByLabel('Left at the end', { exact: true }).fill('6,000');
  await lease.getByLabel('Left at the end', { exact: true }).press('Enter');
  await expect(lease.getByTestId('lease')).toContainText('1,293.33 EUR');
  await lease.getByLabel('due in advance').check();
  await expect(lease.getByTestId('lease')).toContainText('1,287.54 EUR');
  await lease.getByLabel('Months', { exact: true }).fill('0');
  await expect(lease.getByText('A lease runs from 1 to 240 months.')).toBeVisible();
  await lease.getByLabel('Months', { exact: true }).press('Escape');
  await lease.getByRole('button', { name: 'Offer it on the quotation' }).click();
  await expect(lease.getByRole('button', { name: 'Offered on the quotation' })).toBeVisible();
  expect((await quoteOf(page, id)).lease).toEqual({
    months: 36,
    yearlyRate: '0.054',
    residual: '6000',
    inAdvance: true,
  });
  await lease.getByLabel('Left at the end', { exact: true }).fill('60,000');
  await lease.getByLabel('Left at the end', { exact: true }).press('Enter');
  await expect(lease.getByText('What is left at the end cannot be more than the net.').first()).toBeVisible();
  expect((await page.request.get(`/api/quotes/${id}/paper.pdf`)).headers()['content-type']).toBe(
    'application/pdf',
  );

  await expect(page.getByRole('region', { name: 'Margin by line' }).getByRole('row')).toHaveCount(3);
  const commission = page.getByRole('region', { name: 'Commission' });
  await commission.getByRole('button', { name: 'Net at target discounts' }).click();
  await expect(commission.getByRole('row', { name: /^Line 1, 5 % off 45,600\.00$/ })).toBeVisible();
  await expect(page.getByText(/^Accepted, this quote adds .* of the quota\.$/)).toBeVisible();
});
