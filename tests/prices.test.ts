/** The commercial side in the browser: a family raised, looked at, published; a sheet mended; terms followed. */
import { expect, test, type Page } from '@playwright/test';
import { date } from '../src/i18n';
import { inDays } from '../src/services/kernel/clock';
import { openQuote, people, quoteOf, ready, signIn } from './people';

const entries = (page: Page) => page.getByRole('grid', { name: 'Entries' });
const cell = (page: Page, row: RegExp, at: number) =>
  entries(page).getByRole('row', { name: row }).getByRole('gridcell').nth(at);

/** Begins a price change in some days, and gives its address. */
async function begin(page: Page, name: string, days: number): Promise<void> {
  await page.goto('/prices');
  await ready(page);
  await page.getByRole('button', { name: 'Begin a price change' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByRole('textbox', { name: 'In force from' }).fill(date(inDays(days), 'en'));
  await dialog.getByRole('textbox', { name: 'In force from' }).press('Tab');
  await dialog.getByRole('button', { name: 'Begin it' }).click();
  await page.waitForURL(/\/prices\/changes\//);
  await ready(page);
}

test('a family is raised by 3.5 %, one figure typed over, an item priced by brackets, seen, published and withdrawn', async ({
  page,
}) => {
  await signIn(page, people.modeller);
  await begin(page, 'Axle weighers in spring', 40);
  await page.getByRole('combobox', { name: 'Family' }).selectOption({ label: 'Axle weighers' });
  const formula = page.getByRole('textbox', { name: /By the formula/ });
  await formula.fill('+3.5 %, up a bit');
  await expect(page.getByText('"up a bit" is not understood.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make', exact: true })).toBeDisabled();
  await formula.fill('+3.5 %, to the next 0.50');
  await expect(page.getByText('Read as: +3.5 %, to the next 0.50')).toBeVisible();
  await page.getByRole('button', { name: 'Make', exact: true }).click();
  await expect(page.getByText(/dearer · \+3\.\d % on average/)).toBeVisible();

  // A single figure is typed over, and stays when the formula is made anew.
  const first = entries(page).getByRole('row').nth(1);
  const sku = (await first.getByRole('gridcell').nth(0).textContent()) ?? '';
  await first.getByRole('gridcell').nth(5).click();
  await page.keyboard.type('999.90');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: '1 typed' })).toBeVisible();
  await formula.fill('+4 %');
  await page.getByRole('button', { name: 'Make', exact: true }).click();
  await expect(page.getByText('A typed one was left.')).toBeVisible();
  await expect(cell(page, new RegExp(sku), 5)).toHaveText('999.90');

  // Another is priced by brackets, whose overlap is marked where it is; it is tried at quantities at the side.
  await cell(page, new RegExp(sku), 0).click();
  await page.getByRole('button', { name: `Edit ${sku}` }).click();
  const editor = page.getByRole('complementary', { name: `Edit ${sku}` });
  await editor.getByLabel('Way').selectOption({ label: 'By brackets' });
  const tiers = editor.getByRole('grid', { name: 'Tiers' });
  await tiers.getByRole('gridcell').nth(1).click();
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await tiers.getByRole('row').nth(2).getByRole('gridcell').nth(0).click();
  await page.keyboard.type('4');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.type('4500');
  await page.keyboard.press('Enter');
  await expect(editor.getByText('Two tiers overlap at 4.')).toBeVisible();
  await expect(editor.getByRole('button', { name: 'Put it in' })).toBeDisabled();
  await tiers.getByRole('row').nth(2).getByRole('gridcell').nth(0).click();
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await expect(editor.getByRole('row', { name: /^10 4,500\.00 450\.00/ })).toBeVisible();
  await editor.getByRole('button', { name: 'Put it in' }).click();
  await expect(cell(page, new RegExp(sku), 4)).toHaveText('By brackets');

  // Nothing is published before somebody has seen what it would do.
  await expect(page.getByText('See what it would do before it is published.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Publish' })).toBeDisabled();
  await page.getByRole('tab', { name: 'What it would do' }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByText(/to be decided, \d+ with other figures/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('Sold in twelve months').first()).toBeVisible();
  await expect(page.getByText('Ready to be published.')).toBeVisible();
  await page.getByRole('button', { name: 'Publish' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText(`Published, from ${date(inDays(40), 'en')}`)).toBeVisible();

  // On the list it is what follows; on that day it is in force.
  await page.goto('/prices');
  await ready(page);
  await page.getByLabel('Number or name').fill(sku);
  const row = page.getByRole('row', { name: new RegExp(sku) });
  await expect(row.getByRole('link', { name: /^from / })).toBeVisible();
  await page.getByRole('textbox', { name: 'On the day' }).fill(date(inDays(41), 'en'));
  await page.getByRole('textbox', { name: 'On the day' }).press('Tab');
  await expect(row).toContainText('By brackets');

  // It is withdrawn before its day, as if it had never been.
  await page.getByRole('link', { name: /Axle weighers in spring/ }).click();
  await ready(page);
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByText('Withdrawn', { exact: true })).toBeVisible();
});

test('an item is added with a picture, priced by brackets, published, and sold at them', async ({
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  await signIn(page, people.modeller);
  await page.goto('/items');
  await ready(page);
  await page
    .getByRole('navigation', { name: 'Families' })
    .getByRole('button', { name: /^Yard equipment/ })
    .click();
  await page.getByRole('button', { name: 'Add a row' }).click();
  await page.keyboard.type('ye-arch');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Height arch');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept.').first()).toBeVisible();
  await page.goto('/items/YE-ARCH');
  await ready(page);
  await page.getByLabel('Cost of one, EUR').fill('210');
  const drawn =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><path d="M5 28V4H35V28" fill="none" stroke="#222"/><script>alert(1)</script></svg>';
  await page
    .locator('input[type=file][aria-label="Picture"]')
    .setInputFiles({ name: 'arch.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(drawn) });
  const picture = page.getByRole('img', { name: 'Height arch' });
  await expect(picture).toBeVisible();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText(/Picture: – → /)).toBeVisible();
  const source = (await picture.getAttribute('src')) ?? '';
  expect(await (await page.request.get(source)).text()).not.toContain('alert');

  const change = (await (
    await page.request.post('/api/prices/changes', {
      data: { name: 'Arches', inForce: inDays(0), note: '' },
    })
  ).json()) as { id: string };
  const rows = [{ list: 'EUR-2026', sku: 'YE-ARCH', inside: '', cells: { method: 'unit', price: '480' } }];
  await page.request.put(`/api/prices/changes/${change.id}/rows`, { data: { version: 1, rows, out: [] } });
  await page.goto(`/prices/changes/${change.id}`);
  await ready(page);
  await cell(page, /YE-ARCH/, 0).click();
  await page.getByRole('button', { name: 'Edit YE-ARCH' }).click();
  const editor = page.getByRole('complementary', { name: 'Edit YE-ARCH' });
  await editor.getByLabel('Way').selectOption({ label: 'By brackets' });
  const tiers = editor.getByRole('grid', { name: 'Tiers' });
  await tiers.getByRole('gridcell').nth(1).click();
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await tiers.getByRole('row').nth(2).getByRole('gridcell').nth(0).click();
  await page.keyboard.type('5');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.type('2100');
  await page.keyboard.press('Enter');
  await editor.getByRole('button', { name: 'Put it in' }).click();
  await expect(cell(page, /YE-ARCH/, 4)).toHaveText('By brackets');
  await page.getByRole('tab', { name: 'What it would do' }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByText(/to be decided, \d+ with other figures/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Publish' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Publish' })).toHaveCount(0);

  const seller = await (await browser.newContext()).newPage();
  await signIn(seller, people.engineer);
  const id = await openQuote(seller, 'norrvik', 'Norrvik Skog AB');
  const { version } = await quoteOf(seller, id);
  await seller.request.post(`/api/quotes/${id}/lines`, { data: { version, sku: 'YE-ARCH', quantity: 6 } });
  const [line] = (await quoteOf(seller, id)).lines;
  expect(Number(line?.price.list)).toBe(2100);
});

test('a sheet with five wrong rows is mended where it stands', async ({ page }) => {
  await signIn(page, people.modeller);
  await begin(page, 'Mended', 50);
  const sheet = [
    'Item;Price;Way;Tiers;List',
    'YE-BOLL;181.50;;;',
    'YE-LAMP;dear;;;',
    'YE-NOWHERE;5;;;',
    'YE-SIGN;75;sideways;;',
    'YE-LOOP;;By brackets;one to five: 9;',
    'YE-RAIL;340;;;XXX-2026',
    'YE-WALK;630;;;',
  ].join('\n');
  await page
    .getByLabel('Take in')
    .last()
    .setInputFiles({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) });
  await expect(page.getByText('7 rows came, 5 of them to be mended.')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: '5 to mend' }).click();
  await expect(entries(page).getByRole('row', { name: /YE-BOLL/ })).toBeHidden();
  const type = async (row: RegExp, at: number, text: string): Promise<void> => {
    await cell(page, row, at).click();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  await type(/YE-LAMP/, 5, '320');
  await type(/YE-NOWHERE/, 0, 'YE-INTER');
  await type(/YE-SIGN/, 4, 'By the piece');
  await type(/YE-LOOP/, 5, '1 - 5: 290; 5 - : 1300');
  await type(/YE-RAIL/, 2, 'EUR-2026');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: 'All 7' }).click();
  await expect(entries(page).getByRole('row', { name: /YE-INTER/ })).toBeVisible();
  await expect(cell(page, /YE-LOOP/, 4)).toHaveText('By brackets');
  await expect(page.getByRole('button', { name: /to mend/ })).toBeHidden();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Take it away' }).click();
  await page.waitForURL(/\/prices$/);
});

test('a limit in force is tried on open quotes, followed from a day on, and taken back before it', async ({
  page,
}) => {
  await signIn(page, people.modeller);
  await page.goto('/terms/limits');
  await ready(page);
  const grid = page.getByRole('grid', { name: 'Limits, targets, floors' });
  const limit = grid.getByRole('row').nth(1).getByRole('gridcell').nth(4);
  await expect(limit).toHaveText('8 %');
  await limit.click();
  await page.keyboard.type('2');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Target, limit and floor go one further than the other.')).toBeVisible();
  await limit.click();
  await page.keyboard.type('3.5');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Try on open quotes' }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByRole('dialog').getByText(/to be decided/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await page.getByRole('textbox', { name: 'What follows holds from' }).fill(date(inDays(30), 'en'));
  await page.getByRole('textbox', { name: 'What follows holds from' }).press('Tab');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(grid.getByRole('row', { name: /3\.5 %.*to come/ })).toBeVisible();
  await expect(grid.getByRole('row', { name: /8 %.*in force/ }).first()).toBeVisible();
  await grid
    .getByRole('row', { name: /3\.5 %.*to come/ })
    .getByRole('gridcell')
    .nth(0)
    .click();
  await page.getByRole('button', { name: 'Through time' }).click();
  const aside = page.getByRole('complementary', { name: 'Through time' });
  await expect(aside.getByText(/Wen Castellane/)).toBeVisible();
  await grid
    .getByRole('row', { name: /3\.5 %.*to come/ })
    .getByRole('gridcell')
    .nth(0)
    .click();
  await page.keyboard.press('Control+Delete');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(grid.getByRole('row', { name: /to come/ })).toBeHidden();
});

test('a policy is a sentence, typed as one or as a formula', async ({ page }) => {
  await signIn(page, people.modeller);
  await page.goto('/terms/policies');
  await ready(page);
  const grid = page.getByRole('grid', { name: 'Policies' });
  const said = grid.getByRole('row').nth(1).getByRole('gridcell').nth(3);
  await expect(said).toHaveText('special parts is more than 2');
  await said.click();
  await page.keyboard.type('net > 90000 and discount >= 0.05');
  await page.keyboard.press('Enter');
  await expect(said).toHaveText('net is more than 90000 and discount is at least 5 %');
  await said.click();
  await page.keyboard.type('days to pay is more than 45');
  await page.keyboard.press('Enter');
  await expect(said).toHaveText('days to pay is more than 45');
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(said).toHaveText('special parts is more than 2');
});
