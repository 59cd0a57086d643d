/** Takes the pictures of docs/screenshots from a running demo: `npm run screenshots`, with BASE_URL where it is not at port 4600. */
import { chromium } from 'playwright-core';

const baseURL = process.env.BASE_URL ?? 'http://127.0.0.1:4600';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });
const page = await (await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 }, locale: 'en-GB', reducedMotion: 'reduce' })).newPage();
const still = async () => {
  await page.waitForLoadState('networkidle');
  await page.waitForFunction(() => document.querySelectorAll('astro-island[ssr]').length === 0);
};
const shoot = async (name) => {
  await still();
  await page.waitForTimeout(900);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  console.log(name);
};

await page.goto('/sign-in');
await shoot('sign-in');
await page.getByLabel('E-mail').fill('mara@harrowmoor.example');
await page.getByLabel('Password', { exact: true }).fill('harrowmoor');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.waitForURL('**/');
await shoot('desk');
await page.goto('/catalogue');
await shoot('catalogue');
await page.goto('/quotes');
await shoot('quotes');
await page.getByRole('link', { name: 'Q-26-0001' }).click();
await page.waitForURL(/quotes\/./);
await still();
await page.getByRole('button', { name: 'Price walk of line 1' }).click();
await shoot('ledger');
await page.getByRole('link', { name: /^RB-060/ }).click();
await page.waitForURL(/bench/);
await still();
await shoot('bench');
await page.locator('[data-row="terminals"]').evaluate((row) => row.scrollIntoView());
await shoot('bench-inside');
await page.locator('[data-row="mounting"]').getByRole('radio', { name: /^Pit/ }).click();
await shoot('bench-why-and-how');
await page.keyboard.press('Escape');
await page.getByRole('button', { name: /^Theme/ }).click();
await shoot('bench-dark');
await page.getByRole('button', { name: /^Theme/ }).click();
await page.goto('/orders');
await page.getByRole('link', { name: 'O-26-0001' }).click();
await page.waitForURL(/orders\/./);
await shoot('order');
await page.getByRole('link', { name: 'W-26-0001-1' }).click();
await page.waitForURL(/work/);
await shoot('work-order');
await browser.close();
