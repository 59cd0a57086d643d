import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, it } from 'vitest';
import type { View } from '../../../../core/drawing';
import { composePosition, composeSchedule, type PaperPosition } from '../../../../core/paper';
import { paperWords } from '../../../../i18n/paper-words';
import { pdfPages } from '../../testing';
import { writePdf } from './pdf';

const look = { language: 'en', paper: 'A4', colour: '#1d5144' } as const;
const words = paperWords('en', 0);
const head = {
  name: 'North quarry',
  site: '',
  customer: '',
  day: '2026-11-30',
  house: {
    ...{
      name: 'Harrowmoor Scale Works',
      street: '',
      postcode: '',
      town: '',
      country: '',
      phone: '',
      email: '',
    },
    ...{
      web: '',
      taxNumber: '',
      registered: '',
      bank: '',
      iban: '',
      bic: '',
      lines: [],
      foot: [],
      mark: null,
    },
  },
};
const position = (tag: string, more: Partial<PaperPosition> = {}): PaperPosition => ({
  ...{ tag, area: '', quantity: '1', remark: '', name: { en: 'Gate' }, number: 'RB-060' },
  ...more,
});

/** A row of plates, each before the one to its left, with a wheel and a dimension. */
const view = (plates: number): View => ({
  figures: [
    ...Array.from({ length: plates }, (_, at) => ({
      id: `plate ${String(at)}`,
      layer: 'DECK',
      looks: 'steel' as const,
      kind: 'polygon' as const,
      points: [
        [at * 900, 0],
        [at * 900 + 1000, 0],
        [at * 900 + 1000, 300],
      ] as [number, number][],
    })),
    { id: 'wheel', layer: 'DECK', looks: 'dark', kind: 'circle', centre: [500, 500], radius: 200 },
  ],
  words: [],
  dimensions: [
    {
      id: 'length',
      line: [
        [0, -400],
        [18_000, -400],
      ],
      leads: [],
      length: 18_000,
      upright: false,
    },
  ],
  frame: { left: 0, right: 18_000, bottom: -400, top: 700 },
});

/** How often the pages of a PDF fill and stroke an outline at once. */
async function outlines(bytes: Uint8Array): Promise<number> {
  const pdf = await getDocument({ data: new Uint8Array(bytes) }).promise;
  let count = 0;
  for (let at = 1; at <= pdf.numPages; at += 1) {
    const { fnArray, argsArray } = await (await pdf.getPage(at)).getOperatorList();
    fnArray.forEach((what, nth) => {
      const [paint] = (argsArray[nth] ?? []) as unknown[];
      if (what === OPS.constructPath && (paint === OPS.fillStroke || paint === OPS.closeFillStroke))
        count += 1;
    });
  }
  return count;
}

it('a drawing has each of its figures on the page, under the words of its dimensions', async () => {
  const sheet = async (plates: number): Promise<Uint8Array> => {
    const build = { rows: [], sections: {}, figures: [], inside: [] };
    const views = [{ id: 'front', name: { en: 'Front' }, view: view(plates), space: false }];
    const document = composePosition(head, position('Gate 1', { build: { ...build, views } }), look, words);
    if (!document) throw new Error('there is no sheet');
    return writePdf(document, {});
  };
  const bytes = await sheet(20);
  expect((await pdfPages(bytes)).join(' ')).toContain('18,000');
  expect((await outlines(bytes)) - (await outlines(await sheet(5)))).toBe(15);
  expect(await outlines(bytes)).toBeGreaterThanOrEqual(21);
});

it('a schedule names each area with its first position, and again on the page where it goes on', async () => {
  const positions = Array.from({ length: 90 }, (_, at) =>
    position(`Gate ${String(at)}`, { area: `Area ${String(Math.floor(at / 30))}` }),
  );
  const pages = await pdfPages(await writePdf(composeSchedule({ ...head, positions }, look, words), {}));
  expect(pages.length).toBeGreaterThan(2);
  for (const page of pages) {
    const told = [...page.matchAll(/(Area|Gate) (\d+)/g)].map(([, what, number]) => ({ what, number }));
    expect(told[0]?.what).toBe('Area');
    // Nothing but positions follows the name of an area, and no page ends with one.
    expect(told.at(-1)?.what).toBe('Gate');
    let area = '';
    for (const { what, number } of told)
      if (what === 'Area') area = number ?? '';
      else expect(String(Math.floor(Number(number) / 30))).toBe(area);
  }
});
