/**
 * Composing in headless Chromium: from a click on a block to the new page, and what other people wait while a
 * document of thousands of lines is written.
 */
import type { APIRequestContext, Browser, Page } from '@playwright/test';

type Row = (name: string, times: number[], goal?: number) => void;

const items = ['SILL-1212-X', 'SV-COMM', 'YE-KIOSK', 'SV-CALIB', 'BC-IP66', 'SV-TRAIN-1', 'YE-BOLL'];

/** A quote of so many lines. */
async function quoteOf(request: APIRequestContext, lines: number): Promise<string> {
  const [customer] = (await (await request.get('/api/customers?find=hallersee')).json()) as { id: string }[];
  const quote = (await (
    await request.post('/api/quotes', { data: { customerId: customer?.id, title: 'Timing' } })
  ).json()) as { id: string; version: number };
  let { version } = quote;
  for (let from = 0; from < lines; from += 500) {
    const rows = Array.from({ length: Math.min(500, lines - from) }, (_, at) => ({
      sku: items[at % items.length],
      quantity: 1 + (at % 5),
    }));
    const answer = await request.post(`/api/quotes/${quote.id}/lines/several`, { data: { version, rows } });
    if (!answer.ok()) throw new Error(await answer.text());
    ({ version } = (await (await request.get(`/api/quotes/${quote.id}`)).json()) as { version: number });
  }
  return quote.id;
}

/** All of it. */
export async function timeComposer(browser: Browser, baseURL: string, row: Row): Promise<void> {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.request.post('/api/session', {
    data: { email: 'mara@harrowmoor.example', password: 'harrowmoor' },
  });
  const fifty = await quoteOf(page.request, 50);
  await page.goto(`/quotes/${fifty}/paper`);
  await page.locator('[data-page="1"] canvas[data-words]:not([data-words=""])').waitFor();
  const turns: number[] = [];
  for (let turn = 0; turn < 14; turn++) {
    const took = await change(page);
    if (turn >= 2) turns.push(took);
  }
  row('Composer, 50 lines: a click to its new page', turns, 1_000);
  await timeOthers(page.request, fifty, row);
  await context.close();
}

/** Turns a block on or off; gives the milliseconds until its page is drawn, and lets it be kept. */
async function change(page: Page): Promise<number> {
  const took = await page.evaluate(
    () =>
      new Promise<number>((tell) => {
        const words = (): string | null | undefined =>
          document.querySelector('[data-page="1"] canvas')?.getAttribute('data-words');
        const before = words();
        const start = performance.now();
        document.querySelector<HTMLElement>('[data-block="opening"] input')?.click();
        const look = (): void => {
          if (words() !== before) tell(performance.now() - start);
          else if (performance.now() - start > 10_000) tell(NaN);
          else requestAnimationFrame(look);
        };
        look();
      }),
  );
  await page.waitForTimeout(1_200);
  return took;
}

/** The pages of one's own quote, alone and while somebody else's of 4,000 lines are written. */
async function timeOthers(request: APIRequestContext, own: string, row: Row): Promise<void> {
  const long = await quoteOf(request, 4_000);
  const paper = async (id: string): Promise<number> => {
    const start = performance.now();
    const answer = await request.get(`/api/quotes/${id}/paper.pdf`);
    if (!answer.ok()) throw new Error(await answer.text());
    return performance.now() - start;
  };
  const ask = async (): Promise<number> => {
    const start = performance.now();
    await request.get(`/api/quotes/${own}`);
    return performance.now() - start;
  };
  await paper(own);
  const [alone, asked]: [number[], number[]] = [[], []];
  for (let turn = 0; turn < 12; turn++) {
    alone.push(await paper(own));
    asked.push(await ask());
  }
  const longs: number[] = [];
  const [beside, askedBeside]: [number[], number[]] = [[], []];
  for (let turn = 0; turn < 2; turn++) {
    const written = { is: false };
    const whole = paper(long).then((took) => {
      written.is = true;
      longs.push(took);
    });
    while (!written.is) {
      beside.push(await paper(own));
      askedBeside.push(await ask());
    }
    await whole;
  }
  row('4,000 lines as PDF, through the server', longs, 8_000);
  row('50 lines as PDF, alone', alone);
  row('50 lines as PDF, while 4,000 are written', beside);
  row('A quote read, alone', asked);
  row('A quote read, while 4,000 lines are written', askedBeside);
}
