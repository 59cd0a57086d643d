/** The Workshop along real work: models made, tried, published, brought together and withdrawn by one who is no programmer. */
import { expect, test, type Locator, type Page } from '@playwright/test';
import { configure, number, openQuote, option, people, ready, signIn } from './people';

/**
 * A practised hand: every click and every stretch of typing is a step, and takes the time that it takes people who do
 * it daily.
 */
class Hand {
  steps = 0;
  private seconds = 0;

  constructor(readonly page: Page) {}

  async click(what: Locator): Promise<void> {
    this.count(1.5);
    await what.click();
  }
  async type(text: string): Promise<void> {
    this.count(0.6 + text.length * 0.18);
    await this.page.keyboard.type(text);
  }
  async press(key: string): Promise<void> {
    this.count(0.4);
    await this.page.keyboard.press(key);
  }
  async fill(field: Locator, text: string): Promise<void> {
    this.count(2 + text.length * 0.18);
    await field.fill(text);
  }
  /** Cells of a row from the cursor on, each left by Tab. */
  async cells(texts: readonly string[]): Promise<void> {
    for (const text of texts) {
      if (text !== '') await this.type(text);
      await this.press('Tab');
    }
  }
  get minutes(): number {
    return this.seconds / 60;
  }
  private count(seconds: number): void {
    this.steps += 1;
    this.seconds += seconds;
  }
}

const place = (page: Page, name: string): Locator =>
  page.getByRole('navigation', { name: 'Parts of the model' }).getByRole('button', { name });
const stored = (page: Page): Promise<void> =>
  expect(
    page.getByRole('banner').or(page.locator('header')).getByText('saved', { exact: true }),
  ).toBeVisible();
const tryOut = (page: Page): Locator => page.getByRole('complementary', { name: 'Try-out' });
/** A choice in the try-out. */
const tried = (page: Page, row: string, name: string): Locator =>
  tryOut(page).locator(`[data-row="${row}"]`).getByRole('radio', { name });
const outline = (page: Page): Locator => page.getByRole('treegrid', { name: 'Outline' });
const cell = (grid: Locator, name: string | RegExp): Locator =>
  grid.getByRole('gridcell', { name, ...(typeof name === 'string' ? { exact: true } : {}) }).first();
const button = (page: Page, name: string): Locator => page.getByRole('button', { name, exact: true });

/** Begins a draft of the version of a model that is in force. */
async function draftOf(page: Page, model: string): Promise<string> {
  await page.goto('/models');
  await ready(page);
  await page.getByRole('row', { name: model }).getByRole('button', { name: 'Begin a draft' }).click();
  await page.waitForURL(/\/models\/[0-9a-f-]{36}/);
  await ready(page);
  return page.url();
}

/** The number of the version that customers get of a model today. */
async function inForce(page: Page, model: string): Promise<number> {
  await page.goto('/models');
  await ready(page);
  const said = await page.getByRole('row', { name: model }).getByRole('cell').nth(3).textContent();
  return Number(/\d+/.exec(said ?? '')?.[0]);
}

/** Types a rule as a sentence, as a new rule. */
async function rule(hand: Hand, sentence: string): Promise<void> {
  const { page } = hand;
  await hand.click(button(page, 'New rule'));
  await hand.click(page.locator('[data-code-field="Rule as a sentence"]'));
  await hand.press('Control+a');
  await hand.type(sentence);
  await hand.press('Escape');
  await expect(page.getByText('Type it as you would say it')).toBeVisible();
}

/** What it would change is worked out and looked at, and the draft is published. */
async function publish(hand: Hand, note: string, when?: string): Promise<void> {
  const { page } = hand;
  await hand.click(place(page, 'Versions'));
  await hand.click(button(page, 'Work it out'));
  await expect(page.getByText(/the same · /)).toBeVisible({ timeout: 90_000 });
  await hand.fill(page.getByLabel('What is new'), note);
  if (when !== undefined) {
    await hand.fill(page.getByRole('textbox', { name: 'In force from' }), when);
    await hand.press('Tab');
  }
  await hand.click(button(page, 'Publish'));
  await page.waitForURL('/models');
  await ready(page);
}

/** Pastes rows where the keyboard is, as if they had been copied from a spreadsheet. */
const paste = (page: Page, text: string): Promise<void> =>
  page.evaluate((copied) => {
    const data = new DataTransfer();
    data.setData('text/plain', copied);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true }),
    );
  }, text);

/** A floor scale of items, with extras of its own. */
async function beginScale(hand: Hand): Promise<void> {
  const { page } = hand;
  await page.goto('/models');
  await ready(page);
  await hand.click(button(page, 'New model'));
  await hand.fill(page.getByLabel('Name of the model'), 'Sill floor scale');
  await hand.fill(page.getByLabel('Item number', { exact: true }), 'SILL');
  await hand.fill(page.getByLabel('Item numbers, one a line'), 'SILL-0808-P\nSILL-1212-P\nSILL-1515-P');
  await hand.click(page.getByRole('button', { name: 'Begin a draft' }).last());
  await page.waitForURL(/\/models\/[0-9a-f-]{36}/);
  await ready(page);
  await expect(tryOut(page).locator('[data-row="floor"]')).toBeVisible();
  // Extras by the keyboard alone: a row moved out, and options moved into it.
  await hand.click(cell(outline(page), 'Sill floor scale 1.5 x 1.5 m, painted'));
  const add = async (turn: string | undefined, cells: readonly string[]): Promise<void> => {
    await hand.click(button(page, 'Add a row'));
    if (turn !== undefined) await hand.press(turn);
    await hand.cells(cells);
    await hand.press('Home');
  };
  await add('Alt+Shift+ArrowLeft', ['Extras', 'Zubehör']);
  await add('Alt+Shift+ArrowRight', ['Access ramp', 'Auffahrrampe', '', '', 'R']);
  await add(undefined, ['Pit frame', 'Grubenrahmen', '', '', 'P']);
  await add(undefined, ['Column', 'Säule', '', '', 'C']);
  await stored(page);
  await expect(tryOut(page).locator('[data-row="extras"]')).toBeVisible();
}

test('a floor scale is made from items, given rules as sentences, kept as tests, published, sold and built', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  await signIn(page, people.modeller);
  const hand = new Hand(page);
  await beginScale(hand);

  await hand.click(place(page, 'Rules'));
  await rule(
    hand,
    'When Floor scales is Sill floor scale 0.8 x 0.8 m, painted, Extras must not be Pit frame, because: The small scale has no frame.',
  );
  await rule(hand, 'Warn when Extras is Column: A column stands on its own foundation.');
  await rule(hand, 'Extras is usually Access ramp');
  await rule(hand, 'Note when Extras is Pit frame: The pit wants a drain.');
  await rule(
    hand,
    'When Floor scales is Sill floor scale 1.5 x 1.5 m, painted, Extras must not be Column, because: Its column stands elsewhere.',
  );
  // While it is typed it says what it does.
  await expect(page.getByText('It takes away 1 of 11 builds.')).toBeVisible();
  await stored(page);

  await hand.click(place(page, 'Number'));
  await hand.click(cell(page.getByRole('grid', { name: 'Number' }), /Code of an option/));
  await hand.click(button(page, 'Add a row'));
  await hand.cells(['Code of an option', 'extras', '-']);
  await expect(tryOut(page).getByText('SI-·-R')).toBeVisible();

  await hand.click(place(page, 'Price'));
  const prices = page.getByRole('region', { name: 'Price parts' });
  await hand.click(prices.getByRole('button', { name: 'Add a row' }));
  await hand.cells(['Setting up', 'SV-COMM', '', '', '1', 'extras = "column"']);
  await expect(prices.getByRole('gridcell', { name: /^\d[\d,.]*$/ }).first()).toBeVisible();
  await stored(page);

  await expect(tried(page, 'extras', 'Access ramp')).toBeChecked();
  await hand.click(button(page, 'Keep as a test'));
  await hand.click(tried(page, 'floor', '0.8 x 0.8 m'));
  await expect(tried(page, 'extras', 'Pit frame')).toContainText('swap');
  await hand.click(tried(page, 'extras', 'Column'));
  await expect(tryOut(page).getByText('A column stands on its own foundation.')).toBeVisible();
  await expect(tryOut(page).getByText('SI-A-C')).toBeVisible();
  await expect(tryOut(page).getByText('Complete')).toBeVisible();
  await hand.click(button(page, 'Keep as a test'));
  await hand.click(place(page, 'Tests'));
  await expect(page.getByText('green')).toHaveCount(2);

  await hand.click(place(page, 'Check-up'));
  await hand.click(button(page, 'Examine the model'));
  await expect(page.getByText('Nothing is wrong.')).toBeVisible();
  await publish(hand, 'The first.');
  await expect(page.getByRole('row', { name: 'Sill floor scale' })).toContainText('version 1');
  test.info().annotations.push({
    type: 'hand',
    description: `${String(hand.steps)} steps, ${hand.minutes.toFixed(1)} minutes`,
  });
  expect(hand.steps).toBeLessThan(150);
  expect(hand.minutes).toBeLessThan(10);

  const desk = await (await browser.newContext()).newPage();
  await signIn(desk, people.engineer);
  await openQuote(desk, 'callow', 'Callowhill Quarries Ltd');
  await configure(desk, 'Sill floor scale');
  await expect(desk.getByRole('heading', { name: /Sill floor scale · / })).toBeVisible();
  await option(desk, 'floor', 'Sill floor scale 1.2 x 1.2 m, painted').click();
  await desk.locator('[data-row="extras"]').getByRole('radio', { name: 'Pit frame' }).click();
  await expect(number(desk)).toHaveAccessibleName('Part number SI-B-P');
  await desk.keyboard.press('Control+Enter');
  await desk.waitForURL(/\/quotes\//);
  await ready(desk);
  await expect(desk.getByRole('row', { name: /Sill floor scale/ }).first()).toBeVisible();
  await desk.getByRole('button', { name: 'Mark as accepted' }).click();
  await desk.getByRole('button', { name: 'Accept and order' }).click();
  await desk.waitForURL(/\/orders\//);
  await desk.getByRole('link', { name: /^W-26-\d{4}-1$/ }).click();
  await expect(desk.getByText('SI-B-P')).toBeVisible();
  await desk.close();
});

/** The Monday after today, as it is typed and as it is told. */
function nextMonday(): string {
  const day = new Date();
  day.setUTCDate(day.getUTCDate() + ((8 - day.getUTCDay()) % 7 || 7));
  return day.toLocaleDateString('en-GB', {
    day: '2-digit',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  });
}

test('rows pasted from a spreadsheet become options with a rule, seen in the try-out, in force from Monday', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  await signIn(page, people.modeller);
  const hand = new Hand(page);
  const now = await inForce(page, 'Ridgeback');
  await draftOf(page, 'Ridgeback');
  await hand.click(cell(outline(page), 'Checker plate'));
  await paste(page, 'Timber deck\tTD\tRB-DECK-P\nSteel mesh\tG\tNO-SUCH\n');
  // Before anything is done it is told what each row becomes, and what is wrong in it.
  const preview = page.getByRole('dialog', { name: 'What the rows become' });
  await expect(preview.getByRole('row', { name: /New option Timber deck surface.timberDeck/ })).toBeVisible();
  await expect(preview.getByText('The code G is taken. There is no item NO-SUCH.')).toBeVisible();
  await hand.click(preview.getByRole('button', { name: 'Leave it' }));
  await hand.click(cell(outline(page), 'Checker plate'));
  await paste(page, 'Timber deck\tTD\tRB-DECK-P\nSteel mesh\tSM\tRB-DECK-G\n');
  await hand.click(preview.getByRole('button', { name: 'Take 2 rows' }));
  await expect(tried(page, 'surface', 'Timber deck')).toBeVisible();

  await hand.click(place(page, 'Rules'));
  await rule(hand, 'When Surface is Timber deck, Mounting must not be Pit, because: Timber in a pit rots.');
  await stored(page);
  await hand.click(tried(page, 'surface', 'Timber deck'));
  await expect(tryOut(page).locator('[data-row="mounting"]')).toContainText('swap');
  await hand.click(place(page, 'Versions'));
  await expect(page.getByText('Timber deck (timberDeck) added to Surface (surface), Options')).toBeVisible();
  const monday = nextMonday();
  await publish(hand, 'Timber decks.', monday);
  await expect(page.getByRole('row', { name: /^Ridgeback/ })).toContainText(`from ${monday}`);

  // Until then customers get what they got, on a build of today as well.
  expect(await inForce(page, 'Ridgeback')).toBe(now);
  const desk = await (await browser.newContext()).newPage();
  await signIn(desk, people.engineer);
  await openQuote(desk, 'norrvik', 'Norrvik Skog AB');
  await configure(desk);
  await expect(option(desk, 'surface', 'Checker plate')).toBeVisible();
  await expect(option(desk, 'surface', 'Timber deck')).toHaveCount(0);
  await desk.close();
});

test('a used option is not taken away unseen, and two drafts come together where both changed the same', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await signIn(page, people.modeller);
  const hand = new Hand(page);
  const before = await inForce(page, 'Tarn');
  const first = await draftOf(page, 'Tarn');
  const second = await draftOf(page, 'Tarn');
  const rename = async (name: string): Promise<void> => {
    await hand.click(cell(outline(page), '20 t'));
    await hand.type(name);
    await hand.press('Enter');
    await stored(page);
  };
  await rename('Twenty tonnes');
  await page.goto(first);
  await ready(page);
  // What rules say of it is shown before it goes, and it stays where somebody thinks better of it.
  await hand.click(cell(outline(page), '10 t'));
  await hand.press('Control+Delete');
  const asked = page.getByRole('dialog', { name: 'It is used' });
  await expect(asked.getByRole('listitem').first()).toBeVisible();
  await hand.click(asked.getByRole('button', { name: 'Keep it' }));
  await expect(cell(outline(page), '10 t')).toBeVisible();
  await rename('20 tonnes');
  await publish(hand, 'Names written out.');
  const next = await inForce(page, 'Tarn');
  expect(next).toBeGreaterThan(before);

  // The other draft is behind by now; what both changed differently is chosen, and nothing else is asked.
  await page.goto(second);
  await ready(page);
  await expect(page.getByText('Another version was published since.')).toBeVisible();
  await hand.click(place(page, 'Versions'));
  const conflict = page.getByRole('group', { name: 'Both changed this: choose one.' });
  await expect(conflict).toHaveCount(1);
  await hand.click(conflict.getByRole('radio').first());
  await hand.click(page.getByRole('button', { name: `Bring up to date with version ${String(next)}` }));
  await expect(page.getByText('Another version was published since.')).toHaveCount(0);
  await ready(page);
  await expect(cell(outline(page), 'Twenty tonnes')).toBeVisible();
  await publish(hand, 'In words.');
  expect(await inForce(page, 'Tarn')).toBe(next + 1);

  // Withdrawn, the one before is in force again.
  await draftOf(page, 'Tarn');
  await hand.click(place(page, 'Versions'));
  await hand.click(
    page
      .getByRole('row', { name: new RegExp(`^${String(next + 1)} `) })
      .getByRole('button', { name: 'Withdraw' }),
  );
  const why = page.getByRole('dialog', { name: `Why version ${String(next + 1)} is withdrawn` });
  await hand.fill(why.getByRole('textbox'), 'Too long for the label.');
  await hand.click(why.getByRole('button', { name: 'Withdraw' }));
  await expect(page.getByText('withdrawn: Too long for the label.')).toBeVisible();
  expect(await inForce(page, 'Tarn')).toBe(next);
});
