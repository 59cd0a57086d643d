/** Between colleagues: a question from the Bench, answered with a special part; a quote in other hands. */
import { expect, test, type Page } from '@playwright/test';
import { demoQuote, openQuote, password, people, quoteOf, ready, signIn } from './people';

/** A quote with a whole build, as one of the demo's is. */
async function withBuild(page: Page): Promise<{ quote: string; build: string }> {
  const model = (await demoQuote(page, 'Timber gate, running it')).lines.find(
    ({ buildId }) => buildId !== undefined,
  );
  const made = (await (await page.request.get(`/api/builds/${model?.buildId ?? ''}`)).json()) as {
    content: { decisions: unknown[] };
  };
  const quote = await openQuote(page, 'callow', 'Callow');
  const post = async (method: 'post' | 'put', path: string, data: object) => {
    const answer = await page.request[method](path, { data });
    expect([path, answer.status()]).toEqual([path, 200]);
    return (await answer.json()) as { id: string };
  };
  const { id: build } = await post('post', '/api/builds', { quoteId: quote, modelId: 'ridgeback' });
  await post('put', `/api/builds/${build}`, { version: 1, decisions: made.content.decisions });
  const { version } = await quoteOf(page, quote);
  await post('post', `/api/builds/${build}/line`, { version, quantity: 1 });
  return { quote, build };
}

test('a question from the Bench is answered with a special part, which is put into the build', async ({
  page,
  browser,
}) => {
  await signIn(page, people.engineer);
  const { quote, build } = await withBuild(page);
  const whole = await quoteOf(page, quote);
  const before = whole.totals.net;
  // Something that is sold by itself in the build, so that another price makes another sum.
  const sold = new Set(whole.lines[0]?.build?.parts.flatMap(({ item }) => item ?? []));
  const items = (await (
    await page.request.get(`/api/quotes/${quote}/lines/${whole.lines[0]?.id ?? ''}/items`)
  ).json()) as { sku: string; name: { en: string } }[];
  const name = items.find(({ sku }) => sold.has(sku))?.name.en ?? '';
  expect(name).not.toBe('');
  await page.goto(`/bench/${build}`);
  await ready(page);
  await page.getByRole('tab', { name: /^Build/ }).click();
  await page
    .getByRole('button', { name: `Replace ${name} by a special part` })
    .first()
    .click();
  await page.getByRole('button', { name: 'Ask …' }).click();
  await page.getByLabel(/^What it is, instead of/).fill('Galvanised to 120 µm: what does it take?');
  await page.getByRole('button', { name: 'Ask', exact: true }).click();
  await expect(page.getByText('Asked: the answer comes to your Desk, and to the quote.')).toBeVisible();

  const other = await (await browser.newContext()).newPage();
  await signIn(other, people.modeller);
  await other.goto('/');
  await ready(other);
  const asked = other.getByRole('region', { name: 'Asked of you' });
  await asked.getByRole('link', { name: /Question at line 1.*Galvanised to 120/ }).click();
  await other.waitForURL(/side=colleagues/);
  await ready(other);
  await other.getByLabel('Your answer').fill('It can be done in five weeks.');
  await other.getByLabel('With a special part, its cost and its price').check();
  await other.getByLabel(/^What it is, instead of/).fill('Plate, galvanised to 120 µm');
  const field = (name: RegExp) => other.getByRole('textbox', { name });
  await field(/^Cost /).fill('180.50');
  await field(/^Price /).fill('1,420');
  await field(/^Days$/).fill('25');

  // The engineer is told wherever they are, and finds it on the Desk.
  await page.goto('/catalogue');
  await ready(page);
  await other.getByRole('button', { name: 'Answer', exact: true }).click();
  await expect(other.getByText('It can be done in five weeks.')).toBeVisible();
  await expect(page.getByText('A colleague asks or answers you')).toBeVisible();
  await page.goto('/');
  await ready(page);
  await page
    .getByRole('region', { name: 'Colleagues have answered' })
    .getByRole('link', { name: /Answered, line 1/ })
    .click();
  await page.waitForURL(/side=colleagues/);
  await ready(page);
  await page.getByRole('button', { name: 'Put the special part in' }).click();
  await expect(page.getByText('The special part is in the build.')).toBeVisible();
  const after = await quoteOf(page, quote);
  expect(after.lines[0]?.special).toMatchObject([{ text: 'Plate, galvanised to 120 µm' }]);
  expect(after.totals.net).not.toBe(before);
  await other.context().close();
});

test('a note, a day to follow up on and a drawing stand with a quote, which goes into other hands', async ({
  page,
  browser,
}) => {
  await signIn(page, people.engineer);
  const quote = await openQuote(page, 'callow', 'Callow');
  await ready(page);
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Notes and questions' }).click();
  const pane = page.getByRole('complementary', { name: 'Among colleagues' });
  await pane.getByLabel('What colleagues should know').fill('Ms Callow decides.');
  await page.keyboard.press('Control+Enter');
  await expect(pane.getByRole('listitem').filter({ hasText: 'Ms Callow decides.' })).toBeVisible();

  await pane.getByRole('tab', { name: 'Follow up' }).click();
  await pane.getByLabel('On', { exact: true }).first().fill('today');
  await pane.getByLabel('What for').fill('Call about the ramp');
  await pane.getByRole('button', { name: 'Remind' }).click();
  await expect(pane.getByRole('checkbox', { name: 'Call about the ramp' })).toBeVisible();

  await pane.locator('input[type="file"]').setInputFiles({
    name: 'Ramp.dxf',
    mimeType: 'application/dxf',
    buffer: Buffer.from('0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n'),
  });
  await expect(pane.getByRole('link', { name: 'Ramp.dxf' })).toBeVisible();
  // What is no drawing, whatever it is called, is refused in a sentence.
  await pane.locator('input[type="file"]').setInputFiles({
    name: 'Order.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('MZ\u0090\u0000\u0003'),
  });
  await expect(pane.getByRole('alert')).toContainText('Order.pdf');

  await pane.getByRole('tab', { name: 'Hand over' }).click();
  await pane.getByLabel('To whom').selectOption({ label: 'Joss Adeyemi, Sales engineer' });
  await pane.getByLabel('What they should know').fill('I am away until the third.');
  await pane.getByRole('button', { name: 'Hand it over' }).click();
  await expect(pane.getByText('Mara Lindqvist to Joss Adeyemi')).toBeVisible();

  const other = await (await browser.newContext()).newPage();
  expect(
    (
      await other.request.post(`${new URL(page.url()).origin}/api/session`, {
        data: { email: people.second, password },
      })
    ).status(),
  ).toBe(200);
  await other.goto(new URL(page.url()).origin);
  await ready(other);
  await other
    .getByRole('region', { name: 'Nachzufassen' })
    .getByRole('link', { name: /Heute.*Call about the ramp/ })
    .click();
  await other.waitForURL(new RegExp(`${quote}.*side=colleagues`));
  await ready(other);
  await other.getByRole('checkbox', { name: 'Call about the ramp' }).click();
  await expect(other.getByText(/erledigt von Joss Adeyemi/)).toBeVisible();
  await other.context().close();
});
