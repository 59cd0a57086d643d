/**
 * The Ledger with a thousand lines in headless Chromium: from Enter in a cell to the painted total, while
 * scrolling, and the server's answer.
 */
import type { Browser, Page } from '@playwright/test';

type Row = (name: string, times: number[], goal?: number) => void;

const items = [
  'SILL-1212-X',
  'SV-COMM',
  'YE-KIOSK',
  'SV-CALIB',
  'BC-IP66',
  'SV-TRAIN-1',
  'YE-BOLL',
  'SILL-1515-X',
];

export async function timeLedger(browser: Browser, baseURL: string, row: Row): Promise<void> {
  const page = await (
    await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } })
  ).newPage();
  await page.request.post('/api/session', {
    data: { email: 'mara@harrowmoor.example', password: 'harrowmoor' },
  });
  const [customer] = (await (await page.request.get('/api/customers?find=hallersee')).json()) as {
    id: string;
  }[];
  const quote = (await (
    await page.request.post('/api/quotes', { data: { customerId: customer?.id, title: 'Timing' } })
  ).json()) as { id: string; version: number };
  await page.request.post(`/api/quotes/${quote.id}/lines/several`, {
    data: {
      version: quote.version,
      rows: Array.from({ length: 1_000 }, (_, at) => ({
        sku: items[at % items.length],
        quantity: 1 + (at % 5),
      })),
    },
  });
  await page.goto(`/quotes/${quote.id}`, { waitUntil: 'networkidle' });
  const [typed, answered]: [number[], number[]] = [[], []];
  for (let step = 0; step < 40; step++) {
    const [took, answer] = await type(page, step);
    if (step >= 4) typed.push(took);
    answered.push(answer);
  }
  row('Ledger, 1,000 lines: Enter to painted total', typed, 100);
  row('Ledger, 1,000 lines: until the server has it', answered);
  row('Ledger, 1,000 lines: longest frame of a scroll', await scroll(page));
  await page.close();
}

/**
 * Types a discount into one of the lines in sight; gives the milliseconds to the painted total, and to the
 * server's answer.
 */
async function type(page: Page, step: number): Promise<[number, number]> {
  const label = `Discount % ${String(1 + (step % 9))}`;
  await page.getByLabel(label, { exact: true }).fill(String(1 + (step % 7)) + (step % 2 === 0 ? '.5' : ''));
  await page.evaluate(() => {
    const total = document.querySelector('[data-testid="net"]') as HTMLElement;
    const took = new Promise<number>((tell) => {
      window.addEventListener(
        'keydown',
        () => {
          const start = performance.now();
          const watch = new MutationObserver(() => {
            watch.disconnect();
            requestAnimationFrame(() => {
              const channel = new MessageChannel();
              channel.port1.onmessage = () => tell(performance.now() - start);
              channel.port2.postMessage(null);
            });
          });
          watch.observe(total, { subtree: true, characterData: true, childList: true });
          setTimeout(() => tell(NaN), 8000);
        },
        { once: true, capture: true },
      );
    });
    Object.assign(window, { took });
  });
  const start = performance.now();
  await page.keyboard.press('Enter');
  const took = await page.evaluate(() => (window as unknown as { took: Promise<number> }).took);
  await page.getByRole('status').filter({ hasText: 'Saved' }).waitFor();
  return [took, performance.now() - start];
}

/** Scrolls through all lines; gives the longest frame of each stretch. */
const scroll = (page: Page): Promise<number[]> =>
  page.evaluate(async () => {
    const pane = document.querySelector('[role="region"][aria-label="Lines"]') as HTMLElement;
    const longest: number[] = [];
    for (let stretch = 0; stretch < 20; stretch++) {
      let most = 0;
      let last = performance.now();
      for (let frame = 0; frame < 20; frame++) {
        pane.scrollTop += 120;
        await new Promise((next) => requestAnimationFrame(next));
        const now = performance.now();
        most = Math.max(most, now - last);
        last = now;
      }
      longest.push(most);
    }
    return longest;
  });
