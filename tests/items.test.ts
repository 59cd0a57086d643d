/** The item master in the browser: rows typed, an item completed, sold, and followed by another one. */
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { people, ready, signIn } from './people';

test('an item is added with its properties, sold to whom it may be, and replaced by another one', async ({
  page,
}) => {
  await signIn(page, people.modeller);
  await page.goto('/items');
  await ready(page);
  await page
    .getByRole('navigation', { name: 'Families' })
    .getByRole('button', { name: /^Floor scales/ })
    .click();
  const grid = page.getByRole('grid', { name: 'Items' });
  await expect(grid.getByRole('row', { name: /SILL-RAMP/ })).toBeVisible();
  await page.getByRole('button', { name: 'Add a row' }).click();
  await page.keyboard.type('sill-2020-x');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Sill floor scale 2.0 x 2.0 m, stainless');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Bodenwaage Sill 2,0 x 2,0 m, Edelstahl');
  await page.keyboard.press('Enter');
  await expect(page.getByText('One item not kept yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('11 items')).toBeVisible();
  // The row counts at once; the item is there when it is kept.
  await expect(page.getByText('One item not kept yet.')).toHaveCount(0);

  await page.goto('/items/SILL-2020-X');
  await ready(page);
  await page.getByLabel('Cost of one, EUR').fill('1,480.50');
  await page.getByLabel('Platform width, m').fill('2.005');
  await expect(page.getByText('Type at most 2 decimals.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toBeDisabled();
  await page.getByLabel('Platform width, m').fill('2');
  await page.getByLabel('Finish').selectOption({ label: 'Stainless' });
  await page.getByRole('button', { name: 'Add a bar' }).click();
  await page
    .getByRole('group', { name: 'Bar 1' })
    .getByLabel('By', { exact: true })
    .selectOption({ label: 'Dealer' });
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  // A bar tells its reason; without one it is not kept.
  await expect(page.getByRole('alert').filter({ hasText: 'Type the reason that is told.' })).toBeVisible();
  await page.getByLabel('Reason, English').fill('Only works fitters set it up');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const about = page.getByRole('complementary', { name: 'Prices, uses, history' });
  await expect(about.getByText(/Cost, EUR: 0 → 1480\.5/)).toBeVisible();
  await expect(about.getByText('It is on no price list.')).toBeVisible();

  // Another one takes its place: it goes on no new line any more.
  await page.getByLabel('Sold: it goes on new lines').uncheck();
  await page.getByRole('combobox', { name: 'Sold in its place' }).fill('SILL-1515-X');
  await page.getByRole('option', { name: /SILL-1515-X/ }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(about.getByText(/Sold in its place: – → SILL-1515-X/)).toBeVisible();

  await page.goto('/items/YE-KIOSK');
  await ready(page);
  await expect(about.getByRole('link', { name: /Q-26-/ }).first()).toBeVisible();
});

test('rows that cannot be kept say why, and nothing of them is', async ({ page }) => {
  await signIn(page, people.modeller);
  await page.goto('/items');
  await ready(page);
  await page.getByLabel('Number or name').fill('YE-BOLL');
  const grid = page.getByRole('grid', { name: 'Items' });
  await expect(page.getByText('One item', { exact: true })).toBeVisible();
  const cost = grid
    .getByRole('row', { name: /YE-BOLL/ })
    .getByRole('gridcell')
    .nth(6);
  await cost.click();
  await page.keyboard.type('much');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Mend the marked cells first.')).toBeVisible();
  await cost.click();
  await page.keyboard.type('66.4');
  await page.keyboard.press('Enter');
  // What is typed in one row stays while one looks at others.
  await page.getByLabel('Number or name').fill('YE-KIOSK');
  await expect(page.getByText('One item not kept yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('One item not kept yet.')).toBeHidden();
  await page.getByLabel('Number or name').fill('YE-BOLL');
  await expect(grid.getByRole('row', { name: /YE-BOLL/ })).toContainText('66.40');
  // An item that something uses is not taken away.
  await grid
    .getByRole('row', { name: /YE-BOLL/ })
    .getByRole('gridcell')
    .nth(1)
    .click();
  await page.keyboard.press('Control+Delete');
  await expect(grid.getByRole('row', { name: /YE-BOLL/ })).toBeHidden();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText(/YE-BOLL is in use/)).toBeVisible();
  await expect(grid.getByRole('row', { name: /YE-BOLL/ })).toBeVisible();
});

test('a sheet with five wrong rows is mended where it stands, and kept whole', async ({ page }) => {
  await signIn(page, people.modeller);
  await page.goto('/items');
  await ready(page);
  const sheet = [
    'Number;Name, English;Family;Cost, EUR;Days;Colour',
    'YE-SIGN;;Yard equipment;19.75;;red',
    'NEW-10;Cable tray;Yard equipment;12.00;4;',
    'NEW-11;Cable cover;Garden;8.00;4;',
    'NEW-12;Post;Yard equipment;much;4;',
    'NEW-13;Post cap;Yard equipment;1.234;4;',
    'NEW-14;Chain;Yard equipment;3.00;soon;',
    'NEW-10;Cable tray again;Yard equipment;12.00;4;',
  ].join('\n');
  await page
    .locator('input[type="file"]')
    .setInputFiles({ name: 'items.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) });
  await expect(page.getByText('6 new, 1 different, 0 as they are.', { exact: false })).toBeVisible();
  await expect(page.getByText('Not taken over: Colour.', { exact: false })).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Only what is not kept yet' })).toBeChecked();
  await expect(page.getByText('Mend the marked cells first.')).toBeVisible();
  const grid = page.getByRole('grid', { name: 'Items' });
  const mend = async (row: RegExp, at: number, text: string): Promise<void> => {
    await grid.getByRole('row', { name: row }).getByRole('gridcell').nth(at).click();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  await mend(/Cable cover/, 3, 'Yard equipment');
  await mend(/NEW-12/, 6, '14');
  await mend(/NEW-13/, 6, '1.25');
  await mend(/NEW-14/, 7, '6');
  await mend(/Cable tray again/, 0, 'NEW-15');
  await expect(page.getByText('Mend the marked cells first.')).toBeHidden();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('items not kept yet.', { exact: false })).toBeHidden();
  await page.getByLabel('Number or name').fill('NEW-1');
  await expect(page.getByText('6 items', { exact: true })).toBeVisible();
  await page.getByLabel('Number or name').fill('YE-SIGN');
  await expect(grid.getByRole('row', { name: /YE-SIGN/ })).toContainText('19.75');

  // What goes out comes in as it was.
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out' }).click();
  await page.getByRole('menuitem', { name: 'XLSX' }).click();
  const path = await (await file).path();
  await page.locator('input[type="file"]').setInputFiles({
    name: 'items.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: readFileSync(path),
  });
  await expect(page.getByText(/0 new, 0 different, 1\d\d as they are/)).toBeVisible();
});

test('the catalogue finds items by what they say of the properties of their family', async ({ page }) => {
  await signIn(page, people.engineer);
  await page.goto('/catalogue');
  await ready(page);
  await page.getByRole('button', { name: /^Floor scales/ }).click();
  const filters = page.getByRole('group', { name: 'Found by properties' });
  const rows = page.getByRole('table', { name: 'Catalogue' }).locator('tbody tr[aria-rowindex]');
  const all = await rows.count();
  await filters.getByLabel('Finish').selectOption({ label: 'Stainless' });
  await expect.poll(() => rows.count()).toBeLessThan(all);
  await filters.getByLabel('Finish').selectOption({ label: 'Any' });
  await expect(rows).toHaveCount(all);
  await filters.getByLabel(/^Platform width from/).fill('1.5');
  await expect(rows.filter({ hasText: 'SILL-1212-X' })).toHaveCount(0);
  await expect(rows.filter({ hasText: 'SILL-1515-X' })).toHaveCount(1);
  await filters.getByLabel(/^Platform width from/).fill('wide');
  await expect(page.getByText('That is no number.')).toBeVisible();
  await expect(rows).toHaveCount(all);
});
