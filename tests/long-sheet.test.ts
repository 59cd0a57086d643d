/**
 * A model with hundreds of rows: only what is near to the window is drawn, and nothing is out of reach for
 * it.
 */
import { execFileSync } from 'node:child_process';
import { expect, test, type Page } from '@playwright/test';
import { number, openQuote, people, ready, saved, signIn } from './people';

test.beforeAll(() => {
  execFileSync('npx', ['tsx', 'scripts/publish-generated.ts'], { stdio: 'ignore' });
});

const sheet = (page: Page) => page.getByRole('region', { name: 'Sheet' });
const row = (page: Page, id: string) => page.locator(`[data-row="${id}"]`);
const tabs = (page: Page, id: string) => row(page, id).locator('[data-tab]');
/** Rows that stand in the sheet, and those of them whose options are drawn. */
const rows = (page: Page) =>
  sheet(page).evaluate((element) => {
    const all = [...element.querySelectorAll<HTMLElement>('[data-row]')];
    return {
      all: all.map((each) => each.dataset.row ?? ''),
      drawn: all.filter((each) => each.querySelector('[data-tab]')).map((each) => each.dataset.row ?? ''),
    };
  });

test('rows are drawn as they come near, wherever one goes, and what is decided shows in all of them', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  const quoteId = await openQuote(page, 'norrvik', 'Norrvik Skog AB');
  const build = (await (
    await page.request.post('/api/builds', { data: { quoteId, modelId: 'generated' } })
  ).json()) as { id: string };
  await page.goto(`/bench/${build.id}`);
  await ready(page);
  await expect(tabs(page, 'f0').first()).toBeVisible();
  const { all, drawn } = await rows(page);
  expect(all.length).toBeGreaterThan(200);
  expect(drawn.length).toBeLessThan(all.length / 3);
  const last = all.at(-1) as string;
  expect(drawn).not.toContain(last);

  // Scrolled to, near the end of the sheet: what is in the window is drawn, what was jumped over is not.
  await expect(async () => {
    await sheet(page).evaluate((element) => element.scrollTo(0, element.scrollHeight));
    await expect(tabs(page, last).first()).toBeInViewport({ timeout: 500 });
  }).toPass();
  const middle = all[Math.floor(all.length / 2)] as string;
  await expect(row(page, middle)).toBeAttached();
  expect((await rows(page)).drawn).not.toContain(middle);

  // Found by its name, it has the keyboard.
  const name = (await row(page, middle).locator('p').first().textContent()) as string;
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: /Find/ }).fill(name);
  await page
    .getByRole('option', { name: new RegExp(`^${name}(?!\\d)`) })
    .first()
    .click();
  await expect(row(page, middle).locator('[data-tab]:focus')).toBeInViewport();

  // A decision there is seen, also in what is scrolled to afterwards; back on top is what was there.
  const before = await number(page).getAttribute('aria-label');
  const free = row(page, middle).locator('[data-tab][role][aria-checked="false"]:not(:has(svg))').first();
  const key = await free.getAttribute('data-tab');
  await free.click();
  await expect(page.locator(`[data-tab="${key ?? ''}"]`)).toHaveAttribute('aria-checked', 'true');
  await saved(page);
  await sheet(page).evaluate((element) => element.scrollTo(0, 0));
  await expect(tabs(page, 'f0').first()).toBeInViewport();
  await page.keyboard.press('Control+z');
  await expect(page.locator(`[data-tab="${key ?? ''}"]`)).toHaveAttribute('aria-checked', 'false');
  expect(await number(page).getAttribute('aria-label')).toBe(before);
});
