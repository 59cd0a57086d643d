/**
 * The Ledger as a tree that is worked in like a spreadsheet: groups, parts, marks, moves, columns, files; and
 * a thousand lines.
 */
import { expect, test, type Page } from '@playwright/test';
import type { QuoteView } from '../src/contract';
import { ownPerson } from './own-person';
import { cell, openQuote, people, quoteOf, saved, signIn } from './people';

const items = ['SILL-1212-X', 'SV-COMM', 'YE-KIOSK', 'SV-CALIB', 'BC-IP66'];
const rows = (page: Page) => page.getByRole('grid', { name: /^Q-/ }).getByRole('row');
/** Lines put on a quote in one go. */
async function withLines(
  page: Page,
  id: string,
  list: { sku: string; quantity: number }[],
): Promise<QuoteView> {
  const answer = await page.request.post(`/api/quotes/${id}/lines/several`, {
    data: { version: (await quoteOf(page, id)).version, rows: list },
  });
  expect(answer.ok()).toBe(true);
  return (await answer.json()) as QuoteView;
}
async function opened(page: Page, list = items): Promise<string> {
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  await withLines(
    page,
    id,
    list.map((sku) => ({ sku, quantity: 1 })),
  );
  await page.reload();
  await expect(cell(page, `Quantity ${String(list.length)}`)).toBeEnabled();
  return id;
}

test.beforeEach(async ({ page }) => signIn(page, people.engineer));

test('groups lines, names the group, sums it, closes it, and drags into and out of it', async ({ page }) => {
  const id = await opened(page);
  await page.getByLabel('Mark line 2').click();
  await page.getByLabel('Mark line 4').click();
  const bar = page.getByRole('region', { name: 'Marked lines' });
  await expect(bar).toContainText('2 marked');
  await bar.getByLabel('Group of the marked lines').fill('Services');
  await bar.getByLabel('Group of the marked lines').press('Enter');
  const head = page.getByRole('row').filter({ has: page.getByLabel('Name of the group Services') });
  await expect(head).toContainText('2 lines');
  await expect(head).toContainText('1,530.00');
  await expect(rows(page).nth(3)).toContainText('SV-COMM');
  await expect(rows(page).nth(4)).toContainText('SV-CALIB');
  await bar.getByRole('button', { name: 'Mark none' }).click();
  await expect(bar).toBeHidden();
  await head.getByLabel('Name of the group Services').fill('On site');
  await head.getByLabel('Name of the group Services').press('Enter');
  await expect(page.getByLabel('Name of the group On site')).toBeVisible();
  await page.getByRole('button', { name: 'Lines of On site' }).click();
  await expect(page.getByRole('row', { name: /SV-COMM/ })).toBeHidden();
  await page.getByRole('button', { name: 'Lines of On site' }).click();

  // By the number, from the last line into the middle of the group.
  const drag = async (from: RegExp, to: RegExp) => {
    const [handle, target] = [
      await page.getByRole('row', { name: from }).getByTitle('Drag to move the line').boundingBox(),
      await page.getByRole('row', { name: to }).boundingBox(),
    ];
    if (!handle || !target) throw new Error('nothing to drag');
    await page.mouse.move(handle.x + 5, handle.y + 5);
    await page.mouse.down();
    await page.mouse.move(handle.x + 5, handle.y - 15, { steps: 4 });
    await page.mouse.move(handle.x + 5, target.y + 4, { steps: 8 });
    await page.mouse.up();
    await saved(page);
  };
  await drag(/BC-IP66/, /SV-CALIB/);
  await expect
    .poll(async () =>
      (await quoteOf(page, id)).lines.map(({ sku, group }) => (group ? `${group}:${sku}` : sku)).join(' '),
    )
    .toBe('SILL-1212-X On site:SV-COMM On site:BC-IP66 On site:SV-CALIB YE-KIOSK');
  await drag(/BC-IP66/, /SILL-1212-X/);
  await expect
    .poll(async () =>
      (await quoteOf(page, id)).lines.map(({ sku, group }) => (group ? `${group}:${sku}` : sku)).join(' '),
    )
    .toBe('BC-IP66 SILL-1212-X On site:SV-COMM On site:SV-CALIB YE-KIOSK');
});

test('changes marked lines together; a refusal names the line, and nothing of it stays', async ({ page }) => {
  const id = await opened(page);
  await page.getByLabel('Mark line 1').click();
  await page.getByLabel('Mark line 4').click({ modifiers: ['Shift'] });
  const bar = page.getByRole('region', { name: 'Marked lines' });
  await expect(bar).toContainText('4 marked');
  await bar.getByLabel('Discount % of the marked lines').fill('abc');
  await expect(bar.getByText('Type a percentage, for instance 3.5.')).toBeVisible();
  await bar.getByLabel('Discount % of the marked lines').fill('2,5');
  await bar.getByLabel('Discount % of the marked lines').press('Enter');
  for (const at of [1, 2, 3, 4]) await expect(cell(page, `Discount % ${String(at)}`)).toHaveValue('2.5');
  await expect(cell(page, 'Discount % 5')).toHaveValue('0');
  await saved(page);
  await bar.getByLabel('Quantity of the marked lines').fill('3');
  await bar.getByLabel('Quantity of the marked lines').press('Enter');
  await saved(page);
  expect((await quoteOf(page, id)).lines.map(({ quantity }) => quantity)).toEqual([3, 3, 3, 3, 1]);
  // Something that may not be discounted among them: all stay as they were.
  await withLines(page, id, [{ sku: 'SV-DELIV', quantity: 1 }]);
  await page.reload();
  await expect(cell(page, 'Quantity 6')).toBeEnabled();
  const fixed = (await quoteOf(page, id)).lines.find((line) => !line.discountable);
  if (fixed) {
    await page.getByLabel('Mark all lines').click();
    await bar.getByLabel('Discount % of the marked lines').fill('3');
    await bar.getByLabel('Discount % of the marked lines').press('Enter');
    await expect(
      bar.getByText(`Line ${String(fixed.position)}: ${fixed.sku} may not be discounted.`),
    ).toBeVisible();
    await expect(cell(page, 'Discount % 1')).toHaveValue('2.5');
    await page.getByRole('button', { name: 'Mark none' }).click();
  }
  await page.getByLabel('Mark line 2').click();
  await page.getByLabel('Mark line 3').click();
  await bar.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('row', { name: /YE-KIOSK/ })).toBeHidden();
  await expect(cell(page, 'Quantity 4')).toBeEnabled();
});

test('what was removed or typed comes back by undo, and goes again by redo', async ({ page }) => {
  const id = await opened(page, ['SILL-1212-X', 'YE-KIOSK', 'SV-COMM']);
  await page.getByRole('button', { name: 'Remove line 2' }).click();
  await expect(page.getByRole('row', { name: /YE-KIOSK/ })).toBeHidden();
  await expect(page.getByText('Removed. Ctrl Z brings it back.')).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('row', { name: /YE-KIOSK/ })).toBeVisible();
  await cell(page, 'Discount % 1').fill('4');
  await cell(page, 'Discount % 1').press('Enter');
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(cell(page, 'Discount % 1')).toHaveValue('0');
  await page.keyboard.press('Control+Shift+z');
  await expect(cell(page, 'Discount % 1')).toHaveValue('4');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: /^Undo/ }).click();
  await expect(cell(page, 'Discount % 1')).toHaveValue('0');
  expect((await quoteOf(page, id)).lines.map(({ sku }) => sku)).toEqual([
    'SILL-1212-X',
    'YE-KIOSK',
    'SV-COMM',
  ]);
});

test('a column copied from a spreadsheet fills downwards; what cannot be read waits at its cell', async ({
  page,
}) => {
  const id = await opened(page);
  const paste = (label: string, text: string) =>
    cell(page, label).evaluate((box, pasted) => {
      const data = new DataTransfer();
      data.setData('text/plain', pasted);
      box.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    }, text);
  await paste('Quantity 2', '4\r\n7\r\n9\r\n');
  await expect(cell(page, 'Quantity 4')).toHaveValue('9');
  await saved(page);
  expect((await quoteOf(page, id)).lines.map(({ quantity }) => quantity)).toEqual([1, 4, 7, 9, 1]);
  await paste('Discount % 1', '1\n2 %\n1e308\n4');
  await expect(page.getByText('Type a percentage, for instance 3.5.')).toBeVisible();
  await expect(cell(page, 'Discount % 3')).toHaveValue('1e308');
  await expect(cell(page, 'Discount % 4')).toHaveValue('4');
  await paste('Discount % 1', '1\n2 %\n3,5');
  await expect(cell(page, 'Discount % 3')).toHaveValue('3.5');
  await saved(page);
  expect((await quoteOf(page, id)).lines.map(({ hand }) => hand?.value ?? '')).toEqual([
    '0.01',
    '0.02',
    '0.035',
    '0.04',
    '',
  ]);
});

test('columns are chosen, ordered and pinned, and stay so', async ({ page }) => {
  await page.context().clearCookies();
  await signIn(page, await ownPerson(people.engineer));
  await opened(page);
  const heads = () => page.getByRole('grid', { name: /^Q-/ }).getByRole('columnheader').allInnerTexts();
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Columns' }).click();
  const dialog = page.getByRole('dialog', { name: 'Columns' });
  await dialog.getByLabel('Unit discount', { exact: true }).click();
  await dialog.getByLabel('Earned', { exact: true }).click();
  await dialog.getByRole('button', { name: 'Keep Net in sight' }).click();
  await dialog.getByRole('button', { name: 'Quantity further right' }).click();
  await dialog.getByRole('button', { name: 'Done' }).click();
  const wanted = [
    'Line',
    'Item',
    'Net EUR',
    'Unit list',
    'Quantity',
    'Granted',
    'Discount %',
    'Unit net',
    'Margin %',
    'Whole quote',
    'Earned',
  ];
  expect((await heads()).map((text) => text.trim())).toEqual(wanted);
  await page.reload();
  await expect(cell(page, 'Quantity 1')).toBeEnabled();
  expect((await heads()).map((text) => text.trim())).toEqual(wanted);
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Columns' }).click();
  await dialog.getByRole('button', { name: 'As usual' }).click();
  await dialog.getByRole('button', { name: 'Done' }).click();
  expect((await heads()).map((text) => text.trim())).toContain('Unit discount');
});

test('lines go out as CSV and XLSX, and come in from such a file', async ({ page }) => {
  const id = await opened(page, ['SILL-1212-X', 'YE-KIOSK']);
  const csv = await page.request.get(`/api/quotes/${id}/lines.csv`);
  expect(await csv.text()).toContain('YE-KIOSK');
  const xlsx = await page.request.get(`/api/quotes/${id}/lines.xlsx?internal`);
  expect(xlsx.headers()['content-type']).toContain('spreadsheetml');
  expect((await page.request.get(`/api/quotes/${id}/lines.exe`)).status()).toBe(404);
  await page.getByRole('button', { name: 'Paste a list' }).click();
  const dialog = page.getByRole('dialog', { name: 'Paste part numbers' });
  const pick = dialog.getByLabel(/from a CSV or XLSX file/);
  await pick.setInputFiles({
    name: 'nothing.xlsx',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from([0x50, 0x4b, 1, 2, 3]),
  });
  await expect(dialog.getByText('This file is neither text nor a workbook that can be read.')).toBeVisible();
  await pick.setInputFiles({
    name: 'lines.xlsx',
    mimeType: 'application/octet-stream',
    buffer: await xlsx.body(),
  });
  await expect(dialog.getByRole('textbox')).toHaveValue('SILL-1212-X\t1\nYE-KIOSK\t1');
  await dialog.getByRole('button', { name: 'Read the list' }).click();
  await dialog.getByRole('button', { name: 'Add 2 of 2' }).click();
  await expect(cell(page, 'Quantity 4')).toHaveValue('1');
});

test('a thousand lines: only those in sight are there, one types on, and the last is reached by keys', async ({
  page,
}) => {
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  const view = await withLines(
    page,
    id,
    Array.from({ length: 1_000 }, (_, at) => ({
      sku: items[at % items.length] ?? '',
      quantity: 1 + (at % 4),
    })),
  );
  expect(view.lines).toHaveLength(1_000);
  await page.reload();
  await expect(cell(page, 'Quantity 1')).toBeEnabled();
  const table = page.getByRole('grid', { name: /^Q-/ });
  await expect(table).toHaveAttribute('aria-rowcount', '1001');
  expect(await table.getByRole('row').count()).toBeLessThan(80);
  const before = await page.getByTestId('net').innerText();
  await cell(page, 'Discount % 1').fill('5');
  await cell(page, 'Discount % 1').press('Enter');
  await expect(page.getByTestId('net')).not.toHaveText(before);
  const local = await page.getByTestId('net').innerText();
  await saved(page);
  // The server came to the same.
  await expect(page.getByTestId('net')).toHaveText(local);
  expect(Number((await quoteOf(page, id)).totals.net).toFixed(2)).toBe(local.replaceAll(',', ''));
  await page.getByRole('region', { name: 'Lines' }).evaluate((pane) => {
    pane.scrollTop = pane.scrollHeight;
  });
  await cell(page, 'Quantity 1000').focus();
  await page.keyboard.press('ArrowUp');
  await expect(cell(page, 'Quantity 999')).toBeFocused();
});

test('lines become alternatives of one another, one is taken instead, and what stands in the way of a quote is named', async ({
  page,
}) => {
  const id = await opened(page, ['SILL-1212-X', 'SILL-1515-X', 'YE-KIOSK', 'SV-ENGINEER']);
  const net = page.getByTestId('net');
  const both = await net.textContent();
  await page.getByLabel('Mark line 1', { exact: true }).click();
  await page.getByLabel('Mark line 2', { exact: true }).click();
  const bar = page.getByRole('region', { name: 'Marked lines' });
  await bar.getByRole('button', { name: 'Alternatives', exact: true }).click();
  await expect(rows(page).nth(2)).toContainText('alternative to line 1');
  await expect(net).not.toHaveText(both ?? '');
  await page.getByRole('button', { name: 'Take line 2 instead of line 1' }).click();
  await expect(rows(page).nth(1)).toContainText('alternative to line 2');
  await expect(rows(page).nth(2)).not.toContainText('alternative');
  expect((await quoteOf(page, id)).lines.map(({ alternative }) => alternative)).toEqual([
    true,
    false,
    false,
    false,
  ]);
  // With the one that counts gone, the other does.
  await page.getByRole('button', { name: 'Remove line 2' }).click();
  await expect(rows(page).nth(1)).not.toContainText('alternative');
  await page.keyboard.press('Control+z');
  await expect(rows(page).nth(1)).toContainText('alternative to line 2');
  await bar.getByRole('button', { name: 'Mark none' }).click();

  await expect(page.getByText('One line cannot be sold as it is:')).toBeVisible();
  await page.getByRole('button', { name: 'Mark as accepted' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Line 4: Type a price' })).toBeVisible();
  await expect(cell(page, 'Unit list 4')).toBeFocused();
  await cell(page, 'Unit list 4').fill('1180');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(page.getByText('cannot be sold as it is')).toBeHidden();
  await cell(page, 'Cost of one, line 4').fill('590');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Margin % 4')).toHaveValue('50');
});
