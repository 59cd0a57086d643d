/** From the customer's name to the work order, as a sales engineer does it. */
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { ownPerson } from './own-person';
import {
  atDesk,
  configure,
  number,
  openQuote,
  openQuoteByHand,
  option,
  people,
  ready,
  saved,
  signIn,
  signInByHand,
} from './people';

test('a quarry gets a weighbridge: configured, priced, quoted, accepted, made', async ({ page }) => {
  await signInByHand(page, people.engineer);
  await expect(page.getByRole('heading', { name: 'Good day, Mara' })).toBeVisible();
  await openQuoteByHand(page, 'callow', 'Callowhill Quarries Ltd');
  await expect(page.getByText('This quote has no lines.')).toBeVisible();
  await expect(page.getByText('North Face Quarry, Gate 2')).toBeVisible();
  const quoteUrl = page.url();

  // The product comes from the catalogue.
  await page.goto(`/catalogue?quote=${quoteUrl.split('/').pop() ?? ''}`);
  await ready(page);
  await page.getByLabel('Find in the catalogue').fill('ridge');
  await expect(page.getByText('One item · United Kingdom 2026')).toBeVisible();
  await page.getByRole('button', { name: 'Configure Ridgeback modular weighbridge' }).click();
  await page.waitForURL(/\/bench\//);
  await ready(page);

  await expect(number(page)).toHaveAccessibleName('Part number RB-···-···-·-P-S-D-0-3-O/·+·');
  await expect(page.getByRole('button', { name: 'Duty 1 to do' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Put on quote' })).toBeDisabled();
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'length', /18 m/).click();
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-A-P-S-D-0-3-O\+T\d{4}$/);
  await expect(page.getByText('Complete. This build can be sold and made.')).toBeVisible();

  // Price, number and list of materials move with each choice; the difference is told before.
  const net = page.getByTestId('net');
  await expect(net).toHaveText('23,935.80');
  await expect(option(page, 'finish', /Hot-dip galvanised/)).toContainText('+2,700.00');
  await option(page, 'finish', /Hot-dip galvanised/).click();
  await expect(net).toHaveText('26,635.80');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-A-P-S-D-0-G-O\+T\d{4}$/);
  await expect(page.getByRole('row', { name: /RM-ZINC/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /RM-BEAM Main beam, 300 mm 12 × 6 m 74.88/ })).toBeVisible();
  await option(page, 'approachParts', /Steel ramps/).click();
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-A-P-S-D-0-G-O\/R\+T\d{4}$/);

  // What cannot be had at all says why on its line.
  await expect(
    page
      .locator('[data-row="approval"]')
      .getByText('In the EU and the UK trade approval is by OIML, in North America by NTEP.'),
  ).toBeVisible();
  // What would need another decision to change says why, and how.
  const pit = option(page, 'mounting', /^Pit/);
  await expect(pit).toContainText('needs 1 change');
  await pit.click();
  const why = page.getByRole('region', { name: 'Why Pit is not available' });
  await expect(why).toContainText('You chose Steel ramps (pair): Yes.');
  await expect(why).toContainText('A pit or half-pit deck sits level with the road, so ramps are barred.');
  await expect(why.getByRole('button', { name: /Change Steel ramps \(pair\) from Yes to No/ })).toBeVisible();
  await page.keyboard.press('1');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-A-P-P-D-0-G-O\+T\d{4}$/);
  await page.keyboard.press('Control+z');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-A-P-S-D-0-G-O\/R\+T\d{4}$/);

  // A custom width shows its input, and only a value on a step is taken.
  await expect(page.getByLabel('Custom width, m')).toHaveCount(0);
  await option(page, 'width', /Custom/).click();
  const width = page.getByLabel('Custom width, m');
  await width.fill('3.33');
  await width.press('Enter');
  await expect(page.getByText('3.33 m is between two steps. Take 3.3 m or 3.35 m.')).toBeVisible();
  await width.fill('9');
  await width.press('Enter');
  await expect(page.getByText('9 m is outside 2.5 to 4.2 m.')).toBeVisible();
  await width.fill('335cm');
  await width.press('Enter');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-X\d{4}-P-S-D-0-G-O\/R$/);
  await saved(page);

  await page.getByRole('button', { name: 'Put on quote' }).click();
  await page.waitForURL(quoteUrl);
  await ready(page);
  await expect(page.getByRole('link', { name: /^RB-060-180-X/ })).toBeVisible();

  // Quantity and discount are typed into the line.
  const before = await page.getByTestId('net').textContent();
  await page.getByLabel('Quantity 1').fill('2');
  await page.getByLabel('Quantity 1').press('Enter');
  await expect(page.getByTestId('net')).not.toHaveText(before ?? '');
  const doubled = Number((await page.getByTestId('net').textContent())?.replaceAll(',', ''));
  expect(doubled).toBeCloseTo(2 * Number(before?.replaceAll(',', '')), 2);
  const discount = page.getByLabel('Discount % 1');
  await discount.fill('101');
  await discount.press('Enter');
  await expect(page.getByText('A discount is from 0 to 100 %.')).toBeVisible();
  await expect(discount).toHaveValue('101');
  await discount.fill('5');
  await discount.press('Enter');
  const unit = Number(before?.replaceAll(',', ''));
  const expected = 2 * (Math.round(unit * 95 + 1e-6) / 100);
  await expect
    .poll(async () => Number((await page.getByTestId('net').textContent())?.replaceAll(',', '')))
    .toBeCloseTo(expected, 2);
  await page.getByLabel('Item number').fill('sv-deliv');
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByText('Delivery, per 100 km')).toBeVisible();
  const netText = (await page.getByTestId('net').textContent()) ?? '';

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: 'More' })
      .click()
      .then(() => page.getByRole('menuitem', { name: 'Quotation PDF' }).click()),
  ]);
  expect(download.suggestedFilename()).toMatch(/^Q-26-\d{4}-R1\.pdf$/);
  const bytes = readFileSync(await download.path());
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(bytes.length).toBeGreaterThan(10_000);

  await page.getByRole('button', { name: 'Mark as accepted' }).click();
  await expect(page.getByRole('dialog')).toContainText(`becomes an order over ${netText} GBP`);
  await page.getByRole('button', { name: 'Accept and order' }).click();
  await page.waitForURL(/\/orders\//);
  await expect(page.getByText(`${netText} GBP`)).toBeVisible();

  await page.getByRole('link', { name: /^W-26-\d{4}-1$/ }).click();
  await expect(page.getByRole('heading', { name: /^Work order W-26/ })).toBeVisible();
  await expect(page.getByText(/^RB-060-180-X\d{4}-P-S-D-0-G-O\/R$/)).toBeVisible();
  // Two pieces: twice 4 x 18 m of beam with 4 % scrap.
  await expect(page.getByRole('row', { name: 'RM-BEAM Main beam, 300 mm 24 × 6 m 149.76 m' })).toBeVisible();
  await expect(
    page.getByRole('row', { name: /Weld 3 modules to drawing, surface Checker plate, capacity 60 t\./ }),
  ).toBeVisible();
  await expect(page.getByRole('region', { name: 'Operations' }).getByRole('row')).toHaveCount(9);

  await page.goto(quoteUrl);
  await ready(page);
  await expect(page.getByText('Accepted', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Discount % 1')).toBeDisabled();
  await page.getByRole('link', { name: /^RB-060/ }).click();
  await page.waitForURL(/\/bench\//);
  await ready(page);
  await expect(page.getByText('The quote is accepted; the build is shown as sold.')).toBeVisible();
});

test('the whole Bench by keyboard: next to do, arrows, Enter, letters, undo', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'norrvik', 'Norrvik Skog AB');
  await configure(page);
  await expect(page.locator('[data-row="vehicle"] [data-tab]').first()).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(option(page, 'vehicle', /Articulated/)).toBeChecked();
  await page.keyboard.press('n');
  await expect(page.locator('[data-row="length"] [data-tab]').first()).toBeFocused();
  await page.keyboard.press('c');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Custom length, m')).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByLabel('Custom length, m')).toBeFocused();
  await page.keyboard.type('13,3');
  await page.keyboard.press('Enter');
  await expect(page.getByText('13.3 m is between two steps. Take 13 m or 13.5 m.')).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('44ft');
  await page.keyboard.press('Enter');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-135-A-P-S-D-0-3-O\+T\d{4}$/);
  await saved(page);
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await expect(page.getByRole('link', { name: /^RB-060-135-A-P-S-D-0-3-O(\+T\d{4})?$/ })).toBeVisible();
});

test('decisions made faster than they are worked out are all kept, and survive a reload', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'brannoch', 'Brannoch Aggregates plc');
  await configure(page);
  await page.evaluate(() => {
    const click = (row: string, text: string) => {
      const tabs = [...document.querySelectorAll<HTMLElement>(`[data-row="${row}"] [data-tab]`)];
      tabs.find((tab) => tab.textContent.includes(text))?.click();
    };
    click('vehicle', 'Road train');
    click('length', '24 m');
    click('surface', 'Concrete');
    click('dust', 'Zone 22');
  });
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-080-240-A-C-S-D-2-3-O\/W\+K040\+T\d{4}$/);
  await saved(page);
  await page.reload();
  await ready(page);
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-080-240-A-C-S-D-2-3-O\/W\+K040\+T\d{4}$/);
  await expect(option(page, 'approachParts', /Walkways/)).toContainText('follows');
});

test('the other language, the dark theme and the search-or-do field', async ({ page }) => {
  await atDesk(page, await ownPerson(people.second));
  const [german, english] = [
    page.getByRole('link', { name: 'Angebote' }),
    page.getByRole('link', { name: 'Quotes' }),
  ];
  await expect(german).toBeVisible();
  await page.getByRole('button', { name: 'EN, English' }).click();
  await expect(english).toBeVisible();
  await ready(page);
  await page.getByRole('button', { name: 'DE, Deutsch' }).click();
  await expect(german).toBeVisible();
  await ready(page);
  await page.getByRole('button', { name: /Dunkel/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('tannbruck');
  await page.getByRole('option', { name: /Wertstoffhof/ }).click();
  await page.waitForURL(/\/quotes\//);
  await expect(page.getByText('6.408,64').first()).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
});
