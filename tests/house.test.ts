/** Who runs the house says who it is, when it works and how it counts; its grid and fields as a browser has them. */
import { expect, test, type Locator, type Page } from '@playwright/test';
import type { HouseView } from '../src/contract';
import { people, ready, refusal, signIn } from './people';

async function house(page: Page, part?: string): Promise<void> {
  await signIn(page, people.administrator);
  await page.goto('/house');
  await ready(page);
  if (part !== undefined) await page.getByRole('tab', { name: part }).click();
}
const drawing = (inside: string): { name: string; mimeType: string; buffer: Buffer } => ({
  name: 'mark.png',
  mimeType: 'image/png',
  buffer: Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="80" height="30">${inside}</svg>`),
});
/** Pastes a text as the keyboard would, with what stands on the clipboard. */
const paste = (at: Locator, text: string): Promise<void> =>
  at.evaluate((element, given) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', given);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, text);
const cursor = (page: Page): Locator => page.getByRole('grid').locator('[data-cursor]');
const rowText = (page: Page, name: string): Locator => page.getByRole('grid').getByRole('row', { name });

test('says who the house is, with a mark that was made safe, and sees it as it stands on paper', async ({
  page,
}) => {
  await house(page);
  const phone = page.getByLabel('Phone');
  await phone.fill('+44 1632 960199');
  await page.getByLabel('IBAN').fill('GB33 BUKB 2020 1555 5555 56');
  await page.getByLabel('IBAN').blur();
  await expect(page.getByText('This is no IBAN: a digit is wrong or missing.')).toBeVisible();
  await page.getByLabel('IBAN').fill('GB33 BUKB 2020 1555 5555 55');
  const bringing = page.getByRole('group', { name: 'Mark on paper' });
  await bringing
    .locator('input')
    .setInputFiles({ name: 'mark.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('MZ\u0000\u0001') });
  await expect(bringing.getByRole('alert')).toContainText('A file of this kind is not taken.');
  await bringing
    .locator('input')
    .setInputFiles(
      drawing('<script>alert(1)</script><rect width="80" height="12" fill="#1d5144" onclick="x()"/>'),
    );
  const mark = page.getByRole('img', { name: 'mark.svg' });
  await expect(mark).toBeVisible();
  const answer = await page.request.get((await mark.getAttribute('src')) ?? '');
  expect(await answer.text()).not.toMatch(/script|onclick/);
  expect(answer.headers()['content-security-policy']).toContain("default-src 'none'");
  await page.getByRole('button', { name: 'Keep', exact: true }).first().click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.reload();
  await ready(page);
  await expect(phone).toHaveValue('+44 1632 960199');
  await expect(page.getByRole('img', { name: 'mark.svg' })).toBeVisible();
  // The picture is seen by all, the page by who runs the house alone.
  const src = (await page.getByRole('img', { name: 'mark.svg' }).getAttribute('src')) ?? '';
  const engineer = await page.context().browser()?.newPage();
  if (!engineer) throw new Error('no browser');
  await signIn(engineer, people.engineer);
  expect((await engineer.request.get(src)).ok()).toBe(true);
  expect((await engineer.goto('/house'))?.status()).toBe(404);
  const refused = await engineer.request.get('/api/house');
  expect([refused.status(), (await refusal(refused)).code]).toEqual([403, 'refused.permission']);
});

test('enters holidays by keyboard alone and by pasting, mends what cannot be read, and sees what is promised', async ({
  page,
}) => {
  await house(page, 'Calendar');
  const promised = page.getByText(/^Promised for/);
  await page.getByLabel('Working days').fill('1');
  await page.getByRole('textbox', { name: 'Ordered on' }).fill('2.3.2029');
  await page.getByRole('textbox', { name: 'Ordered on' }).press('Enter');
  await expect(promised).toHaveText('Promised for 07 Mar 2029');
  await page.getByRole('button', { name: 'Add a row' }).click();
  await expect(cursor(page)).toBeFocused();
  await page.keyboard.press('Home');
  await page.keyboard.type('5.3.29');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.type('unit');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Founders');
  await page.keyboard.press('Enter');
  await expect(rowText(page, 'Founders')).toContainText('05 Mar 2029');
  await expect(rowText(page, 'Founders')).toContainText('United Kingdom');
  await expect(promised).toHaveText('Promised for 08 Mar 2029');
  await expect(cursor(page)).toBeFocused();
  await paste(cursor(page), '6.3.2029\t7.3.2029\tGB\tMoved\nsoon\t\tGB\tUnclear\n');
  await expect(page.getByText('Mend the marked cells first.')).toBeVisible();
  await page.getByRole('button', { name: 'One cell to mend' }).click();
  await expect(cursor(page)).toHaveText(/^soon/);
  await expect(page.getByText(/^"soon" is not a day/).first()).toBeVisible();
  await page.keyboard.type('9/3/29');
  await page.keyboard.press('Enter');
  await expect(promised).toHaveText('Promised for 13 Mar 2029');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Control+Delete');
  await expect(promised).toHaveText('Promised for 12 Mar 2029');
  await page.keyboard.press('Control+z');
  await expect(rowText(page, 'Unclear')).toBeVisible();
  await page.getByRole('button', { name: 'Take back' }).last().click();
  await expect(rowText(page, 'Founders')).toHaveCount(0);
});

test('keeps more holidays than a browser lets go on behind a page that is left', async ({ page }) => {
  await house(page, 'Calendar');
  const { calendar } = (await (await page.request.get('/api/house')).json()) as HouseView;
  await page.getByRole('button', { name: 'Add a row' }).click();
  await page.keyboard.press('Home');
  const days = Array.from({ length: 1500 }, (_, at) => {
    const day = new Date(Date.UTC(2031, 0, 1 + at)).toISOString().slice(0, 10);
    return `${day}\t\tGB\tA day on which nobody works, whoever asks`;
  });
  await paste(cursor(page), days.join('\n'));
  await expect(page.getByText(/^1,5\d\d rows$/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  const data = { ...calendar, version: calendar.version + 1 };
  expect((await page.request.put('/api/house/calendar', { data })).ok()).toBe(true);
});

test('says where else the house is, in a table', async ({ page }) => {
  await house(page);
  const others = page.getByRole('grid', { name: 'Other addresses' });
  await others.getByText('Works, goods in and out').click();
  await page.keyboard.type('Works');
  await page.keyboard.press('Enter');
  const keep = page.getByRole('button', { name: 'Keep', exact: true });
  await expect(keep).toBeEnabled();
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(others).toContainText('Works, goods in and out');
  await expect(keep).toBeDisabled();
});

test('marks, fills on and moves rows by hand', async ({ page }) => {
  await signIn(page, people.engineer);
  await page.goto('/components');
  await ready(page);
  const grid = page.getByRole('region', { name: 'Grid', exact: true }).getByRole('grid').first();
  const at = (row: number, column: number): Locator =>
    grid.locator(`[data-row="${String(row)}"] [data-column="${String(column)}"]`);
  await at(0, 2).click();
  await page.keyboard.type('10');
  // Clicking elsewhere stores what is typed.
  await at(1, 2).click();
  await page.keyboard.type('20');
  await page.keyboard.press('Enter');
  await expect(at(0, 2)).toHaveText('10');
  await at(0, 2).hover();
  await page.mouse.down();
  await at(1, 2).hover();
  await page.mouse.up();
  await grid.locator('[class*=filler]').hover();
  await page.mouse.down();
  await at(3, 2).hover();
  await page.mouse.up();
  await expect(at(2, 2)).toHaveText('30');
  await expect(at(3, 2)).toHaveText('40');
  const head = (row: number): Locator => grid.locator(`[data-row="${String(row)}"] [data-head]`);
  await head(3).click();
  await head(3).hover();
  await page.mouse.down();
  await head(0).hover({ position: { x: 10, y: 3 } });
  await page.mouse.up();
  await expect(at(0, 0)).toHaveText('Signal cable');
  await page.keyboard.press('Control+z');
  await expect(at(3, 0)).toHaveText('Signal cable');
  await at(0, 0).dblclick();
  await page.keyboard.type(' of steel');
  await page.keyboard.press('Enter');
  await expect(at(0, 0)).toHaveText('Deck plate of steel');
});

test('writes a formula with what is proposed, and is told what is wrong at its characters', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  await page.goto('/components');
  await ready(page);
  const field = page.locator('[data-code-field="A condition"]');
  const text = field.getByRole('textbox', { name: 'A condition' });
  await text.click();
  await page.keyboard.type('deck');
  // By what the reader calls it, where its id is another word.
  await expect(field.getByRole('option', { name: /Deck surface/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.type(' = "conc');
  await expect(field.getByRole('option', { name: /Concrete/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(text).toHaveText('surface = "concrete"');
  await expect(text).toHaveAttribute('aria-invalid', 'false');
  await page.keyboard.type(' and hight');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Nothing is called "hight" here.')).toBeVisible();
  await expect(field.locator('.cm-wrong')).toHaveText('hight');
  await page.keyboard.press('Control+z');
  // Tab leaves it, as any field.
  await page.keyboard.press('Tab');
  await expect(text).not.toBeFocused();
  // However long the text is that is pasted, the page goes on.
  await text.click();
  await page.keyboard.press('Control+a');
  await text.evaluate((element) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', `length > 1 and\n`.repeat(6_700));
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  });
  await expect(page.getByText(/^The formula is longer than|^More than \d+ operators/).first()).toBeVisible();
});

test('tries another pattern for numbers, and takes it back', async ({ page }) => {
  await house(page, 'Numbers');
  const quotes = page.getByRole('group', { name: 'Quotes' });
  await quotes.getByLabel('Pattern').fill('QU{yyyy}/{000}');
  await expect(quotes).toContainText(`such as QU${String(new Date().getFullYear())}/042`);
  await quotes.getByLabel('Pattern').fill('QU-{yy}');
  await expect(quotes).toContainText('The count has to stand in it once');
  await page.getByRole('button', { name: 'Take back' }).last().click();
  await expect(quotes.getByLabel('Pattern')).toHaveValue('Q-{yy}-{0000}');
  await expect(quotes).toContainText(/The next is Q-\d\d-\d{4}/);
});
