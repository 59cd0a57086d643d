/** Nothing is cut off: every view, tab and panel, in both languages, at the sizes that people work with. */
import { expect, test, type Page } from '@playwright/test';
import { translator } from '../src/i18n';
import { demoQuote, option, people, quoteOf, ready, signIn } from './people';

/** The last is a window of 1280 by 800 at twice the size. */
const sizes = {
  usual: { width: 1280, height: 800 },
  small: { width: 1024, height: 768 },
  zoomed: { width: 640, height: 400 },
};

/**
 * What cannot be seen whole and cannot be scrolled to: it reaches past what clips it, or past the window. A
 * pane may scroll up and down; a table may be moved sideways where letters are doubled (data-sideways). Text
 * that ends in dots has to say the whole in its title, or its control's.
 */
async function cutOff(page: Page, zoomed: boolean): Promise<string[]> {
  return page.evaluate((zoomed) => {
    const named = (element: Element): string => {
      const text = (element.getAttribute('aria-label') ?? element.textContent)
        .trim()
        .replace(/\s+/g, ' ')
        .slice(0, 40);
      return `${element.tagName.toLowerCase()}.${(element.getAttribute('class') ?? '').split(/\s+/)[0] ?? ''} "${text}"`;
    };
    const found: string[] = [];
    const page = document.documentElement;
    if (page.scrollWidth > window.innerWidth)
      found.push(`the page scrolls sideways: ${String(page.scrollWidth)} of ${String(window.innerWidth)}`);
    /** Where something is to be seen: the whole of a control or picture, the letters of a text. */
    const seen = (element: Element): DOMRect | null => {
      if (element.matches('button, input, select, textarea, img, canvas') || element instanceof SVGSVGElement)
        return element.getBoundingClientRect();
      const letters = [...element.childNodes].filter(
        (node) => node.nodeType === Node.TEXT_NODE && (node.textContent ?? '').trim() !== '',
      );
      if (letters.length === 0) return null;
      const range = document.createRange();
      range.setStartBefore(letters[0] as Node);
      range.setEndAfter(letters.at(-1) as Node);
      return range.getBoundingClientRect();
    };
    for (const element of document.body.querySelectorAll('*')) {
      if (element instanceof SVGElement && !(element instanceof SVGSVGElement)) continue;
      if (
        !element.checkVisibility({
          opacityProperty: true,
          visibilityProperty: true,
          contentVisibilityAuto: true,
        })
      )
        continue;
      const box = seen(element);
      // Text for screen readers alone, and what comes into the window with the keyboard.
      if (!box || box.width <= 1 || box.height <= 1 || box.right < 0) continue;
      let reach = { left: box.left, right: box.right, top: box.top, bottom: box.bottom };
      for (
        let pane: Element | null = element.matches('button, input, select, textarea, img, canvas, svg')
          ? element.parentElement
          : element;
        pane;
        pane = pane.parentElement
      ) {
        const style = getComputedStyle(pane);
        const own = pane.getBoundingClientRect();
        if (own.width <= 1 || own.height <= 1) {
          reach = { left: 0, right: 0, top: 0, bottom: 0 };
          break;
        }
        const [x, y] = [style.overflowX, style.overflowY];
        if (x !== 'visible') {
          const dots = style.textOverflow === 'ellipsis' && pane.closest('[title]') !== null;
          const sideways = (x === 'auto' || x === 'scroll') && zoomed && pane.matches('[data-sideways]');
          if (!dots && !sideways && (reach.right > own.right + 1 || reach.left < own.left - 1)) {
            found.push(
              `${named(element)} reaches ${String(Math.round(Math.max(reach.right - own.right, own.left - reach.left)))} px past ${named(pane)}`,
            );
            break;
          }
          reach = { ...reach, left: Math.max(reach.left, own.left), right: Math.min(reach.right, own.right) };
        }
        if (y !== 'visible') {
          // Text cut to so many lines says the whole in its title.
          if (style.webkitLineClamp !== 'none' && pane.closest('[title]') !== null)
            reach = {
              ...reach,
              top: Math.max(reach.top, own.top),
              bottom: Math.min(reach.bottom, own.bottom),
            };
          else if (y === 'hidden' || y === 'clip') {
            if (reach.bottom > own.bottom + 1 || reach.top < own.top - 1) {
              found.push(
                `${named(element)} is cut off by ${String(Math.round(Math.max(reach.bottom - own.bottom, own.top - reach.top)))} px below or above in ${named(pane)}`,
              );
              break;
            }
          } else
            reach = {
              ...reach,
              top: Math.min(Math.max(reach.top, own.top), own.bottom),
              bottom: Math.max(Math.min(reach.bottom, own.bottom), own.top),
            };
        }
        if (style.position === 'fixed') break;
      }
      if (reach.right > window.innerWidth + 1 || reach.left < -1)
        found.push(`${named(element)} reaches past the window`);
      const style = getComputedStyle(element);
      if (
        style.textOverflow === 'ellipsis' &&
        element.scrollWidth > element.clientWidth + 1 &&
        !element.closest('[title]')
      )
        found.push(`${named(element)} ends in dots and says nowhere what it is`);
    }
    return [...new Set(found)].slice(0, 12);
  }, zoomed);
}

/** Looks at a view in every size. */
async function look(page: Page, name: string, problems: string[]): Promise<void> {
  await ready(page);
  for (const [size, room] of Object.entries(sizes)) {
    await page.setViewportSize(room);
    await page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
    );
    problems.push(...(await cutOff(page, size === 'zoomed')).map((each) => `${name}, ${size}: ${each}`));
  }
  await page.setViewportSize(sizes.usual);
}

/** The tabs of a list, one after another. */
async function eachTab(page: Page, label: string, see: (tab: string) => Promise<void>): Promise<void> {
  const tabs = page.getByRole('tablist', { name: label }).getByRole('tab');
  expect(await tabs.count(), label).toBeGreaterThan(1);
  for (let at = 0; at < (await tabs.count()); at += 1) {
    await tabs.nth(at).click();
    await see(await tabs.nth(at).innerText());
  }
}

for (const [language, person] of [
  ['en', people.engineer],
  ['de', people.second],
] as const) {
  test(`nothing is cut off in ${language}`, async ({ page }) => {
    const t = translator(language);
    const problems: string[] = [];
    await signIn(page, person);
    for (const path of ['/', '/catalogue', '/programs', '/quotes', '/orders']) {
      await page.goto(path);
      await look(page, path, problems);
    }
    const { order } = await demoQuote(page, 'Fell End, second deck');
    await page
      .locator('main input')
      .first()
      .fill(order?.number ?? '');
    await page.getByRole('link', { name: order?.number ?? '' }).click();
    await page.waitForURL(/\/orders\/./);
    await look(page, 'order', problems);
    await page.getByRole('link', { name: /^W-.*-1$/ }).click();
    await page.waitForURL(/\/work\//);
    await look(page, 'work order', problems);

    const [customer] = (await (await page.request.get('/api/customers?find=norrvik')).json()) as {
      id: string;
    }[];
    const { id: quoteId } = (await (
      await page.request.post('/api/quotes', {
        data: {
          customerId: customer?.id,
          title:
            'A title as long as titles of quotes for whole yards with several weighbridges tend to become',
        },
      })
    ).json()) as { id: string };
    const begin = async (modelId: string) =>
      (
        (await (await page.request.post('/api/builds', { data: { quoteId, modelId } })).json()) as {
          id: string;
        }
      ).id;
    const builds: string[] = [];
    for (const model of ['ridgeback', 'quarryGate', 'beacon', 'tarn', 'plumb']) {
      const build = await begin(model);
      builds.push(build);
      if (model === 'quarryGate') {
        const decisions = [
          { on: 'scale/ridgeback/1/vehicle', value: 'articulated' },
          { on: 'scale/ridgeback/1/length', value: 'm12' },
          { on: 'plateText', value: 'Weighhouse, gate north' },
        ];
        expect(
          (
            await page.request.put(`/api/builds/${build}`, {
              data: { version: 1, decisions, passed: [], special: [] },
            })
          ).ok(),
        ).toBe(true);
      }
      await page.goto(`/bench/${build}`);
      await look(page, `${model} as it opens`, problems);
      if (model !== 'ridgeback' && model !== 'quarryGate') continue;
      if (model === 'ridgeback') {
        await option(page, 'vehicle', /44/).click();
        await expect(option(page, 'vehicle', /44/)).toBeChecked();
        await option(page, 'capacity', /30/).click();
        await expect(page.getByRole('region', { name: t('bench.why', { what: '30 t' }) })).toBeVisible();
        await look(page, 'why', problems);
        await page.keyboard.press('Escape');
        await option(page, 'length', /^12/).click();
      }
      await eachTab(page, t('draw.title'), (tab) => look(page, `${model}, ${tab}`, problems));
      await eachTab(page, t('bench.parts'), (tab) => look(page, `${model}, ${tab}`, problems));
      for (const opener of await page
        .getByRole('complementary', { name: t('bench.money') })
        .locator('[aria-expanded]')
        .all()) {
        await opener.click();
        await look(page, `${model}, ${await opener.innerText()}`, problems);
      }
    }
    // What a build shows that reaches past its pane is found at all.
    await page.getByTestId('net').evaluate((element) => {
      (element.parentElement as HTMLElement).style.marginRight = '-60px';
    });
    expect(await cutOff(page, false)).toContainEqual(expect.stringContaining('past'));

    const { version } = await quoteOf(page, quoteId);
    expect(
      (
        await page.request.post(`/api/builds/${builds[1] ?? ''}/line`, { data: { version, quantity: 1 } })
      ).ok(),
    ).toBe(true);
    await page.goto(`/quotes/${quoteId}`);
    await look(page, 'ledger', problems);
    await page.getByRole('button', { name: t('ledger.partsOfLine', { line: 1 }) }).click();
    await look(page, 'parts', problems);
    for (const panel of [
      t('ledger.walkOf', { line: 1 }),
      t('ledger.walk'),
      t('deal.open'),
      t('ledger.revision', { number: 1 }),
    ]) {
      if (panel === t('deal.open')) {
        await page.getByRole('button', { name: t('ledger.more'), exact: true }).click();
        await page.getByRole('menuitem', { name: panel, exact: true }).click();
      } else await page.getByRole('button', { name: panel, exact: true }).click();
      await look(page, panel, problems);
    }
    await page.goto(`/quotes/${quoteId}/paper`);
    await expect(page.getByRole('region', { name: t('composer.pages') })).toBeVisible();
    await look(page, 'composer', problems);
    for (const kind of ['lines', 'drawings', 'annexes'] as const) {
      const block = t(`composer.block.${kind}`);
      await page.getByRole('button', { name: t('composer.settings', { block }), exact: true }).click();
      await look(page, `composer, ${kind}`, problems);
    }
    expect(problems).toEqual([]);
  });
}

test('nothing is cut off where the texts and templates of paper are kept', async ({ page }) => {
  const problems: string[] = [];
  await signIn(page, people.modeller);
  await page.goto('/paper');
  await expect(page.getByRole('region', { name: 'Pages' })).toBeVisible();
  await look(page, 'template', problems);
  await page.getByRole('button', { name: 'Terms', exact: true }).click();
  await look(page, 'text', problems);
  expect(problems).toEqual([]);
});

test('nothing is cut off on the page of an item', async ({ page }) => {
  const problems: string[] = [];
  await signIn(page, people.modeller);
  await page.goto('/prices');
  await look(page, 'price lists', problems);
  await page.goto('/items/SILL-1212-X');
  await ready(page);
  await page.getByRole('button', { name: 'Add a bar' }).click();
  await look(page, 'item', problems);
  expect(problems).toEqual([]);
});
