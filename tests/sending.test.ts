/** From "please send me that" to the customer's yes: by mail, behind a link on a phone, and on to the order. */
import { expect, test, type Browser, type Page } from '@playwright/test';
import { openQuote, people, quoteOf, ready, signIn } from './people';

/** The customer, on a phone, without signing in. */
async function phone(browser: Browser, link: string, scripts = true): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    javaScriptEnabled: scripts,
  });
  const page = await context.newPage();
  await page.goto(link);
  if (scripts) await ready(page);
  return page;
}

/** The link in the newest mail about a quote, once it went. */
async function linkOf(page: Page, quote: string): Promise<string> {
  let link = '';
  await expect
    .poll(async () => {
      const sent = (await (await page.request.get(`/api/quotes/${quote}/sent`)).json()) as {
        mails: { id: string; state: string }[];
      };
      const [newest] = sent.mails;
      const mail = (await (await page.request.get(`/api/mails/${newest?.id ?? ''}`)).json()) as {
        words: string;
      };
      link = /\/s\/[\w-]{43}/.exec(mail.words)?.[0] ?? '';
      return [newest?.state, link !== ''];
    })
    .toEqual(['sent', true]);
  return link;
}

async function sendMail(page: Page, to: string): Promise<void> {
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'Write the mail' }).click();
  await page.waitForURL(/\/send$/);
  await ready(page);
  await expect(page.getByRole('region', { name: 'As it is read' })).toContainText(to);
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/side=sent/);
  await ready(page);
}

test('a quote goes out by mail, the customer wishes a change on a phone, and accepts the next revision', async ({
  page,
  browser,
}) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'callow', 'Callow');
  const { version, customer } = await quoteOf(page, id);
  await page.request.post(`/api/quotes/${id}/lines`, {
    data: { version, sku: 'SILL-1212-X', quantity: 2 },
    headers: { origin: new URL(page.url()).origin },
  });
  await page.reload();
  await ready(page);
  await sendMail(page, customer.contactEmail);
  const first = await linkOf(page, id);
  await expect(page.getByRole('complementary', { name: 'Sent and answered' })).toContainText('sent');

  // The engineer looks at the Desk; the customer at a phone.
  await page.goto('/');
  await ready(page);
  const customers = await phone(browser, first);
  await expect(customers.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(customers.getByText('Sill', { exact: false }).first()).toBeVisible();
  expect(await customers.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await customers.getByRole('link', { name: 'Answer', exact: true }).click();
  await customers.getByText('Ask for a change').click();
  await customers.getByLabel('What it is about').selectOption({ index: 1 });
  await customers.getByLabel('Your words').fill('Three of them, please.');
  await customers.getByLabel('Your name').fill('Iris Callow');
  await customers.getByRole('button', { name: 'Send the wish' }).click();
  await expect(customers.getByText('your answer has arrived')).toBeVisible();

  // It stands on the Desk without anybody asking for it.
  const asked = page.getByRole('region', { name: 'Customers have answered' });
  await expect(asked).toContainText('Three of them, please.');
  await asked.getByRole('link').first().click();
  await ready(page);
  const side = page.getByRole('complementary', { name: 'Sent and answered' });
  await expect(side).toContainText('Three of them, please.');
  await side.getByLabel('What we say to it').fill('Gladly: a new revision is on its way.');
  await side.getByRole('button', { name: 'Answer', exact: true }).click();
  await expect(side).toContainText('Done by Mara Lindqvist');
  await customers.reload();
  await expect(customers.getByText('Gladly: a new revision is on its way.')).toBeVisible();

  // A new revision: the old link says so, the new one is accepted and becomes the order.
  await page.getByRole('button', { name: 'New revision' }).click();
  await expect(page.getByRole('button', { name: 'Revision 2' })).toBeVisible();
  await customers.reload();
  await expect(customers.getByText('There is a newer revision')).toBeVisible();
  await expect(customers.getByText('Accept', { exact: true })).toHaveCount(0);
  const quantity = page.getByLabel('Quantity 1', { exact: true });
  await quantity.fill('3');
  await quantity.press('Enter');
  await expect.poll(async () => (await quoteOf(page, id)).lines[0]?.quantity).toBe(3);
  await sendMail(page, customer.contactEmail);
  const yes = await phone(browser, await linkOf(page, id));
  await yes.getByText('Accept', { exact: true }).click();
  await yes.getByLabel('Your name').fill('Iris Callow');
  const go = yes.getByRole('button', { name: 'Accept with obligation to pay' });
  await expect(go).toBeEnabled();
  await go.click();
  await expect(yes.getByText('tick that you accept it')).toBeVisible();
  await yes.getByLabel(/I accept/).check();
  await go.click();
  await expect(yes.getByText('your order is placed')).toBeVisible();
  await expect.poll(async () => (await quoteOf(page, id)).order?.number).toMatch(/^O-/);
  // The quote that is open says so by itself.
  await expect(page.getByRole('link', { name: /^Order O-/ }).first()).toBeVisible();
  await Promise.all([customers, yes].map((each) => each.context().close()));
});

test('a link works before any script does, and a build is shown to be turned', async ({ page, browser }) => {
  await signIn(page, people.engineer);
  const found = await page.request.get('/api/quotes?mine=true&states=ready');
  const rows = ((await found.json()) as { rows: { id: string }[] }).rows;
  let build = '';
  for (const { id } of rows)
    build ||= (await quoteOf(page, id)).lines.find(({ buildId }) => buildId)?.buildId ?? '';
  await page.goto(`/builds/${build}/send`);
  await ready(page);
  await page.getByRole('tab', { name: 'Links and mails so far' }).click();
  await page.getByRole('button', { name: 'Make a link' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('For whom').fill('Ana');
  await dialog.getByRole('button', { name: 'Make a link' }).click();
  const link = await dialog.getByLabel('Link').inputValue();
  expect(link).toMatch(/\/s\/[\w-]{43}$/);
  await dialog.getByRole('button', { name: 'Close' }).last().click();

  const plain = await phone(browser, link, false);
  await expect(plain.getByRole('heading', { level: 1 })).toBeVisible();
  await plain.getByLabel(/^(Your words|Ihre Worte)$/).fill('<b>When</b> could it be here?');
  await plain.getByLabel(/^(Your name|Ihr Name)$/).fill('Ana Kestrel');
  await plain.getByRole('button', { name: /^(Send the question|Frage senden)$/ }).click();
  await expect(plain.getByText('<b>When</b> could it be here?')).toBeVisible();

  const turning = await phone(browser, link);
  await turning.getByRole('button', { name: /^Turn | drehen$/ }).click();
  await expect(turning.locator('canvas')).toBeVisible();

  // Ended by the house, it shows nothing any more.
  await page.reload();
  await ready(page);
  await page.getByRole('tab', { name: 'Links and mails so far' }).click();
  await page.getByRole('button', { name: 'End the link for Ana now' }).first().click();
  await expect(page.getByRole('tabpanel')).toContainText('revoked');
  await turning.reload();
  await expect(turning.getByRole('heading', { level: 1 })).toHaveCount(0);
  expect((await turning.request.get(link)).status()).toBe(404);
  await Promise.all([plain, turning].map((each) => each.context().close()));
});

test('the mail server goes down and up, and nothing is lost', async ({ page, browser }) => {
  const context = await browser.newContext();
  const ines = await context.newPage();
  await signIn(ines, people.administrator);
  await ines.goto('/outbox');
  await ready(ines);
  await ines.getByRole('button', { name: 'Take it down' }).click();
  await expect(ines.getByText('The mail server is down')).toBeVisible();

  await signIn(page, people.engineer);
  const id = await openQuote(page, 'callow', 'Callow');
  const { version } = await quoteOf(page, id);
  await page.request.post(`/api/quotes/${id}/lines`, {
    data: { version, sku: 'BC-IP66', quantity: 1 },
    headers: { origin: new URL(page.url()).origin },
  });
  await page.goto(`/quotes/${id}/send`);
  await ready(page);
  await page.getByLabel('Subject').fill('While it is down');
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.waitForURL(/side=sent/);
  await page.goto('/outbox');
  await ready(page);
  await page.getByRole('button', { name: 'While it is down' }).click();
  const aside = page.getByRole('complementary', { name: 'While it is down' });
  await expect(aside.getByRole('alert')).toContainText('does not take it now');
  await ines.getByRole('button', { name: 'Bring it up' }).click();
  await expect(aside).toContainText('taken by Outbox');
  await expect(aside.frameLocator('iframe').locator('body')).toContainText('valid until');
  await context.close();
});
