/** Segments of numbers and shapes of drawings as rows of grids, over all models of the demo. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../../scripts/demo-documents';
import type { Part } from '../../../core/modelling';
import { translator } from '../../../i18n';
import { textsOf } from '../../../i18n/text-bundles';
import { cellsOfSegment, segmentColumns, segmentOf } from './segment-columns';
import { dimensionColumns, drawnFeel, freshShape, shapeColumns, shapeKinds } from './shape-columns';

const demo = ['ridgeback', 'beacon', 'quarryGate', 'plumb', 'tarn', 'farmDriveOver'].map(demoDocument);
const words = { t: translator('en'), language: 'en' };
await textsOf('en', ['workshop']);

describe('segments', () => {
  it('come back as they are', () => {
    const all = demo.flatMap(({ numbering }) => numbering);
    expect(new Set(all.map(({ kind }) => kind)).size).toBeGreaterThan(4);
    for (const segment of all) expect(segmentOf(cellsOfSegment(segment))).toEqual(segment);
  });

  it('keep letters with their conditions apart, also where a text has a semicolon', () => {
    const marks = segmentOf(['marks', 'G = guards; P = plate = "a;b"; X']);
    expect(marks).toEqual({
      kind: 'marks',
      of: [
        { text: 'G', when: 'guards' },
        { text: 'P', when: 'plate = "a;b"' },
        { text: 'X', when: '' },
      ],
    });
    const [kind, , , , width] = segmentColumns(words);
    expect(kind?.read('code of an option')).toEqual({ kept: 'code' });
    expect(kind?.read('colour')).toHaveProperty('why');
    expect(width?.read('0')).toHaveProperty('why');
  });
});

describe('shapes and dimensions', () => {
  const layers = [{ id: 'BODY', text: 'Body' }];

  it('stay as they are where what stands in a cell is written there again', () => {
    for (const { drawing } of demo) {
      const lists = [
        [drawing?.shapes ?? [], shapeColumns(layers, words)],
        [drawing?.dimensions ?? [], dimensionColumns([], words)],
      ] as const;
      for (const [parts, columns] of lists)
        for (const part of parts as unknown as Part[])
          for (const { column, read, write } of columns)
            expect(write(part, read(part)), `${part.id} ${column.id}`).toEqual(part);
    }
  });

  it('become another kind in their place', () => {
    const columns = shapeColumns(layers, words);
    const kind = columns.find(({ column }) => column.id === 'kind');
    const box = { ...freshShape('BODY')('post'), when: 'pit', at: ['1', '2', '3'] };
    for (const each of shapeKinds) {
      const made = kind?.write(box, each);
      expect(made).toMatchObject({ id: 'post', layer: 'BODY', when: 'pit', kind: each });
      if (each !== 'prism') expect(made?.['at']).toEqual(['1', '2', '3']);
      expect(made !== undefined && 'size' in made).toBe(each === 'box');
    }
    expect(drawnFeel('kind')).toBeUndefined();
    expect(drawnFeel('when')).toEqual({ wanted: { is: 'yesno' } });
  });
});
