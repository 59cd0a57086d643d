import { describe, expect, it } from 'vitest';
import { compileModel } from '../model';
import type { ModelDocument } from '../model';
import { bareDocument } from './bare';
import { edited } from './edits';
import { broughtBy, factsOf, forgetFact, takeFacts, type ToldItem } from './item-facts';

const load = { id: 'ratedLoad', name: { en: 'Rated load' }, is: 'number', unit: 'kg', decimals: 0 } as const;
const cold = { id: 'cold', name: { en: 'Cold-rated' }, is: 'yesNo' } as const;
const signal = {
  id: 'signal',
  name: { en: 'Signal' },
  is: 'choice',
  options: [
    { id: 'digital', name: { en: 'Digital' } },
    { id: 'analogue', name: { en: 'Analogue' } },
  ],
} as const;

const cell = (id: string, item: string) => ({ id, code: id.toUpperCase(), name: { en: id }, item });
const document = (): ModelDocument => {
  const bare = bareDocument('silo', 'Silo');
  return {
    ...bare,
    languages: ['en'],
    features: [
      {
        id: 'cell',
        name: { en: 'Cell' },
        least: 1,
        most: 1,
        options: [cell('small', 'CELL-S'), cell('large', 'CELL-L')],
      },
    ],
    sections: bare.sections.map((section) => ({ ...section, rows: ['cell'] })),
  };
};
const told = new Map<string, ToldItem>([
  [
    'CELL-S',
    { properties: [load, cold, signal], values: { ratedLoad: '500', cold: false, signal: 'analogue' } },
  ],
  ['CELL-L', { properties: [load, cold, signal], values: { ratedLoad: '2000', cold: true } }],
]);

/** The document after an edit. */
function after(given: ModelDocument, edit: ReturnType<typeof takeFacts>): ModelDocument {
  const done = edit && edited(given, edit);
  if (!done?.ok) throw new Error('nothing was done');
  return done.document;
}

describe('facts of items', () => {
  it('are told of what a model brings, none of them declared at first', () => {
    expect(broughtBy(document())).toEqual(['CELL-S', 'CELL-L']);
    const facts = factsOf(document(), told);
    expect(facts.columns.map(({ id, type, unit, declared }) => [id, type, unit, declared])).toEqual([
      ['ratedLoad', undefined, 'kg', false],
      ['cold', 'yesno', '', false],
      ['signal', 'text', '', false],
    ]);
    expect(facts.differing).toBe(0);
    expect(facts.rows[1]?.facts['signal']).toBeUndefined();
  });

  it('are read by formulas as numbers, yes or no, and texts once they are taken over', () => {
    const before = document();
    const taken = after(
      before,
      takeFacts(before, factsOf(before, told), new Set(['ratedLoad', 'cold', 'signal'])),
    );
    expect(taken.items).toEqual({
      'CELL-S': { ratedLoad: '500', cold: 'false', signal: 'analogue' },
      'CELL-L': { ratedLoad: '2000', cold: 'true' },
    });
    const asking: ModelDocument = {
      ...taken,
      calculations: [
        {
          id: 'least',
          name: { en: 'Least' },
          type: 'number',
          unit: 'kg',
          decimals: 0,
          formula: 'cell.ratedLoad * 0.3',
        },
        { id: 'winter', name: { en: 'Winter' }, type: 'yesno', formula: 'cell.cold' },
        { id: 'wire', name: { en: 'Wire' }, type: 'yesno', formula: 'cell.signal = "digital"' },
        {
          id: 'coldOnes',
          name: { en: 'Cold ones' },
          type: 'yesno',
          formula: 'some p in picked satisfies p.cold',
        },
      ],
    };
    const compiled = compileModel(asking);
    expect(compiled.ok ? [] : compiled.problems).toEqual([]);
    // Another unit or kind than the property has is no formula.
    const wrong = (formula: string): unknown =>
      compileModel({
        ...taken,
        calculations: [{ id: 'x', name: { en: 'X' }, type: 'number', unit: 'm', decimals: 0, formula }],
      });
    expect(wrong('cell.ratedLoad')).toMatchObject({ ok: false });
    expect(wrong('cell.cold')).toMatchObject({ ok: false });
    expect(wrong('cell.mass')).toMatchObject({ ok: false });
  });

  it('stay as the model took them over until it does so again', () => {
    const before = document();
    const taken = after(before, takeFacts(before, factsOf(before, told), new Set(['ratedLoad'])));
    const later = new Map(told).set('CELL-L', { properties: [load], values: { ratedLoad: '2500' } });
    const facts = factsOf(taken, later);
    expect(facts.differing).toBe(1);
    expect(facts.rows[1]?.facts['ratedLoad']).toEqual({ here: '2000', there: '2500' });
    const renewed = after(taken, takeFacts(taken, facts, new Set(['ratedLoad'])));
    expect(renewed.items?.['CELL-L']).toEqual({ ratedLoad: '2500' });
    expect(takeFacts(renewed, factsOf(renewed, later), new Set(['ratedLoad']))).toBeNull();
    expect(after(renewed, forgetFact(renewed, 'ratedLoad'))).toEqual(before);
  });

  it('of another unit or kind than those of the same name are left out, and told', () => {
    const tonnes = new Map(told).set('CELL-L', {
      properties: [{ ...load, unit: 't' }],
      values: { ratedLoad: '2' },
    });
    const facts = factsOf(document(), tonnes);
    expect(facts.clashing).toEqual([{ id: 'ratedLoad', sku: 'CELL-L' }]);
    expect(facts.rows[1]?.facts['ratedLoad']).toBeUndefined();
  });

  it('that are no such values are refused where the model is compiled', () => {
    const before = document();
    const wrong: ModelDocument = {
      ...before,
      properties: [
        { id: 'ratedLoad', name: { en: 'Rated load' }, unit: 'kg' },
        { id: 'cold', name: { en: 'Cold' }, unit: '', type: 'yesno' },
      ],
      items: { 'CELL-S': { ratedLoad: 'much', cold: 'maybe' } },
    };
    const result = compileModel(wrong);
    expect(!result.ok && result.problems.map(({ path, code }) => `${path} ${code}`)).toEqual([
      'items.CELL-S.ratedLoad model.badTargetValue',
      'items.CELL-S.cold model.badTargetValue',
    ]);
  });
});
