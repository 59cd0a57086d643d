/**
 * A weighbridge with a licence, users, tickets and a response time inside: what recurs stands apart from what
 * is due once, and every figure leads back to it.
 */
import { expect, test, type Page } from '@playwright/test';
import { exact } from '../src/core/exact';
import { demoQuote, people, quoteOf, ready, refusal, saved, signIn, type } from './people';

/** Opens a quote of the demo. */
async function openDemo(page: Page, title: string): Promise<string> {
  const { id } = await demoQuote(page, title);
  await page.goto(`/quotes/${id}`);
  await ready(page);
  return id;
}

test('what recurs inside a build is told apart, explained, and printed with its days', async ({ page }) => {
  await signIn(page, people.engineer);
  const id = await openDemo(page, 'Hall 2, all in');
  const before = await quoteOf(page, id);
  const [line] = before.lines;
  const subscriptions = line?.price.subscriptions ?? [];
  // Licence, users and response time for 12 months; tickets by the month; both for 18 months of two
  // weighbridges.
  expect(subscriptions.map(({ recurring }) => [recurring?.baseMonths, recurring?.months])).toEqual([
    [12, 18],
    [1, 18],
  ]);
  expect(subscriptions[0]?.list).toBe(exact('2340').times(2).times(18).div(12).toString());
  expect(exact(before.totals.oneTime).plus(before.totals.recurring).toString()).toBe(before.totals.net);

  const row = page.getByRole('row', { name: /RB-060-180/ });
  await expect(row).toContainText(/of it recurs, \d\d \w+ \d{4} to/);
  // The cell has the margin of one piece of what is due once; the line's own is told beside.
  await expect(row).toContainText(
    `Margin with what recurs: ${exact(line?.price.net ?? '0')
      .minus(line?.price.cost ?? '0')
      .div(line?.price.net ?? '1')
      .times(100)
      .toDecimalPlaces(2)
      .toString()} %`,
  );
  await expect(row).toContainText(/Warranty to 10 years: \d\d \w+ \d{4} to/);

  // From the total of what recurs down to the walk of one period.
  await page
    .getByLabel('Totals')
    .getByRole('button', { name: /^Recurring/ })
    .click();
  const explained = page.getByRole('region', { name: /how it comes about|comes about/i }).last();
  await explained.getByRole('button', { name: 'Net, line 1, of what recurs (12 months)' }).click();
  await expect(explained).toContainText(
    'Net before the whole-quote discount, line 1, of what recurs (12 months)',
  );
  await explained
    .getByRole('button', { name: /^Net before the whole-quote discount, line 1, of what recurs/ })
    .click();
  await expect(explained).toContainText('Net for one, line 1, of what recurs (12 months)');
  await expect(page.getByRole('region', { name: /^Recurs .* for 12 months$/ })).toContainText(
    'over 18 months, a price for 12',
  );

  // A discount on the line is one on what recurs as well.
  await type(page, 'Discount % 1', '10');
  await saved(page);
  const after = await quoteOf(page, id);
  expect(after.lines[0]?.price.subscriptions?.[0]?.unitNet).toBe('2106');
  expect(exact(after.totals.recurring).lt(before.totals.recurring)).toBe(true);
  await expect(page.getByLabel('Totals').getByRole('button', { name: /^First year/ })).toBeVisible();
  await type(page, 'Discount % 1', '4');
  await saved(page);
  expect((await quoteOf(page, id)).totals).toEqual(before.totals);
  expect((await page.request.get(`/api/quotes/${id}/paper.pdf`)).headers()['content-type']).toBe(
    'application/pdf',
  );
});

test('the term belongs to the build, and the agreements of the customer stand in the deal', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  const id = await openDemo(page, 'Hall 2, all in');
  const { version, lines } = await quoteOf(page, id);
  const refused = await page.request.patch(`/api/quotes/${id}/lines/${lines[0]?.id ?? ''}`, {
    data: { version, term: { start: '2027-01-01', months: 24, days: 0 } },
  });
  expect(await refusal(refused)).toMatchObject({ status: 422, code: 'line.notRecurring', field: 'term' });

  await openDemo(page, 'Timber gate, running it');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Deal' }).click();
  const agreement = page
    .getByRole('region', { name: 'Agreements of the customer' })
    .getByRole('row', { name: /Frame contract Norrvik, decks/ });
  await expect(agreement).toContainText('Weighbridges');
  await expect(agreement).toContainText('01 Jan 2026 to 31 Dec 2027 · line 1');
  await expect(agreement).toContainText('9 %');
});
