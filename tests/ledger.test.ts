/**
 * The Ledger: prices typed in four ways, what recurs, limits and sign-off, and how every figure came about.
 */
import { expect, test, type Page } from '@playwright/test';
import { cell, openQuote, password, people, quoteOf, ready, refusal, signIn, type } from './people';

async function add(page: Page, item: string, quantity: string): Promise<void> {
  await page.getByLabel('Item number').fill(item);
  await page.getByRole('textbox', { name: 'Quantity', exact: true }).fill(quantity);
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByRole('row', { name: new RegExp(item) })).toBeVisible();
}
const net = (page: Page) => page.getByTestId('net');

test.describe('an engineer', () => {
  test.beforeEach(async ({ page }) => signIn(page, people.engineer));

  test('prices to a margin, and each of the four follows the one that was typed', async ({ page }) => {
    await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
    await add(page, 'SILL-1212-X', '3');
    await type(page, 'Margin % 1', '40');
    await expect(cell(page, 'Unit net 1')).toHaveValue('1,633.33');
    await expect(net(page)).toHaveText('4,899.99');
    // Beyond the limit already while it is typed: the word stands at the cell.
    await cell(page, 'Discount % 1').fill('12');
    await expect(
      page
        .getByRole('row', { name: /SILL-1212-X/ })
        .getByText('over your limit')
        .first(),
    ).toBeVisible();
    await cell(page, 'Discount % 1').press('Escape');
    await type(page, 'Unit net 1', '1,900.00');
    await expect(net(page)).toHaveText('5,700.00');
    await expect(cell(page, 'Unit discount 1')).toHaveValue('89.12');
    // What cannot be stays at the cell with its sentence, and changes nothing.
    await type(page, 'Unit discount 1', '5,000');
    await expect(page.getByText('That price cannot be')).toBeVisible();
    await expect(cell(page, 'Unit discount 1')).toHaveValue('5,000');
    await expect(net(page)).toHaveText('5,700.00');
    await cell(page, 'Unit discount 1').press('Escape');
    // Emptied, the one that was typed is taken back.
    await type(page, 'Unit net 1', '');
    await expect(cell(page, 'Discount % 1')).toHaveValue('0');
    await expect(net(page)).toHaveText('5,967.36');
  });

  test('sells what recurs, is used, and comes in brackets', async ({ page }) => {
    await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
    await add(page, 'SV-TRAIN-GRP', '4');
    await expect(net(page)).toHaveText('900.00');
    await type(page, 'Quantity 1', '5');
    await expect(net(page)).toHaveText('1,500.00');
    await type(page, 'Quantity 1', '20');
    await expect(page.getByText('No bracket of the price list holds a quantity of 20.')).toBeVisible();
    await expect(cell(page, 'Quantity 1')).toHaveValue('20');
    await expect(net(page)).toHaveText('1,500.00');
    await cell(page, 'Quantity 1').press('Escape');

    await add(page, 'DK-SITE', '1');
    await type(page, 'Months of line 2', '18');
    await expect(net(page)).toHaveText('2,670.00');
    await type(page, 'Months of line 2', '5');
    await expect(page.getByText('The least term is 6 months.')).toBeVisible();
    await expect(net(page)).toHaveText('2,670.00');
    await cell(page, 'Months of line 2').press('Escape');

    await add(page, 'DK-CLOUD', '7400');
    await expect(page.getByRole('row', { name: /DK-CLOUD/ })).toContainText('648.00');
    await type(page, 'Months of line 3', '24');
    const totals = page.getByLabel('Totals');
    await expect(totals.getByRole('button', { name: /^One-time, 1,500\.00/ })).toBeVisible();
    await expect(totals.getByRole('button', { name: /^First year, 10,056\.00/ })).toBeVisible();
    await expect(net(page)).toHaveText('18,222.00');

    // The rates are the line's own once they are typed: 1,000 x 0.10 + 4,000 x 0.09 + 2,400 x 0.07.
    await page.getByRole('button', { name: 'Price walk of line 3' }).click();
    const rates = page.getByRole('region', { name: 'Rates of this line' });
    await expect(rates).toContainText('as in the price list');
    await rates.getByLabel('Rate below 1,000', { exact: true }).fill('ten');
    await expect(rates.getByText('Type an amount, for instance 120.50.')).toBeVisible();
    await rates.getByLabel('Rate below 1,000', { exact: true }).fill('0.10 USD');
    await expect(rates.getByText('Amounts are in the currency of the quote', { exact: false })).toBeVisible();
    await rates.getByLabel('Rate below 1,000', { exact: true }).fill('0.10 EUR');
    await rates.getByLabel('Rate below 1,000', { exact: true }).press('Enter');
    // 628.00 for 24 months; what the rates take off the list is a step of the walk.
    const line = page.getByRole('row', { name: /DK-CLOUD/ });
    await expect(line).toContainText('15,072.00');
    await expect(
      page.getByRole('table', { name: 'Price walk of line 3' }).getByRole('row', { name: /Agreed rates/ }),
    ).toContainText('-20.00');
    await expect(rates).toContainText('agreed for this line');
    await rates.getByLabel('Due in any case', { exact: true }).fill('700');
    await rates.getByLabel('Due in any case', { exact: true }).press('Enter');
    await expect(line).toContainText('16,800.00');
    await rates.getByRole('button', { name: 'Back to the list' }).click();
    await expect(line).toContainText('15,552.00');
  });

  test('tells how a figure came about, down to the list price', async ({ page }) => {
    await openQuote(page, 'norrvik', 'Norrvik Skog AB');
    await add(page, 'YE-SPARECELL', '2');
    await add(page, 'SV-COMM', '1');
    await page.getByLabel('Whole quote, Discount %').fill('2');
    await page.getByLabel('Whole quote, Discount %').press('Enter');
    // 2 x 393.97 and 890.00 come to 1,677.94; 2 % of it is 33.56.
    await expect(net(page)).toHaveText('1,644.38');
    await net(page).getByRole('button').click();
    const told = page.getByRole('region', { name: /^How it comes about/ });
    await expect(told).toContainText('Net, line 1');
    await expect(told).toContainText('772.18');
    await told.getByRole('button', { name: 'Net, line 1' }).click();
    await told.getByRole('button', { name: 'Net before the whole-quote discount, line 1' }).click();
    await expect(told).toContainText('393.97 × 2');
    await told.getByRole('button', { name: 'Net for one, line 1' }).click();
    await expect(told).toContainText('Key account discount');
    await expect(told).toContainText('Rounded half up to 2 decimals');
    // The bridge beside it ends where the line does.
    await expect(page.getByRole('table', { name: 'Price walk of line 1' })).toContainText(
      'Key account discount',
    );
    await told.getByRole('button', { name: 'Back to the figure before' }).click();
    await expect(told).toContainText('393.97 × 2');
  });

  test('goes up and down a column, moves a line and copies it, by keys alone', async ({ page }) => {
    await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
    for (const item of ['SILL-1212-X', 'SV-COMM', 'YE-KIOSK']) await add(page, item, '1');
    await cell(page, 'Discount % 1').focus();
    await page.keyboard.press('ArrowDown');
    await expect(cell(page, 'Discount % 2')).toBeFocused();
    await page.keyboard.type('5');
    await page.keyboard.press('ArrowDown');
    await expect(cell(page, 'Discount % 3')).toBeFocused();
    await expect(cell(page, 'Unit net 2')).toHaveValue('845.50');
    await page.keyboard.press('Alt+ArrowUp');
    const rows = page.getByRole('grid', { name: /^Q-/ }).getByRole('row');
    await expect(rows.nth(2)).toContainText('YE-KIOSK');
    await expect(cell(page, 'Discount % 2')).toBeFocused();
    await page.keyboard.press('Alt+ArrowUp');
    await expect(rows.nth(1)).toContainText('YE-KIOSK');
    await page.keyboard.press('Alt+ArrowDown');
    await expect(rows.nth(2)).toContainText('YE-KIOSK');
    await cell(page, 'Quantity 3').focus();
    await page.keyboard.press('Control+d');
    await expect(rows).toHaveCount(5);
    await expect(rows.nth(4)).toContainText('SV-COMM');
    await expect(cell(page, 'Discount % 4')).toHaveValue('5');
  });

  test('another customer: what it would change is seen first, then everything is priced anew', async ({
    page,
  }) => {
    await openQuote(page, 'brannoch', 'Brannoch Aggregates plc');
    await add(page, 'SV-CALIB', '2');
    await expect(net(page)).toHaveText('990.00');
    await page.getByRole('button', { name: 'Another customer' }).click();
    const dialog = page.getByRole('dialog', { name: 'Another customer' });
    await dialog.getByRole('combobox', { name: 'Customer' }).fill('hallersee');
    await dialog.getByRole('option', { name: /Hallersee/ }).click();
    await expect(dialog.getByRole('row', { name: /Calibration visit/ })).toContainText('990.00 GBP');
    await expect(dialog.getByRole('row', { name: /Calibration visit/ })).toContainText('1,280.00 EUR');
    await dialog.getByRole('button', { name: 'Change the customer' }).click();
    await expect(dialog).toBeHidden();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Hallersee Entsorgung GmbH');
    await expect(net(page)).toHaveText('1,280.00');
  });

  test('locks a line, sets another aside, and the whole-quote net goes over the rest', async ({ page }) => {
    const id = await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
    for (const item of ['SILL-1212-X', 'SV-COMM', 'YE-KIOSK']) await add(page, item, '1');
    await page.getByRole('button', { name: 'Lock line 2 against the whole-quote discount' }).click();
    await page.getByRole('button', { name: 'Line 3 optional' }).click();
    await expect(page.getByRole('row', { name: /YE-KIOSK/ })).toContainText('optional');
    await page.getByLabel('Whole quote, Net').fill('2,800');
    await page.getByLabel('Whole quote, Net').press('Enter');
    await expect(net(page)).toHaveText('2,800.00');
    // The page shows at once what comes of it; the server has it when it says so.
    await expect(page.getByText('Saved', { exact: true })).toBeVisible();
    const view = await quoteOf(page, id);
    expect(view.lines.map(({ price }) => price.share === undefined)).toEqual([false, true, true]);
    expect(view.lines[1]?.price.net).toBe('890');
  });
});

test('forty pasted part numbers: found, read back, and three that are wrong', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'hallersee', 'Hallersee Entsorgung GmbH');
  const plain = ['SILL-1212-X', 'YE-KIOSK', 'SV-COMM', 'SV-TRAIN-1', 'BC-IP66', 'SV-CALIB'];
  const list = [
    ...Array.from({ length: 35 }, (_, at) => `${plain[at % plain.length] ?? ''}\t${String(1 + (at % 3))}`),
    'RB-060-180-A-P-S-D-0-3-O\t1',
    '2 x RB-060-120-A-P-S-D-0-3-O',
    'SILL-1212-Y\t2',
    'RB-060-180-A-Q-S-D-0-3-O\t1',
    'YE-KIOSK\t-4',
  ];
  await page.getByRole('button', { name: 'Paste a list' }).click();
  const dialog = page.getByRole('dialog', { name: 'Paste part numbers' });
  // Too many at once is said, and nothing that was typed is lost.
  await dialog.getByRole('textbox').evaluate((box: HTMLTextAreaElement) => {
    // As a paste sets it, in one go.
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set?.call(
      box,
      'YE-KIOSK\n'.repeat(11_000),
    );
    box.dispatchEvent(new Event('input', { bubbles: true }));
  });
  await dialog.getByRole('button', { name: 'Read the list' }).click();
  await expect(
    dialog.getByText('11,000 rows are too many to read at once. Paste up to 10,000.'),
  ).toBeVisible();
  await dialog.getByRole('textbox').fill(list.join('\n'));
  await dialog.getByRole('button', { name: 'Read the list' }).click();
  await expect(dialog.getByRole('button', { name: 'Add 37 of 40' })).toBeVisible();
  await expect(dialog.getByText('read back; the rest is to choose on the Bench')).toHaveCount(2);
  await expect(dialog.getByRole('row', { name: /RB-060-180-A-Q/ })).toContainText('Q');
  await expect(dialog.getByRole('row', { name: /^40 YE-KIOSK/ })).toContainText('"-4" is no quantity.');
  await dialog.getByRole('button', { name: /^Take SILL-1212-/ }).click();
  await dialog.getByRole('button', { name: 'Add 38 of 40' }).click();
  await expect(dialog).toBeHidden();
  const scales = page.getByRole('row', { name: /Ridgeback/ });
  await expect(scales).toHaveCount(2);
  await expect(scales.first()).toContainText('still to be chosen on the Bench');
  await expect(cell(page, 'Quantity 37')).toHaveValue('2');
  await expect(cell(page, 'Quantity 38')).toHaveValue('2');
});

test('a discount beyond the limit gets a counter-offer, which holds until it gets worse', async ({
  page,
  browser,
}) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'corrie', 'Corrie Vale Council');
  await add(page, 'SILL-1212-X', '4');
  await type(page, 'Discount % 1', '14');
  await expect(page.getByText('Sales manager: sign-off needed for line 1.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Mark as accepted' })).toBeDisabled();
  await page.getByRole('button', { name: 'Ask for sign-off' }).click();
  const pane = page.getByRole('complementary', { name: 'Sign-off' });
  await expect(pane.getByRole('table', { name: 'Why it must be signed' })).toHaveText(
    /Line 1\s*14 % given away, over your limit\s*limit 8 %, floor 15 %/,
  );
  await pane.getByRole('button', { name: 'Ask for sign-off' }).click();
  await expect(pane.getByText('Say why this should be signed.')).toBeVisible();
  await pane.getByLabel('Why this should be signed').fill('They order four more next year');
  await pane.getByRole('button', { name: 'Ask for sign-off' }).click();
  await expect(pane.getByText('Asked of Sales manager')).toBeVisible();

  // An engineer cannot sign, whatever is sent.
  const asked = await quoteOf(page, id);
  const forged = await refusal(
    await page.request.patch(`/api/quotes/${id}/sign-offs/${asked.signOff?.history[0]?.id ?? ''}`, {
      data: { version: asked.version, answer: 'yes' },
    }),
  );
  expect([forged.status, forged.code]).toEqual([403, 'refused.permission']);
  expect(
    (await page.request.post(`/api/quotes/${id}/accept`, { data: { version: asked.version } })).status(),
  ).toBe(422);

  const boss = await (await browser.newContext()).newPage();
  await boss.request.post('/api/session', { data: { email: people.manager, password } });
  await boss.goto('/');
  await ready(boss);
  await boss
    .getByRole('region', { name: 'Asked of you' })
    .getByRole('link', { name: new RegExp(asked.number) })
    .click();
  await boss.waitForURL(/\/quotes\//);
  await ready(boss);
  const desk = boss.getByRole('complementary', { name: 'Sign-off' });
  await expect(desk).toContainText('They order four more next year');
  await desk.getByLabel('Acceptable discount on line 1').fill('10');
  await desk.getByLabel('Comment').fill('Ten, and no further');
  await desk.getByRole('button', { name: 'Counter-offer' }).click();
  await expect(desk.getByText('Counter-offer by Tobias Renwick')).toBeVisible();

  await page.reload();
  await ready(page);
  await page.getByRole('button', { name: /^(Sign-off|Ask for sign-off)$/ }).click();
  await expect(pane).toContainText('Ten, and no further');
  await pane.getByRole('button', { name: 'Take the counter-offer' }).click();
  await expect(cell(page, 'Discount % 1')).toHaveValue('10');
  await expect(page.getByText('Everything that had to be signed is signed.')).toBeVisible();
  await type(page, 'Discount % 1', '10.5');
  await expect(page.getByText(/^Sales manager: sign-off needed for line 1\./).first()).toBeVisible();
  await type(page, 'Discount % 1', '9');
  await expect(page.getByText('Everything that had to be signed is signed.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Mark as accepted' })).toBeEnabled();
  // Below the floor the level above signs too.
  await type(page, 'Discount % 1', '16');
  await expect(page.getByText('Managing director: sign-off needed for line 1.').first()).toBeVisible();
});
