import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { strFromU8, unzipSync } from 'fflate';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { exact } from '../../core/exact';
import {
  composedBy,
  figuresIn,
  workedOut,
  type Composition,
  type LinesChoice,
  type PaperDocument,
} from '../../core/paper';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { documentOf, quotation, seePaper } from './composing';
import { offered } from './files/offered';
import { pdfPages } from './testing';
import { lineTable } from './line-table';
import { money } from '../../i18n';
import { templatesAt } from './house-texts';
import { listQuotes } from '../quotes/quote-list';
import { seeQuote } from '../quotes/quotes';
import { openDemo, personOf } from '../kernel/testing';

let mara: Actor;
let rhona: Actor;
let quotes: { id: string; actor: Actor }[];
beforeAll(async () => {
  await openDemo('papers');
  [mara, rhona] = await Promise.all([personOf('mara@harrowmoor.example'), personOf('rhona@dunmere.example')]);
  quotes = (
    await Promise.all(
      [mara, rhona].map(async (actor) => (await listQuotes(actor)).rows.map(({ id }) => ({ id, actor }))),
    )
  ).flat();
});
afterAll(() => connected().close());

const seen = async ({ id, actor }: { id: string; actor: Actor }) => {
  const quote = await seeQuote(actor, id);
  if (!quote.ok) throw new Error('missing');
  return quote.value;
};
const composed = async (
  { id, actor }: { id: string; actor: Actor },
  change?: (composition: Composition) => Composition,
): Promise<PaperDocument> => {
  const made = await documentOf(actor, id, undefined, change);
  if (!made.ok) throw new Error(JSON.stringify(made));
  return made.value;
};
/** Lines shown in another way. */
const lined =
  (lines: Partial<LinesChoice>) =>
  (composition: Composition): Composition => ({ ...composition, lines: { ...composition.lines, ...lines } });

/** The words of a PDF, page by page. */
const pdfText = async (bytes: Uint8Array): Promise<string> => (await pdfPages(bytes)).join(' ');

describe('the composed document', () => {
  it('says what the Ledger says, and each figure that is worked out is what those it names make', async () => {
    let [checked, worked] = [0, 0];
    for (const each of quotes) {
      const quote = offered(await seen(each));
      for (const discounts of ['line', 'sum', 'none'] as const) {
        const document = await composed(each, lined({ discounts, prices: 'each' }));
        const figures = figuresIn(document);
        for (const figure of figures.values()) {
          const comes = workedOut(figure, figures);
          if (comes === null) continue;
          worked += 1;
          expect([quote.number, discounts, figure.id, comes.toString()]).toEqual([
            quote.number,
            discounts,
            figure.id,
            exact(figure.value).toString(),
          ]);
        }
        const net = figures.get('sums.net');
        if (quote.lines.some(({ optional, alternative }) => !optional && !alternative)) {
          expect([quote.number, exact(net?.value ?? '-1').toString()]).toEqual([
            quote.number,
            exact(quote.totals.net).toString(),
          ]);
          expect(net?.works).toBeDefined();
          if (quote.tax) expect(figures.get('sums.gross')?.value).toBe(quote.tax.gross);
        }
        checked += 1;
      }
    }
    expect(checked).toBeGreaterThan(30);
    expect(worked).toBeGreaterThan(150);
  });

  it('has nothing in it that a choice hides', async () => {
    for (const each of quotes) {
      const quote = offered(await seen(each));
      const [line] = quote.lines;
      if (!line) continue;
      const hidden = JSON.stringify(
        await composed(each, lined({ prices: 'none', numbers: false, chosen: 'none' })),
      );
      for (const amount of [quote.totals.net, quote.totals.list, line.price.net, line.price.unitNet])
        if (exact(amount).gt(1000)) expect(hidden).not.toContain(`"${amount}"`);
      if (line.buildId) expect(hidden).not.toContain(line.partNumber);
      const net = JSON.stringify(await composed(each, lined({ discounts: 'none' })));
      if (!exact(quote.totals.reduction).isZero()) {
        expect(net).not.toMatch(/"sums\.(list|less|whole)"/);
        expect(net).not.toContain(quote.totals.reduction);
      }
      const sums = await composed(each, lined({ prices: 'sums' }));
      expect([...figuresIn(sums).keys()].filter((id) => /^lines\..*(list|net|total)$/.test(id))).toEqual([]);
    }
  });

  it('says who sends it, when it is delivered, what tax there is or that there is none', async () => {
    for (const each of quotes) {
      const quote = await seen(each);
      const text = JSON.stringify(await composed(each));
      expect(text).toContain(each.actor === rhona ? 'Dunmere' : 'Weighhouse Lane 1');
      expect(text).toMatch(/expect to deliver|liefern wir voraussichtlich/);
      const { tax } = offered(quote);
      if (quote.lines.length > 0)
        expect(text).toMatch(
          tax ? /Total with tax|Gesamtbetrag mit Steuer/ : /without tax|ohne Steuer|final prices|Endpreise/,
        );
      expect(text).not.toMatch(/\{\{|\{(quote|customer|house|line)/);
    }
  });
});

describe('the files of a quotation', () => {
  it('say the same sums in every format, to the cent', async () => {
    for (const each of quotes) {
      const quote = offered(await seen(each));
      if (quote.lines.length === 0) continue;
      const document = await composed(each);
      const shown = document.blocks
        .flatMap(({ nodes }) => nodes)
        .flatMap((node) => (node.is === 'sums' ? node.rows.map(({ text }) => text) : []));
      const read = async (format: string): Promise<string> => {
        const made = await quotation(each.actor, each.id, format);
        if (!made.ok) throw new Error(JSON.stringify(made));
        const bytes = made.value.bytes as Uint8Array;
        return format === 'pdf' ? pdfText(bytes) : new TextDecoder().decode(bytes);
      };
      const [pdf, html, xml] = [await read('pdf'), await read('html'), await read('xml')];
      const packed = async (format: string, part: string): Promise<string> => {
        const made = await quotation(each.actor, each.id, format);
        if (!made.ok) throw new Error(JSON.stringify(made));
        return strFromU8(unzipSync(made.value.bytes as Uint8Array)[part] ?? new Uint8Array());
      };
      const [docx, xlsx] = [
        await packed('docx', 'word/document.xml'),
        await packed('xlsx', 'xl/worksheets/sheet1.xml'),
      ];
      for (const { value } of figuresIn(document).values())
        expect([quote.number, value, xlsx.includes(`<v>${String(Number(value))}</v>`)]).toEqual([
          quote.number,
          value,
          true,
        ]);
      for (const text of shown) {
        expect([quote.number, text, pdf.includes(text)]).toEqual([quote.number, text, true]);
        expect([quote.number, text, html.includes(text)]).toEqual([quote.number, text, true]);
        expect([quote.number, text, docx.includes(text)]).toEqual([quote.number, text, true]);
      }
      const payable = /<cbc:PayableAmount[^>]*>([\d.]+)</.exec(xml)?.[1] ?? '';
      expect(exact(payable).toString()).toBe(exact(quote.tax?.gross ?? quote.totals.net).toString());
    }
  });

  it('have no page that is empty, or has a last word alone', async () => {
    for (const each of quotes) {
      const made = await quotation(each.actor, each.id, 'pdf');
      if (!made.ok) throw new Error(JSON.stringify(made));
      const bytes = new Uint8Array(made.value.bytes as Uint8Array);
      const pdf = await getDocument({ data: bytes, useSystemFonts: false }).promise;
      for (let number = 1; number <= pdf.numPages; number++) {
        const page = await pdf.getPage(number);
        const { height } = page.getViewport({ scale: 1 });
        const { items } = await page.getTextContent();
        // Between head and foot of the page, which are on each of them.
        const told = items.filter(
          (item) =>
            'str' in item &&
            item.str.trim() !== '' &&
            Number(item.transform[5]) > 60 &&
            Number(item.transform[5]) < height - 60,
        );
        expect(told.length, `page ${String(number)} of ${each.id}`).toBeGreaterThan(2);
      }
    }
  });

  it('say what the Ledger says in either language and by every template', async () => {
    const templates = await templatesAt(null);
    for (const each of quotes) {
      const quote = offered(await seen(each));
      if (!quote.lines.some(({ optional, alternative }) => !optional && !alternative)) continue;
      for (const { code, content } of templates)
        for (const language of ['en', 'de', 'en-US'] as const) {
          const document = await composed(each, () => composedBy(code, content, { language, paper: 'A4' }));
          const figures = figuresIn(document);
          const [net, gross] = [figures.get('sums.net'), figures.get('sums.gross')];
          expect([quote.number, code, language, exact(net?.value ?? '-1').toString()]).toEqual([
            quote.number,
            code,
            language,
            exact(quote.totals.net).toString(),
          ]);
          if (quote.tax) expect(gross?.value).toBe(quote.tax.gross);
          const text = JSON.stringify(document);
          expect(text).toContain(money(quote.totals.net, language, quote.decimals));
          expect(text).toContain(language === 'de' ? 'Angebot' : 'Quotation');
        }
    }
  });

  it('are offered with the template that fits, and what may be chosen', async () => {
    for (const each of quotes) {
      const view = await seePaper(each.actor, each.id);
      if (!view.ok) throw new Error('missing');
      const { customer } = await seen(each);
      expect(view.value.composition.template).toBe(
        each.actor === rhona ? 'dealer' : customer.class === 'public' ? 'tender' : 'house',
      );
      expect(view.value.warnings).toEqual([]);
    }
  });

  it('goes out as a table without costs to the customer, and with them to colleagues', async () => {
    const [{ id } = { id: '' }] = quotes;
    const customers = await lineTable(mara, id, 'csv', 'customer');
    const ours = await lineTable(mara, id, 'csv', 'internal');
    if (!customers.ok || !ours.ok) throw new Error('missing');
    const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
    expect(text(customers.value.bytes)).not.toMatch(/Cost|Margin|Kosten|Marge/);
    expect(text(ours.value.bytes)).toMatch(/Not for the customer[^]*Margin %/);
    expect(ours.value.name).toMatch(/-internal\.csv$/);
  });
});
