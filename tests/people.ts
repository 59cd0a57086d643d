/** Signing in and finding one's way, as the tests do it. */
import { expect, type APIResponse, type Cookie, type Page } from '@playwright/test';
import type { QuoteView } from '../src/contract';
import { sessionCookie } from '../src/server/cookies';

export const password = 'harrowmoor';
export const people = {
  engineer: 'mara@harrowmoor.example',
  second: 'joss@harrowmoor.example',
  manager: 'tobias@harrowmoor.example',
  modeller: 'wen@harrowmoor.example',
  administrator: 'ines@harrowmoor.example',
  dealer: 'rhona@dunmere.example',
};

/**
 * A page is ready when its islands answer to the hand. React takes the fields over some time after the island says
 * so, and what is typed while it does may be put behind what stood there.
 */
export async function ready(page: Page): Promise<void> {
  await expect(page.locator('astro-island[ssr]')).toHaveCount(0);
  await page.waitForFunction(() =>
    [...document.querySelectorAll('astro-island :is(input, textarea, select, button)')].every((each) =>
      Object.keys(each).some((key) => key.startsWith('__reactProps')),
    ),
  );
  await page.evaluate(
    () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(null)))),
  );
}

/** What a signing in left in the browser, by e-mail: one of a person serves many tests. */
const signedIn = new Map<string, Cookie[]>();

/** Lets a page be somebody's from now on; which page is shown stays with the test. */
export async function signIn(page: Page, email: string): Promise<void> {
  const known = signedIn.get(email);
  if (known) return page.context().addCookies(known);
  expect((await page.request.post('/api/session', { data: { email, password } })).status()).toBe(200);
  const left = await page.context().cookies();
  signedIn.set(
    email,
    left.filter(({ name }) => name === sessionCookie),
  );
}

/** Signs in, and looks at the Desk. */
export async function atDesk(page: Page, email: string): Promise<void> {
  await signIn(page, email);
  await page.goto('/');
  await ready(page);
}

/** Signs in as people do, and comes to the Desk. */
export async function signInByHand(page: Page, email: string): Promise<void> {
  await page.goto('/sign-in');
  await ready(page);
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: /^(Sign in|Anmelden)$/ }).click();
  await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
  await ready(page);
}

/** Opens a new quote for the customer of that name, and says which it is. */
export async function openQuote(page: Page, part: string, customer: string): Promise<string> {
  const found = await page.request.get('/api/customers', { params: { find: part } });
  const hit = ((await found.json()) as { id: string; name: string }[]).find(({ name }) =>
    name.includes(customer),
  );
  const made = await page.request.post('/api/quotes', { data: { customerId: hit?.id, title: '' } });
  expect(made.ok()).toBe(true);
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/quotes/${id}`);
  await ready(page);
  return id;
}

/** Opens one from the Desk, as people do, by typing part of a customer's name. */
export async function openQuoteByHand(page: Page, part: string, customer: string): Promise<string> {
  await page.goto('/');
  await ready(page);
  await page.getByRole('button', { name: 'New quote' }).click();
  await page.getByRole('combobox', { name: 'Customer' }).fill(part);
  await page.getByRole('option', { name: customer }).click();
  await page.getByRole('button', { name: 'Open quote' }).click();
  await page.waitForURL(/\/quotes\/[0-9a-f-]{36}/);
  await ready(page);
  return page.url().split('/').pop() as string;
}

/** A quote of the demo by its title, with the order that was made of it. Numbers follow from what else there is. */
export async function demoQuote(page: Page, title: string): Promise<QuoteView> {
  const found = await page.request.get('/api/search', { params: { find: title } });
  const hits = (await found.json()) as { kind: string; id: string }[];
  return quoteOf(page, hits.find(({ kind }) => kind === 'quote')?.id ?? '');
}

/** From a quote to the Bench. */
export async function configure(page: Page, model = 'Ridgeback'): Promise<void> {
  // In a small window it stands in the menu.
  const { width, height } = page.viewportSize() ?? { width: 1280, height: 800 };
  if (width > 760 && height > 480) await page.getByRole('button', { name: 'Configure', exact: true }).click();
  else {
    await page.getByRole('button', { name: 'More' }).click();
    await page.getByRole('menuitem', { name: 'Configure' }).click();
  }
  await page
    .getByRole('region', { name: 'A product or bundle' })
    .getByRole('button', { name: model, exact: true })
    .click();
  await page.waitForURL(/\/bench\//);
  await ready(page);
}

/** An option in a row of the Bench. */
export const option = (page: Page, row: string, name: string | RegExp) =>
  page
    .locator(`[data-row="${row}"]`)
    .getByRole(/(Parts|extras|interfaces|more)$/.test(row) ? 'checkbox' : 'radio', { name });

export const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();

/** A cell of the Ledger, or another field by its whole label. */
export const cell = (page: Page, label: string) => page.getByLabel(label, { exact: true });

/** Types into a cell, and leaves it. */
export async function type(page: Page, label: string, text: string): Promise<void> {
  await cell(page, label).fill(text);
  await cell(page, label).press('Enter');
}

/**
 * A quote as the server has it; asked once more where the server just let go of a connection that had nothing
 * to do.
 */
export const quoteOf = async (page: Page, id: string): Promise<QuoteView> =>
  (await (
    await page.request.get(`/api/quotes/${id}`, { maxRetries: 2, timeout: 120_000 })
  ).json()) as QuoteView;

/** The code rail's whole part number. */
export const number = (page: Page) => page.getByRole('group', { name: /^Part number/ });

export interface Refused {
  failures: { code: string; message: string; field?: string }[];
}
export async function refusal(response: APIResponse): Promise<{
  status: number;
  code: string | undefined;
  message: string | undefined;
  field: string | undefined;
}> {
  const { failures } = (await response.json()) as Refused;
  return {
    status: response.status(),
    code: failures[0]?.code,
    message: failures[0]?.message,
    field: failures[0]?.field,
  };
}
