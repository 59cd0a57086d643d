/**
 * Opens documents in an office program that is not ours and holds what it shows against what they say: the workbook
 * without what its formulas were said to come to, the DOCX by its words. `npm run office`, with LibreOffice installed;
 * apart from the tests, since it takes a while to begin.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { compose, figuresIn, plainComposition } from '../src/core/paper';
import { lineGiven, paperGiven } from '../src/core/paper/testing';
import { writeDocx } from '../src/services/paper/files/docx/docx';
import { paperWords } from '../src/i18n/paper-words';
import { writeXlsx } from '../src/services/paper/files/xlsx';

const folder = mkdtempSync(join(tmpdir(), 'office-'));

/** A file as the office program writes it in another format. */
function converted(name: string, bytes: Uint8Array, to: 'csv' | 'txt:Text'): string {
  writeFileSync(join(folder, name), bytes);
  execFileSync(
    'soffice',
    [
      `-env:UserInstallation=file://${join(folder, 'profile')}`,
      '--headless',
      '--convert-to',
      to,
      '--outdir',
      folder,
      join(folder, name),
    ],
    { stdio: 'ignore', timeout: 180_000 },
  );
  return readFileSync(join(folder, name.replace(/\.\w+$/, `.${to.slice(0, 3)}`)), 'utf8');
}

/** The workbook with formulas that nobody has worked out yet. */
async function unworked(bytes: Uint8Array): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(bytes.slice().buffer);
  book.worksheets[0]?.eachRow((row) =>
    row.eachCell((cell) => {
      const { value } = cell;
      if (value !== null && typeof value === 'object' && 'formula' in value)
        cell.value = { formula: value.formula ?? '', date1904: false };
    }),
  );
  return new Uint8Array(await book.xlsx.writeBuffer());
}

const lines = Array.from({ length: 60 }, (_, at) =>
  lineGiven(at + 1, { group: at < 20 ? 'A' : at < 30 ? 'B' : null, optional: at % 11 === 3 }),
);
const given = paperGiven(lines);
let wrong = 0;
for (const language of ['en', 'de'] as const)
  for (const discounts of ['line', 'sum', 'none'] as const) {
    const composition = plainComposition({ language, paper: 'A4' });
    const document = compose({
      given,
      composition: { ...composition, lines: { ...composition.lines, discounts } },
      texts: {},
      words: paperWords(language, 2),
    });
    const csv = converted('quotation.xlsx', await unworked(await writeXlsx(document)), 'csv');
    const shown = new Set(
      Papa.parse<string[]>(csv)
        .data.flat()
        .map((cell) => Number(cell.replace(/,/g, '') || NaN).toFixed(2)),
    );
    const text = converted('quotation.docx', await writeDocx(document, {}), 'txt:Text');
    const sums = document.blocks
      .flatMap(({ nodes }) => nodes)
      .flatMap((node) => (node.is === 'sums' ? node.rows : []));
    const missing = [
      ...[...figuresIn(document).values()]
        .filter(({ is, works }) => is === 'money' && works)
        .map(({ id, value }) => [id, Number(value).toFixed(2)] as const)
        .filter(([, value]) => !shown.has(value)),
      ...sums.filter((row) => !text.includes(row.text)).map(({ name, text: read }) => [name, read] as const),
    ];
    wrong += missing.length;
    console.log(language, discounts, missing.length === 0 ? 'the same' : missing);
  }
rmSync(folder, { recursive: true, force: true });
if (wrong > 0) process.exit(1);
