/**
 * A recycler in dust zone 21 wants two terminals, each in its own right, with dates and words typed while
 * talking.
 */
import { expect, test } from '@playwright/test';
import { configure, number, openQuote, option, people, ready, saved, signIn } from './people';

test('two terminals inside a weighbridge, each with choices of its own', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'length', /18 m/).click();
  const beacon = (index: number, row: string) => `terminals/beacon/${String(index)}/${row}`;

  // One terminal comes by itself, with a part number of its own.
  await expect(page.getByRole('region', { name: 'Beacon 1 · Case' })).toContainText(/BC-DLM-10KT-EN\../);
  await expect(page.getByRole('region', { name: 'Beacon 2 · Case' })).toHaveCount(0);
  const many = page.getByRole('textbox', { name: 'Beacon: how many' });
  await many.fill('2');
  await many.press('Enter');
  await expect(page.getByRole('region', { name: 'Beacon 2 · Case' })).toBeVisible();
  await option(page, beacon(2, 'display'), /Colour touch/).click();
  await expect(page.getByRole('region', { name: 'Beacon 2 · Case' })).toContainText(/BC-DTM-10KT-EN\../);

  // A rule of the weighbridge reaches into both.
  await option(page, 'dust', /21/).click();
  for (const index of [1, 2])
    await expect(option(page, beacon(index, 'housing'), /Stainless/)).toHaveAttribute('aria-checked', 'true');
  await option(page, beacon(2, 'housing'), /IP66/).click();
  const why = page.getByRole('region', { name: 'Why IP66 wall is not available' });
  await expect(why).toContainText('In dust zone 21 only the stainless terminal may stand.');
  await page.keyboard.press('Escape');

  // Words for the plate have their room, which the housing decides.
  const plate = page.getByRole('textbox', { name: 'Beacon 1, Engraved plate text' });
  await plate.fill('Foss Road, in');
  await plate.press('Enter');
  await expect(page.getByRole('row', { name: /BC-PLATE/ })).toBeVisible();
  await page.getByRole('tab', { name: /^Operations/ }).click();
  await expect(page.getByText('Engrave the plate: Foss Road, in')).toBeVisible();

  // A term does not start in the past; Docket wants a terminal with Ethernet.
  await option(page, 'docket', /Site licence/).click();
  const start = page.getByRole('textbox', { name: 'Start of the term' });
  await start.fill('2036-02-29');
  await start.press('Enter');
  await expect(start).toHaveValue('29 Feb 2036');
  // Days are typed as one says them, or picked; what is none is told, and stays.
  await start.fill('1.3.36');
  await start.press('Enter');
  await expect(start).toHaveValue('01 Mar 2036');
  await start.fill('soon');
  await start.press('Enter');
  await expect(page.locator('[data-row="startDate"]')).toContainText('"soon" is not a day.');
  await start.press('Escape');
  await start.press('ArrowDown');
  const calendar = page.getByRole('dialog', { name: 'Calendar, Start of the term' });
  await expect(calendar).toContainText('March 2036');
  await calendar.getByRole('button', { name: /17/ }).click();
  await expect(start).toHaveValue('17 Mar 2036');
  await expect(calendar).toBeHidden();
  await start.fill('2026-01-01');
  await start.press('Enter');
  await expect(page.getByText('A term does not start in the past.').first()).toBeVisible();
  await page.keyboard.press('Escape');

  // An optional number can be taken back to nothing.
  const way = page.getByRole('textbox', { name: 'Delivery, km' });
  await way.fill('250');
  await way.press('Enter');
  await page.getByRole('complementary').getByRole('button', { name: /^List/ }).click();
  await expect(
    page.getByRole('group', { name: 'How List comes about' }).getByText('Delivery', { exact: false }).first(),
  ).toBeVisible();
  await way.fill('');
  await way.press('Enter');
  await expect(way).toHaveValue('');

  // All of it is there after a reload.
  await saved(page);
  await page.reload();
  await ready(page);
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-A-P-S-D-1-3-O(\+T\d{4})?$/);
  await expect(page.getByRole('textbox', { name: 'Beacon 1, Engraved plate text' })).toHaveValue(
    'Foss Road, in',
  );
  await expect(option(page, beacon(2, 'display'), /Colour touch/)).toHaveAttribute('aria-checked', 'true');
  await expect(start).toHaveValue('17 Mar 2036');
});
