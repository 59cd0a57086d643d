/** Another id, in every formula and place that names the part: the model means the same. */
import { beforeAll, describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { createEngine, type State } from '../engine';
import { compileModel, type CompiledModel, type ModelDocument } from '../model';
import { edited, listAt, namedAt, usesOf, type PartAt } from '.';

const models = ['ridgeback', 'beacon', 'quarryGate', 'plumb', 'tarn', 'farmDriveOver'];
let bridge: ModelDocument;
beforeAll(() => {
  bridge = demoDocument('ridgeback');
});

function renamed(document: ModelDocument, at: PartAt, to: string): ModelDocument {
  const result = edited(document, { do: 'rename', at, to });
  if (!result.ok) throw new Error(`${at.join('.')}: ${JSON.stringify(result.problem)}`);
  return result.document;
}
function compiled(document: ModelDocument): CompiledModel {
  const result = compileModel(document);
  if (!result.ok) throw new Error(JSON.stringify(result.problems.slice(0, 3)));
  return result.model;
}

/** All parts of a document whose id something may name. */
function partsOf(document: ModelDocument): PartAt[] {
  const lists = [
    'context',
    'features',
    'parameters',
    'calculations',
    'sections',
    'rules',
    'prices',
    'drawing.views',
    'drawing.layers',
  ];
  return lists.flatMap((list) =>
    listAt(document, [list]).flatMap(({ id }) => {
      const inner = list === 'context' ? 'values' : 'options';
      return [[list, id], ...listAt(document, [list, id, inner]).map((each) => [list, id, inner, each.id])];
    }),
  );
}

const isReaching = (document: ModelDocument, at: PartAt): boolean => {
  const result = edited(document, { do: 'rename', at, to: 'zzz' });
  return !result.ok && result.problem.code === 'edit.reaches';
};

describe('every part of the demo', () => {
  it.each(models)('of %s can have another id, and the model compiles as before', (id) => {
    const document = demoDocument(id);
    let now = document;
    // What models inside take from it by its id keeps that.
    const all = partsOf(document).filter((at) => !isReaching(document, at));
    const other = (id: string): string => `${id}${/^[A-Z]/.test(id) ? '2' : 'New'}`;
    // Inner parts first, while the way to them is still as it was.
    const inwards = [...all].sort((one, another) => another.length - one.length);
    for (const at of inwards) now = renamed(now, at, other(at.at(-1) ?? ''));
    compiled(now);
    expect(JSON.stringify({ ...now, library: undefined })).toMatch(/New"/);
    for (const at of inwards.reverse())
      now = renamed(now, [...at.slice(0, -1), other(at.at(-1) ?? '')], at.at(-1) ?? '');
    expect(now).toEqual(document);
  });
});

describe('a renamed row', () => {
  it('has the same states, whatever is decided', () => {
    const document = renamed(
      renamed(bridge, ['features', 'surface'], 'deckTop'),
      ['features', 'mounting'],
      'bed',
    );
    const option = renamed(document, ['features', 'bed', 'options', 'pit'], 'sunken');
    const [before, after] = [compiled(bridge), compiled(option)];
    const context = { date: '2026-06-01', values: { region: 'uk' } };
    const engines = [createEngine(before, context), createEngine(after, context)] as const;
    const names = (text: string): string =>
      text.replaceAll('deckTop', 'surface').replaceAll('"bed', '"mounting').replaceAll('sunken', 'pit');
    const shown = ({ rows }: State): string =>
      JSON.stringify(
        Object.entries(rows).map(([row, { value, shown: is, options }]) => [
          row,
          value ?? null,
          is,
          options?.map((each) => [each.id, each.standing]),
        ]),
      );
    const surfaces = before.document.features.find(({ id }) => id === 'surface')?.options ?? [];
    for (const { id: surface } of surfaces)
      for (const mounting of ['surface', 'pit', 'halfPit']) {
        const base = [
          { on: 'vehicle', value: 'articulated' },
          { on: 'length', value: 'm12' },
        ];
        const old = [...base, { on: 'surface', value: surface }, { on: 'mounting', value: mounting }];
        const now = [
          ...base,
          { on: 'deckTop', value: surface },
          { on: 'bed', value: mounting === 'pit' ? 'sunken' : mounting },
        ];
        const [one, other] = [engines[0].state({ decisions: old }), engines[1].state({ decisions: now })];
        expect(names(shown(other))).toBe(shown(one));
      }
  });

  it('is named nowhere by its old name, and is taken back to the letter', () => {
    const result = edited(bridge, { do: 'rename', at: ['features', 'surface'], to: 'deckTop' });
    if (!result.ok) throw new Error('refused');
    expect(usesOf(result.document, { is: 'row', id: 'surface' })).toEqual([]);
    expect(usesOf(result.document, { is: 'row', id: 'deckTop' })).toHaveLength(
      usesOf(bridge, { is: 'row', id: 'surface' }).length,
    );
    const back = edited(result.document, result.inverse);
    expect(back.ok && back.document).toEqual(bridge);
  });
});

describe('what names a part is told', () => {
  it('with the place of each', () => {
    const paths = usesOf(bridge, { is: 'option', of: 'mounting', id: 'pit' }).map(({ path }) => path);
    expect(paths.length).toBeGreaterThan(3);
    expect(new Set(paths.map((path) => path.split('.')[0]))).toContain('rules');
    expect(namedAt(['features', 'mounting', 'options', 'pit'])).toEqual({
      is: 'option',
      of: 'mounting',
      id: 'pit',
    });
  });
});

describe('a name that would be heard as something else', () => {
  const small = (more: Partial<ModelDocument>): ModelDocument => ({
    ...bridge,
    ...more,
  });

  it('is refused where something names it that is not there', () => {
    const document = small({
      calculations: [
        ...bridge.calculations,
        { id: 'lost', name: { en: 'Lost' }, type: 'number', formula: 'deckTop + 1' },
      ],
    });
    expect(edited(document, { do: 'rename', at: ['features', 'surface'], to: 'deckTop' })).toMatchObject({
      problem: { code: 'edit.mentioned', params: { where: 'calculations.lost.formula' } },
    });
  });

  it('is refused where a formula has it for its own', () => {
    const document = small({
      calculations: [
        ...bridge.calculations,
        {
          id: 'rows',
          name: { en: 'Rows' },
          type: 'number',
          formula: 'sum(for k in 1..3 return k * deckLength)',
        },
      ],
    });
    expect(edited(document, { do: 'rename', at: ['calculations', 'deckLength'], to: 'k' })).toMatchObject({
      problem: { code: 'edit.captured', params: { where: 'calculations.rows.formula' } },
    });
  });

  it('is refused where a model inside takes its own by the old one', () => {
    const gate = demoDocument('quarryGate');
    expect(edited(gate, { do: 'rename', at: ['context', 'region'], to: 'place' })).toMatchObject({
      problem: { code: 'edit.reaches', params: { id: 'region' } },
    });
  });

  it('leaves a text alone that only looks alike', () => {
    const document = renamed(bridge, ['features', 'mounting', 'options', 'surface'], 'flat');
    expect(document.features.find(({ id }) => id === 'surface')?.id).toBe('surface');
    expect(usesOf(document, { is: 'row', id: 'surface' })).toHaveLength(
      usesOf(bridge, { is: 'row', id: 'surface' }).length,
    );
  });
});
