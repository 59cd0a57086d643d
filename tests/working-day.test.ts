/**
 * A day's work of an engineer and a manager by the keyboard alone, in both languages, in a usual and in a
 * small window.
 */
import { expect, test, type Browser, type Page } from '@playwright/test';
import { people, quoteOf, ready, signInByHand } from './people';

const texts = {
  en: {
    new: 'new',
    item: 'Item number',
    quantity: 'Quantity',
    discount: 'Discount % 1',
    high: '19.5',
    ask: 'sign-off',
    why: 'Why this should be signed',
    again: 'Ask again',
    send: 'send',
    sendGo: 'Only mark as sent',
    sendMail: 'Write the mail',
    revise: 'new rev',
    revision: 'Revision 2',
    accept: 'accept',
    acceptGo: 'Accept and order',
    forCustomer: 'for the cust',
  },
  de: {
    new: 'neu',
    item: 'Artikelnummer',
    quantity: 'Menge',
    discount: 'Rabatt % 1',
    high: '19,5',
    ask: 'freigabe',
    why: 'Warum das freigegeben werden soll',
    again: 'Noch einmal bitten',
    send: 'verschicken',
    sendGo: 'Nur als verschickt vermerken',
    sendMail: 'E-Mail schreiben',
    revise: 'neue rev',
    revision: 'Revision 2',
    accept: 'annehmen',
    acceptGo: 'Annehmen und Auftrag anlegen',
    forCustomer: 'für den kund',
  },
} as const;

/** A person at their own machine, signed in. */
async function at(browser: Browser, email: string, width: number): Promise<Page> {
  const context = await browser.newContext({ viewport: { width, height: 800 }, locale: 'en-GB' });
  const page = await context.newPage();
  await signInByHand(page, email);
  return page;
}

/** Finds a command by part of its words, and does it. */
async function does(page: Page, typed: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(typed);
  await expect(page.getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Enter');
}

/** Goes on with Tab until what is called so has the keyboard. */
async function reach(page: Page, name: string): Promise<void> {
  for (let steps = 0; steps < 40; steps++) {
    const here = await page.evaluate(() => {
      const element = document.activeElement as HTMLInputElement | null;
      return (
        element?.getAttribute('aria-label') ??
        element?.labels?.[0]?.textContent ??
        element?.textContent ??
        ''
      ).trim();
    });
    if (here === name) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`"${name}" is not reached with Tab`);
}

for (const [language, person, width] of [
  ['en', people.engineer, 1280],
  ['de', people.second, 1024],
] as const) {
  test(`a quote, a sign-off, a revision, an export and an order by the keyboard, in ${language} at ${String(width)}`, async ({
    browser,
  }) => {
    const t = texts[language];
    const page = await at(browser, person, width);
    const { keyboard } = page;

    // A quote with two items, typed as fast as one can.
    await does(page, t.new);
    await keyboard.type('norrv');
    await keyboard.press('Enter');
    await expect(page.getByRole('dialog').getByRole('combobox')).toHaveValue('Norrvik Skog AB');
    await keyboard.press('Enter');
    await page.waitForURL(/\/quotes\/[0-9a-f-]{36}/);
    await ready(page);
    const id = page.url().split('/').pop() as string;
    await expect(page.getByRole('combobox', { name: t.item })).toBeFocused();
    await keyboard.type('SILL-1212-X');
    await keyboard.press('Tab');
    await keyboard.type('3');
    await keyboard.press('Enter');
    await keyboard.type('BC-PRT-T');
    await keyboard.press('Enter');
    await expect(page.getByLabel(`${t.quantity} 2`, { exact: true })).toHaveValue('1');
    await expect(page.getByLabel(`${t.quantity} 1`, { exact: true })).toHaveValue('3');
    await expect(page.getByRole('combobox', { name: t.item })).toBeFocused();

    // A discount past the floor; the manager is asked, with the pane opening where one writes.
    await keyboard.press('Shift+Tab');
    const discount = page.getByLabel(t.discount, { exact: true });
    for (
      let steps = 0;
      steps < 25 && !(await discount.evaluate((field) => field === document.activeElement));
      steps++
    )
      await keyboard.press('ArrowRight');
    await keyboard.type(t.high);
    await keyboard.press('Enter');
    await expect.poll(async () => (await quoteOf(page, id)).signOff?.needs.length).toBe(2);
    await expect(discount).toHaveValue(t.high);
    // However long the word beneath it, the figure stands in its own column.
    const [own, next] = await Promise.all([
      discount.boundingBox(),
      page.locator('td', { has: discount }).boundingBox(),
    ]);
    expect((own?.x ?? 0) + (own?.width ?? 0)).toBeLessThanOrEqual((next?.x ?? 0) + (next?.width ?? 0) + 1);
    await does(page, t.ask);
    await expect(page.getByLabel(t.why)).toBeFocused();
    await keyboard.type('Ten more sites follow this year.');
    await keyboard.press('Tab');
    await keyboard.press('Enter');
    await expect(page.getByRole('button', { name: t.again })).toBeFocused();
    await keyboard.press('Escape');
    await expect(page.getByLabel(`${t.discount.slice(0, -1)}2`, { exact: true })).toBeFocused();

    // The manager, who reads English, makes a counter-offer without leaving the keys.
    const boss = await at(browser, people.manager, width);
    await boss.goto(`/quotes/${id}`);
    await expect(boss.getByLabel('Acceptable discount on line 1')).toBeFocused();
    await boss.keyboard.type('12.5');
    await reach(boss, 'Counter-offer');
    await boss.keyboard.press('Enter');
    await expect
      .poll(async () => (await quoteOf(page, id)).signOff?.history.some((each) => each.state === 'counter'))
      .toBe(true);
    await expect(boss.getByRole('complementary').filter({ has: boss.getByRole('heading') })).toBeFocused();

    // Taken, it would still need somebody; so it goes to what one may give alone, and out.
    await page.reload();
    await ready(page);
    await expect(page.getByLabel(`${t.quantity} 1`, { exact: true })).toBeFocused();
    for (
      let steps = 0;
      steps < 25 && !(await discount.evaluate((field) => field === document.activeElement));
      steps++
    )
      await keyboard.press('ArrowRight');
    await keyboard.type('4');
    await keyboard.press('Enter');
    await expect.poll(async () => (await quoteOf(page, id)).signOff?.needs.length).toBe(0);
    await does(page, t.send);
    // At hand is the mail; that it went by another way is one key further.
    await expect(page.getByRole('link', { name: t.sendMail })).toBeFocused();
    await keyboard.press('Shift+Tab');
    await expect(page.getByRole('button', { name: t.sendGo, exact: true })).toBeFocused();
    await keyboard.press('Enter');
    await expect.poll(async () => (await quoteOf(page, id)).revision.shown).toBe('sent');
    // Nothing that had the keyboard is there any more: it is in the lines, not nowhere.
    await expect(page.locator('[role=grid] :focus')).toHaveCount(1);
    const download = page.waitForEvent('download');
    await does(page, t.forCustomer);
    expect((await download).suggestedFilename()).toMatch(/\.csv$/);

    // A second revision becomes the order.
    await does(page, t.revise);
    await expect(page.getByRole('button', { name: t.revision })).toBeVisible();
    await does(page, t.accept);
    await expect(page.getByRole('button', { name: t.acceptGo })).toBeFocused();
    await keyboard.press('Enter');
    await page.waitForURL(/\/orders\//);
    await Promise.all([page, boss].map((who) => who.context().close()));
  });
}
