/** Composing a quotation while the customer is on the phone, and the paper of the house. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { pdfPages } from '../src/services/paper/testing';
import { cell, configure, openQuote, people, ready, saved, signIn } from './people';

/** The words of the PDF as it would be sent now. */
async function paperOf(page: Page, id: string): Promise<string> {
  const answer = await page.request.get(`/api/quotes/${id}/paper.pdf`);
  expect(answer.ok()).toBe(true);
  return (await pdfPages(await answer.body())).join(' ');
}
/** The document as its template has it, whatever was chosen for the customer before. */
async function asUsual(page: Page, id: string): Promise<void> {
  const { version, usual } = (await (await page.request.get(`/api/quotes/${id}/paper`)).json()) as {
    version: number;
    usual: object;
  };
  const kept = await page.request.put(`/api/quotes/${id}/paper`, { data: { version, composition: usual } });
  expect(kept.ok()).toBe(true);
}
/** The words on the pages that are shown. */
const shown = (page: Page) => page.getByRole('img', { name: /^(Page|Seite) \d+ (of|von)/ });
const block = (page: Page, name: string) => page.getByRole('checkbox', { name, exact: true });
const kept = (page: Page) => expect(page.getByText('Stored', { exact: true })).toBeVisible();

test('a quotation is composed: discounts hidden, a drawing added, another template taken, and the PDF read', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await page.locator('[data-row="vehicle"]').getByRole('radio', { name: /44 t/ }).click();
  await page.locator('[data-row="length"]').getByRole('radio', { name: '18 m' }).click();
  await page.locator('[data-row="width"]').getByRole('radio', { name: '3.2 m' }).click();
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\/[0-9a-f-]{36}$/);
  const discount = cell(page, 'Discount % 1');
  await discount.fill('4');
  await discount.press('Enter');
  await saved(page);
  await asUsual(page, id);

  await page.getByRole('link', { name: 'Document', exact: true }).click();
  await page.waitForURL(/\/paper$/);
  await ready(page);
  await expect(shown(page).first()).toHaveAttribute('data-words', /Callowhill Quarries.*Discount/);
  expect(await paperOf(page, id)).toMatch(/Sum at list prices .* Discounts/);

  await page.getByRole('button', { name: 'Settings of Lines and sums' }).click();
  await page.getByLabel('Discounts', { exact: true }).selectOption('none');
  await expect(shown(page).first()).not.toHaveAttribute('data-words', /Discount/);
  await kept(page);
  const hidden = await paperOf(page, id);
  expect(hidden).not.toMatch(/Discount|list price|\b4 %/);
  await page.getByRole('button', { name: 'Settings of Lines and sums' }).click();

  // The pages follow a block that is opened, and drawings come and go.
  await block(page, 'Drawings').uncheck();
  await kept(page);
  expect(await paperOf(page, id)).not.toContain('Plan');
  await block(page, 'Drawings').check();
  await page.getByRole('button', { name: 'Settings of Drawings' }).click();
  await page.getByRole('checkbox', { name: 'Side', exact: true }).uncheck();
  await kept(page);
  expect(await paperOf(page, id)).toMatch(/Plan .*Seen from above/);

  // A text of one's own, and back to the house's by one key.
  await page.getByRole('button', { name: 'Settings of Closing' }).click();
  const words = page.getByRole('textbox', { name: 'Words' });
  await expect(words).toContainText('Kind regards');
  await words.click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('See you on Monday, {customer.contact}.');
  await expect(page.getByText('own text')).toBeVisible();
  await kept(page);
  expect(await paperOf(page, id)).toContain('See you on Monday, Edda Thorley.');
  await page.getByRole('button', { name: "Back to the house's text" }).click();
  await kept(page);
  expect(await paperOf(page, id)).not.toContain('See you on Monday');
  await page.getByRole('button', { name: 'Settings of Closing' }).click();

  // Blocks are put in another order by the keyboard, and steps are taken back.
  await block(page, 'Terms').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await kept(page);
  const order = await paperOf(page, id);
  expect(order.indexOf('Prices are in GBP')).toBeLessThan(order.indexOf('we expect to deliver'));
  await page.getByRole('button', { name: 'Undo' }).click();
  await kept(page);
  const back = await paperOf(page, id);
  expect(back.indexOf('Prices are in GBP')).toBeGreaterThan(back.indexOf('we expect to deliver'));

  // In German, on the paper of another market.
  await page.getByLabel('Language', { exact: true }).selectOption('de');
  await expect(shown(page).first()).toHaveAttribute('data-words', /Angebot/);
  await kept(page);
  expect(await paperOf(page, id)).toMatch(/Nettosumme GBP/);

  // What is brought goes along.
  await page.getByRole('button', { name: 'Settings of Annexes' }).click();
  await page.locator('input[type=file][aria-label="A file to go along"]').setInputFiles({
    name: 'sheet.png',
    mimeType: 'image/png',
    buffer: readFileSync('docs/screenshots/desk.png'),
  });
  await expect(page.getByRole('button', { name: 'Leave sheet.png out' })).toBeVisible();
  await kept(page);
  expect(await paperOf(page, id)).toContain('sheet.png');

  for (const format of ['docx', 'xlsx', 'html', 'xml']) {
    const answer = await page.request.get(`/api/quotes/${id}/paper.${format}`);
    expect([format, answer.status()]).toEqual([format, 200]);
  }
});

test('two compose one document, and say whose choice stands', async ({ page, browser }) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'brannoch', 'Brannoch Aggregates plc');
  await asUsual(page, id);
  await page.goto(`/quotes/${id}/paper`);
  await ready(page);
  const other = await (await browser.newContext()).newPage();
  await signIn(other, people.second);
  await other.goto(`/quotes/${id}/paper`);
  await ready(other);
  await block(page, 'In short').check();
  await kept(page);
  await other.getByRole('checkbox', { name: 'Annahmeformular', exact: true }).check();
  const asked = other.getByRole('dialog', { name: 'Zweimal zusammengestellt' });
  await expect(asked).toContainText('Mara Lindqvist');
  await asked.getByRole('button', { name: 'Meine' }).click();
  await expect(other.getByText('Gespeichert', { exact: true })).toBeVisible();
  await page.reload();
  await ready(page);
  await expect(block(page, 'Acceptance form')).toBeChecked();
  await expect(block(page, 'In short')).not.toBeChecked();
  await other.context().close();
});

test('a text of the house is written with a placeholder, put in force, and stands on the next quotation', async ({
  page,
  browser,
}) => {
  await signIn(page, people.modeller);
  const name = `Winter note ${String(Date.now() % 100_000)}`;
  await page.goto('/paper');
  await ready(page);
  await page.getByRole('button', { name: 'Add a text' }).click();
  const made = page.getByRole('dialog', { name: 'Add a text' });
  await made.getByLabel('Name').fill(name);
  await made.getByRole('button', { name: 'Make' }).click();
  const words = page.getByRole('textbox', { name: 'Words, English' });
  await words.click();
  await page.keyboard.type('Frost may move ');
  await page.getByRole('region', { name: 'English' }).getByRole('button', { name: 'Placeholder' }).click();
  await page.locator('[data-code-field="Placeholder"]').first().click();
  await page.keyboard.type('quote.delivered');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  const insert = page.getByRole('button', { name: 'Insert' });
  if (await insert.isVisible()) await insert.click();
  await expect(words).toContainText('Frost may move {quote.delivered}');
  await expect(page.getByText(/^Frost may move \d\d \w+ \d{4}$/)).toBeVisible();
  await page.getByRole('button', { name: 'Put in force' }).click();
  await expect(page.getByRole('button', { name: 'Put in force' })).toBeDisabled();

  await page.getByRole('button', { name: 'House', exact: true }).click();
  await page.getByLabel('One more text').selectOption({ label: name });
  await expect(block(page, name)).toBeChecked();
  await page.getByRole('button', { name: 'Put in force' }).click();
  await expect(page.getByRole('button', { name: 'Put in force' })).toBeDisabled();

  const engineer = await (await browser.newContext()).newPage();
  await signIn(engineer, people.engineer);
  const id = await openQuote(engineer, 'norrvik', 'Norrvik Skog AB');
  await asUsual(engineer, id);
  expect(await paperOf(engineer, id)).toMatch(/Frost may move \d\d \w+ \d{4}/);
  await engineer.context().close();
});
