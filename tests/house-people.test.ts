/** Who runs the house lets people in, puts them aside, names deputies, and says what is usual in markets. */
import { expect, test, type Browser, type Page } from '@playwright/test';
import type { HouseView } from '../src/contract';
import { atDesk, password as known, people, ready, refusal, signIn } from './people';

const chosen = 'four plain words here';
const unique = (): string => String(Date.now()).slice(-7);

/** Adds somebody in the sheet, and gives the address of their link. */
async function add(page: Page, name: string, role: string): Promise<{ email: string; link: string }> {
  const email = `${name.toLowerCase().replaceAll(/\W+/g, '.')}@example.test`;
  await page.getByRole('button', { name: 'Add somebody' }).click();
  const sheet = page.getByRole('complementary', { name: 'Add somebody' });
  await sheet.getByLabel('Name').fill(name);
  await sheet.getByLabel('E-mail').fill(email);
  await sheet.getByLabel('Role').selectOption({ label: role });
  await sheet.getByRole('button', { name: 'Add and make a link' }).click();
  return { email, link: await page.getByLabel('Link for the password').inputValue() };
}

/** Sets the password by a link, in a browser of their own, and signs in. */
async function comeIn(browser: Browser, link: string, email: string): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  await page.goto(link);
  await page.getByLabel('New password').fill('short');
  await page.getByRole('button', { name: 'Set the password' }).click();
  await expect(page.getByText('A password has at least 12 characters.')).toBeVisible();
  await page.getByLabel('New password').fill(chosen);
  await page.getByRole('button', { name: 'Set the password' }).click();
  await page.getByRole('link', { name: 'Sign in' }).click();
  await ready(page);
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password', { exact: true }).fill(chosen);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.waitForURL((url) => url.pathname === '/');
  return page;
}

async function house(page: Page): Promise<void> {
  await atDesk(page, people.administrator);
  await page.getByRole('link', { name: 'People' }).click();
  await page.waitForURL('**/people');
  await ready(page);
}

test('lets somebody in by a link that works once, gives them another role, and puts them aside', async ({
  page,
  browser,
}) => {
  await house(page);
  const name = `Nell Ashby ${unique()}`;
  const { email, link } = await add(page, name, 'Sales engineer');
  const row = page.getByRole('row', { name });
  await expect(row).toContainText('link until');
  const nell = await comeIn(browser, link, email);
  await nell.goto(link);
  await expect(nell.getByText('This link was used already.')).toBeVisible();
  // The e-mail of somebody else is refused at its field.
  const sheet = page.getByRole('complementary', { name });
  await sheet.getByLabel('E-mail').fill(people.engineer);
  await sheet.getByRole('button', { name: 'Keep' }).click();
  await expect(sheet.getByText('Mara Lindqvist has this e-mail already.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Take back' }).first().click();
  await sheet.getByLabel('Role').selectOption({ label: 'Product modeller' });
  await sheet.getByRole('button', { name: 'Keep' }).click();
  await expect(row).toContainText('Product modeller');
  await nell.goto('/');
  await expect(nell.getByRole('button', { name: 'New quote' })).toHaveCount(0);
  await sheet.getByRole('button', { name: 'Put aside' }).click();
  await expect(row).toContainText('put aside');
  await nell.goto('/');
  await expect(nell).toHaveURL(/sign-in/);
  // The last who runs the house stays.
  await page.getByRole('button', { name: 'Ines Farrow' }).click();
  await page
    .getByRole('complementary', { name: 'Ines Farrow' })
    .getByRole('button', { name: 'Put aside' })
    .click();
  await expect(page.getByText('This is the last administrator who can sign in.').first()).toBeVisible();
  await page.getByRole('tab', { name: 'Roles' }).click();
  const signs = page.getByRole('row', { name: /^Answer sign-offs/ });
  await expect(signs.getByRole('img', { name: 'yes' })).toHaveCount(2);
  const mara = await (await browser.newContext()).newPage();
  await signIn(mara, people.engineer);
  expect((await mara.goto('/people'))?.status()).toBe(404);
  const refused = await mara.request.get('/api/people');
  expect([refused.status(), (await refusal(refused)).code]).toEqual([403, 'refused.permission']);
});

test('a deputy finds on their Desk what is asked of whom they stand in for', async ({ page, browser }) => {
  await house(page);
  const [away, deputy] = [`Vera Holt ${unique()}`, `Pim Oakes ${unique()}`];
  await add(page, away, 'Sales manager');
  const { email, link } = await add(page, deputy, 'Sales engineer');
  const pim = await comeIn(browser, link, email);
  await expect(pim.getByRole('region', { name: 'Asked of you' })).toHaveCount(0);
  await page.getByRole('button', { name: away }).click();
  const sheet = page.getByRole('complementary', { name: away });
  await sheet.getByLabel('Deputy', { exact: true }).selectOption({ label: deputy });
  await sheet.getByRole('textbox', { name: 'To' }).fill('+7');
  await sheet.getByRole('textbox', { name: 'To' }).press('Enter');
  await sheet.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('row', { name: away })).toContainText(`${deputy} until`);
  await pim.reload();
  const asked = pim.getByRole('link').filter({ hasText: `for ${away}` });
  await expect(asked.first()).toBeVisible();
  await sheet.getByRole('button', { name: `Take away ${deputy}` }).click();
  await expect(sheet.getByText('Nobody stands in.')).toBeVisible();
  await pim.reload();
  await expect(asked).toHaveCount(0);
  expect(known).not.toBe(chosen);
});

test('a market is typed in its row, and tried; a new customer gets what is usual in it', async ({
  page,
  browser,
}) => {
  await signIn(page, people.administrator);
  await page.goto('/house');
  await ready(page);
  const { markets: before } = (await (await page.request.get('/api/house')).json()) as HouseView;
  await page.getByRole('tab', { name: 'Markets' }).click();
  await page.getByRole('button', { name: 'Add a row' }).click();
  await page.keyboard.press('Home');
  for (const typed of [
    'is',
    'Iceland',
    'IS',
    'EUR-2026',
    'left apart',
    'English, American',
    'metric',
    'A4',
  ]) {
    await page.keyboard.type(typed);
    await page.keyboard.press('Tab');
  }
  await page.getByLabel('A customer in').selectOption({ label: 'Iceland' });
  const tried = page.getByRole('group', { name: 'Try it' });
  await expect(tried).toContainText('Iceland (IS)');
  await expect(tried).toContainText(/[A-Z][a-z]{2} \d\d, \d{4}/);
  // A country is in one market.
  await page.getByRole('grid').getByText('IS', { exact: true }).last().click();
  await page.keyboard.type('IS, Canada');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/A country is in another market already/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept.')).toBeVisible();

  const engineer = await (await browser.newContext()).newPage();
  await proposes(engineer);
  // The house is left as it was found.
  const data = { ...before, version: before.version + 1 };
  expect((await page.request.put('/api/house/markets', { data })).ok()).toBe(true);
});

/** What is proposed for a new customer follows the country, but what somebody chose themselves stays. */
async function proposes(page: Page): Promise<void> {
  await atDesk(page, people.engineer);
  await page.getByRole('button', { name: 'New quote' }).click();
  const dialog = page.getByRole('dialog', { name: 'New quote' });
  await dialog.getByRole('combobox', { name: 'Customer' }).fill('Glacier Gravel');
  await dialog.getByRole('button', { name: 'New customer' }).click();
  const list = dialog.getByLabel('Price list');
  await dialog.getByLabel('Country').fill('US');
  await expect(list).toHaveValue('USD-2026');
  await expect(dialog.getByLabel('Region')).toHaveValue('na');
  await dialog.getByLabel('Country').fill('DE');
  await expect(list).toHaveValue('EUR-2026');
  await expect(dialog.getByLabel('Language')).toHaveValue('de');
  await list.selectOption('USD-2026');
  await dialog.getByLabel('Country').fill('IS');
  await expect(dialog.getByLabel('Language')).toHaveValue('en');
  await expect(list).toHaveValue('USD-2026');
}
