/** Quotes over time: sent, revised, compared, lost, run out, and freshened after a price rise. */
import { expect, test, type Page } from '@playwright/test';
import { connected } from '../src/data';
import { cell, openQuote, people, quoteOf, ready, refusal, saved, signIn } from './people';

async function add(page: Page, item: string, quantity: string): Promise<void> {
  await page.getByLabel('Item number').fill(item);
  await page.getByRole('textbox', { name: 'Quantity', exact: true }).fill(quantity);
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByRole('row', { name: new RegExp(item) })).toBeVisible();
}
const state = (page: Page, word: string) =>
  expect(page.getByText(word, { exact: true }).first()).toBeVisible();
const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

test.beforeEach(async ({ page }) => signIn(page, people.engineer));

test('a quote is sent, revised and compared; what was sent stays as it was', async ({ page }) => {
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  await state(page, 'Draft');
  await add(page, 'SILL-1212-X', '2');
  await add(page, 'SV-COMM', '1');
  await state(page, 'Ready');
  await page.getByLabel('Valid until', { exact: true }).fill(inDays(20));
  await page.getByLabel('Valid until', { exact: true }).press('Enter');
  await saved(page);
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Only mark as sent' }).click();
  await state(page, 'Sent');
  await expect(cell(page, 'Quantity 1')).toBeDisabled();
  const sent = await quoteOf(page, id);
  expect(sent.revision).toMatchObject({ state: 'sent', validUntil: inDays(20) });
  // Whatever is sent to the server, it stays.
  const forged = await refusal(
    await page.request.patch(`/api/quotes/${id}/lines/${sent.lines[0]?.id ?? ''}`, {
      data: { version: sent.version, quantity: 9 },
    }),
  );
  expect([forged.status, forged.message]).toEqual([
    409,
    'Revision 1 has been sent and cannot be changed. Begin a new revision.',
  ]);

  await page.getByRole('button', { name: 'New revision' }).click();
  await state(page, 'Ready');
  await cell(page, 'Quantity 1').fill('5');
  await cell(page, 'Quantity 1').press('Enter');
  await saved(page);
  await page.getByRole('button', { name: 'Remove line 2' }).click();
  await expect(page.getByRole('row', { name: /SV-COMM/ })).toBeHidden();
  await add(page, 'YE-KIOSK', '1');
  await page.getByRole('button', { name: 'Revision 2' }).click();
  const pane = page.getByRole('complementary', { name: 'Revisions' });
  await pane.getByRole('button', { name: 'Compare with revision 1' }).click();
  const dialog = page.getByRole('dialog', { name: 'Compare' });
  await expect(dialog.getByRole('row', { name: /Sill/ })).toContainText(/2 × .*5 × /);
  await expect(dialog.getByRole('row', { name: /Commissioning/ })).toContainText('taken away');
  await expect(dialog.getByRole('row', { name: /kiosk/i })).toContainText('new');
  await dialog.getByRole('button', { name: 'Close' }).click();

  await pane.getByRole('article', { name: 'Revision 1' }).getByRole('link', { name: 'Open' }).click();
  await page.waitForURL(/revision=1/);
  await ready(page);
  await expect(page.getByText('You see revision 1, which is not the newest.')).toBeVisible();
  await expect(cell(page, 'Quantity 1')).toHaveValue('2');
  await expect(cell(page, 'Quantity 1')).toBeDisabled();
  await page.getByRole('link', { name: 'To revision 2' }).click();
  await ready(page);
  await expect(cell(page, 'Quantity 1')).toHaveValue('5');
});

test('a quote is lost, with why, and a new revision goes on', async ({ page }) => {
  const id = await openQuote(page, 'corrie', 'Corrie Vale Council');
  await add(page, 'SV-COMM', '1');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Mark as lost' }).click();
  const dialog = page.getByRole('dialog', { name: /Why was Q-.* lost/ });
  await dialog.getByRole('button', { name: 'Mark as lost' }).click();
  await expect(dialog.getByText('Choose a reason.')).toBeVisible();
  await dialog.getByLabel('Delivery time').click();
  await dialog.getByLabel('Note for colleagues').fill('They needed it in May');
  await dialog.getByRole('button', { name: 'Mark as lost' }).click();
  await state(page, 'Lost');
  expect((await quoteOf(page, id)).revision.lost).toEqual({ reason: 'time', note: 'They needed it in May' });
  await page.getByRole('button', { name: 'Revision 1' }).click();
  await expect(page.getByRole('complementary', { name: 'Revisions' })).toContainText('They needed it in May');
  await page.getByRole('button', { name: 'New revision' }).click();
  await state(page, 'Ready');
});

test('after a price rise a draft keeps its prices until it is freshened, line by line', async ({ page }) => {
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  await add(page, 'SILL-1515-X', '2');
  await add(page, 'YE-BOLL', '1');
  await add(page, 'YE-KIOSK', '1');
  const before = await quoteOf(page, id);
  // The quote is a week old, and two prices rose three days ago.
  const { lines, priceEntries } = connected().records;
  await lines.update({ pricedOn: inDays(-7) }, { where: { id: before.lines.map((line) => line.id) } });
  const rises: [string, number][] = [
    ['SILL-1515-X', 25],
    ['YE-BOLL', 60],
  ];
  try {
    for (const [sku, more] of rises) {
      const now = await priceEntries.findOne({
        where: { priceList: before.priceList, sku },
        order: [['validFrom', 'DESC']],
        raw: true,
      });
      if (now?.entry?.method !== 'unit') throw new Error(`${sku} has another price`);
      await priceEntries.create({
        ...now,
        validFrom: inDays(-3),
        entry: { method: 'unit', price: String(Number(now.entry.price) + more) },
      });
    }
    await page.reload();
    await ready(page);
    await expect(page.getByTestId('net')).toHaveText(
      Number(before.totals.net).toLocaleString('en-GB', { minimumFractionDigits: 2 }),
    );
    await page.getByRole('button', { name: /^Prices of / }).click();
    const dialog = page.getByRole('dialog', { name: 'What today would change' });
    await expect(dialog.getByRole('button', { name: 'Take over 2 lines' })).toBeVisible();
    await expect(dialog.getByRole('row', { name: /Bollard/i })).toContainText('prices of');
    await dialog.getByLabel('Take over line 1').uncheck();
    await dialog.getByRole('button', { name: 'Take over one line' }).click();
    await expect(dialog).toBeHidden();
    const after = await quoteOf(page, id);
    expect(after.lines.map(({ pricedOn }) => pricedOn)).toEqual([inDays(-7), inDays(0), inDays(0)]);
    expect(
      after.lines.map(({ price }, at) => Number(price.unitList) - Number(before.lines[at]?.price.unitList)),
    ).toEqual([0, 60, 0]);
  } finally {
    for (const [sku] of rises)
      await priceEntries.destroy({ where: { sku, priceList: before.priceList, validFrom: inDays(-3) } });
  }
});
