/** The item master in the browser: rows typed, an item completed, sold, and followed by another one. */
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
