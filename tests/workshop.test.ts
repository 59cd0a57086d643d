/** The Workshop along real work: a small model made from items, given rules as sentences, published, and sold. */
import { expect, test, type Locator, type Page } from '@playwright/test';
import { configure, number, openQuote, option, people, ready, signIn } from './people';

const part = (page: Page, name: string | RegExp): Promise<void> =>
  page.getByRole('navigation', { name: 'Parts of the model' }).getByRole('button', { name }).click();
const stored = (page: Page): Promise<void> =>
  expect(
    page.getByRole('banner').or(page.locator('header')).getByText('saved', { exact: true }),
  ).toBeVisible();
const tryOut = (page: Page): Locator => page.getByRole('complementary', { name: 'Try-out' });
/** A choice in the try-out. */
const tried = (page: Page, row: string, name: string): Locator =>
  tryOut(page).locator(`[data-row="${row}"]`).getByRole('radio', { name });

/** Begins a draft of the version of a model that is in force. */
async function draftOf(page: Page, model: string): Promise<void> {
  await page.goto('/models');
  await ready(page);
  await page.getByRole('row', { name: model }).getByRole('button', { name: 'Begin a draft' }).click();
  await page.waitForURL(/\/models\/[0-9a-f-]{36}/);
  await ready(page);
}

/** Types a rule as a sentence, as a new rule. */
async function rule(page: Page, sentence: string): Promise<void> {
  await page.getByRole('button', { name: 'New rule' }).click();
  const field = page.locator('[data-code-field="Rule as a sentence"]');
  await field.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(sentence);
  await page.keyboard.press('Escape');
  await expect(page.getByText('Type it as you would say it')).toBeVisible();
}

/** What it would change is worked out and looked at, and the draft is published. */
async function publish(page: Page, note: string, when?: string): Promise<void> {
  await part(page, 'Versions');
  const work = page.getByRole('button', { name: 'Work it out' });
  await work.click();
  await expect(page.getByText(/the same · /)).toBeVisible({ timeout: 60_000 });
  await page.getByLabel('What is new').fill(note);
  if (when !== undefined) {
    await page.getByRole('textbox', { name: 'In force from' }).fill(when);
    await page.getByRole('textbox', { name: 'In force from' }).press('Tab');
  }
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await page.waitForURL('/models');
  await ready(page);
}

test('a floor scale is made from items, given rules as sentences, kept as a test, published and sold', async ({
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  await signIn(page, people.modeller);
  await page.goto('/models');
  await ready(page);
  await page.getByRole('button', { name: 'New model' }).click();
  await page.getByLabel('Name of the model').fill('Sill floor scale');
  await page.getByLabel('Item number', { exact: true }).fill('SILL');
  await page.getByLabel('Item numbers, one a line').fill('SILL-0808-P\nSILL-1212-P\nSILL-1515-P');
  await page.getByRole('button', { name: 'Begin a draft' }).last().click();
  await page.waitForURL(/\/models\/[0-9a-f-]{36}/);
  await ready(page);
  await expect(tryOut(page).locator('[data-row="floor"]')).toBeVisible();

  // Extras by the keyboard alone: a row moved out, and options moved into it.
  const grid = page.getByRole('treegrid', { name: 'Outline' });
  await grid.getByRole('gridcell', { name: 'Sill floor scale 1.5 x 1.5 m, painted' }).first().click();
  const add = async (name: string, turn?: string, more: readonly string[] = []): Promise<void> => {
    await page.getByRole('button', { name: 'Add a row' }).click();
    if (turn !== undefined) await page.keyboard.press(turn);
    await page.keyboard.type(name);
    await page.keyboard.press('Tab');
    for (const text of more) {
      await page.keyboard.type(text);
      await page.keyboard.press('Tab');
    }
    await page.keyboard.press('Home');
  };
  await add('Extras', 'Alt+Shift+ArrowLeft');
  await add('Access ramp', 'Alt+Shift+ArrowRight');
  await add('Pit frame');
  await add('Column');
  await stored(page);
  await expect(tryOut(page).locator('[data-row="extras"]')).toBeVisible();

  await part(page, 'Rules');
  await rule(
    page,
    'When Floor scales is Sill floor scale 0.8 x 0.8 m, painted, Extras must not be Pit frame, because: The small scale has no frame.',
  );
  await rule(page, 'Warn when Extras is Column: A column stands on its own foundation.');
  await rule(page, 'Extras is usually Access ramp');
  await stored(page);
  await expect(tried(page, 'extras', 'Access ramp')).toBeChecked();
  await tried(page, 'floor', '0.8 x 0.8 m').click();
  await expect(tried(page, 'extras', 'Pit frame')).toContainText('swap');
  await tried(page, 'extras', 'Column').click();
  await expect(tryOut(page).getByText('A column stands on its own foundation.')).toBeVisible();
  await expect(tryOut(page).getByText('Complete')).toBeVisible();
  await page.getByRole('button', { name: 'Keep as a test' }).click();
  await part(page, 'Tests');
  await expect(page.getByText('green')).toBeVisible();

  await part(page, 'Check-up');
  await page.getByRole('button', { name: 'Examine the model' }).click();
  await expect(page.getByText('Nothing is wrong.')).toBeVisible();
  await publish(page, 'The first.');
  await expect(page.getByRole('row', { name: 'Sill floor scale' })).toContainText('version 1');

  const desk = await (await browser.newContext()).newPage();
  await signIn(desk, people.engineer);
  await openQuote(desk, 'callow', 'Callowhill Quarries Ltd');
  await configure(desk, 'Sill floor scale');
  await expect(desk.getByRole('heading', { name: /Sill floor scale · / })).toBeVisible();
  await option(desk, 'floor', 'Sill floor scale 1.2 x 1.2 m, painted').click();
  await desk.locator('[data-row="extras"]').getByRole('radio', { name: 'Pit frame' }).click();
  await expect(number(desk)).toContainText('SI');
  await desk.keyboard.press('Control+Enter');
  await desk.waitForURL(/\/quotes\//);
  await ready(desk);
  await expect(desk.getByRole('row', { name: /Sill floor scale/ }).first()).toBeVisible();
  await desk.close();
});

test('an option with a rule comes into force on its day, its effect seen before, and can be withdrawn', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await signIn(page, people.modeller);
  await draftOf(page, 'Tarn');
  const grid = page.getByRole('treegrid', { name: 'Outline' });
  await grid.getByRole('gridcell', { name: '20 t', exact: true }).first().click();
  await page.getByRole('button', { name: 'Add a row' }).click();
  for (const text of ['30 t', '30 t', 'Option', 'p30', '30']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  }
  await stored(page);
  await part(page, 'Rules');
  await rule(
    page,
    'When Pad is 30 t, Wireless must not be taken, because: It is too heavy for a transmitter.',
  );
  await stored(page);
  await part(page, 'Versions');
  await expect(page.getByText('30 t (p30) added to Pad (pad), Options')).toBeVisible();
  await publish(page, 'A pad of 30 t.', '31 Dec 2031');
  const row = page.getByRole('row', { name: 'Tarn' });
  // Customers get what they got; the new one stands beside it with its day.
  await expect(row).toContainText(/version \d+version \d+ from 31 Dec 2031/);

  // A draft of the one in force is behind what is to come; what both changed differently is chosen.
  await draftOf(page, 'Tarn');
  await expect(page.getByText('Another version was published since.')).toBeVisible();
});
