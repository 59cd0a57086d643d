/** Documents: composed and set, of the sizes that are promised. */
import { compose, plainComposition } from '../src/core/paper';
import { paperGiven } from '../src/core/paper/testing';
import { writeDocx } from '../src/services/paper/files/docx/docx';
import { writePdf } from '../src/services/paper/files/pdf/pdf';
import { paperWords } from '../src/i18n/paper-words';
import { writeXlsx } from '../src/services/paper/files/xlsx';

type Row = (name: string, times: number[], goal?: number) => void;

async function timed(times: number[], work: () => Promise<unknown>): Promise<void> {
  const start = performance.now();
  await work();
  times.push(performance.now() - start);
}

/** All of it. */
export async function timePaper(row: Row): Promise<void> {
  const composition = plainComposition({ language: 'en', paper: 'A4' });
  const words = paperWords('en', 2);
  for (const [lines, turns, goal] of [
    [50, 5, 1_000],
    [200, 5, 1_500],
    [4_000, 2, 8_000],
  ] as const) {
    const given = paperGiven(lines);
    const document = compose({ given, composition, texts: {}, words });
    const pdf: number[] = [];
    for (let turn = 0; turn < turns; turn++)
      await timed(pdf, () => writePdf(compose({ given, composition, texts: {}, words }), {}));
    row(`${String(lines)} lines as PDF`, pdf, goal);
    const [xlsx, docx]: number[][] = [[], []];
    await timed(xlsx ?? [], () => writeXlsx(document));
    row(`${String(lines)} lines as XLSX`, xlsx ?? []);
    if (lines > 200) continue;
    await timed(docx ?? [], () => writeDocx(document, {}));
    row(`${String(lines)} lines as DOCX`, docx ?? []);
  }
}
