/**
 * What the Bench can do besides: kept builds, special parts, the best build, part numbers, bundles, drawings,
 * keys, small windows.
 */
import { gzipSync } from 'node:zlib';
import { expect, test, type Page } from '@playwright/test';
import { configure, number, openQuote, option, people, ready, saved, signIn } from './people';

const side = (page: Page) => page.getByRole('complementary');
const panel = (page: Page, name: RegExp) => page.getByRole('tabpanel', { name });
async function ridgeback(page: Page, customer = 'callow', name = 'Callowhill Quarries Ltd'): Promise<string> {
  const quote = await openQuote(page, customer, name);
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'length', /12 m/).click();
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-120-A-P-S-D-0-3-O\+T\d{4}$/);
  return quote;
}
const buildOf = (page: Page): string => new URL(page.url()).pathname.split('/').pop() as string;

test('a build is kept, starred and started from; a line is copied; a part number is read back', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  const quote = await ridgeback(page);
  await option(page, 'finish', /galvanised/).click();
  await saved(page);
  await page.keyboard.press('F4');
  const dialog = page.getByRole('dialog', { name: 'Keep this build' });
  await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(dialog.getByRole('alert')).toHaveText('Give it a name.');
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Small quarry, galvanised');
  await dialog.getByRole('checkbox', { name: 'Colleagues see it too' }).check();
  await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'Kept as "Small quarry, galvanised".' }),
  ).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await ready(page);

  // A copy of the line, on the same quote.
  const start = async () => {
    await page.goto(`/quotes/${quote}`);
    await ready(page);
    await page.getByRole('button', { name: 'Configure', exact: true }).click();
    return page.getByRole('dialog', { name: 'Configure' });
  };
  await (await start()).getByRole('button', { name: 'Copy line 1' }).click();
  await page.waitForURL(/\/bench\//);
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-120-A-P-S-D-0-G-O\+T\d{4}$/);

  // A colleague stars it and starts from it; the manager cannot take it away.
  await page.context().clearCookies();
  await signIn(page, people.manager);
  let kept = (await start()).getByRole('listitem').filter({ hasText: 'Small quarry, galvanised' });
  await expect(kept).toContainText('by Mara Lindqvist');
  await expect(kept.getByRole('button', { name: /^Remove/ })).toHaveCount(0);
  await kept.getByRole('button', { name: 'Star Small quarry, galvanised' }).click();
  await expect(
    kept.getByRole('button', { name: 'Take the star from Small quarry, galvanised' }),
  ).toHaveAttribute('aria-pressed', 'true');
  await kept.getByRole('button', { name: /Small quarry, galvanised RB-060/ }).click();
  await page.waitForURL(/\/bench\//);
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-120-A-P-S-D-0-G-O\+T\d{4}$/);
  const others = (await (await page.request.get('/api/saved')).json()) as { id: string; name: string }[];
  const id = others.find((each) => each.name === 'Small quarry, galvanised')?.id ?? '';
  expect((await page.request.delete(`/api/saved/${id}`)).status()).toBe(403);

  // A part number of a letter: read back on the quote, and on the Bench.
  kept = await start();
  await kept.getByRole('textbox', { name: 'A part number' }).fill('RB-060-125-A-P-S-D-0-G-Q');
  await kept.getByRole('button', { name: 'Read back' }).click();
  await expect(kept.getByRole('alert')).toContainText('Allowed there: ');
  await kept.getByRole('textbox', { name: 'A part number' }).fill('rb-080-180-b-c-p-d-0-g-o/l');
  await kept.getByRole('button', { name: 'Read back' }).click();
  await page.waitForURL(/\/bench\//);
  await expect(option(page, 'capacity', /80 t/)).toBeChecked();
  await expect(option(page, 'mounting', /^Pit/)).toBeChecked();
  await ready(page);
  await expect(side(page).getByRole('img', { name: /^Side of/ })).toBeVisible();
  await paste(page, 'RB-060-180-A-P-S-D-0-3-O/RL');
  await expect(
    page.getByRole('status').filter({ hasText: 'RB-060-180-A-P-S-D-0-3-O/RL is read back as a build.' }),
  ).toBeVisible();
  await expect(option(page, 'approachParts', /Steel ramps/)).toBeChecked();
  await page.locator('body').press('Control+z');
  await expect(option(page, 'capacity', /80 t/)).toBeChecked();
  await paste(page, 'RB-060-180-A-P-P-D-0-3-O/R');
  await expect(
    page.getByRole('status').filter({ hasText: 'the rules do not allow this build' }),
  ).toBeVisible();

  // Typed where an item goes, it becomes a line.
  await page.goto(`/quotes/${quote}`);
  await ready(page);
  await page.getByRole('combobox', { name: 'Item number' }).fill('TN-15-04');
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByRole('link', { name: 'TN-15-04' })).toBeVisible();
});

/** What the browser does when a person pastes outside of any field. */
const paste = (page: Page, text: string) =>
  page.evaluate((given) => {
    const data = new DataTransfer();
    data.setData('text', given);
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data }));
  }, text);

test('a special part takes the place of an item, with a number of its own', async ({ page }) => {
  await signIn(page, people.engineer);
  await ridgeback(page);
  const net = async () =>
    Number(((await side(page).getByTestId('net').textContent()) ?? '').replaceAll(',', ''));
  const before = await net();
  const list = panel(page, /^Build list/);
  await list.getByRole('button', { name: 'Replace Digital hub by a special part' }).click();
  const text = list.getByRole('textbox', { name: 'What it is, instead of Digital hub' });
  await text.fill('Hub in a stainless box, two glands more');
  const price = list.getByRole('textbox', { name: /^Price/ });
  const usual = Number(await price.inputValue());
  await price.fill(String(usual + 150));
  await list.getByRole('textbox', { name: 'Days' }).fill('40');
  await list.getByRole('button', { name: 'Replace', exact: true }).click();
  await expect(list.getByRole('row', { name: /RB-HUB/ })).toContainText(
    'Special: Hub in a stainless box, two glands more instead of Digital hub',
  );
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-060-120-A-P-S-D-0-3-O\+T\d{4}-Z\d{4}$/);
  expect(await net()).toBeCloseTo(before + 150, 2);
  await expect(side(page).getByRole('button', { name: /^Lead time 40 working days/ })).toBeVisible();
  await expect(page.getByText('special part', { exact: true })).toBeVisible();
  await saved(page);
  const special = ((await number(page).getAttribute('aria-label')) ?? '').replace('Part number ', '');
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  await expect(page.getByText('Special part: Hub in a stainless box, two glands more')).toBeVisible();
  // Its number leads back to it.
  await page.getByRole('combobox', { name: 'Item number' }).fill(special);
  await page.getByRole('button', { name: 'Add item' }).click();
  // What the number does not say, the Bench asks.
  await page.waitForURL(/\/bench\//);
  await ready(page);
  await expect(number(page)).toHaveAccessibleName(`Part number ${special}`);
  await expect(panel(page, /^Build list/).getByRole('row', { name: /RB-HUB/ })).toContainText(
    'Special: Hub in a stainless box',
  );
  await option(page, 'vehicle', /Articulated/).click();
  await expect(page.getByRole('button', { name: 'Put on quote' })).toBeEnabled();
  await page.getByRole('button', { name: 'Put on quote' }).click();
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  await expect(page.getByRole('link', { name: special })).toHaveCount(2);
  await page.getByRole('button', { name: 'Mark as accepted' }).click();
  await page.getByRole('button', { name: 'Accept and order' }).click();
  await page.waitForURL(/\/orders\//);
  await page.getByRole('link', { name: /^W-/ }).first().click();
  await expect(page.getByText('Special: Hub in a stainless box, two glands more')).toBeVisible();
});

test('the best build keeps what is decided, and is taken with one click', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await option(page, 'dust', /22/).click();
  await page.keyboard.press('F8');
  const best = panel(page, /^Best build/);
  await best.getByRole('textbox', { name: 'Load cells at least' }).fill('8');
  await best.getByRole('button', { name: 'Look for it' }).click();
  const answer = best.getByRole('status', { name: 'Best build' });
  await expect(answer).toContainText('Proven: there is no better one.', { timeout: 120_000 });
  await answer.getByRole('button', { name: 'Take it' }).click();
  await expect(side(page).getByText('Complete. This build can be sold and made.')).toBeVisible();
  await expect(option(page, 'dust', /22/)).toBeChecked();
  await expect(side(page).getByRole('button', { name: /^Load cells 8/ })).toBeVisible();
  await best.getByRole('textbox', { name: 'Load cells at least' }).fill('40');
  await best.getByRole('button', { name: 'Look for it' }).click();
  await expect(answer).toContainText(
    'No build keeps to these bounds with your decisions and with what is there.',
    { timeout: 120_000 },
  );
  // A bound that is not kept to is not shown as kept; stopping leaves the build as it is.
  await page.locator('body').press('Control+z');
  await expect(side(page).getByText('Complete. This build can be sold and made.')).toHaveCount(0);
});

test('a bundle: what is fixed, chosen and added, with prices of its own, one name for every terminal', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page, 'Quarry gate');
  const within = (row: string) => `scale/ridgeback/1/${row}`;
  await expect(option(page, 'scale', /Ridgeback/)).toContainText('follows · firm');
  await option(page, within('vehicle'), /Articulated/).click();
  await option(page, within('length'), /18 m/).click();
  await expect(option(page, within('docket'), /Site licence/)).toContainText('follows · firm');
  await expect(page.getByRole('textbox', { name: /^Ridgeback, Named users/ })).toHaveValue('10');
  await side(page).getByRole('button', { name: /^List/ }).click();
  const list = page.getByRole('group', { name: 'How List comes about' });
  await expect(list.getByRole('row', { name: /^Commissioning included −100 % -/ })).toBeVisible();
  await expect(list.getByRole('row', { name: /^Weighbridge in the quarry gate −4 % -/ })).toBeVisible();
  const plate = page.getByRole('textbox', { name: 'Name on every plate' });
  await plate.fill('Callowhill gate');
  await plate.press('Enter');
  await expect(panel(page, /^Build list/).getByRole('row', { name: /BC-PLATE/ })).toBeVisible();
  await option(page, 'gateParts', /kiosk/).click();
  await expect(option(page, 'gateParts', /Intercom/)).toContainText('follows · firm');

  // The weighbridge opens and closes in its place, with its own number.
  await page.getByRole('button', { name: 'Close Ridgeback' }).click();
  await expect(page.locator(`[data-row="${within('length')}"]`)).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'Ridgeback · Duty' })).toContainText(
    'RB-060-180-A-P-S-D-0-3-O/T',
  );
  await page.getByRole('combobox', { name: 'Find', exact: true }).fill('ridge mounting');
  await page
    .getByRole('option', { name: /Mounting/ })
    .first()
    .click();
  await expect(page.locator(`[data-row="${within('mounting')}"] [aria-checked="true"]`)).toBeFocused();
  await saved(page);
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  await expect(page.getByRole('link', { name: 'QG-11V/KI' })).toBeVisible();
  // On the quote the bundle opens into its parts, what is taken off inside among them.
  await page.getByRole('button', { name: 'Parts of line 1' }).click();
  const table = page.getByRole('grid', { name: /^Q-/ });
  await expect(table.getByRole('row', { name: /^Commissioning included/ })).toContainText('-');
  await expect(table.getByRole('row', { name: /Weighbridge in the quarry gate/ })).toBeVisible();
  await page.getByLabel('Quantity 1', { exact: true }).press('Alt+ArrowLeft');
  await expect(table.getByRole('row', { name: /Weighbridge in the quarry gate/ })).toBeHidden();
});

test('a drawing follows each decision, leads to its rows, and is taken away as a file', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  await side(page).getByRole('button', { name: 'Length', exact: true }).click();
  await expect(page.locator('[data-row="length"] [data-tab]').first()).toBeFocused();
  await option(page, 'length', /12 m/).click();
  const drawing = side(page).getByRole('img', { name: /^Side of RB-060-120/ });
  await expect(drawing).toContainText('12,000');
  await option(page, 'length', /18 m/).click();
  await expect(side(page).getByRole('img', { name: /^Side of RB-060-180/ })).toContainText('18,000');
  await side(page).getByRole('tab', { name: 'Plan' }).click();
  const plan = side(page).getByRole('img', { name: /^Plan of/ });
  await expect(plan).toContainText('3,000');
  await plan.getByText('3,000').click();
  await expect(page.locator('[data-row="width"] [aria-checked="true"]')).toBeFocused();
  await saved(page);
  const file = async (format: string, view: string) => {
    const response = await page.request.get(`/api/builds/${buildOf(page)}/drawing.${format}?view=${view}`);
    expect([format, response.status()]).toEqual([format, 200]);
    expect(response.headers()['content-disposition']).toMatch(
      new RegExp(`^attachment; filename="RB-060-180[A-Za-z0-9_-]+\\.${format}"$`),
    );
    return response.body();
  };
  expect((await file('svg', 'side')).toString()).toMatch(/^<svg .*18,000.*<\/svg>$/s);
  const dxf = (await file('dxf', 'plan')).toString();
  expect(dxf).toMatch(/\$INSUNITS\r?\n\s*70\r?\n4\r?\n/);
  for (const layer of ['DECK', 'FRAME', 'VEHICLE', 'DIMENSIONS']) expect(dxf).toContain(`\n${layer}\n`);
  expect(dxf.match(/\nDIMENSION\n/g)).toHaveLength(3);
  const glb = await file('glb', '');
  expect([glb.subarray(0, 4).toString(), glb.readUInt32LE(8)]).toEqual(['glTF', glb.length]);
  const scene = JSON.parse(glb.subarray(20, 20 + glb.readUInt32LE(12)).toString()) as {
    nodes: { name: string }[];
    accessors: { max?: number[]; min?: number[] }[];
  };
  expect(scene.nodes.map((node) => node.name)).toEqual(expect.arrayContaining(['DECK', 'CELLS', 'VEHICLE']));
  // Metres, and y upwards: the whole is longer than the deck and no higher than a lorry.
  const [highest, longest] = [1, 0].map((axis) =>
    Math.max(...scene.accessors.map((each) => each.max?.[axis] ?? 0)),
  );
  expect([highest, longest]).toEqual([expect.closeTo(4.35, 1), expect.closeTo(22.5, 1)]);
  expect((await page.request.get(`/api/builds/${buildOf(page)}/drawing.dwg?view=side`)).status()).toBe(404);

  // In space, by mouse and by keys; the part that draws it loads only now.
  const loaded: string[] = [];
  page.on('request', (request) => loaded.push(request.url()));
  await side(page).getByRole('tab', { name: '3D' }).click();
  const space = side(page).getByRole('img', { name: /in space/ });
  await expect(space.locator('canvas').or(page.locator('[data-flat="true"]'))).toBeVisible();
  expect(loaded.filter((url) => url.includes('Space'))).not.toEqual([]);
  await space.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(space).toBeFocused();
});

test('help shows which dimension is meant, on an example while too little is chosen', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  await configure(page, 'Plumb');
  await page.getByRole('button', { name: 'What Diameter means' }).click();
  const help = page.getByRole('note', { name: 'What Diameter means' });
  await expect(help).toContainText('From 0.5 m to 6 m, in steps of 0.1 m.');
  await expect(help.getByRole('img', { name: 'Where Diameter is' })).toBeVisible();
  await expect(help).toContainText('An example: not all of it is chosen yet.');
  // Once enough is chosen it is the build itself.
  for (const [row, value] of [
    ['diameter', '3'],
    ['height', '6'],
  ] as const) {
    await page.locator(`[data-row="${row}"]`).getByRole('textbox').fill(value);
    await page.keyboard.press('Enter');
  }
  await option(page, 'supports', /^4/).click();
  await expect(help).not.toContainText('An example');
  await expect(help.getByText('3,000')).toBeVisible();
});

test('a complete Ridgeback with the keyboard alone, and the keys are listed', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'norrvik', 'Norrvik Skog AB');
  await page.getByRole('button', { name: 'Configure', exact: true }).focus();
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  await press('Enter', 'Enter');
  await page.waitForURL(/\/bench\//);
  await ready(page);
  await expect(page.locator('[data-row="vehicle"] [data-tab]').first()).toBeFocused();
  await page.keyboard.type('road');
  await press('Enter');
  await expect(option(page, 'vehicle', /Road train/)).toBeChecked();
  await press('n');
  await expect(page.locator('[data-row="length"] [data-tab]').first()).toBeFocused();
  await page.keyboard.type('24');
  await press('Enter');
  await expect(option(page, 'length', /24 m/)).toBeChecked();
  // By a word anywhere: the option, then its row.
  await press('/');
  await page.keyboard.type('half pit');
  await press('Enter');
  await expect(page.locator('[data-row="mounting"] [aria-checked="true"]')).toBeFocused();
  await page.keyboard.type('half');
  await press('Enter');
  await expect(option(page, 'mounting', /Half pit/)).toBeChecked();
  await press('/');
  await page.keyboard.type('concrete ramp');
  await press('Enter');
  await page.keyboard.type('concrete');
  await press('F2');
  await expect(page.getByRole('region', { name: /^Why Concrete ramp kit is not available/ })).toContainText(
    'A pit or half-pit deck sits level with the road',
  );
  await press('Escape');
  await expect(page.locator('[data-row="approachParts"] [aria-checked="true"]')).toBeFocused();
  await page.keyboard.type('guide');
  await press('Enter');
  await expect(number(page)).toHaveAccessibleName(/^Part number RB-080-240-A-P-H-D-0-3-O\/LW\+K040\+T\d{4}$/);
  await press('?');
  const keys = page.getByRole('dialog', { name: 'Keys of this view' });
  for (const text of [
    'Next thing to do',
    'Best build',
    'Why the option in focus is not available',
    'Read a part number back',
  ])
    await expect(keys.getByText(text)).toBeVisible();
  await press('Escape');
  await saved(page);
  await press('Control+Enter');
  await page.waitForURL(/\/quotes\//);
  await expect(
    page.getByRole('link', { name: /^RB-080-240-A-P-H-D-0-3-O\/LW\+K040\+T\d{4}$/ }),
  ).toBeVisible();
});

test('what is made outlives a page that is closed while the server is away', async ({ page }) => {
  await signIn(page, people.engineer);
  await ridgeback(page);
  await saved(page);
  await page.route('**/api/builds/**', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await option(page, 'surface', /Concrete/).click();
  await expect(page.getByRole('status').filter({ hasText: 'Not saved' })).toBeVisible();
  const url = page.url();
  await page.goto('/');
  await page.unroute('**/api/builds/**');
  await page.goto(url);
  await ready(page);
  await expect(option(page, 'surface', /Concrete/)).toBeChecked();
  await saved(page);
  await expect
    .poll(async () =>
      (
        (await (await page.request.get(`/api/builds/${buildOf(page)}`)).json()) as {
          content: { decisions: { on: string }[] };
        }
      ).content.decisions.map((each) => each.on),
    )
    .toContain('surface');
});

test('what the Bench asks of the line is small, the part in space apart', async ({ page }) => {
  await signIn(page, people.engineer);
  // A script that two workers run comes over the line once.
  const scripts = new Map<string, Promise<number>>();
  page.on('response', (response) => {
    const { pathname } = new URL(response.url());
    if (pathname.endsWith('.js'))
      scripts.set(
        pathname,
        // One that cannot be read any more once the test is over is not counted; one of these would be missed.
        response.body().then(
          (body) => gzipSync(body).length,
          () => Number.NaN,
        ),
      );
  });
  await openQuote(page, 'callow', 'Callowhill Quarries Ltd');
  scripts.clear();
  await configure(page);
  await expect(side(page).getByText('It is drawn once you have chosen')).toBeVisible();
  const sizes = await Promise.all(scripts.values());
  expect(sizes.length).toBeGreaterThan(5);
  expect(sizes.reduce((sum, size) => sum + size, 0)).toBeLessThan(306_000);
});

test('figures open how they come about', async ({ page }) => {
  await signIn(page, people.engineer);
  await ridgeback(page);
  const opened = async (figure: RegExp, name: string) => {
    await side(page).getByRole('button', { name: figure }).click();
    return page.getByRole('group', { name: `How ${name} comes about` });
  };
  await expect((await opened(/^Cost/, 'Cost')).getByRole('row').first()).toContainText('×');
  await expect(await opened(/^Margin/, 'Margin')).toContainText(/\(.* − .*\) \/ /);
  await expect(await opened(/^Lead time/, 'Lead time')).toContainText('The slowest item decides.');
  await expect(await opened(/^Promised/, 'Promised')).toContainText('2 for packing and the way');
  const hours = await opened(/^Installation/, 'Installation');
  await expect(hours.getByRole('row', { name: /^Modules 2/ })).toBeVisible();
  await hours.getByRole('button', { name: 'Mounting' }).click();
  await expect(page.locator('[data-row="mounting"] [aria-checked="true"]')).toBeFocused();
});

test('a piece at other quantities is told before the quantity is changed', async ({ page }) => {
  await signIn(page, people.engineer);
  const [customer] = (await (await page.request.get('/api/customers?find=callow')).json()) as {
    id: string;
  }[];
  const { id: quoteId } = (await (
    await page.request.post('/api/quotes', { data: { customerId: customer?.id, title: 'Axle weighers' } })
  ).json()) as { id: string };
  const { id } = (await (
    await page.request.post('/api/builds', { data: { quoteId, modelId: 'tarn' } })
  ).json()) as { id: string };
  await page.goto(`/bench/${id}`);
  await side(page).getByRole('button', { name: /^Net/ }).click();
  const others = page.getByRole('table', { name: 'At other quantities' });
  await expect(others.getByRole('row')).toHaveText([
    'QuantityA pieceSaves a piece',
    '13,148.00',
    '43,022.08125.92',
    '122,927.64220.36',
  ]);
});

test('an option tells what it comes to before it is taken, with all that goes with it', async ({ page }) => {
  await signIn(page, people.engineer);
  await openQuote(page, 'norrvik', 'Norrvik Skog AB');
  await configure(page);
  await option(page, 'vehicle', /Articulated/).click();
  // Also in a row that is open; what a length of its own comes to is not known before it is typed.
  await expect(option(page, 'length', /24 m/)).toContainText(/\+[\d,]+\.\d\d/);
  await expect(option(page, 'length', /Custom/)).not.toContainText(/\d/);
  await option(page, 'length', /12 m/).click();
  const list = side(page).getByRole('button', { name: /^List/ });
  const amount = (text: string | null): number =>
    Math.round(
      Number(
        (text ?? '')
          .replace('−', '-')
          .replace(/^[^-+\d±]*/, '')
          .replace(/[,±+]/g, ''),
      ) * 100,
    );
  // A road train has capacity and cable go up; the licence comes with its users and a link; the 15 years with
  // calibrations.
  for (const [row, name, told] of [
    ['vehicle', /Road train/, '+696.00'],
    ['docket', /Site licence/, null],
    ['mounting', /^Pit/, null],
  ] as const) {
    const one = option(page, row, name);
    await expect(one).toContainText(told ?? /[+−][\d,]+\.\d\d/);
    const [before, difference] = [
      amount(await list.locator('span').last().textContent()),
      amount((await one.textContent())?.match(/[+−][\d,]+\.\d\d$/)?.[0] ?? null),
    ];
    await one.click();
    await expect(one).toBeChecked();
    await expect(async () =>
      expect(amount(await list.locator('span').last().textContent())).toBe(before + difference),
    ).toPass();
  }
  // What follows from usual values alone is not firm: another may be chosen, and those adapt.
  const hub = option(page, 'junctionBox', /Digital hub/);
  await expect(hub).toContainText('follows · may be changed');
  await option(page, 'dust', /Zone 21/).click();
  await expect(hub).toContainText('follows · firm');
});

test('the sheet says in which section it is, while one scrolls and when one goes to a row', async ({
  page,
}) => {
  await signIn(page, people.engineer);
  await ridgeback(page);
  const sheet = page.getByRole('region', { name: 'Sheet' });
  const top = sheet.locator('[data-in-sight]');
  await sheet.evaluate((element) => element.scrollTo(0, 0));
  await expect(top).toHaveCount(0);
  // Once its title is out of sight a section is named on top, and the next takes its place as its own title
  // goes.
  const titleOf = (name: string) => sheet.getByRole('heading', { name, exact: true });
  for (const name of ['Duty', 'Deck', 'Weighing']) {
    await titleOf(name).evaluate((title) =>
      title.closest('[role="region"]')?.scrollTo(0, (title as HTMLElement).offsetTop + 12),
    );
    await expect(top).toHaveText(name);
  }
  await sheet.evaluate((element) => element.scrollTo(0, 0));
  await expect(top).toHaveCount(0);
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Surroundings/ })
    .click();
  await expect(sheet.locator('[data-row="dust"]')).toBeInViewport();
  await expect(top).not.toHaveCount(0);
});

test('where a row goes away under the keyboard, the next one has it', async ({ page }) => {
  await signIn(page, people.engineer);
  await ridgeback(page);
  await option(page, 'length', 'Custom').click();
  const field = page.locator('[data-row="customLength"] input');
  await field.fill('59 ft');
  await field.press('Enter');
  await expect(field).toBeFocused();
  // Of what was typed and of the custom length itself.
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(field).toHaveCount(0);
  await expect(page.locator('[data-row="width"] [data-tab]:focus')).toBeInViewport();
  // One goes on from there.
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('[data-row="width"] [data-tab]:focus')).toHaveCount(1);
});

for (const [name, width, height] of [
  ['a small window', 1024, 768],
  ['twice as large letters', 640, 400],
] as const) {
  test(`the Bench in ${name}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await signIn(page, people.engineer);
    await ridgeback(page);
    // Nothing is cut off sideways, and everything can be reached.
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
    ).toBeLessThanOrEqual(0);
    await option(page, 'approachParts', /Steel ramps/).click();
    await expect(number(page)).toHaveAccessibleName(/\/R\+T\d{4}$/);
    await option(page, 'mounting', /^Pit/).click();
    await expect(page.getByRole('region', { name: 'Why Pit is not available' })).toBeVisible();
    await page.keyboard.press('1');
    await expect(option(page, 'mounting', /^Pit/)).toBeChecked();
    await side(page).getByRole('button', { name: /^Net/ }).scrollIntoViewIfNeeded();
    await expect(side(page).getByTestId('net')).toBeVisible();
    await page.getByRole('tab', { name: /^Operations/ }).click();
    await expect(panel(page, /^Operations/)).toBeVisible();
  });
}
