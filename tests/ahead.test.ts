/**
 * What the keyboard is on is worked out ahead; it must show the moment it is taken, and be what anybody else
 * works out.
 */
import { expect, test, type Locator, type Page } from '@playwright/test';
import { configure, number, openQuote, option, people, ready, saved, signIn } from './people';

/** Workers that tell how many questions of the page they have not answered; NaN before the first. */
const countQuestions = (page: Page) =>
  page.addInitScript(() => {
    const counted = window as unknown as { unanswered: number };
    counted.unanswered = NaN;
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(url, options);
        this.addEventListener('message', () => {
          counted.unanswered -= 1;
        });
      }
      override postMessage(...given: unknown[]) {
        counted.unanswered = (counted.unanswered || 0) + 1;
        super.postMessage(...(given as [unknown, StructuredSerializeOptions]));
      }
    };
  });
const answered = (page: Page) =>
  expect.poll(() => page.evaluate(() => (window as unknown as { unanswered: number }).unanswered)).toBe(0);

/** Puts the keyboard on an option, and waits until it is worked out. */
async function lookAt(page: Page, row: string, name: RegExp): Promise<Locator> {
  await answered(page);
  await option(page, row, name).focus();
  await answered(page);
  return option(page, row, name);
}

/** Takes an option, and tells what the page shows before anything else can happen. */
const takenAtOnce = (tab: Locator) =>
  tab.evaluate((element: HTMLElement) => {
    element.click();
    return {
      taken: element.getAttribute('aria-checked'),
      number: document.querySelector('[role="group"][aria-label^="Part number"]')?.getAttribute('aria-label'),
      net: document.querySelector('[data-testid="net"]')?.textContent,
    };
  });
/** The part number without what is registered for the terminals, which comes once it is saved. */
const plain = (text: string | null | undefined): string => (text ?? '').replace(/\+T[\d·]{4}/, '');
const shown = async (page: Page) => ({
  number: plain(await number(page).getAttribute('aria-label')),
  net: await page.getByTestId('net').textContent(),
});

/** What the server works out when the build is opened again. */
async function opened(page: Page): Promise<{ number: string | null; net: string | null }> {
  await saved(page);
  await page.reload();
  await ready(page);
  return shown(page);
}

test.beforeEach(async ({ page }) => {
  await countQuestions(page);
  await signIn(page, people.engineer);
  await openQuote(page, 'norrvik', 'Norrvik Skog AB');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
});

test('what is looked at shows the moment it is taken, as the server works it out', async ({ page }) => {
  for (const [row, name, code] of [
    ['length', /18 m/, 'RB-060-180-A-P-S-D-0-3-O'],
    ['surface', /Concrete fill/, 'RB-060-180-A-C-S-D-0-3-O'],
    ['approachParts', /Guide rails/, 'RB-060-180-A-C-S-D-0-3-O/L'],
  ] as const) {
    const now = await takenAtOnce(await lookAt(page, row, name));
    expect([now.taken, plain(now.number)]).toEqual(['true', `Part number ${code}`]);
    expect(await opened(page)).toEqual({ number: plain(now.number), net: now.net });
  }
  // Of several, one is given up as it is taken.
  expect(await takenAtOnce(await lookAt(page, 'approachParts', /Guide rails/))).toMatchObject({
    taken: 'false',
    number: expect.stringMatching(/^Part number RB-060-180-A-C-S-D-0-3-O\+T/) as unknown as string,
  });
});

test('what was worked out from something else is not shown', async ({ page }) => {
  await option(page, 'length', /24 m/).click();
  await lookAt(page, 'mounting', /^Pit/);
  // Another decision comes between, and one is taken back, while the pit is still in focus.
  await page.keyboard.press('Control+z');
  await expect(number(page)).not.toHaveAccessibleName(/-240-/);
  await page.getByRole('button', { name: 'Undo', exact: true }).evaluate((undo: HTMLElement) => undo.click());
  await option(page, 'mounting', /^Pit/).evaluate((tab: HTMLElement) => tab.click());
  await expect(option(page, 'mounting', /^Pit/)).toBeChecked();
  await expect(option(page, 'vehicle', /Articulated/)).not.toBeChecked();
  const before = await shown(page);
  expect(await opened(page)).toEqual(before);

  // Quicker than the answers: of what was only passed over nothing is kept.
  for (const name of [/^8 m/, /12 m/, /15 m/, /18 m/]) await option(page, 'length', name).focus();
  await option(page, 'length', /15 m/).evaluate((tab: HTMLElement) => tab.click());
  await option(page, 'surface', /Open grating/).evaluate((tab: HTMLElement) => {
    tab.focus();
    tab.click();
  });
  await expect(number(page)).toHaveAccessibleName(/-150-.-G-/);
  const after = await shown(page);
  expect(await opened(page)).toEqual(after);
});
