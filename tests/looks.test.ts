/** Every main view: accessible by axe in both themes, within the window, and nothing said in the console. */
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { demoQuote, people, ready, signIn, atDesk } from './people';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  id: string;
  nodes: { target: string[] }[];
}

async function violations(page: Page): Promise<string[]> {
  await page.evaluate(axeSource);
  const found = await page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: { run(options: object): Promise<{ violations: Violation[] }> };
    };
    return (
      await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] })
    ).violations;
  });
  return found.map(
    (each) =>
      `${each.id}: ${each.nodes
        .map((node) => node.target.join(' '))
        .slice(0, 4)
        .join(' | ')}`,
  );
}

const fits = (page: Page) =>
  page.evaluate(
    () =>
      document.documentElement.scrollWidth <= window.innerWidth &&
      document.documentElement.scrollHeight <= window.innerHeight,
  );

/** What the page complains of in the console, from now on. */
function heard(page: Page): string[] {
  const said: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') said.push(message.text());
  });
  page.on('pageerror', (error) => said.push(String(error)));
  return said;
}

const inTheme = (page: Page, theme: string): Promise<void> =>
  page
    .context()
    .addCookies([
      { name: 'theme', value: theme, url: new URL(process.env.BASE_URL ?? 'http://127.0.0.1:4600').origin },
    ]);

for (const theme of ['light', 'dark'] as const) {
  test(`every view in the ${theme} theme`, async ({ page }) => {
    const said = heard(page);
    await inTheme(page, theme);
    await page.goto('/sign-in');
    await ready(page);
    expect(await violations(page), 'sign-in').toEqual([]);
    await atDesk(page, people.engineer);
    const look = async (name: string) => {
      await ready(page);
      expect(await violations(page), name).toEqual([]);
      expect(await fits(page), `${name} fits`).toBe(true);
    };
    await look('desk');
    for (const [name, path] of [
      ['catalogue', '/catalogue'],
      ['quotes', '/quotes'],
      ['orders', '/orders'],
    ] as const) {
      await page.goto(path);
      await look(name);
    }
    const { order } = await demoQuote(page, 'Fell End, second deck');
    await page.getByLabel('Find in the orders').fill(order?.number ?? '');
    await page.getByRole('link', { name: order?.number ?? '' }).click();
    await page.waitForURL(/\/orders\/./);
    await look('order');
    await page.getByRole('link', { name: /^W-.*-1$/ }).click();
    await page.waitForURL(/\/work\//);
    await look('work order');
    await page.goto('/quotes');
    await ready(page);
    // Other tests make quotes too: the first may be far down by now.
    const { number } = await demoQuote(page, 'North Face, new gate');
    await page.getByLabel('Find in the quotes').fill(number);
    await page.getByRole('link', { name: number }).click();
    await page.waitForURL(/\/quotes\/./);
    await ready(page);
    await page.getByRole('button', { name: 'Price walk of line 1' }).click();
    await expect(page.getByRole('complementary', { name: 'Price walk of line 1' })).toContainText(
      '30,508.05',
    );
    await look('ledger');
    await page.getByRole('link', { name: /^RB-060/ }).click();
    await page.waitForURL(/\/bench\//);
    await ready(page);
    await page.locator('[data-row="capacity"]').getByRole('radio', { name: /30 t/ }).click();
    await expect(page.getByRole('region', { name: 'Why 30 t is not available' })).toBeVisible();
    await look('bench');
    await page.setViewportSize({ width: 1024, height: 768 });
    expect(await fits(page), 'bench fits at 1024').toBe(true);
    expect(said).toEqual([]);
  });

  test(`every view of who runs the house in the ${theme} theme`, async ({ page }) => {
    const said = heard(page);
    await inTheme(page, theme);
    await signIn(page, people.administrator);
    for (const path of ['/jobs', '/audit', '/people', '/house']) {
      await page.goto(path);
      await ready(page);
      expect(await violations(page), path).toEqual([]);
      expect(await fits(page), `${path} fits`).toBe(true);
    }
    await page.setViewportSize({ width: 1024, height: 768 });
    for (const part of ['Calendar', 'Markets', 'Numbers', 'Company']) {
      await page.getByRole('tab', { name: part }).click();
      expect(await violations(page), part).toEqual([]);
      expect(await fits(page), `${part} fits at 1024`).toBe(true);
    }
    await page.goto('/people');
    await ready(page);
    await page.getByRole('button', { name: 'Hedda Marchbank' }).click();
    await expect(page.getByRole('complementary', { name: 'Hedda Marchbank' })).toBeVisible();
    expect(await violations(page), 'a person').toEqual([]);
    expect(await fits(page), 'a person fits at 1024').toBe(true);
    await page.getByRole('tab', { name: 'Roles' }).click();
    expect(await violations(page), 'roles').toEqual([]);
    expect(said).toEqual([]);
    // A link that is none is an answer that browsers tell of in the console.
    await page.goto('/password#none');
    await expect(page.getByText('This link is not known.')).toBeVisible();
    expect(await violations(page), 'password').toEqual([]);
  });

  test(`composing a document, and the paper of the house, in the ${theme} theme`, async ({ page }) => {
    const said = heard(page);
    await inTheme(page, theme);
    await signIn(page, people.modeller);
    await page.goto('/paper');
    await ready(page);
    await expect(page.getByRole('img', { name: /^Page 1 of/ })).toBeVisible();
    expect(await violations(page), 'a template').toEqual([]);
    expect(await fits(page), 'a template fits').toBe(true);
    await page.getByRole('button', { name: 'Closing', exact: true }).click();
    await expect(page.getByRole('textbox', { name: 'Words, English' })).toBeVisible();
    expect(await violations(page), 'a text').toEqual([]);
    await page.setViewportSize({ width: 1024, height: 768 });
    expect(await fits(page), 'a text fits at 1024').toBe(true);
    expect(said).toEqual([]);
  });

  test(`items, a family and an item in the ${theme} theme`, async ({ page }) => {
    const said = heard(page);
    await inTheme(page, theme);
    await signIn(page, people.modeller);
    await page.goto('/items');
    await ready(page);
    expect(await violations(page), 'items').toEqual([]);
    await page.getByRole('button', { name: /^Floor scales/ }).click();
    await page.getByRole('button', { name: 'Change Floor scales' }).click();
    await expect(page.getByRole('complementary', { name: 'Floor scales' })).toBeVisible();
    expect(await violations(page), 'a family').toEqual([]);
    await page.goto('/items/SILL-1212-X');
    await ready(page);
    await page.getByRole('button', { name: 'Add a bar' }).click();
    expect(await violations(page), 'an item').toEqual([]);
    await page.setViewportSize({ width: 1024, height: 768 });
    expect(await fits(page), 'an item fits at 1024').toBe(true);
    expect(said).toEqual([]);
  });

  test(`price lists, a price change and terms in the ${theme} theme`, async ({ page }) => {
    const said = heard(page);
    await inTheme(page, theme);
    await signIn(page, people.modeller);
    await page.goto('/prices');
    await ready(page);
    await page.getByLabel('Number or name').fill('YE-CARD');
    await page.getByRole('button', { name: 'YE-CARD', exact: true }).click();
    await expect(page.getByRole('table', { name: 'Tried at quantities' })).toBeVisible();
    expect(await violations(page), 'a list').toEqual([]);
    await page.getByRole('checkbox', { name: 'Mark YE-CARD' }).check();
    await page.getByRole('button', { name: 'Change prices…' }).click();
    const dialog = page.getByRole('dialog');
    // One that another test has begun may stand there.
    await dialog.getByRole('combobox', { name: 'Into' }).selectOption({ label: 'A new price change' });
    await dialog.getByRole('textbox', { name: 'Name' }).fill(`Cards, ${theme}`);
    expect(await violations(page), 'into a price change').toEqual([]);
    await dialog.getByRole('button', { name: 'Put them in' }).click();
    await page.waitForURL(/\/prices\/changes\//);
    await ready(page);
    await page.getByRole('button', { name: 'Edit YE-CARD' }).click();
    expect(await violations(page), 'a price change').toEqual([]);
    await page.setViewportSize({ width: 1024, height: 768 });
    expect(await fits(page), 'a price change fits at 1024').toBe(true);
    await page.getByRole('button', { name: 'Take it away' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Take it away' }).click();
    await page.waitForURL(/\/prices$/);
    await page.goto('/terms/limits');
    await ready(page);
    await page.getByRole('button', { name: 'Through time' }).click();
    await expect(page.getByRole('complementary', { name: 'Through time' })).toBeVisible();
    expect(await violations(page), 'terms').toEqual([]);
    expect(await fits(page), 'terms fit at 1024').toBe(true);
    expect(said).toEqual([]);
  });

  test(`every part of a model's page in the ${theme} theme`, async ({ page }) => {
    const said = heard(page);
    await inTheme(page, theme);
    await signIn(page, people.modeller);
    await page.goto('/models');
    await ready(page);
    expect(await violations(page), 'models').toEqual([]);
    await page
      .getByRole('row', { name: /Beacon/ })
      .getByRole('button', { name: 'Begin a draft' })
      .click();
    await page.waitForURL(/\/models\/[0-9a-f-]{36}/);
    await ready(page);
    await expect(
      page.getByRole('complementary', { name: 'Try-out' }).getByRole('radio').first(),
    ).toBeVisible();
    const parts = page.getByRole('navigation', { name: 'Parts of the model' }).getByRole('button');
    for (const part of await parts.allTextContents()) {
      await parts.filter({ hasText: part }).click();
      await expect(page.getByRole('region', { name: `${part} of the model` })).toBeVisible();
      expect(await violations(page), part).toEqual([]);
      expect(await fits(page), `${part} fits`).toBe(true);
    }
    await parts.filter({ hasText: 'Rules' }).click();
    await page.getByRole('list', { name: 'Rules' }).getByRole('button').first().click();
    await expect(page.getByRole('region', { name: 'Rule as a sentence' })).toBeVisible();
    expect(await violations(page), 'a rule').toEqual([]);
    await page.setViewportSize({ width: 1024, height: 768 });
    await page.keyboard.press('F6');
    await expect(page.getByRole('complementary', { name: 'Try-out' })).toBeVisible();
    expect(await violations(page), 'the try-out over the work').toEqual([]);
    expect(await fits(page), 'the try-out fits at 1024').toBe(true);
    expect(said).toEqual([]);
  });

  test(`all components in the ${theme} theme`, async ({ page }) => {
    await inTheme(page, theme);
    await signIn(page, people.engineer);
    await page.goto('/components');
    await ready(page);
    expect(await violations(page)).toEqual([]);
  });
}

test('pages carry the headers that keep them safe', async ({ page }) => {
  const response = await page.goto('/sign-in');
  const headers = response?.headers() ?? {};
  expect(headers['content-security-policy']).toContain("script-src 'self' 'sha256-");
  expect(headers['content-security-policy']).not.toContain("script-src 'self' 'unsafe-inline'");
  expect(headers).toMatchObject({
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    'referrer-policy': 'same-origin',
  });
  await signIn(page, people.engineer);
  const cookie = (await page.context().cookies()).find((each) => each.name === 'iunctura');
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
});
