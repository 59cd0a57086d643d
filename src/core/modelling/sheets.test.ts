/** The outline and the texts of a document as tables, out and in again. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import type { ModelDocument } from '../model';
import { edited, outlineRows, outlineSheet, readWords, wordsSheet, type Edit } from '.';

const demo = ['ridgeback', 'beacon', 'quarryGate', 'plumb', 'tarn', 'farmDriveOver'].map(demoDocument);
const done = (document: ModelDocument, edit: Edit): ModelDocument => {
  const result = edited(document, edit);
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return result.document;
};
const pasting = (language: string) => ({ language, isItem: () => true });

describe('the outline as a table', () => {
  it('changes nothing as it comes out, in both languages', () => {
    for (const document of demo)
      for (const language of ['en', 'de']) {
        const read = outlineRows(document, outlineSheet(document, language), pasting(language));
        expect(read.rows.flatMap(({ problems }) => problems)).toEqual([]);
        expect(read.edit).toEqual({ do: 'several', edits: [] });
      }
  });

  it('makes the same rows and options of a document that has none', () => {
    for (const document of demo) {
      const bare: ModelDocument = {
        ...document,
        sections: [{ id: 'all', name: { en: 'All', de: 'Alle' }, rows: [] }],
        features: [],
        parameters: [],
        calculations: [],
        rules: [],
      };
      const sheet = outlineSheet(document, 'en');
      const made = done(bare, outlineRows(bare, sheet, pasting('en')).edit);
      expect(
        outlineSheet(made, 'en')
          .slice(1)
          .map((row) => row.slice(0, 6).join('|')),
      ).toEqual(sheet.slice(1).map((row) => row.slice(0, 6).join('|')));
      expect(made.sections[0]?.rows).toEqual(document.sections.flatMap(({ rows }) => rows));
    }
  });

  it('changes what was changed in it, and nothing else', () => {
    const document = demoDocument('ridgeback');
    const sheet = outlineSheet(document, 'en').map((row) => [...row]);
    const at = sheet.findIndex((row) => row[2] === 'Open grating');
    const line = sheet[at] ?? [];
    line[4] = 'GG';
    const { rows, edit } = outlineRows(document, sheet, pasting('en'));
    expect(rows[at]?.becomes).toMatchObject({ is: 'option', how: 'changed' });
    expect(edit.do === 'several' && edit.edits).toEqual([
      { do: 'set', at: ['features', 'surface', 'options', line[3]], name: 'code', value: 'GG' },
    ]);
  });
});

describe('the texts as a table', () => {
  it('change nothing as they come out, and come in by their places', () => {
    for (const document of demo) {
      const sheet = wordsSheet(document);
      expect(readWords(document, sheet)).toMatchObject({ changed: 0, unknown: [] });
      const german = sheet[0]?.indexOf('de') ?? 0;
      const shouted = sheet.map((row, at) =>
        row.map((cell, column) => (at > 0 && column === german ? cell.toUpperCase() : cell)),
      );
      const made = done(document, readWords(document, shouted).edit);
      expect(wordsSheet(made)).toEqual(shouted);
    }
  });

  it('tell of places that there are not, and leave what is empty', () => {
    const document = demoDocument('tarn');
    const [head = [], first = []] = wordsSheet(document);
    const read = readWords(
      document,
      [
        [...head].reverse(),
        [...first].reverse(),
        ['', '', 'features/nobody/name'],
        ['', '', ''],
        ['', 'Neu', 'name'],
      ].map((row) => row.slice(0, head.length)),
    );
    expect(read.unknown).toEqual([{ row: 2, place: 'features/nobody/name' }]);
    expect(read.changed).toBe(1);
  });
});
