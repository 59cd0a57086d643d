/** Search-or-do, and a day's work by the keyboard alone. */
import { expect, test, type Page } from '@playwright/test';
import { option, people, ready, saved, signIn } from './people';

/** Presses keys one by one, and counts them. */
function counting(page: Page) {
  let count = 0;
  return {
    press: async (...keys: string[]) => {
      for (const key of keys) {
        count++;
        await page.keyboard.press(key);
      }
    },
    type: async (text: string) => {
      count += text.length;
      await page.keyboard.type(text);
    },
    count: () => count,
  };
}

test('from the Desk to a complete Ridgeback on a new quote in at most 30 keys', async ({ page }) => {
  await signIn(page, people.engineer);
  await page.goto('/');
  await ready(page);
  // The Desk begins at what waits; search-or-do knows how to begin something new.
  await expect(page.locator('main a:focus, main button:focus')).toHaveCount(1);
  const { press, type, count } = counting(page);
  await press('Control+k');
  await type('new');
  await press('Enter');
  const dialog = page.getByRole('dialog', { name: 'New quote' });
  await expect(dialog.getByRole('combobox', { name: 'Customer' })).toBeFocused();
  await type('norrv');
  // Pressed before the answer is there: it takes what is found then.
  await press('Enter');
  await expect(dialog.getByRole('combobox', { name: 'Customer' })).toHaveValue('Norrvik Skog AB');
  await press('Enter');
  await page.waitForURL(/\/quotes\/[0-9a-f-]{36}/);
  await ready(page);
  await expect(page.getByRole('combobox', { name: 'Item number' })).toBeFocused();
  await type('ridg');
  await expect(page.getByRole('option', { name: /^Ridgeback modular weighbridge/ })).toBeVisible();
  await press('ArrowDown', 'Enter');
  await page.waitForURL(/\/bench\//);
  await ready(page);
  await type('ro');
  await press('Enter', 'n');
  await type('24');
  await press('Enter');
  await expect(option(page, 'length', /24 m/)).toBeChecked();
  await saved(page);
  await press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await expect(page.getByRole('link', { name: /^RB-080-240/ })).toBeVisible();
  expect(count()).toBeLessThanOrEqual(30);
});

test('search-or-do knows what can be done here, forgives a typo, and says nothing before it has looked', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  await page.goto('/quotes');
  await ready(page);
  await expect(page.getByRole('textbox', { name: 'Find in the quotes' })).toBeFocused();
  const field = page.getByRole('combobox', { name: 'Search or do' });
  const offers = page.getByRole('option');
  const asked: string[] = [];
  page.on('request', (request) => {
    if (request.url().includes('/api/search')) asked.push(request.url());
  });
  await page.keyboard.press('Control+k');
  await page.keyboard.type('termnal');
  await expect(page.getByText('Looking …')).toBeVisible();
  await expect(offers.filter({ hasText: 'Beacon weighing terminal' })).toBeVisible();
  expect(asked).toHaveLength(1);
  for (const [typed, meant] of [
    ['beacn', /^Beacon/],
    ['norvik', /^Norrvik Skog AB/],
    ['RB-JBOX8', /RB-JBOX-08/],
    ['zzzzqq', null],
  ] as const) {
    await field.fill(typed);
    if (meant) await expect(offers.first()).toHaveText(meant);
    else await expect(page.getByText('Nothing found for "zzzzqq".')).toBeVisible();
  }
  for (const [typed, command] of [
    ['new', 'New quote'],
    ['dark', 'Dark theme'],
    ['German', 'Deutsch'],
    ['catal', 'Go to Catalogue'],
    ['orders', 'Go to Orders'],
    ['sign', 'Sign out'],
  ] as const) {
    await field.fill(typed);
    await expect(offers.first()).toContainText(command);
  }
  // Where it is left, the keyboard goes back.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('textbox', { name: 'Find in the quotes' })).toBeFocused();
  // What a list finds is forgiving too.
  await page.keyboard.type('norvik');
  await expect(page.getByRole('cell', { name: 'Norrvik Skog AB' }).first()).toBeVisible();
  await page.getByRole('link', { name: /^Q-/ }).first().click();
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  // The page's own commands are there as well.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('price w');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary')).toContainText(/walk/i);
});
