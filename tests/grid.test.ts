/** The Ledger as a spreadsheet: keys, typing, pasting, and small windows. */
import { expect, test, type Page } from '@playwright/test';
import { cell, openQuote, people, quoteOf, ready, signIn } from './people';

async function quoteWith(page: Page, items: readonly string[]): Promise<string> {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  for (const sku of items) {
    const { version } = await quoteOf(page, id);
    expect(
      (await page.request.post(`/api/quotes/${id}/lines`, { data: { version, sku, quantity: 1 } })).ok(),
    ).toBe(true);
  }
  await page.reload();
  await ready(page);
  return id;
}

const stored = (page: Page, id: string) => async () =>
  (await quoteOf(page, id)).lines.map(({ quantity }) => quantity);

test('cells are typed over, left, edited and gone through as in a spreadsheet, with one stop for Tab', async ({
  page,
}) => {
  const id = await quoteWith(page, ['SILL-1212-X', 'SV-COMM', 'YE-KIOSK']);
  const quantities = stored(page, id);
  await cell(page, 'Quantity 1').focus();
  await page.keyboard.type('7');
  await page.keyboard.press('Enter');
  // Stored, and on to the next line; what is typed there replaces what stands.
  await expect(cell(page, 'Quantity 2')).toBeFocused();
  await page.keyboard.type('8');
  await page.keyboard.press('Enter');
  await expect.poll(quantities).toEqual([7, 8, 1]);
  // In the last line Enter stays, and the whole is taken again.
  await page.keyboard.type('3');
  await page.keyboard.press('Enter');
  await expect.poll(quantities).toEqual([7, 8, 3]);
  await expect(cell(page, 'Quantity 3')).toBeFocused();
  await page.keyboard.type('5');
  await page.keyboard.press('Escape');
  await expect(cell(page, 'Quantity 3')).toHaveValue('3');
  await page.waitForFunction(() => {
    const field = document.activeElement as HTMLInputElement;
    return field.selectionStart === 0 && field.selectionEnd === field.value.length;
  });
  await page.keyboard.type('9');
  await page.keyboard.press('Enter');
  await expect.poll(quantities).toEqual([7, 8, 9]);
  // F2 sets the caret behind what stands there; arrows are the field's own then.
  await page.keyboard.press('F2');
  await page.keyboard.type('0');
  await page.keyboard.press('ArrowLeft');
  await expect(cell(page, 'Quantity 3')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect.poll(quantities).toEqual([7, 8, 90]);
  await page.keyboard.press('Control+Home');
  await expect(cell(page, 'Quantity 1')).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(cell(page, 'Discount % 1')).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(cell(page, 'Quantity 1')).toBeFocused();
  await page.keyboard.press('Home');
  await expect(page.getByRole('checkbox', { name: 'Mark line 1' })).toBeFocused();
  await page.keyboard.press('End');
  await expect(page.getByRole('button', { name: 'Remove line 1' })).toBeFocused();
  await page.keyboard.press('PageDown');
  await expect(page.getByRole('button', { name: 'Remove line 3' })).toBeFocused();
  // One Tab leads out of the grid, and one back to where one was.
  await page.keyboard.press('Tab');
  await expect(page.getByRole('combobox', { name: 'Item number' })).toBeFocused();
  await page.keyboard.press('Shift+Tab');
  await expect(page.getByRole('button', { name: 'Remove line 3' })).toBeFocused();
  expect(
    await page
      .getByRole('grid')
      .locator('tbody')
      .evaluate(
        (body) =>
          [...body.querySelectorAll<HTMLElement>('input, button, a[href]')].filter(
            (each) => each.tabIndex === 0,
          ).length,
      ),
  ).toBe(1);
  // Taken back and made again by the keys that everybody knows.
  await cell(page, 'Quantity 3').focus();
  await page.keyboard.press('Control+z');
  await expect.poll(quantities).toEqual([7, 8, 9]);
  await page.keyboard.press('Control+y');
  await expect.poll(quantities).toEqual([7, 8, 90]);
});

test('a pasted column: what is right is taken, what is wrong waits at its cell, and what lies beyond is said', async ({
  page,
}) => {
  const id = await quoteWith(page, ['SILL-1212-X', 'SV-COMM', 'YE-KIOSK']);
  const paste = (label: string, text: string) =>
    cell(page, label).evaluate((field, pasted) => {
      const data = new DataTransfer();
      data.setData('text/plain', pasted);
      field.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    }, text);
  await cell(page, 'Quantity 1').focus();
  await paste('Quantity 1', '1,200\nmany\n4\n5\n');
  await expect.poll(stored(page, id)).toEqual([1200, 1, 4]);
  await expect(cell(page, 'Quantity 2')).toHaveValue('many');
  await expect(cell(page, 'Quantity 2')).toHaveAttribute('aria-invalid', 'true');
  await expect(
    page.getByText(
      'One value cannot be used; it waits at its cell. One value lay below the last line and was left out.',
    ),
  ).toBeVisible();
  // The sentence has its room over the cells, and what is mended goes.
  const sentence = page.getByRole('grid').getByRole('alert');
  expect((await sentence.boundingBox())?.width).toBeGreaterThan(120);
  await cell(page, 'Quantity 2').fill('6');
  await cell(page, 'Quantity 2').press('Enter');
  await expect.poll(stored(page, id)).toEqual([1200, 6, 4]);
  await expect(sentence).toHaveCount(0);
});

test('what is measured is sold in parts of its unit, what is counted is not', async ({ page }) => {
  const id = await quoteWith(page, ['RB-CABLE', 'YE-KIOSK']);
  await cell(page, 'Quantity 1').fill('12.5');
  await cell(page, 'Quantity 1').press('Enter');
  await expect.poll(stored(page, id)).toEqual([12.5, 1]);
  await cell(page, 'Quantity 2').fill('1.5');
  await expect(page.getByText('Type a whole number without decimals.')).toBeVisible();
  await cell(page, 'Quantity 2').press('Escape');
  await page.getByRole('button', { name: 'Paste a list' }).click();
  const dialog = page.getByRole('dialog', { name: 'Paste part numbers' });
  await dialog
    .getByRole('textbox')
    .fill('BC-PRT-T,2\nRB-CABLE\t2.5 m\nYE-KIOSK\t3 pcs\nYE-KIOSK\tabc\nYE-KIOSK 2 m\nRM-BEAM 2');
  await dialog.getByRole('button', { name: 'Read the list' }).click();
  const row = (at: number) => dialog.getByRole('row').nth(at);
  await expect(row(0)).toContainText('found');
  await expect(row(1)).toContainText('2.5 m');
  await expect(row(2)).toContainText('found');
  await expect(row(3)).toContainText('"abc" is no quantity.');
  await expect(row(4)).toContainText('It is sold by the pc, not by the m.');
  await expect(row(5)).toContainText('RM-BEAM is not sold alone');
  await row(3).getByRole('button', { name: 'Take 1' }).click();
  await dialog.getByRole('button', { name: 'Add 4 of 6' }).click();
  await expect.poll(stored(page, id)).toEqual([12.5, 1, 2, 2.5, 3, 1]);
});

test('fourteen lines and the totals are in sight, and on the width of a phone a line can be read and edited', async ({
  page,
}) => {
  const id = await quoteWith(
    page,
    Array.from(
      { length: 14 },
      (_, index) => ['SILL-1212-X', 'DK-USER', 'YE-CARD', 'SV-COMM'][index % 4] as string,
    ),
  );
  await page.setViewportSize({ width: 1280, height: 800 });
  const foot = await page.getByRole('contentinfo').or(page.locator('footer')).first().boundingBox();
  const last = await page.locator('tr[data-line]').nth(13).boundingBox();
  expect((last?.y ?? 900) + (last?.height ?? 0)).toBeLessThanOrEqual(foot?.y ?? 0);
  expect((foot?.y ?? 900) + (foot?.height ?? 0)).toBeLessThanOrEqual(800);
  expect((await page.locator('main header').first().boundingBox())?.height).toBeLessThan(50);
  for (const [width, height] of [
    [640, 400],
    [320, 640],
  ] as const) {
    await page.setViewportSize({ width, height });
    await expect(cell(page, 'Quantity 1')).toBeInViewport();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(width);
    await page.getByRole('button', { name: 'All sums' }).click();
    await expect(page.getByLabel('Totals').getByText('Discounts')).toBeVisible();
    await page.getByRole('button', { name: 'All sums' }).click();
  }
  for (const label of ['Unit net 1', 'Discount % 1', 'Margin % 1'])
    await expect(cell(page, label)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Net of line 1,/ })).toBeVisible();
  await cell(page, 'Quantity 1').fill('4');
  await cell(page, 'Quantity 1').press('Enter');
  await expect.poll(async () => (await quoteOf(page, id)).lines[0]?.quantity).toBe(4);
  // The Bench has no more width to ask for either.
  const { id: build } = (await (
    await page.request.post('/api/builds', { data: { quoteId: id, modelId: 'ridgeback' } })
  ).json()) as { id: string };
  await page.goto(`/bench/${build}`);
  await ready(page);
  expect(
    await page.evaluate(() => [
      document.documentElement.scrollWidth,
      document.querySelector('main')?.scrollWidth,
    ]),
  ).toEqual([320, 320]);
});

test('everything that answers to the hand is large enough for a finger', async ({ page }) => {
  const id = await quoteWith(page, ['SILL-1212-X', 'DK-USER']);
  const { id: build } = (await (
    await page.request.post('/api/builds', { data: { quoteId: id, modelId: 'ridgeback' } })
  ).json()) as { id: string };
  for (const path of ['/', '/catalogue', '/quotes', `/quotes/${id}`, `/bench/${build}`]) {
    await page.goto(path);
    await ready(page);
    const small = await page.evaluate(() =>
      [
        ...document.querySelectorAll<HTMLElement>(
          'button:not(:disabled), input[type="checkbox"], input[type="radio"]',
        ),
      ].flatMap((each) => {
        const { width, height } = each.getBoundingClientRect();
        // Words within a text are as high as the text.
        const isWord = each.textContent.trim().length > 2;
        return width > 0 &&
          !isWord &&
          getComputedStyle(each).visibility !== 'hidden' &&
          (width < 23.9 || height < 23.9)
          ? [
              `${each.getAttribute('aria-label') ?? each.outerHTML.slice(0, 80)} ${String(Math.round(width))} x ${String(Math.round(height))}`,
            ]
          : [];
      }),
    );
    expect([path, small]).toEqual([path, []]);
  }
});
