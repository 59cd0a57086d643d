import ExcelJS from 'exceljs';
import { describe, expect, it } from 'vitest';
import type { LineView, QuoteView } from '../../../contract';
import { readPartList } from '../../../core/exchange';
import { linesAsCsv, linesAsXlsx } from './line-sheet';
import { readTableBytes as readTable } from './read-table';

const line = (more: Partial<LineView>): LineView =>
  ({
    id: '1',
    position: 1,
    sku: 'SILL-1212-X',
    family: 'livestock',
    name: { en: 'Sill scale', de: 'Schwellenwaage' },
    partNumber: 'SILL-1212-X',
    quantity: 2,
    unit: 'pc',
    hand: null,
    locked: false,
    optional: false,
    discountable: true,
    price: {
      steps: [
        { kind: 'list', amount: '1989.12', total: '1989.12' },
        { kind: 'discount', rate: '0.025', amount: '-49.728', total: '1939.392' },
      ],
      unitList: '1989.12',
      unitNet: '1939.39',
      list: '3978.24',
      net: '3878.78',
      cost: '1960',
      margin: '0.494687',
    },
    problems: [],
    warnings: [],
    special: [],
    alternative: false,
    origin: '1',
    pricedOn: '2026-11-26',
    group: null,
    ...more,
  }) as LineView;
const quote = (lines: LineView[], seeCosts = true) =>
  ({ number: 'Q-26-0001', currency: 'EUR', decimals: 2, lines, may: { seeCosts } }) as unknown as QuoteView;
const bytes = (text: string) => new TextEncoder().encode(text);

describe('lines for a spreadsheet', () => {
  it('are separated and written as the language does', () => {
    expect(linesAsCsv(quote([line({})]), 'en', 'internal').split('\r\n')[2]).toBe(
      '1,,SILL-1212-X,Sill scale,,2,pc,each,1989.12,2.5,1939.39,,3878.78,1960,49.47,,,',
    );
    expect(linesAsCsv(quote([line({})]), 'de', 'internal').split('\r\n')[2]).toBe(
      '1;;SILL-1212-X;Schwellenwaage;;2;St.;je Stück;1989,12;2,5;1939,39;;3878,78;1960;49,47;;;',
    );
  });
  it('are no formulas, whatever sign they begin with and however wide it is, and figures below nothing stay figures', () => {
    for (const sign of ['=', '+', '-', '@', '\t', '\uff1d', '\uff0b', '\uff0d', '\uff20']) {
      const text =
        linesAsCsv(quote([line({ group: `${sign}1+1` })]), 'en', 'internal').split('\r\n')[2] ?? '';
      expect(text.split(',')[1]).toBe(`'${sign}1+1`);
    }
    const price = {
      steps: [],
      unitList: '-30',
      unitNet: '-30',
      list: '-60',
      net: '-60',
      cost: '0',
    } as unknown as LineView['price'];
    expect(linesAsCsv(quote([line({ price })]), 'en', 'internal').split('\r\n')[2]).toContain(
      ',-30,0,-30,,-60,',
    );
  });
  it('hold no costs for those who may not see them, not even their columns', () => {
    const text = linesAsCsv(quote([line({})], false), 'en', 'internal');
    expect(text).not.toMatch(/cost|margin|1960|49\.47/i);
  });
  it('for the customer hold no cost, whoever writes them, and say what is taken off in all; internal ones say that they are', () => {
    const granted = line({
      price: {
        steps: [],
        unitList: '100',
        unitNet: '76.2',
        list: '200',
        net: '152.4',
        cost: '90',
        margin: '0.4',
      },
    });
    const [heads = '', first] = linesAsCsv(quote([granted]), 'en', 'customer').split('\r\n');
    expect(heads).not.toMatch(/cost|margin/i);
    expect(first).toBe('1,,SILL-1212-X,Sill scale,,2,pc,each,100,23.8,76.2,,152.4,,,');
    expect(linesAsCsv(quote([granted]), 'en', 'internal')).toMatch(
      /^\ufeffInternal: Q-26-0001 as colleagues see it. Not for the customer.\r\n/,
    );
  });
  it('have a row for each part of a line that does not multiply across', () => {
    const price = {
      steps: [],
      unitList: '5000',
      unitNet: '5000',
      list: '10712',
      net: '10712',
      once: { list: '712', net: '712' },
    } as unknown as LineView['price'];
    const rows = linesAsCsv(quote([line({ price })]), 'en', 'customer').split('\r\n');
    expect(rows.slice(1, 4)).toEqual([
      '1,,SILL-1212-X,Sill scale,,2,pc,,,,,,10712,,,',
      '1,,,Due once,,2,pc,each,5000,0,5000,,10000,,,within line 1',
      '1,,,Not by the piece,,,,,,,,,712,,,within line 1',
    ]);
  });
  it('say of a price for all that it is one', () => {
    const price = {
      steps: [],
      per: 'line',
      unitList: '1500',
      unitNet: '1500',
      list: '1500',
      net: '1500',
    } as unknown as LineView['price'];
    expect(linesAsCsv(quote([line({ price })]), 'en', 'customer').split('\r\n')[1]).toBe(
      '1,,SILL-1212-X,Sill scale,,2,pc,for all,1500,0,1500,,1500,,,',
    );
  });
  it('name the line that an alternative stands beside, or none', () => {
    expect(
      linesAsCsv(
        quote([line({ alternative: true }), line({ alternative: true, insteadOf: 1 })]),
        'en',
        'customer',
      ),
    ).not.toContain('{{');
  });
  it('make no formula of what people type', () => {
    expect(
      linesAsCsv(
        quote([line({ group: '=HYPERLINK("x")', name: { en: '@sum, "quoted"' } })]),
        'en',
        'internal',
      ),
    ).toContain(`"'=HYPERLINK(""x"")"`);
  });
  it('are numbers in a workbook', async () => {
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(
      (await linesAsXlsx(quote([line({ group: 'Gate' })]), 'en', 'internal')).buffer as ArrayBuffer,
    );
    expect(Array.from(book.worksheets[0]?.getRow(3).values as unknown[], (value) => value ?? null)).toEqual([
      null,
      1,
      'Gate',
      'SILL-1212-X',
      'Sill scale',
      null,
      2,
      'pc',
      'each',
      1989.12,
      2.5,
      1939.39,
      null,
      3878.78,
      1960,
      49.4687,
    ]);
  });
});

describe('part numbers read from a table', () => {
  const rowsOf = (file: Uint8Array) => {
    const read = readTable(file);
    const list = read.is === 'list' ? readPartList(read.text, 'en') : undefined;
    return list?.is === 'rows' ? list.rows.map(({ number, quantity }) => [number, quantity]) : read.is;
  };
  it.each([
    ['commas and heads', 'Line,Part number,Item,Quantity\n1,SILL-1212-X,"Sill, scale",2\n2,BC-IP66,Box,1\n'],
    [
      'semicolons and German heads',
      '\ufeffPos;Artikelnummer;Bezeichnung;Menge\r\n1;SILL-1212-X;Waage;2\r\n2;BC-IP66;Kasten;1\r\n',
    ],
    ['tabs and no heads', 'SILL-1212-X\t2\nBC-IP66\t1'],
    ['a head for the number only', 'SKU\nSILL-1212-X\nSILL-1212-X\n'],
  ])('with %s', (what, text) => {
    expect(rowsOf(bytes(text))).toEqual(
      what.startsWith('a head')
        ? [
            ['SILL-1212-X', 1],
            ['SILL-1212-X', 1],
          ]
        : [
            ['SILL-1212-X', 2],
            ['BC-IP66', 1],
          ],
    );
  });
  it('from the workbook that goes out', async () => {
    expect(
      rowsOf(
        await linesAsXlsx(quote([line({}), line({ partNumber: 'BC-IP66', quantity: 7 })]), 'de', 'internal'),
      ),
    ).toEqual([
      ['SILL-1212-X', 2],
      ['BC-IP66', 7],
    ]);
    const read = readTable(await linesAsXlsx(quote([line({})]), 'de', 'internal'));
    expect(read.is === 'list' && read.text).toBe('SILL-1212-X\t2\t2.5%');
    expect(readTable(bytes(linesAsCsv(quote([line({})]), 'de', 'internal')))).toEqual({
      is: 'list',
      text: 'SILL-1212-X\t2\t2,5%',
    });
  });
  it('not from anything else', () => {
    expect(rowsOf(new Uint8Array([0x50, 0x4b, 3, 4, 1, 2, 3]))).toBe('unreadable');
    expect(rowsOf(new Uint8Array([0, 1, 2, 255]))).toBe('unreadable');
  });
});
