/** A sheet of 20,000 items: read and shown in the item master, then kept in the background, all or nothing. */
import type { Browser } from '@playwright/test';

type Row = (name: string, times: number[], goal?: number) => void;

/** As a modeller does it, in a house that `npm run demo:large` made. */
export async function timeItems(browser: Browser, baseURL: string, row: Row): Promise<void> {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  page.setDefaultTimeout(180_000);
  await page.request.post('/api/session', {
    data: { email: 'wen@harrowmoor.example', password: 'harrowmoor' },
  });
  const view = (await (await page.request.get('/api/catalogue/items')).json()) as {
    items: { sku: string }[];
  };
  // What each takes is another than before at every run.
  const days = String(1 + (Math.floor(Date.now() / 1000) % 900));
  const sheet = view.items.map(({ sku }) => `${sku};${days}`);
  await page.goto('/items');
  await page.locator('astro-island[ssr]').first().waitFor({ state: 'detached' });
  await page.getByRole('grid').first().waitFor();
  const timed = async (name: string, goal: number, work: () => Promise<unknown>): Promise<number> => {
    const from = performance.now();
    await work();
    const time = performance.now() - from;
    row(name, [time], goal);
    return time;
  };
  const shown = await timed(
    `a sheet of ${String(sheet.length)} items, until it is shown`,
    20_000,
    async () => {
      await page.locator('input[type="file"]').setInputFiles({
        name: 'items.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from(['Number;Days', ...sheet].join('\n')),
      });
      await page.getByText(/\d+ new, [1-9]\d+ different, \d+ as they are/).waitFor();
    },
  );
  const stored = await timed('  and until all of them are kept', 20_000, async () => {
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.getByText('items not kept yet.').waitFor({ state: 'hidden' });
  });
  row('  both', [shown + stored], 20_000);
  await context.close();
}
