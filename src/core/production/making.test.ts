import { describe, expect, it } from 'vitest';
import { compileModel } from '../model';
import { making } from './index';

const document = {
  format: 2,
  id: 'shelf',
  name: { en: 'Shelf' },
  languages: ['en'],
  sections: [{ id: 'all', name: { en: 'All' }, rows: ['extras'] }],
  context: [],
  features: [
    {
      id: 'extras',
      name: { en: 'Extras' },
      least: 0,
      most: 2,
      options: [
        { id: 'rail', name: { en: 'Rail' } },
        { id: 'lamp', name: { en: 'Lamp' } },
      ],
    },
  ],
  parameters: [],
  calculations: [{ id: 'length', name: { en: 'Length' }, type: 'number', unit: 'm', formula: '10' }],
  rules: [],
  numbering: [{ kind: 'text', text: 'SH' }],
  prices: [],
  surcharges: [],
  materials: [
    { id: 'bars', item: 'BAR', quantity: 'length', scrap: '0.04', cut: '3' },
    { id: 'oil', item: 'OIL', quantity: '2' },
  ],
  operations: [
    {
      id: 'pack',
      name: { en: 'Pack' },
      centre: 'PACK',
      setUp: '0',
      run: '1',
      text: { en: 'Pack the shelf[ and: {extras}]. [Only {extras}. ]Length {length}, extras {extras}.' },
    },
  ],
  figures: { more: [] },
  tests: [],
};
const compiled = compileModel(document);

describe('how a build is made', () => {
  const made = (extras: string[]) => {
    if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
    return making(compiled.model, { extras, length: '10' });
  };

  it('says how many pieces of what is cut to length, and how much with scrap', () => {
    expect(made([]).materials).toEqual([
      { row: 'bars', item: 'BAR', quantity: '10.4', cut: '3', pieces: '4' },
      { row: 'oil', item: 'OIL', quantity: '2' },
    ]);
  });

  it('leaves out of an instruction what stands in brackets and has nothing to say', () => {
    expect(made([]).operations[0]?.text.en).toBe('Pack the shelf. Length 10, extras –.');
    expect(made(['rail', 'lamp']).operations[0]?.text.en).toBe(
      'Pack the shelf and: Rail, Lamp. Only Rail, Lamp. Length 10, extras Rail, Lamp.',
    );
  });
});
