/**
 * What a hand does to the Bench: before the page is ready, faster than it draws, and by taking back what it
 * typed.
 */
import { expect, test, type Page } from '@playwright/test';
import { number, option, people, ready, saved, signIn, atDesk } from './people';

/** A new build, and its page by address alone. */
async function begin(page: Page, modelId: string): Promise<string> {
  const [customer] = (await (await page.request.get('/api/customers?find=callow')).json()) as {
    id: string;
  }[];
  const { id: quoteId } = (await (
    await page.request.post('/api/quotes', { data: { customerId: customer?.id, title: '' } })
  ).json()) as { id: string };
  return (
    (await (await page.request.post('/api/builds', { data: { quoteId, modelId } })).json()) as { id: string }
  ).id;
}

test('keys before the page is ready, on a machine eight times as slow, choose what they say', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  const build = await begin(page, 'ridgeback');
  const slow = await page.context().newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 8 });
  await page.goto(`/bench/${build}`, { waitUntil: 'commit' });
  await page.locator('[data-row="vehicle"] [data-tab]').first().waitFor({ state: 'attached' });
  // Nothing answers yet; all this is typed in one go.
  for (const key of ['r', 'o', 'a', 'd', 'Enter', 'n', '2', '4', 'Enter', 'F1', 'Tab'])
    await page.keyboard.press(key);
  await expect(option(page, 'vehicle', /Road train/)).toBeChecked();
  await expect(option(page, 'length', /24 m/)).toBeChecked();
  // The help of that row was asked for after it, and the keyboard went on from there.
  await expect(page.locator('[data-row="length"]').getByRole('note')).toBeVisible();
  await expect(page.locator('[data-row="length"] [data-tab]:focus')).toHaveCount(0);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  await saved(page);
  await page.reload();
  await ready(page);
  await expect(option(page, 'vehicle', /Road train/)).toBeChecked();
  await expect(option(page, 'length', /24 m/)).toBeChecked();
});

test('a part number pasted before the page is ready is read back, and so is one pasted behind a key', async ({
  page,
}) => {
  await atDesk(page, people.engineer);
  const build = await begin(page, 'ridgeback');
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.evaluate(() => navigator.clipboard.writeText('RB-080-180-B-C-P-D-0-G-O/L'));
  const slow = await page.context().newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 8 });
  await page.goto(`/bench/${build}`, { waitUntil: 'commit' });
  await page.locator('[data-row="vehicle"] [data-tab]').first().waitFor({ state: 'attached' });
  await page.keyboard.press('Control+v');
  await expect(option(page, 'capacity', /80 t/)).toBeChecked();
  await expect(option(page, 'mounting', /^Pit/)).toBeChecked();
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  await page.evaluate(() => navigator.clipboard.writeText('RB-060-180-A-P-S-D-0-3-O/RL'));
  await option(page, 'mounting', /^Surface/).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+v');
  await expect(
    page.getByRole('status').filter({ hasText: 'RB-060-180-A-P-S-D-0-3-O/RL is read back as a build.' }),
  ).toBeVisible();
  await expect(option(page, 'capacity', /60 t/)).toBeChecked();
});

test('a number, a day and a text that are emptied are taken back', async ({ page }) => {
  await signIn(page, people.engineer);
  await page.goto(`/bench/${await begin(page, 'ridgeback')}`);
  await ready(page);
  await option(page, 'width', /Custom/).click();
  const width = page.getByRole('textbox', { name: 'Custom width, m' });
  await width.fill('3.1');
  await width.press('Enter');
  await expect(page.locator('[data-row="customWidth"]')).toContainText('yours');
  await width.fill('');
  await width.press('Enter');
  await expect(page.locator('[data-row="customWidth"]')).not.toContainText('yours');
  await saved(page);

  await page.goto(`/bench/${await begin(page, 'beacon')}`);
  await ready(page);
  const plate = page.locator('[data-row="plateText"] input');
  const before = await number(page).getAttribute('aria-label');
  await plate.fill('Gate');
  await plate.press('Enter');
  await expect(number(page)).toHaveAccessibleName(/\+E/);
  await plate.fill('');
  await plate.press('Enter');
  await expect(number(page)).toHaveAccessibleName(before ?? '');
});

test('letters are counted as people see them, and what another decision changed is marked', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  await page.goto(`/bench/${await begin(page, 'beacon')}`);
  await ready(page);
  const [row, plate] = [page.locator('[data-row="plateText"]'), page.locator('[data-row="plateText"] input')];
  // Five letters to whoever reads them; some are made of several signs.
  await plate.fill('Åse👩‍🌾🇸🇪');
  await expect(row).toContainText('5 of 40');
  // Longer than any plate: it stays to be mended, and nothing is cut from it unseen.
  await plate.fill('x'.repeat(41));
  await plate.press('Enter');
  await expect(row.getByRole('alert')).toContainText('41');
  await expect(plate).toHaveValue('x'.repeat(41));
  // Longer than the desk housing has room for: the housing moves, and says so.
  await plate.fill('Weighhouse number one, east');
  await plate.press('Enter');
  await expect(page.locator('[data-row="housing"]').getByRole('radio', { checked: true })).not.toHaveText(
    /Desk/,
  );
  // Told to who does not see it, in one sentence.
  await expect(page.locator('[data-said]')).toHaveText(/^Also changed: Housing .+\. Net [\d.,]+ GBP\.$/);
  await page.getByRole('tab', { name: /^Also changed/ }).click();
  await expect(page.getByRole('tabpanel', { name: 'Also changed' })).toContainText(/Housing/);
});

test('a number that could be two is asked back, and what is proposed can be had', async ({ page }) => {
  await signIn(page, people.engineer);
  const build = await begin(page, 'plumb');
  await page.goto(`/bench/${build}`);
  await ready(page);
  const contents = page.getByRole('textbox', { name: 'Contents, kg' });
  const asked = page.locator('[data-row="contentsMass"]').getByRole('alert');
  const say = async (text: string) => {
    await contents.fill(text);
    await contents.press('Enter');
  };
  const decided = async () =>
    (
      (await (await page.request.get(`/api/builds/${build}`)).json()) as {
        content: { decisions: { on: string; value: unknown }[] };
      }
    ).content.decisions.find(({ on }) => on === 'contentsMass')?.value;
  // As the ruler beside it writes it.
  await say('20,000');
  await expect(contents).toHaveValue('20,000');
  await expect(asked).toHaveCount(0);
  await expect.poll(decided).toBe('20000');
  await say('1.500');
  await expect(asked).toContainText('"1.500": 1,500 kg or 1.5 kg?');
  expect(await decided()).toBe('20000');
  await asked.getByRole('button', { name: '1,500 kg' }).click();
  await expect.poll(decided).toBe('1500');
  await say('99,995');
  for (const text of await asked.getByRole('button').allInnerTexts()) {
    await say(text);
    await expect(asked).toHaveCount(0);
    await expect(contents).toHaveValue(text.replace(' kg', ''));
  }
});
