/** Rows of a spreadsheet as features and options, with what is wrong in each. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import type { ModelDocument } from '../model';
import { edited, listAt, outlineRows, partAt, type OutlineRows } from '.';

const bridge = demoDocument('ridgeback');
const isItem = (sku: string): boolean => sku.startsWith('RB-');
const pasted = (text: string, into?: string): OutlineRows =>
  outlineRows(
    bridge,
    text.split('\n').map((row) => row.split('|').map((cell) => cell.trim())),
    { language: 'en', isItem, ...(into === undefined ? {} : { into }) },
  );
const after = ({ edit }: OutlineRows): ModelDocument => {
  const result = edited(bridge, edit);
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return result.document;
};
const told = ({ rows }: OutlineRows): string[] =>
  rows.map(({ becomes, problems }) =>
    [
      becomes ? `${becomes.is} ${becomes.of === '' ? '' : `${becomes.of}.`}${becomes.id}` : '–',
      ...problems.map(({ code, column }) => `${column}: ${code}`),
    ].join('; '),
  );

describe('pasted rows', () => {
  it('become a feature with its options, by their heads in any order', () => {
    const rows = pasted(
      'Artikel | Merkmal | Option | Kürzel\n | Anstrich | |\nRB-PAINT | | Moosgrün | M\n | | Grau, 2 Schichten | G',
    );
    expect(told(rows)).toEqual([
      '–',
      'feature anstrich',
      'option anstrich.moosgrun',
      'option anstrich.grau2Schichten',
    ]);
    expect(partAt(after(rows), ['features', 'anstrich'])).toMatchObject({
      name: { en: 'Anstrich', de: 'Anstrich' },
      least: 1,
      most: 1,
      options: [
        { id: 'moosgrun', code: 'M', item: 'RB-PAINT' },
        { id: 'grau2Schichten', code: 'G' },
      ],
    });
  });

  it('become options of the feature that they are pasted into, beside those that it has', () => {
    const rows = pasted('Timber | TT | RB-DECK-T\nSteel grid | TG', 'surface');
    expect(told(rows)).toEqual(['option surface.timber', 'option surface.steelGrid']);
    const ids = listAt(after(rows), ['features', 'surface', 'options']).map(({ id }) => id);
    expect(ids.slice(-2)).toEqual(['timber', 'steelGrid']);
  });

  it('go on with a feature that is there, by its name in any language', () => {
    const rows = pasted('Feature | Option | Code\nSURFACE | Timber | TT');
    expect(told(rows)).toEqual(['–', 'option surface.timber']);
  });

  it('tell what is wrong where it stands, and leave that out', () => {
    const [taken = ''] = listAt(bridge, ['features', 'surface', 'options']).flatMap(
      (each) => (each.code as string | undefined) ?? [],
    );
    const rows = pasted(
      `Feature | Option | Code | Item | Most\n | Lost | X | |\nSurface | Timber | ${taken} | |\n | Cork | c/2 | XX-1 |\n | | Z | |\nLamps | | | | many`,
    );
    expect(told(rows)).toEqual([
      '–',
      '–; feature: rows.noFeature',
      'option surface.timber; code: rows.codeTaken',
      'option surface.cork; code: rows.badCode; item: rows.unknownItem',
      '–; option: rows.noName',
      'feature lamps; most: rows.badCount',
    ]);
    expect(partAt(after(rows), ['features', 'surface', 'options', 'cork'])).toEqual({
      id: 'cork',
      name: { en: 'Cork', de: 'Cork' },
    });
  });

  it('have ids that nothing has, whatever they are called', () => {
    const rows = pasted('Feature | Option\nLength | \nÜber Maß | 6 mm\n | 6 mm\n | ß\n | +');
    expect(told(rows)).toEqual([
      '–',
      '–',
      'option uberMass.o6Mm',
      'option uberMass.o6Mm2',
      'option uberMass.ss',
      'option uberMass.o',
    ]);
    const calculation = bridge.calculations[0]?.id ?? '';
    expect(told(pasted(`Feature | Option\n${calculation} | a`))[1]).toBe(
      `option ${calculation.toLowerCase()}.a`,
    );
  });

  it('are 500 at once, each with its own id', () => {
    const text = Array.from({ length: 500 }, (_, at) => `Part ${String(at % 50)} | C${String(at)}`).join(
      '\n',
    );
    const rows = pasted(text, 'surface');
    const ids = rows.rows.map(({ becomes }) => becomes?.id);
    expect(new Set(ids).size).toBe(500);
    expect(rows.rows.every(({ problems }) => problems.length === 0)).toBe(true);
    expect(listAt(after(rows), ['features', 'surface', 'options'])).toHaveLength(
      500 + listAt(bridge, ['features', 'surface', 'options']).length,
    );
  });
});
