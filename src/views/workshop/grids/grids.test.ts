/** Grids over a document: what stands in their rows, and the edits that rows which changed come to. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../../scripts/demo-documents';
import { compileModel, type ModelDocument } from '../../../core/model';
import { edited, listAt } from '../../../core/modelling';
import { chance } from '../../../core/modelling/testing';
import { translator } from '../../../i18n';
import { textsOf } from '../../../i18n/text-bundles';
import type { Row } from '../../../ui/grid';
import { idOf, listEdit, rowsOfList } from './list-edits';
import { outlineColumns } from './outline-columns';
import { outlineEdit, outlineLines } from './outline-edits';
import { countingAt, idAt, itemAt, textAt, wholeAt } from './part-columns';

const demo = ['ridgeback', 'beacon', 'quarryGate', 'plumb', 'tarn', 'farmDriveOver'];
const words = { t: translator('en'), language: 'en' };
await textsOf('en', ['workshop']);
const items = { 'YE-LAMP': {}, 'YE-SIGN': {} } as never;
const columns = outlineColumns({ items }, words);
const same = (row: string): string => row;
const columnAt = (id: string): number => columns.findIndex(({ column }) => column.id === id);

function done(document: ModelDocument, edit: Parameters<typeof edited>[1]): ModelDocument {
  const result = edited(document, edit);
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return result.document;
}
/** The lines with other text in one cell. */
const typed = (lines: readonly Row[], row: string, column: string, text: string): Row[] =>
  lines.map((line) =>
    line.id === row
      ? { ...line, cells: line.cells.map((cell, at) => (at === columnAt(column) ? text : cell)) }
      : line,
  );
const blank = (id: string, depth: number, texts: Readonly<Record<string, string>>): Row => ({
  id,
  depth,
  cells: columns.map(({ column }) => texts[column.id] ?? ''),
});
function outlined(document: ModelDocument, lines: readonly Row[]): ModelDocument {
  const made = outlineEdit(document, lines, columns, same);
  return made ? done(document, made.edit) : document;
}

describe('the outline', () => {
  it.each(demo)('of %s is what the document says: as it stands it is no edit', (id) => {
    const document = demoDocument(id);
    expect(outlineEdit(document, outlineLines(document, columns), columns, same)).toBeNull();
  });

  it('changes the one thing that was typed', () => {
    const document = demoDocument('tarn');
    const [feature] = document.features;
    const row = `rows/${feature?.id ?? ''}`;
    const lines = outlineLines(document, columns);
    const named = outlined(document, typed(lines, row, 'name', 'Another name'));
    expect(named.features[0]?.name).toEqual({ ...feature?.name, en: 'Another name' });
    expect({ ...named, features: [] }).toEqual({ ...document, features: [] });
    const renamed = outlined(document, typed(lines, row, 'id', 'another'));
    expect(compileModel(renamed).ok).toBe(true);
    expect(JSON.stringify(renamed.rules)).not.toContain(`${feature?.id ?? ''} =`);
  });

  it('makes sections, rows of every kind and options of new lines, in their places', () => {
    const document = demoDocument('tarn');
    const lines = outlineLines(document, columns);
    const made = outlined(document, [
      ...lines,
      blank('new-1', 0, { name: 'Delivery' }),
      blank('new-2', 1, { name: 'Crate', name2: 'Kiste' }),
      blank('new-3', 2, { name: 'Wooden crate', code: 'W', item: 'YE-LAMP', counts: '4' }),
      blank('new-4', 2, { name: 'Wooden crate' }),
      blank('new-5', 1, { name: 'Distance', what: 'number', unit: 'km', most: '800' }),
      blank('new-6', 1, { name: 'Insured', what: 'yesno' }),
      blank('new-7', 1, {}),
    ]);
    expect(made.sections.at(-1)).toMatchObject({ id: 'delivery', rows: ['crate', 'distance', 'insured'] });
    expect(made.features.at(-1)).toMatchObject({
      id: 'crate',
      name: { en: 'Crate', de: 'Kiste' },
      least: 1,
      most: 1,
      options: [
        { id: 'woodenCrate', code: 'W', item: 'YE-LAMP', quantity: { counts: { every: 4 } } },
        { id: 'woodenCrate2' },
      ],
    });
    expect(made.parameters.slice(-2)).toMatchObject([
      { id: 'distance', type: 'number', unit: 'km', most: '800' },
      { id: 'insured', type: 'yesno' },
    ]);
  });

  it('moves and takes away with the lines, however they stand', () => {
    const document = demoDocument('beacon');
    const random = chance(9);
    for (let turn = 0; turn < 60; turn++) {
      const lines = [...outlineLines(document, columns)];
      const from = random(lines.length);
      const taken = lines.splice(from, 1);
      if (random(2) === 0) lines.splice(random(lines.length + 1), 0, ...taken);
      const first = lines.findIndex(({ depth }) => depth === 0);
      const shown = lines.slice(Math.max(0, first));
      const made = outlined(document, shown);
      expect(outlineLines(made, columns).length).toBeLessThanOrEqual(shown.length);
      expect(outlineEdit(made, outlineLines(made, columns), columns, same)).toBeNull();
    }
  });
});

describe('a list as a grid', () => {
  const list = [
    textAt('name.en', { id: 'name', title: '', width: 1 }),
    idAt({ id: 'id', title: '', width: 1 }, words),
    itemAt('item', { id: 'item', title: '', width: 1 }, items, words),
    textAt('quantity', { id: 'quantity', title: '', width: 1 }),
    wholeAt('many', { id: 'many', title: '', width: 1 }, words),
    countingAt('counts', { id: 'counts', title: '', width: 1 }, words),
  ];
  const fresh = (id: string) => ({ id, name: { en: id, de: id }, item: '', quantity: '1' });
  const editFor = (document: ModelDocument, rows: readonly Row[]) =>
    listEdit(document, 'prices', rows, list, { nameOf: same, fresh });

  it('is no edit as it stands, and gives back what is typed', () => {
    const document = demoDocument('ridgeback');
    const rows = rowsOfList(document, 'prices', list);
    expect(editFor(document, rows)).toBeNull();
    const [first, ...others] = rows;
    if (!first) throw new Error('no price parts');
    const again = { ...first, cells: [first.cells[0] ?? '', 'other', 'YE-LAMP', '2 * modules', '', ''] };
    const made = editFor(document, [
      ...others,
      again,
      { id: 'new-1', depth: 0, cells: ['Lamp', '', '', '', '', ''] },
    ]);
    const after = done(document, made?.edit ?? { do: 'several', edits: [] });
    expect(listAt(after, ['prices']).slice(-2)).toMatchObject([
      { id: 'other', item: 'YE-LAMP', quantity: '2 * modules' },
      { id: 'lamp', name: { en: 'Lamp', de: 'lamp' }, quantity: '1' },
    ]);
    expect(made?.ids.get('new-1')).toBe('lamp');
    // Surcharges on the part that has another id name it so.
    expect(JSON.stringify(after.surcharges)).not.toContain(`"${first.id}"`);
  });

  it('reads and refuses what is typed', () => {
    const read = (column: number, text: string) => list[column]?.column.read(text);
    expect(read(1, 'Big one')).toHaveProperty('why');
    expect(read(2, 'ye-lamp')).toEqual({ kept: 'YE-LAMP' });
    expect(read(2, 'nothing')).toHaveProperty('why');
    expect(read(4, 'three')).toHaveProperty('why');
    for (const kept of ['1', '4', 'line', 'typed']) {
      const shown = list[5]?.column.shown?.(kept) ?? '';
      expect(read(5, shown)).toEqual({ kept });
    }
    expect(read(5, 'now and then')).toHaveProperty('why');
  });
});

describe('an id made of a name', () => {
  it('has small letters first, no marks, and is free', () => {
    const taken = (id: string): boolean => id === 'grossePlatte';
    expect(idOf('Große Platte', taken, 'row')).toBe('grossePlatte2');
    expect(idOf('30 t', taken, 'option')).toBe('option30T');
    expect(idOf('', taken, 'row')).toBe('row');
    expect(idOf('x'.repeat(80), taken, 'row')).toHaveLength(34);
  });
});
