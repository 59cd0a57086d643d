/**
 * Spreadsheets as they come from outside: what is one is read, what is too much or none ends with a sentence
 * and costs little.
 */
import ExcelJS from 'exceljs';
import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnOf, readSheet } from './read-sheet';
import { readTableBytes, tableLimits } from './read-table';

const head = '<?xml version="1.0" encoding="UTF-8"?>';
const main = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';

/** A workbook from the XML of its first sheet, with whatever else is given. */
function workbook(rows: string, more: Record<string, string> = {}, prolog = head): Uint8Array {
  const files: Record<string, string> = {
    '[Content_Types].xml': `${head}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>`,
    'xl/workbook.xml': `${head}<workbook ${main} xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="A" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `${head}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>`,
    'xl/worksheets/sheet1.xml': `${prolog}<worksheet ${main}><sheetData>${rows}</sheetData></worksheet>`,
    ...more,
  };
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
}
const cell = (place: string, text: string) => `<c r="${place}" t="inlineStr"><is><t>${text}</t></is></c>`;

/** What of the heap a piece of work takes at most, roughly, in MB. */
function heapOf<T>(work: () => T): [T, number] {
  const before = process.memoryUsage().heapUsed;
  const result = work();
  return [result, (process.memoryUsage().heapUsed - before) / 1024 / 1024];
}

describe('a spreadsheet', () => {
  it('is read as another writer wrote it: shared and own texts, figures, formulas by their results, gaps between cells', async () => {
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet('Parts');
    sheet.addRow(['Part number', 'Note', 'Quantity']);
    sheet.addRow(['SILL-1212-X', { richText: [{ text: 'two ' }, { text: 'texts' }] }, 2]);
    sheet.addRow([]);
    sheet.addRow(['YE-KIOSK', null, { formula: '1+2', result: 3 }]);
    sheet.addRow([true, 12.5, new Date(Date.UTC(2027, 0, 1))]);
    const read = readSheet(new Uint8Array(await book.xlsx.writeBuffer()), tableLimits);
    expect(read).toEqual({
      is: 'rows',
      rows: [
        ['Part number', 'Note', 'Quantity'],
        ['SILL-1212-X', 'two texts', '2'],
        ['YE-KIOSK', '', '3'],
        ['TRUE', '12.5', '46388'],
      ],
    });
  });

  it('gives back whatever texts are written into it', async () => {
    const text = fc
      .string({ maxLength: 12, unit: 'grapheme' })
      .map((each) => each.replace(/[\p{Cc}\p{Cs}\s]/gu, '').replace(/[\ufffe\uffff]/g, ''));
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(text, { minLength: 1, maxLength: 5 }), { minLength: 1, maxLength: 8 }),
        async (rows) => {
          const book = new ExcelJS.Workbook();
          const sheet = book.addWorksheet('A');
          for (const row of rows) sheet.addRow(row.map((each) => (each === '' ? null : each)));
          const trimmed = (row: string[]) => row.slice(0, row.findLastIndex((each) => each !== '') + 1);
          expect(readSheet(new Uint8Array(await book.xlsx.writeBuffer()), tableLimits)).toEqual({
            is: 'rows',
            rows: rows.map(trimmed).filter((row) => row.length > 0),
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('counts columns as letters do', () => {
    expect(['A1', 'Z9', 'AA1', 'GR1', 'XFD1048576', '', '12'].map(columnOf)).toEqual([
      1, 26, 27, 200, 16384, 0, 0,
    ]);
  });

  it('whose cells stand in the last column is refused at the first of them, and costs next to nothing', () => {
    const bytes = workbook(
      Array.from(
        { length: 2_000 },
        (_, at) => `<row r="${String(at + 1)}">${cell(`XFD${String(at + 1)}`, 'A')}</row>`,
      ).join(''),
    );
    expect(bytes.byteLength).toBeLessThan(40_000);
    const [read, heap] = heapOf(() => readTableBytes(bytes));
    expect(read).toEqual({ is: 'beyond', what: 'columns', most: 200, row: 1 });
    expect(heap).toBeLessThan(40);
  });

  it('with more rows or cells than a list has is refused, also where their places say nothing', () => {
    expect(readTableBytes(workbook('<row><c><v>1</v></c></row>'.repeat(10_001)))).toEqual({
      is: 'beyond',
      what: 'rows',
      most: 10_000,
    });
    expect(readTableBytes(workbook(`<row>${'<c><v>1</v></c>'.repeat(150)}</row>`.repeat(1_400)))).toEqual({
      is: 'beyond',
      what: 'cells',
      most: 200_000,
    });
    expect(readTableBytes(workbook(`<row>${'<c><v>1</v></c>'.repeat(201)}</row>`))).toEqual({
      is: 'beyond',
      what: 'columns',
      most: 200,
      row: 1,
    });
  });

  it('that unpacks to more than there may be is given up on the way', () => {
    const bomb = workbook(`<row>${cell('A1', 'x'.repeat(80 * 1024 * 1024))}</row>`);
    expect(bomb.byteLength).toBeLessThan(200_000);
    const [read, heap] = heapOf(() => readTableBytes(bomb));
    expect(read).toEqual({ is: 'beyond', what: 'size', most: tableLimits.unpacked });
    expect(heap).toBeLessThan(150);
    const texts = workbook('<row><c t="s"><v>0</v></c></row>', {
      'xl/sharedStrings.xml': `${head}<sst ${main}><si><t>${'y'.repeat(60 * 1024 * 1024)}</t></si></sst>`,
    });
    expect(readTableBytes(texts)).toMatchObject({ is: 'beyond', what: 'size' });
  });

  it('with a document type, entities or broken XML is not read', () => {
    const entities = `${head}<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>`;
    expect(readTableBytes(workbook(`<row>${cell('A1', '&b;')}</row>`, {}, entities))).toEqual({
      is: 'unreadable',
    });
    expect(readTableBytes(workbook(`<row>${cell('A1', '&b;')}</row>`))).toEqual({ is: 'unreadable' });
    expect(readTableBytes(workbook('<row><c><v>1</c></row>'))).toEqual({ is: 'unreadable' });
    expect(readTableBytes(zipSync({ 'a.txt': strToU8('nothing') }))).toEqual({ is: 'unreadable' });
    expect(readTableBytes(new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9]))).toEqual({ is: 'unreadable' });
  });

  it('of a thousand sheets gives its first', () => {
    const more = Object.fromEntries(
      Array.from({ length: 1_000 }, (_, at) => [
        `xl/worksheets/sheet${String(at + 2)}.xml`,
        `<worksheet ${main}><sheetData><row>${cell('A1', 'other')}</row></sheetData></worksheet>`,
      ]),
    );
    expect(readTableBytes(workbook(`<row>${cell('A1', 'SV-COMM')}${cell('B1', '3')}</row>`, more))).toEqual({
      is: 'list',
      text: 'SV-COMM\t3',
    });
  });

  it('is never anything but rows, a limit or unreadable, whatever bytes it is made of', () => {
    const whole = workbook(`<row>${cell('A1', 'SV-COMM')}</row>`);
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 20 }), (flips) => {
        const bytes = new Uint8Array(whole);
        for (const [at, to] of flips) bytes[at] = to;
        expect(['list', 'unreadable', 'beyond']).toContain(readTableBytes(bytes).is);
      }),
      { numRuns: 300 },
    );
  });
});

describe('a text file', () => {
  it('has the same limits', () => {
    expect(readTableBytes(strToU8('a;1\n'.repeat(10_001)))).toEqual({
      is: 'beyond',
      what: 'rows',
      most: 10_000,
    });
    expect(readTableBytes(strToU8(`${'a;'.repeat(300)}\n`))).toEqual({
      is: 'beyond',
      what: 'columns',
      most: 200,
      row: 1,
    });
  });
});
