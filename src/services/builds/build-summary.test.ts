/** What reaches down to builds inside, told at each place that takes it. */
import { describe, expect, it } from 'vitest';
import { createEngine } from '../../core/engine';
import { compileModel, type ModelDocument, type Texts } from '../../core/model';
import { reachedIn } from './build-summary';

const t = (en: string): Texts => ({ en });
const empty = (id: string): ModelDocument => ({
  format: 2,
  id,
  name: t(id),
  languages: ['en'],
  context: [],
  sections: [],
  features: [],
  parameters: [],
  calculations: [],
  rules: [],
  numbering: [{ kind: 'text', text: 'X' }],
  prices: [],
  surcharges: [],
  materials: [],
  operations: [],
  figures: { more: [] },
});
const plate = { id: 'plate', type: 'text', name: t('Plate'), most: 20, optional: true } as const;
const lamp: ModelDocument = {
  ...empty('lamp'),
  sections: [{ id: 's', name: t('Lamp'), rows: ['plate', 'watts'] }],
  parameters: [
    plate,
    {
      id: 'watts',
      type: 'number',
      name: t('Power'),
      unit: 'W',
      least: '1',
      most: '10',
      step: '1',
      usual: '5',
    },
  ],
};
const brings = (id: string, model: string): ModelDocument['features'][number] => ({
  id,
  name: t(id),
  least: 0,
  most: 1,
  options: [{ id: model, name: t(model), model, quantity: { usual: '1', most: '3' } }],
});
/** A mast has a row of its own that reaches down, and lamps that take the plate from further out. */
const mast: ModelDocument = {
  ...empty('mast'),
  sections: [{ id: 's', name: t('Mast'), rows: ['lamps', 'watts'] }],
  features: [brings('lamps', 'lamp')],
  parameters: [
    {
      id: 'watts',
      type: 'number',
      name: t('Power of each'),
      unit: 'W',
      least: '1',
      most: '10',
      step: '1',
      usual: '8',
      reachesDown: true,
    },
  ],
};
const yard: ModelDocument = {
  ...empty('yard'),
  sections: [{ id: 's', name: t('Yard'), rows: ['plate', 'masts', 'lone'] }],
  features: [brings('masts', 'mast'), brings('lone', 'lamp')],
  parameters: [{ ...plate, reachesDown: true }],
  library: { models: [lamp, mast] },
};

describe('what reaches down', () => {
  const compiled = compileModel(yard);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  const { model } = compiled;
  const reached = (decisions: Record<string, string>): string[] => {
    const { values } = createEngine(model, { date: '2026-06-01', values: {} }).state({
      decisions: Object.entries(decisions).map(([on, value]) => ({ on, value })),
    });
    return reachedIn(model, values)
      .map(({ place, name, value }) => `${place}: ${name.en ?? ''} ${value.en ?? ''}`)
      .sort();
  };

  it('stands at each build that takes it, over as many levels as there are, and at no other', () => {
    expect(
      reached({
        plate: 'Hill Farm',
        masts: 'mast',
        'masts/mast/quantity': '2',
        'masts/mast/1/lamps': 'lamp',
        lone: 'lamp',
      }),
    ).toEqual(
      [
        'lone/lamp/1: Plate Hill Farm',
        'masts/mast/1/lamps/lamp/1: Plate Hill Farm',
        'masts/mast/1/lamps/lamp/1: Power of each 8 W',
      ].map((each) => each.replace('Power of each', 'Power')),
    );
  });

  it('is not told while it has no value, or where nothing takes it', () => {
    expect(reached({ lone: 'lamp' })).toEqual([]);
    expect(reached({ plate: 'Hill Farm', masts: 'mast' })).toEqual([]);
  });
});
