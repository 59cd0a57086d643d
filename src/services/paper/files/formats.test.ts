/** What stands in each format, read back by what is not ours where there is something that reads it. */
import ExcelJS from 'exceljs';
import { strFromU8, unzipSync } from 'fflate';
import { PDFDocument, PDFName, PDFString, type PDFArray } from '@cantoo/pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { SaxesParser } from 'saxes';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { exact } from '../../../core/exact';
import { figuresIn, plainComposition, compose, type Composition, type PaperGiven } from '../../../core/paper';
import { lineGiven, paperGiven } from '../../../core/paper/testing';
import type { PaperFormat } from '../../../contract';
import { pdfPages } from '../testing';
import { runsIn, unsettable } from './fonts';
import type { GivenFiles } from './given-files';
import { paperWarnings, writePaper } from './paper-file';
import { order } from './ubl/order';
import { paperWords } from '../../../i18n/paper-words';

const usual = plainComposition({ language: 'en', paper: 'A4' });
const write = async (
  given: PaperGiven,
  format: PaperFormat,
  change: Partial<Composition> = {},
  files: GivenFiles = {},
): Promise<Uint8Array> => {
  const made = await writePaper({ given, composition: { ...usual, ...change }, texts: {}, format, files });
  if (made.is !== 'done') throw new Error(made.name);
  return made.bytes;
};
const documentOf = (given: PaperGiven, change: Partial<Composition> = {}) =>
  compose({ given, composition: { ...usual, ...change }, texts: {}, words: paperWords('en', 2) });

describe('the pages', () => {
  it('can be worked out from the paper alone: what each line makes, what is carried over, and the sums', async () => {
    const given = paperGiven(60);
    const pages = await pdfPages(await write(given, 'pdf'));
    expect(pages.length).toBeGreaterThan(2);
    const number = (text: string): number => Math.round(Number(text.replace(/,/g, '')) * 100);
    let sum = 0;
    let list = 0;
    for (const [at, page] of pages.entries()) {
      const forward = /Brought forward ([\d,.]+)/.exec(page);
      if (at > 0 && forward) expect(number(forward[1] ?? '')).toBe(sum);
      // Number, name, code, quantity, list, discount, net, amount.
      for (const [, quantity, unit, off, net, amount] of page.matchAll(
        /SP-\d{5} (\d+) ([\d,]+\.\d\d) (\d+(?:\.\d+)?) % ([\d,]+\.\d\d) ([\d,]+\.\d\d)/g,
      )) {
        expect(number(amount ?? '')).toBe(Number(quantity) * number(net ?? ''));
        expect(number(net ?? '')).toBe(Math.round(number(unit ?? '') * (1 - Number(off) / 100)));
        sum += number(amount ?? '');
        list += Number(quantity) * number(unit ?? '');
      }
      const over = /Carried over ([\d,.]+)/.exec(page);
      if (over) expect(number(over[1] ?? '')).toBe(sum);
    }
    const all = pages.join(' ');
    const said = (name: RegExp): number => number((name.exec(all) ?? [])[1] ?? 'none');
    expect(sum).toBe(number(given.totals.net));
    expect(said(/Sum at list prices ([\d,.]+)/)).toBe(list);
    expect(said(/Net total GBP ([\d,.]+)/)).toBe(sum);
    expect(said(/Tax, 20 % of [\d,.]+ ([\d,.]+)/)).toBe(Math.round(sum * 0.2));
    expect(said(/Total with tax GBP ([\d,.]+)/)).toBe(sum + Math.round(sum * 0.2));
  });

  it('say who made them, in which language, and have bookmarks and names for their blocks', async () => {
    const bytes = await write(paperGiven(3, { draft: true }), 'pdf', {
      blocks: usual.blocks.map((block) => ({ ...block, on: true })),
    });
    const pdf = await getDocument({ data: new Uint8Array(bytes) }).promise;
    const { info } = (await pdf.getMetadata()) as unknown as { info: Record<string, string> };
    expect([info.Title, info.Author, info.Language]).toEqual([
      'Quotation Q-26-0100',
      'Harrowmoor Scale Works',
      'en-GB',
    ]);
    expect((await pdf.getOutline()).map(({ title }) => title)).toContain('Acceptance');
    expect(await pdf.getDestination('block-lines')).not.toBeNull();
    expect((await pdfPages(bytes))[0]).toContain('DRAFT');
  });

  it('are joined with other PDF files in their order, and refuse one that is none', async () => {
    const other = await PDFDocument.create();
    other.addPage([300, 200]);
    other.addPage([300, 200]);
    const file = { kind: 'pdf', bytes: await other.save() };
    const annexes = [{ file: 'a', name: 'Data sheet', kind: 'pdf' as const }];
    const blocks = usual.blocks.map((block) => ({ ...block, on: true }));
    const plain = await PDFDocument.load(await write(paperGiven(1), 'pdf', { blocks, annexes }));
    const joined = await PDFDocument.load(
      await write(paperGiven(1), 'pdf', { blocks, annexes }, { a: file }),
    );
    expect(joined.getPageCount()).toBe(plain.getPageCount() + 2);
    expect(joined.getPages().at(-1)?.getWidth()).toBe(300);
    const broken = { a: { kind: 'pdf', bytes: new TextEncoder().encode('%PDF-1.7 nothing') } };
    expect(
      await writePaper({
        given: paperGiven(1),
        composition: { ...usual, blocks, annexes },
        texts: {},
        format: 'pdf',
        files: broken,
      }),
    ).toEqual({ is: 'refused', code: 'paper.annexUnread', name: 'Data sheet' });
  });

  it('bring nothing along that runs or starts anything', async () => {
    const other = await PDFDocument.create();
    const page = other.addPage([300, 200]);
    const act = (kind: string, more: object) => ({ Type: 'Action', S: kind, ...more });
    const mark = (action: object) =>
      other.context.register(
        other.context.obj({ Type: 'Annot', Subtype: 'Link', Rect: [0, 0, 9, 9], A: action } as never),
      );
    page.node.set(
      PDFName.of('Annots'),
      other.context.obj([
        mark(act('JavaScript', { JS: PDFString.of('app.alert(1)') })),
        mark(act('Launch', { F: PDFString.of('calc.exe') })),
        mark(act('URI', { URI: PDFString.of('https://harrowmoor.example') })),
      ]),
    );
    page.node.set(
      PDFName.of('AA'),
      other.context.obj({ O: act('JavaScript', { JS: PDFString.of('x') }) } as never),
    );
    const bytes = await write(
      paperGiven(1),
      'pdf',
      {
        blocks: usual.blocks.map((block) => ({ ...block, on: true })),
        annexes: [{ file: 'a', name: 'A', kind: 'pdf' }],
      },
      { a: { kind: 'pdf', bytes: await other.save() } },
    );
    const last = (await PDFDocument.load(bytes)).getPages().at(-1);
    expect(last?.node.has(PDFName.of('AA'))).toBe(false);
    expect((last?.node.lookup(PDFName.of('Annots')) as PDFArray).size()).toBe(1);
  });

  it('take forty large photographs, made no larger than paper shows', async () => {
    const photograph = await sharp({
      create: {
        width: 2400,
        height: 1800,
        channels: 3,
        noise: { type: 'gaussian', mean: 120, sigma: 40 },
      } as never,
    })
      .jpeg({ quality: 90 })
      .toBuffer();
    const files = Object.fromEntries(
      Array.from({ length: 40 }, (_, at) => [
        `p${String(at)}`,
        { kind: 'jpeg', bytes: new Uint8Array(photograph) },
      ]),
    );
    const annexes = Object.keys(files).map((file) => ({ file, name: file, kind: 'picture' as const }));
    const blocks = usual.blocks
      .filter(({ kind }) => kind === 'annexes')
      .map((block) => ({ ...block, on: true }));
    const bytes = await write(paperGiven(1), 'pdf', { blocks, annexes }, files);
    expect(bytes.length).toBeLessThan(Object.keys(files).length * photograph.length);
    expect((await PDFDocument.load(bytes)).getPageCount()).toBeGreaterThan(10);
  });
});

describe('letters', () => {
  it('are set in a face that has them', () => {
    expect(runsIn('Łódź')).toEqual([
      { text: 'Ł', font: 'ArchivoMore' },
      { text: 'ód' },
      { text: 'ź', font: 'ArchivoMore' },
    ]);
    expect(runsIn('Αθήνα')[0]?.font).toBe('Greek');
    expect(runsIn('Київ')[0]?.font).toBe('Cyrillic');
    expect(runsIn('plain, 12 €')).toHaveLength(1);
  });

  it('that no face has are a question mark, and are told of', () => {
    expect(runsIn('东 ok')).toEqual([{ text: '? ok' }]);
    expect(unsettable('a 东 ب 😀 东')).toEqual(['东', 'ب', '😀']);
    const given = { ...paperGiven(1), title: 'Для 東京 🚚' };
    expect(paperWarnings({ given, composition: usual, texts: {} })).toEqual([
      { is: 'letters', letters: ['東', '京', '🚚'] },
    ]);
  });

  it('stay whole where the reader has fonts of its own', async () => {
    const given = { ...paperGiven(1), title: '東京 ب 😀' };
    expect(new TextDecoder().decode(await write(given, 'html'))).toContain('東京 ب 😀');
    expect(
      strFromU8(unzipSync(await write(given, 'docx'))['word/document.xml'] ?? new Uint8Array()),
    ).toContain('東京 ب 😀');
  });
});

/** Sums of products of numbers in brackets; with an r before it rounded to the cent. */
function plainly(text: string): number {
  if (text.startsWith('r')) return Math.round(plainly(text.slice(1)) * 100 + 1e-7) / 100;
  return text
    .replace(/[()]/g, '')
    .replace(/-+/g, (signs) => (signs.length % 2 === 0 ? '+' : '+-'))
    .split('+')
    .filter((part) => part !== '')
    .reduce((sum, part) => sum + part.split('*').reduce((all, each) => all * Number(each), 1), 0);
}

describe('the workbook', () => {
  it('has formulas for what can be worked out, each with what it comes to', async () => {
    const given = paperGiven([
      lineGiven(1, { group: 'A' }),
      lineGiven(2, { group: 'A' }),
      lineGiven(3, { optional: true }),
      lineGiven(4, { group: 'B' }),
      lineGiven(5),
      lineGiven(6),
    ]);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load((await write(given, 'xlsx')).buffer as ArrayBuffer);
    const sheet = book.worksheets[0] as ExcelJS.Worksheet;
    const value = (address: string): number => {
      const { value: held } = sheet.getCell(address);
      if (held !== null && typeof held === 'object' && 'formula' in held) return evaluate(held.formula ?? '');
      return typeof held === 'number' ? held : 0;
    };
    /** Formulas of the few kinds that are written, without what they are said to come to. */
    const evaluate = (formula: string): number => {
      const range = (from: string, to: string): number[] => {
        const [, column = '', low = ''] = /([A-Z]+)(\d+)/.exec(from) ?? [];
        const high = /\d+/.exec(to)?.[0] ?? low;
        return Array.from({ length: Number(high) - Number(low) + 1 }, (_, at) =>
          value(`${column}${String(Number(low) + at)}`),
        );
      };
      const across = /^SUMPRODUCT\(ROUND\((.+),(\d)\)\)$/.exec(formula);
      if (across) {
        const columns = (across[1] ?? '')
          .split('*')
          .map((each) => range(...(each.split(':') as [string, string])));
        return (columns[0] ?? []).reduce(
          (sum, _, row) =>
            sum + Math.round(columns.reduce((all, each) => all * (each[row] ?? 0), 1) * 100) / 100,
          0,
        );
      }
      const text = formula
        .replace(/SUM\(([^()]*)\)/g, (_, args: string) =>
          String(
            args
              .split(',')
              .flatMap((each) =>
                each.includes(':') ? range(...(each.split(':') as [string, string])) : [value(each)],
              )
              .reduce((sum, each) => sum + each, 0),
          ),
        )
        .replace(/[A-Z]+\d+/g, (address) => `(${String(value(address))})`)
        .replace(/ROUND\((.+),2\)$/, 'r$1');
      return plainly(text);
    };
    let formulas = 0;
    sheet.eachRow((row) =>
      row.eachCell(({ value: held, address }) => {
        if (held === null || typeof held !== 'object' || !('formula' in held)) return;
        formulas += 1;
        expect([address, held.formula, evaluate(held.formula ?? '').toFixed(2)]).toEqual([
          address,
          held.formula,
          Number(held.result).toFixed(2),
        ]);
      }),
    );
    // Six amounts, two groups, list, discounts, net, tax, total.
    expect(formulas).toBe(13);
    const document = documentOf(given);
    const net = figuresIn(document).get('sums.net')?.value ?? '';
    expect(exact(net).toString()).toBe(exact(given.totals.net).toString());
  });

  it('takes no text for a formula', async () => {
    const given = { ...paperGiven(1), title: '=HYPERLINK("https://elsewhere.example")' };
    const book = new ExcelJS.Workbook();
    await book.xlsx.load((await write(given, 'xlsx')).buffer as ArrayBuffer);
    book.worksheets[0]?.eachRow((row) =>
      row.eachCell(({ value: held }) => {
        if (typeof held === 'object' && held !== null && 'formula' in held)
          expect(held.formula).not.toContain('HYPERLINK');
      }),
    );
  });
});

interface Read {
  name: string;
  text: string;
  children: Read[];
  attributes: Record<string, string>;
}

function readXml(bytes: Uint8Array): Read {
  const parser = new SaxesParser();
  const top: Read = { name: '', text: '', children: [], attributes: {} };
  const open = [top];
  parser.on('opentag', ({ name, attributes }) => {
    const read: Read = {
      name,
      text: '',
      children: [],
      attributes: { ...(attributes as Record<string, string>) },
    };
    open.at(-1)?.children.push(read);
    open.push(read);
  });
  parser.on('text', (text) => {
    const last = open.at(-1);
    if (last) last.text += text;
  });
  parser.on('closetag', () => void open.pop());
  parser.write(new TextDecoder().decode(bytes)).close();
  return top.children[0] as Read;
}
const all = (read: Read, name: string): Read[] => [
  ...(read.name === name ? [read] : []),
  ...read.children.flatMap((child) => all(child, name)),
];
const one = (read: Read | undefined, name: string): string => (read ? (all(read, name)[0]?.text ?? '') : '');

describe('the UBL quotation', () => {
  const given = paperGiven([lineGiven(1), lineGiven(2), lineGiven(3, { optional: true })], {
    title: 'Spares <and> "more" & \u0007',
  });

  it('has its elements in the order of the standard, each with something in it', async () => {
    const quotation = readXml(await write(given, 'xml'));
    expect(quotation.attributes.xmlns).toBe('urn:oasis:names:specification:ubl:schema:xsd:Quotation-2');
    const check = (read: Read): void => {
      const places = read.children.map(({ name }) => (order[read.name] ?? []).indexOf(name));
      expect([read.name, places]).toEqual([read.name, [...places].sort((a, b) => a - b)]);
      expect([read.name, places.includes(-1)]).toEqual([read.name, false]);
      if (read.children.length === 0) expect([read.name, read.text.trim()]).not.toEqual([read.name, '']);
      read.children.forEach(check);
    };
    check(quotation);
    expect(one(quotation, 'cbc:Note')).toBe('Spares <and> "more" & ');
  });

  it('reads back into the same figures', async () => {
    const quotation = readXml(await write(given, 'xml'));
    const [total] = all(quotation, 'cac:QuotedMonetaryTotal');
    expect([
      one(quotation, 'cbc:PricingCurrencyCode'),
      one(total, 'cbc:TaxExclusiveAmount'),
      one(total, 'cbc:PayableAmount'),
      one(all(quotation, 'cac:TaxSubtotal')[0], 'cbc:TaxAmount'),
    ]).toEqual(['GBP', given.totals.net, given.tax?.gross, given.tax?.tax]);
    const lines = all(quotation, 'cac:LineItem');
    expect(lines).toHaveLength(2);
    let sum = exact(0);
    for (const line of lines) {
      const [amount, price] = [one(line, 'cbc:LineExtensionAmount'), one(line, 'cbc:PriceAmount')];
      const per = exact(price).div(one(line, 'cbc:BaseQuantity'));
      expect(per.times(one(line, 'cbc:Quantity')).toFixed(2)).toBe(amount);
      const [allowance] = all(line, 'cac:AllowanceCharge');
      expect(exact(one(allowance, 'cbc:BaseAmount')).minus(one(allowance, 'cbc:Amount')).toFixed(2)).toBe(
        amount,
      );
      sum = sum.plus(amount);
    }
    expect(sum.toFixed(2)).toBe(one(total, 'cbc:LineExtensionAmount'));
    expect(all(quotation, 'cbc:Quantity').map(({ attributes }) => attributes.unitCode)).toEqual([
      'C62',
      'C62',
    ]);
  });

  it('tells no allowance where discounts are hidden, and no amount where prices are', async () => {
    const hidden = await write(given, 'xml', { lines: { ...usual.lines, discounts: 'none' } });
    expect(new TextDecoder().decode(hidden)).not.toContain('AllowanceCharge');
    const none = new TextDecoder().decode(
      await write(given, 'xml', { lines: { ...usual.lines, prices: 'none' } }),
    );
    expect(none).not.toMatch(/Amount|Tax(Total|Category)/);
  });
});

describe('text that means harm', () => {
  it.each(['html', 'docx', 'xml'] as const)('is but text in %s', async (format) => {
    const bad = '<script>alert(1)</script>"\'&';
    const given = { ...paperGiven([lineGiven(1, { name: { en: bad } })]), title: bad };
    const bytes = await write(given, format);
    const text =
      format === 'docx'
        ? strFromU8(unzipSync(bytes)['word/document.xml'] ?? new Uint8Array())
        : new TextDecoder().decode(bytes);
    expect(text).not.toContain('<script>');
    expect(text).toContain('&lt;script&gt;');
  });
});
