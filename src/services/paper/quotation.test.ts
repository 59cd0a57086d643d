import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Content, TableCell } from 'pdfmake/interfaces';
import { exact } from '../../core/exact';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { documentOf } from './files/quotation-pages';
import { offered } from './files/offered';
import { lineTable } from './line-table';
import { describedIn, quotation } from './quotation';
import { listQuotes } from '../quotes/quote-list';
import { seeQuote } from '../quotes/quotes';
import { openDemo, personOf } from '../kernel/testing';

let mara: Actor;
let quotes: string[];
beforeAll(async () => {
  await openDemo('papers');
  mara = await personOf('mara@harrowmoor.example');
  quotes = (await listQuotes(mara)).rows.map(({ id }) => id);
}, 60_000);
afterAll(() => connected().close());

const sender = { name: 'Works', street: 'Lane 1', postcode: '1', town: 'Town', country: 'GB' };
const seen = async (id: string) => {
  const quote = await seeQuote(mara, id);
  if (!quote.ok) throw new Error('missing');
  return quote.value;
};
/** All texts of a document, in their order. */
const textsIn = (content: unknown): string[] =>
  typeof content === 'string'
    ? [content]
    : Array.isArray(content)
      ? content.flatMap(textsIn)
      : content !== null && typeof content === 'object'
        ? Object.entries(content).flatMap(([key, value]) =>
            ['text', 'stack', 'columns', 'table', 'body', 'content'].includes(key) ? textsIn(value) : [],
          )
        : [];
/** A figure as an English or German quotation writes it. */
const read = (text: string, german: boolean) =>
  exact(german ? text.replaceAll('.', '').replace(',', '.') : text.replaceAll(',', ''));

describe('the quotation', () => {
  it('has rows that multiply across, and sums that add up, on every quote of the demo', async () => {
    let [checked, several] = [0, 0];
    for (const id of quotes) {
      const quote = await seen(id);
      const german = quote.customer.language === 'de';
      const { content } = documentOf({
        quote: offered(quote),
        today: '2026-11-28',
        sender,
        paper: 'A4',
        builds: await describedIn(quote, 'metric'),
      });
      const table = (content as Content[]).find(
        (each) => typeof each === 'object' && 'table' in each && each.table?.body[0]?.length === 7,
      ) as { table: { body: TableCell[][] } };
      const cells = (row: TableCell[]) => row.map((cell) => textsIn(cell).join(' '));
      let sum = exact(0);
      let within = exact(0);
      let rows = 0;
      for (const row of table.table.body.slice(1).map(cells)) {
        const [, what = '', quantity = '', , , each = '', amount = ''] = row;
        // Not the head of a group, which sums its lines.
        if (amount === '' || !/^\d*$/.test(row[0] ?? '')) continue;
        if (/^(Line|Position) \d+ (in all|zusammen)$/.test(what)) {
          expect([quote.number, read(amount, german).toString()]).toEqual([quote.number, within.toString()]);
          several += 1;
          continue;
        }
        if (row[0] !== '') within = exact(0);
        within = within.plus(read(amount, german));
        rows += 1;
        if (!/Optional|Alternative/.test(what)) sum = sum.plus(read(amount, german));
        if (each !== '' && !/months|Monate/.test(what)) {
          expect([
            what,
            read(quantity.split(' ')[0] ?? '', german)
              .times(read(each, german))
              .toString(),
          ]).toEqual([what, read(amount, german).toString()]);
          checked += 1;
        }
      }
      const shared = quote.lines
        .filter((line) => !line.optional && !line.alternative)
        .reduce((all, { price }) => all.plus(price.share ?? '0'), exact(0));
      expect([quote.number, sum.minus(shared).toString(), rows > 0]).toEqual([
        quote.number,
        exact(quote.totals.net).toString(),
        true,
      ]);
    }
    expect(checked).toBeGreaterThan(10);
    expect(several).toBeGreaterThan(0);
  });

  it('says who sends it, when it is delivered, what tax there is or that there is none, and what is inside', async () => {
    for (const id of quotes) {
      const quote = await seen(id);
      const text = textsIn(
        documentOf({
          quote,
          today: '2026-11-28',
          paper: 'A4',
          sender,
          builds: await describedIn(quote, 'metric'),
        }).content,
      ).join('\n');
      expect(text).toContain('Lane 1, 1 Town, GB');
      expect(text).toMatch(/expected to be delivered by|voraussichtlich bis/);
      expect(text).toMatch(quote.tax ? /Total with tax|Gesamtbetrag mit Steuer/ : /without tax|ohne Steuern/);
      expect(text).not.toContain('{{');
      if (quote.lines.some(({ sku }) => sku === 'RIDGEBACK')) expect(text).toMatch(/BC-[A-Z]{3}-/);
    }
  });

  it('is a PDF for everybody who sees the quote', async () => {
    const made = await quotation(mara, quotes[0] ?? '');
    expect(made.ok && new TextDecoder().decode(made.value.bytes.slice(0, 5))).toBe('%PDF-');
  });

  it('goes out as a table without costs to the customer, and with them to colleagues', async () => {
    const [id = ''] = quotes;
    const customers = await lineTable(mara, id, 'csv', 'customer');
    const ours = await lineTable(mara, id, 'csv', 'internal');
    if (!customers.ok || !ours.ok) throw new Error('missing');
    const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
    expect(text(customers.value.bytes)).not.toMatch(/Cost|Margin|Kosten|Marge/);
    expect(text(ours.value.bytes)).toMatch(/Not for the customer[^]*Margin %/);
    expect(ours.value.name).toMatch(/-internal\.csv$/);
  });
});
