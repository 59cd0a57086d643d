/** What is told of items where it is used: in formulas of a model, on the Bench, in a document; and steps taken back. */
import { expect, test } from '@playwright/test';
import { inDays } from '../src/services/kernel/clock';
import { configure, demoQuote, openQuote, people, quoteOf, ready, signIn } from './people';

test('facts of items are taken over into a model, and read by its formulas', async ({ page }) => {
  await signIn(page, people.modeller);
  const { models } = (await (await page.request.get('/api/models')).json()) as {
    models: { id: string; versions: { id: string }[] }[];
  };
  const version = models.find(({ id }) => id === 'plumb')?.versions[0]?.id;
  const draft = (await (
    await page.request.post('/api/drafts', { data: { name: 'Facts', from: { is: 'version', version } } })
  ).json()) as { id: string };
  await page.goto(`/models/${draft.id}`);
  await ready(page);
  await page.getByRole('button', { name: /^Figures/ }).click();
  await page.getByRole('button', { name: 'Facts of items…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Facts of items' });
  await expect(dialog.getByRole('checkbox', { name: 'Rated load kg' })).toBeChecked();
  await expect(dialog.getByRole('row', { name: /PL-CELL-05000/ })).toContainText('5,000');
  await dialog.getByRole('checkbox', { name: 'Stainless' }).check();
  await expect(dialog.getByRole('button', { name: 'Take over what differs' })).toBeDisabled();
  await dialog.getByRole('button', { name: 'Close' }).last().click();

  // A figure that asks whether the cell is of stainless steel comes to a value; what no item is told is no formula.
  const figures = page.getByRole('grid', { name: 'Figures' });
  await figures
    .getByRole('row', { name: /Utilisation/ })
    .getByRole('gridcell')
    .nth(2)
    .click();
  const formula = page.getByRole('textbox', { name: 'Formula' });
  await formula.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('if cell.stainless then 1 else 0');
  await expect(formula).toHaveText('if cell.stainless then 1 else 0');
  // What is proposed goes once nothing is left to propose; only then does Enter keep.
  await expect(page.locator('[data-code-field="Formula"]').getByRole('option')).toHaveCount(0);
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => {
      const { document } = (await (await page.request.get(`/api/drafts/${draft.id}`)).json()) as {
        document: { calculations: { id: string; formula: string }[]; items: Record<string, unknown> };
      };
      return [
        document.calculations.find(({ id }) => id === 'utilisation')?.formula,
        document.items['PL-CELL-00500'],
      ];
    })
    .toEqual(['if cell.stainless then 1 else 0', { ratedLoad: '500', stainless: 'true' }]);
});

test('pictures of options are looked at large, one after another', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await page.getByRole('button', { name: 'What Approach parts means' }).click();
  const pictures = page.getByRole('list', { name: 'Pictures' });
  await expect(pictures.getByRole('button')).toHaveCount(8);
  await pictures.getByRole('button', { name: 'Traffic light set' }).click();
  const large = page.getByRole('dialog', { name: 'Traffic light set' });
  const shown = large.getByRole('img', { name: 'Traffic light set' });
  await expect.poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(240);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('dialog', { name: 'Barrier' })).toContainText('6 of 8');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('data sheets of what is on a quote are proposed for its document', async ({ page }) => {
  await signIn(page, people.engineer);
  const id = await openQuote(page, 'norrvik', 'Norrvik Skog AB');
  const { version } = await quoteOf(page, id);
  await page.request.post(`/api/quotes/${id}/lines`, { data: { version, sku: 'SILL-1212-X', quantity: 1 } });
  await page.goto(`/quotes/${id}/paper`);
  await ready(page);
  const proposed = page.getByRole('group', { name: 'Data sheets of what is on the quote' });
  await page.getByRole('button', { name: 'Settings of Annexes' }).click();
  await proposed.getByRole('button', { name: /SILL-1212-X/ }).click();
  await expect(proposed).toHaveCount(0);
  await expect(page.getByText('SILL-1212-X.pdf')).toBeVisible();
  await expect
    .poll(async () => {
      const paper = (await (await page.request.get(`/api/quotes/${id}/paper`)).json()) as {
        composition: { annexes: { name: string }[] };
      };
      return paper.composition.annexes.map(({ name }) => name);
    })
    .toEqual(['SILL-1212-X.pdf']);
});

test('steps of a price change are taken back and done again, and what it would do goes out as a file', async ({
  page,
}) => {
  await signIn(page, people.modeller);
  const change = (await (
    await page.request.post('/api/prices/changes', {
      data: { name: 'Step by step', inForce: inDays(50), note: '' },
    })
  ).json()) as { id: string };
  await page.goto(`/prices/changes/${change.id}`);
  await ready(page);
  await expect(page.getByRole('button', { name: 'Take back', exact: true }).first()).toBeDisabled();
  await page.getByRole('combobox', { name: 'Family' }).selectOption({ label: 'Floor scales' });
  await page.getByRole('textbox', { name: /By the formula/ }).fill('+2 %');
  await page.getByRole('button', { name: 'Make', exact: true }).click();
  await expect(page.getByText(/dearer/)).toBeVisible();
  await page.getByRole('button', { name: 'Take back: formula (Wen Castellane)' }).click();
  await expect(page.getByText(/dearer/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Do again: formula (Wen Castellane)' }).click();
  await expect(page.getByText(/dearer/)).toBeVisible();

  await page.getByRole('tab', { name: 'What it would do' }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByText(/to be decided, \d+ with other figures/)).toBeVisible({ timeout: 60_000 });
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV' }).click();
  expect((await download).suggestedFilename()).toBe('Step by step.csv');
});

test('the demo tells of every state that a quote can be in, and of three years before', async ({ page }) => {
  await signIn(page, people.manager);
  const states = new Set<string>();
  for (let at = 0, more = true; more; at += 1) {
    const { rows, count, size } = (await (
      await page.request.get(`/api/quotes?page=${String(at)}`)
    ).json()) as { rows: { state: string }[]; count: number; size: number };
    for (const { state } of rows) states.add(state);
    more = (at + 1) * size < count;
  }
  for (const state of ['draft', 'ready', 'signOff', 'sent', 'expired', 'lost', 'accepted'])
    expect([...states]).toContain(state);
  const { order } = await demoQuote(page, 'Slate Row Depot, exit lane');
  expect(order?.number).toMatch(/^O-/);
});
