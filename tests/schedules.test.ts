/** A quarry with six positions: typed, pasted and taken from a quote, and its specification package opened. */
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { expect, test, type Download, type Page } from '@playwright/test';
import { pdfLetters } from '../src/services/paper/testing';
import { demoQuote, people, ready, signIn } from './people';

const bytesOf = async (download: Promise<Download>): Promise<Uint8Array> =>
  new Uint8Array(readFileSync(await (await download).path()));

/** Makes a package as it is asked for, and opens it. */
async function packed(page: Page, as: string): Promise<Uint8Array> {
  await page.getByRole('button', { name: 'Specification package' }).click();
  const dialog = page.getByRole('dialog', { name: 'Specification package' });
  await dialog.getByLabel('As', { exact: true }).selectOption({ label: as });
  await dialog.getByRole('button', { name: 'Make it' }).click();
  const link = dialog.getByRole('link', { name: 'Open', exact: true });
  await link.waitFor();
  const download = page.waitForEvent('download');
  await link.click();
  const bytes = await bytesOf(download);
  await dialog.getByRole('button', { name: 'Close' }).first().click();
  return bytes;
}

test('a quarry with six positions goes out as a package of sheets', async ({ page }) => {
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await signIn(page, people.engineer);
  const quote = await demoQuote(page, 'Timber gate, running it');
  await page.goto('/schedules');
  await ready(page);
  await page.getByRole('button', { name: 'New schedule' }).click();
  const dialog = page.getByRole('dialog', { name: 'New schedule' });
  await dialog.getByLabel('Name', { exact: true }).fill('North quarry');
  await dialog.getByLabel('Site', { exact: true }).fill('By the river');
  await dialog.getByRole('combobox').fill('Norrvik');
  await dialog.getByRole('option').first().click();
  await dialog.getByRole('button', { name: 'Begin' }).click();
  await page.waitForURL(/\/schedules\/[\w-]{36}/);
  await ready(page);

  // What stands on the quote is taken, but for what is done and licensed.
  await page.getByRole('button', { name: 'Take lines of a quote' }).click();
  await page.getByRole('menuitem', { name: new RegExp(quote.number) }).click();
  const grid = page.getByRole('grid', { name: 'Positions' });
  await expect(grid.getByRole('row', { name: /Ridgeback 1/ })).toBeVisible();
  await expect(grid.getByRole('row', { name: /Delivery/ })).toHaveCount(0);

  // Rows from a spreadsheet, one with a tag that is there already.
  const build = quote.lines.find(({ buildId }) => buildId !== undefined);
  const name = `Ridgeback, ${build?.partNumber ?? ''}`;
  const sheet = [
    'Tag,Area,What,Quantity,Remark',
    `Gate 1,North,"${name}",1,beside the road`,
    `Gate 2,North,"${name}",1,`,
    'gate  1,South,Ticket hut,1,',
    'Hut,South,YE-KIOSK,2,',
  ].join('\n');
  await page.locator('input[type="file"]').setInputFiles({
    name: 'quarry.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(sheet),
  });
  await expect(page.getByRole('status').filter({ hasText: 'stands in row' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toBeDisabled();
  await grid
    .getByRole('row', { name: /Ticket hut/ })
    .getByRole('gridcell')
    .first()
    .click();
  await page.keyboard.type('Gate 3');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept.', { exact: true })).toBeVisible();
  // The item number was read as that item, the name of the build as that build.
  await expect(grid.getByRole('row', { name: /Hut/ }).last()).toContainText('YE-KIOSK');
  const id = page.url().split('/').pop() ?? '';
  const view = (await (await page.request.get(`/api/schedules/${id}`)).json()) as {
    positions: { tag: string; build: string | null }[];
  };
  const tags = view.positions.map(({ tag }) => tag);
  expect(view.positions.length).toBeGreaterThanOrEqual(6);
  expect(view.positions.filter((each) => each.build !== null).map(({ tag }) => tag)).toEqual([
    'Ridgeback 1',
    'Gate 1',
    'Gate 2',
  ]);

  const files = unzipSync(await packed(page, 'One folder (ZIP)'));
  const paths = Object.keys(files);
  for (const sheetOf of ['Ridgeback 1', 'Gate 1', 'Gate 2'])
    expect(paths).toContain(`North quarry/positions/${sheetOf}.pdf`);
  expect(paths).toContain('North quarry/Site schedule.xlsx');
  const gate = await pdfLetters(files['North quarry/positions/Gate 1.pdf'] as Uint8Array);
  expect(gate.join('')).toContain('besidetheroad');
  const schedule = (await pdfLetters(files['North quarry/Site schedule.pdf'] as Uint8Array)).join('');
  for (const tag of tags) expect(schedule).toContain(tag.replace(/\s+/g, ''));

  const pages = await pdfLetters(await packed(page, 'One document (PDF)'));
  expect(pages[0]).toContain('Bytheriver');
  expect(pages.filter((text) => text.includes('Gate2·'))).toHaveLength(1);

  // It stands on the shelf, and says once that the schedule is another by now.
  await page.getByRole('button', { name: 'Packages' }).click();
  await expect(page.getByRole('menuitem')).toHaveCount(2);
  await page.keyboard.press('Escape');
  await grid
    .getByRole('row', { name: /Gate 3/ })
    .getByRole('gridcell')
    .nth(4)
    .click();
  await page.keyboard.type('later');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept.', { exact: true })).toBeVisible();
  await page.goto('/shelf');
  await ready(page);
  await page.getByLabel('Customer, number or name').fill('North quarry');
  await expect(page.getByRole('row', { name: /moved on since/ })).toHaveCount(2);
});

test('a schedule gets another customer, and is taken away after a question', async ({ page }) => {
  await signIn(page, people.engineer);
  const begun = await page.request.post('/api/schedules', { data: { name: 'South quarry', site: '' } });
  const { id } = (await begun.json()) as { id: string };
  await page.goto(`/schedules/${id}`);
  await ready(page);
  const change = page.getByRole('button', { name: 'Name, site and customer' });
  await change.click();
  const dialog = page.getByRole('dialog', { name: 'Name, site and customer' });
  await dialog.getByLabel('Name', { exact: true }).fill('South quarry, lanes');
  // Words that are no customer are not kept as none.
  await dialog.getByRole('combobox').fill('nobody of this name');
  await expect(dialog.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await dialog.getByRole('combobox').fill('Norrvik');
  await dialog.getByRole('option').first().click();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('heading', { name: 'South quarry, lanes' })).toBeVisible();
  await expect(page.getByText(/Norrvik/).first()).toBeVisible();

  await change.click();
  await expect(dialog.getByRole('combobox')).toHaveValue(/Norrvik/);
  await dialog.getByRole('button', { name: 'Take this schedule away' }).click();
  const sure = page.getByRole('dialog', { name: 'Take “South quarry, lanes” away?' });
  await sure.getByRole('button', { name: 'Keep it' }).click();
  expect((await page.request.get(`/api/schedules/${id}`)).status()).toBe(200);
  await change.click();
  await dialog.getByRole('button', { name: 'Take this schedule away' }).click();
  await sure.getByRole('button', { name: 'Take it away' }).click();
  await page.waitForURL(/\/schedules$/);
  expect((await page.request.get(`/api/schedules/${id}`)).status()).toBe(404);
});
