/** Talks as they go: the customer changes their mind, and the engineer stays with them. */
import { expect, test, type Page } from '@playwright/test';
import { ownPerson } from './own-person';
import { configure, number, openQuote, option, people, quoteOf, ready, saved, signIn } from './people';
import { publishNext } from './published';

const why = (page: Page, name: RegExp | string) => page.getByRole('region', { name });
const side = (page: Page) => page.getByRole('complementary');
const strip = async (page: Page, tab: RegExp) => {
  await page.getByRole('tab', { name: tab }).click();
  return page.getByRole('tabpanel', {
    name: /^(Build list|Operations|Also changed|Notes|Variants|Best build)/,
  });
};

test('a quarry goes from surface to pit after choosing ramps', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'length', /18 m/).click();
  await option(page, 'approachParts', /Steel ramps/).click();
  await option(page, 'approachParts', /Guide rails/).click();
  const drawing = side(page).getByRole('img', { name: /^Side of RB-/ });
  await expect(drawing.locator('[data-of="approachParts"]')).not.toHaveCount(0);

  // The pit is not free, and says why; one key takes the way out.
  await option(page, 'mounting', /^Pit/).click();
  const reason = why(page, 'Why Pit is not available');
  await expect(reason).toContainText('You chose Steel ramps (pair): Yes.');
  await expect(reason).toContainText('A pit or half-pit deck sits level with the road, so ramps are barred.');
  await expect(reason.getByRole('group', { name: 'Ways out' }).getByRole('button').first()).toContainText(
    'Change Steel ramps (pair) from Yes to No',
  );
  await page.keyboard.press('1');
  await expect(option(page, 'mounting', /^Pit/)).toBeChecked();
  await expect(option(page, 'approachParts', /Steel ramps/)).not.toBeChecked();
  await expect(option(page, 'approachParts', /Guide rails/)).toBeChecked();
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-180-A-P-P-D-0-3-O\/L\+T\d{4}$/);
  const changed = await strip(page, /^Also changed/);
  await expect(changed.getByRole('row', { name: /Drain pump No/ })).toBeVisible();

  // What an engineer knows and a rule does not: the ground is dry. The warning is passed, and colleagues read
  // why.
  await expect(side(page)).toContainText('A pit without a drain pump fills with water.');
  await page.getByRole('button', { name: 'Pass it with a reason' }).click();
  await page.getByRole('textbox', { name: 'Reason, for colleagues' }).fill('Dry chalk, drains by itself');
  await page.keyboard.press('Enter');
  await expect(side(page)).toContainText('Passed by Mara Lindqvist: Dry chalk, drains by itself');
  await saved(page);

  // Back to the ramps, forwards again, and all of it is still there after a reload.
  await page.locator('body').press('Control+z');
  await expect(page.getByRole('button', { name: 'Pass it with a reason' })).toBeVisible();
  await page.locator('body').press('Control+z');
  await expect(option(page, 'approachParts', /Steel ramps/)).toBeChecked();
  await saved(page);
  await page.reload();
  await ready(page);
  await expect(option(page, 'approachParts', /Steel ramps/)).toBeChecked();
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(option(page, 'mounting', /^Pit/)).toBeChecked();
  await expect(side(page)).toContainText('Passed by Mara Lindqvist: Dry chalk, drains by itself');
  await saved(page);
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  const line = page.getByRole('row', { name: /RB-060-180-A-P-P-D-0-3-O\/L/ });
  await expect(line).toContainText('Passed by Mara Lindqvist: Dry chalk, drains by itself');
  await expect(line).not.toContainText('to pass with a reason');
});

test('a warning that nobody passed keeps a quote from being accepted', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await option(page, 'vehicle', /Rigid/).click();
  await option(page, 'length', /12 m/).click();
  await option(page, 'mounting', /^Pit/).click();
  await saved(page);
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  await expect(page.getByText('One warning to pass with a reason, or to mend, on the Bench.')).toBeVisible();
  await page.getByRole('button', { name: 'Mark as accepted' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'to pass with a reason' })).toBeVisible();
  // The keyboard is where it can be mended.
  await expect(page.getByRole('link', { name: /^RB-/ })).toBeFocused();
  const id = page.url().split('/').pop() as string;
  const forged = await page.request.post(`/api/quotes/${id}/accept`, {
    data: { version: (await quoteOf(page, id)).version },
  });
  expect([
    forged.status(),
    ((await forged.json()) as { failures: { code: string }[] }).failures.map(({ code }) => code),
  ]).toEqual([422, ['line.warning']]);
});

test('a width that no step has, in the units of whoever says it', async ({ page }) => {
  await signIn(page, await ownPerson(people.manager));
  await openQuote(page, 'norrvik', 'Norrvik Skog AB');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'length', /15 m/).click();
  await expect(page.getByRole('textbox', { name: 'Custom width, m' })).toHaveCount(0);
  await option(page, 'width', /Custom/).click();
  const width = page.getByRole('textbox', { name: 'Custom width, m' });
  const error = page.locator('[data-row="customWidth"]').getByRole('alert');
  await width.fill('2.83');
  await width.press('Enter');
  await expect(error).toContainText('2.83 m is between two steps. Take 2.8 m or 2.85 m.');
  await error.getByRole('button', { name: '2.85 m' }).click();
  await expect(width).toHaveValue('2.85');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-150-X\d{4}-P-S-D-0-3-O$/);
  await width.fill('5');
  await width.press('Enter');
  await expect(error).toContainText('5 m is outside 2.5 to 4.2 m.');
  // The nearest that can be had is offered.
  await error.getByRole('button', { name: '4.2 m' }).click();
  await expect(width).toHaveValue('4.2');
  await width.fill('1');
  await width.press('Enter');
  await expect(error.getByRole('button')).toHaveText(['2.5 m']);
  await width.fill('wide');
  await width.press('Enter');
  await expect(error).toContainText('"wide" cannot be read in m.');
  await width.fill('3100mm');
  await width.press('Enter');
  await expect(width).toHaveValue('3.1');
  await width.fill('11 ft 8 in');
  await width.press('Enter');
  await expect(width).toHaveValue('3.55');
  // What was said is not quite what is built, and the row says so until something else is typed.
  const told = page.locator('[data-row="customWidth"]').getByRole('status');
  await expect(told).toHaveText('11 ft 8 in is 3.556 m, taken as the nearest step, 3.55 m.');
  // In a field with nothing half typed in it, what is undone is the decision; what is half typed is the
  // field's own.
  await page.keyboard.press('Control+z');
  await expect(width).toHaveValue('3.1');
  await expect(told).toHaveCount(0);
  await width.press('End');
  await page.keyboard.type('5');
  await expect(width).toHaveValue('3.15');
  await page.keyboard.press('Control+z');
  await expect(width).toHaveValue('3.1');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+Shift+z');
  await expect(width).toHaveValue('3.55');

  // Whoever thinks in feet reads feet, here and on the drawing, and the build stays the same.
  await saved(page);
  await page.reload();
  await ready(page);
  await expect(side(page).getByRole('img', { name: /^Side of/ })).toBeVisible();
  const before = await number(page).getAttribute('aria-label');
  // A field that takes the keyboard says that the page is alive.
  await expect(width).toBeEditable();
  await page.keyboard.press('F9');
  const feet = page.getByRole('textbox', { name: 'Custom width, ft' });
  await expect(feet).toHaveValue('11.65');
  await expect(page.locator('[data-row="customWidth"]').getByRole('status')).toHaveCount(0);
  await side(page).getByRole('tab', { name: 'Plan' }).click();
  await expect(side(page).getByText('11\' 8"')).toBeVisible();
  await feet.press('Enter');
  await expect(number(page)).toHaveAttribute('aria-label', before ?? '');
  await page.reload();
  await ready(page);
  await expect(page.getByRole('textbox', { name: 'Custom width, ft' })).toHaveValue('11.65');
  await page.getByRole('button', { name: 'ft, lb' }).click();
  await expect(page.getByRole('textbox', { name: 'Custom width, m' })).toHaveValue('3.55');

  // Which dimension is meant.
  await page.getByRole('textbox', { name: 'Custom width, m' }).focus();
  await option(page, 'width', /Custom/).focus();
  await page.keyboard.press('F1');
  await expect(
    page.getByRole('note', { name: 'What Width means' }).getByRole('img', { name: 'Where Width is' }),
  ).toBeVisible();
});

test('a recycler in dust zone 21, and in the cold', async ({ page }) => {
  await signIn(page, await ownPerson(people.engineer));
  await openQuote(page, 'corrie', 'Corrie');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'length', /12 m/).click();
  await option(page, 'docket', /Site licence/).click();
  await expect(option(page, 'docket', /Site licence/)).toBeChecked();
  await option(page, 'approachParts', /Plate camera/).click();
  await expect(option(page, 'approachParts', /Plate camera/)).toBeChecked();
  await option(page, 'dust', /21/).click();
  const reason = why(page, 'Why Zone 21 is not available');
  await expect(reason).toContainText('The plate camera is not approved for dust zone 21.');
  await reason.getByRole('button', { name: 'Is there another reason?' }).click();
  await expect(reason).toContainText('There is no other reason.');
  await page.keyboard.press('Escape');
  await expect(reason).toHaveCount(0);
  await option(page, 'dust', /21/).click();
  await expect(reason).toBeVisible();
  await page.keyboard.press('1');
  await expect(option(page, 'dust', /21/)).toBeChecked();

  // What follows is firm and says so; what is advised may be changed and says that.
  const housing = option(page, 'terminals/beacon/1/housing', /Stainless/);
  await expect(housing).toBeChecked();
  await expect(housing).toContainText('follows · firm');
  await option(page, 'cellKind', /Analogue/).click();
  await expect(why(page, 'Why Analogue is not available')).toContainText('Dust zone 21 needs digital cells.');
  await page.keyboard.press('Escape');
  await option(page, 'temperature', /Cold/).click();
  await expect(option(page, 'finish', /Duplex/)).toContainText('advised · may be changed');
  await expect(page.locator('[data-row="finish"]')).toContainText('In the cold, duplex lasts longest.');
  await option(page, 'finish', /galvanised/).click();
  await expect(option(page, 'finish', /galvanised/)).toContainText('yours');

  // Barred options fold away, for this person, until they are wanted.
  const ntep = page.getByRole('button', { name: /NTEP class III L/ });
  await expect(ntep).toBeVisible();
  await page.keyboard.press('F6');
  await expect(ntep).toHaveCount(0);
  await page.reload();
  await ready(page);
  await expect(page.getByRole('button', { name: '1 barred, folded away' }).first()).toBeVisible();
  await page.getByRole('button', { name: '1 barred, folded away' }).first().click();
  await expect(ntep).toBeVisible();
  await page.getByRole('button', { name: /^Fold barred away/ }).click();
  await expect(page.getByRole('button', { name: /^Fold barred away/ })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
});

test("a dealer reopens last month's build after a rule changed", async ({ page }) => {
  await signIn(page, people.dealer);
  await openQuote(page, 'tor edge', 'Tor Edge');
  await configure(page, 'Tarn');
  const pads = page.getByRole('textbox', { name: 'Pads', exact: true });
  await pads.fill('4');
  await pads.press('Enter');
  await expect(number(page)).toHaveAccessibleName('Part number TN-10-04');
  await saved(page);
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await publishNext('tarn', (document) => {
    const rule = document.rules.find((each) => each.id === 'manyCases');
    if (rule?.kind === 'require') rule.when = 'pads > 2';
    document.parameters = document.parameters.filter((each) => each.id !== 'wireless');
    document.rules = document.rules.filter((each) => each.id !== 'heavyWireless');
    document.numbering = document.numbering.filter((each) => each.when !== 'wireless');
    document.sections = document.sections.map((section) => ({
      ...section,
      rows: section.rows.filter((row) => row !== 'wireless'),
    }));
    if (document.drawing)
      document.drawing.shapes = document.drawing.shapes.filter((each) => each.of !== 'wireless');
    document.tests = [];
  });

  // The old build stands as it was sold; a newer version offers itself and says what it would change.
  await ready(page);
  await page.getByRole('link', { name: 'TN-10-04' }).click();
  await page.waitForURL(/\/bench\//);
  await ready(page);
  const offer = page.getByRole('region', { name: 'Newer version' });
  await expect(offer).toContainText(/stands on version \d+ of its model; version \d+ is published/);
  await expect(number(page)).toHaveAccessibleName('Part number TN-10-04');
  await offer.getByRole('button', { name: 'What would change' }).click();
  await expect(offer).toContainText('Extras: Transport cases was none');
  await expect(offer).toContainText(/List price \+\d/);
  await offer.getByRole('button', { name: /^Move over to version/ }).click();
  await expect(number(page)).toHaveAccessibleName('Part number TN-10-04/C');
  await expect(offer).toHaveCount(0);
  await expect(option(page, 'extras', /Transport cases/)).toBeChecked();
  await expect(page.locator('[data-row="wireless"]')).toHaveCount(0);
  // No cost comes along for a dealer.
  await expect(side(page)).not.toContainText('Margin');
});

test('two variants are compared and both quoted', async ({ page }) => {
  await signIn(page, people.engineer);
  const quote = await openQuote(page, 'brannoch', 'Brannoch Aggregates plc');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'length', /12 m/).click();
  await saved(page);
  await page.getByRole('button', { name: 'Another variant, as this one stands' }).click();
  await expect(page.getByRole('button', { name: 'Variant B' })).toHaveAttribute('aria-pressed', 'true');
  await option(page, 'surface', /Concrete/).click();
  await option(page, 'approachParts', /Walkways/).click();
  await saved(page);
  await page.keyboard.press('F7');
  const table = await strip(page, /^Variants/);
  await expect(table.getByRole('row', { name: /^Surface Checker plate Concrete fill/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /^Approach parts none Walkways/ })).toBeVisible();
  await expect(
    table.getByRole('row', {
      name: /^Part number RB-060-120-A-P-S-D-0-3-O\+T\d{4} RB-060-120-A-C-S-D-0-3-O\/W\+T\d{4}/,
    }),
  ).toBeVisible();
  await expect(table.getByRole('row', { name: /^Trade approval/ })).toHaveCount(0);

  // To A and back with one key, nothing lost.
  await page.locator('body').press('[');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-120-A-P-S-D-0-3-O\+T\d{4}$/);
  await page.locator('body').press(']');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-120-A-C-S-D-0-3-O\/W\+T\d{4}$/);
  await page.keyboard.press('F7');
  await page.getByRole('checkbox', { name: 'Choose variant A' }).check();
  await page.getByRole('checkbox', { name: 'The first counts, the others as alternatives' }).check();
  await page.getByRole('button', { name: 'Put A, B on quote' }).click();
  await page.waitForURL(new RegExp(`/quotes/${quote}`));
  await ready(page);
  const lines = page.getByRole('grid', { name: /^Q-/ }).getByRole('row');
  await expect(lines.filter({ hasText: 'RB-060-120-A-P-S-D-0-3-O' })).not.toContainText('alternative');
  await expect(lines.filter({ hasText: 'RB-060-120-A-C-S-D-0-3-O/W' })).toContainText('alternative');
  // Only the first counts.
  const seen = (await (await page.request.get(`/api/quotes/${quote}`)).json()) as {
    totals: { net: string };
    lines: { price: { net: string }; alternative: boolean }[];
  };
  expect(seen.lines.map((line) => line.alternative)).toEqual([false, true]);
  expect(seen.totals.net).toBe(seen.lines[0]?.price.net);

  // A third one later: in the place of what is there of the talk already.
  await lines.filter({ hasText: 'RB-060-120-A-P-S-D-0-3-O' }).getByRole('link').first().click();
  await page.waitForURL(/\/bench\//);
  await ready(page);
  await page.getByRole('button', { name: 'Another variant, as this one stands' }).click();
  await expect(page.getByRole('button', { name: 'Variant C' })).toHaveAttribute('aria-pressed', 'true');
  await option(page, 'finish', /Hot-dip/).click();
  await saved(page);
  await page.keyboard.press('F7');
  await page.getByRole('checkbox', { name: 'Choose variant C' }).check();
  await page.getByRole('checkbox', { name: 'The first counts, the others as alternatives' }).check();
  await page.getByRole('button', { name: 'Put C on quote' }).click();
  await page.waitForURL(new RegExp(`/quotes/${quote}`));
  await ready(page);
  expect(
    (await quoteOf(page, quote)).lines.map(({ alternative, insteadOf }) => (alternative ? insteadOf : 0)),
  ).toEqual([0, 1, 1]);
});

test('a forged save is refused and changes nothing', async ({ page }) => {
  await signIn(page, people.dealer);
  const quoteId = await openQuote(page, 'tor edge', 'Tor Edge');
  await configure(page);
  const build = page.url().split('/').pop() as string;
  const put = async (body: object) => {
    const response = await page.request.put(`/api/builds/${build}`, { data: body });
    const { failures = [] } = (await response.json()) as { failures?: { code: string; field?: string }[] };
    return [response.status(), failures[0]?.code];
  };
  const decisions = [{ on: 'vehicle', value: 'rigid' }];
  const special = [{ item: 'RB-HUB', text: 'Gold hub', cost: '0', price: '1', days: 1 }];
  expect(await put({ version: 1, decisions, price: '1.00' })).toEqual([422, 'input.unknownField']);
  expect(await put({ version: 1, decisions, outcome: { complete: true } })).toEqual([
    422,
    'input.unknownField',
  ]);
  expect(
    await put({ version: 1, decisions, passed: [{ rule: 'pitPump', reason: 'x', by: 'Tobias Renwick' }] }),
  ).toEqual([422, 'input.unknownField']);
  expect(await put({ version: 1, decisions: [{ on: 'vehicle', value: 'rocket' }] })).toEqual([
    422,
    'decision.notAnOption',
  ]);
  expect(await put({ version: 1, decisions: [{ on: 'terminals/beacon/1/housing', value: 'gold' }] })).toEqual(
    [422, 'decision.notAnOption'],
  );
  expect(await put({ version: 1, decisions: [...decisions, ...decisions] })).toEqual([422, 'decision.twice']);
  expect(await put({ version: 7, decisions })).toEqual([409, 'build.stale']);
  // A dealer makes no special parts.
  expect(await put({ version: 1, decisions, special })).toEqual([403, 'refused.permission']);
  const view = (await (await page.request.get(`/api/builds/${build}`)).json()) as {
    build: { version: number };
    content: object;
    may: object;
  };
  expect([view.build.version, view.content, view.may]).toEqual([
    1,
    { decisions: [], passed: [], special: [] },
    { special: false, making: false },
  ]);
  // What is not theirs is not there: variants, drawings, the newer version, a copy.
  await page.context().clearCookies();
  await signIn(page, people.engineer);
  for (const path of ['', '/variants', '/move', '/drawing.svg?view=side'])
    expect((await page.request.get(`/api/builds/${build}${path}`)).status()).toBe(404);
  const mine = (await (
    await page.request.post('/api/quotes', {
      data: {
        customerId: (
          (await (await page.request.get('/api/customers?find=callow')).json()) as { id: string }[]
        )[0]?.id,
        title: '',
      },
    })
  ).json()) as { id: string };
  expect(
    (await page.request.post('/api/builds', { data: { quoteId: mine.id, copyOf: build } })).status(),
  ).toBe(404);
  expect((await page.request.post('/api/builds', { data: { quoteId, modelId: 'ridgeback' } })).status()).toBe(
    404,
  );
});
