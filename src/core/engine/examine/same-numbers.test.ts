/**
 * Which builds a part number does not tell apart: against every build of small random models, and case by
 * case.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileModel, type CompiledModel, type ModelDocument, type Segment } from '../../model';
import { partNumber, sequenceKey } from '../../numbering';
import { checkUp, createEngine, readNumber, type Finding } from '..';
import { goodsOf } from './goods';
import { plainModelArb } from '../testing/random-models';
import { allBuilds, valuesOf } from '../testing/brute-force';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const date = '2026-06-01';
const t = (text: string) => ({ en: text });

function compiled(document: ModelDocument): CompiledModel {
  const result = compileModel(document);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.model;
}
const found = (document: ModelDocument): Finding[] =>
  checkUp(compiled(document), date, () => true).findings.filter(
    ({ kind }) => kind === 'sameNumber' || kind === 'unreadableNumber',
  );

const option = (id: string, code?: string, item?: string) => ({
  id,
  name: t(id),
  ...(code === undefined ? {} : { code }),
  ...(item === undefined ? {} : { item }),
});
const base: ModelDocument = {
  format: 2,
  id: 'gate',
  name: t('gate'),
  languages: ['en'],
  context: [],
  sections: [{ id: 's', name: t('s'), rows: ['size', 'colour', 'extras', 'height', 'lamp'] }],
  features: [
    {
      id: 'size',
      name: t('size'),
      least: 1,
      most: 1,
      options: [option('small', 'S', 'G-S'), option('large', 'L', 'G-L')],
    },
    {
      id: 'colour',
      name: t('colour'),
      least: 1,
      most: 1,
      options: [option('red', 'R', 'C-R'), option('green', 'G', 'C-G')],
    },
    {
      id: 'extras',
      name: t('extras'),
      least: 0,
      most: 2,
      options: [option('bell', 'B', 'E-B'), option('rack', 'K', 'E-K')],
    },
  ],
  parameters: [
    { id: 'height', type: 'number', name: t('height'), unit: '', least: '0', most: '2', step: '0.5' },
    { id: 'lamp', type: 'yesno', name: t('lamp') },
  ],
  calculations: [],
  rules: [],
  prices: [{ id: 'post', name: t('post'), item: 'POST', quantity: 'height' }],
  surcharges: [],
  operations: [],
  figures: { more: [] },
  materials: [{ id: 'bulb', item: 'BULB', quantity: '1', when: 'lamp' }],
  numbering: [
    { kind: 'code', of: 'size' },
    { kind: 'code', of: 'colour' },
    { kind: 'letters', of: 'extras', before: '/' },
    { kind: 'number', of: 'height', times: '10', width: 2, before: '-' },
    { kind: 'text', text: 'L', when: 'lamp' },
  ],
};
const without = (index: number): Segment[] => base.numbering.filter((_, at) => at !== index);
const with_ = (index: number, segment: Segment): Segment[] =>
  base.numbering.map((each, at) => (at === index ? segment : each));

describe('the check-up of part numbers', () => {
  it.each<[string, Partial<ModelDocument>, [kind: string, at: string][]]>([
    ['all told', {}, []],
    [
      'a number whose steps are finer than what is printed',
      { numbering: with_(3, { kind: 'number', of: 'height', width: 2, before: '-' }) },
      [['sameNumber', 'parameters.height']],
    ],
    [
      'options without codes',
      {
        features: base.features.map((each) =>
          each.id === 'extras'
            ? { ...each, options: [option('bell', undefined, 'E-B'), option('rack', 'K', 'E-K')] }
            : each,
        ),
      },
      [['sameNumber', 'features.extras']],
    ],
    [
      'options of one choice without codes',
      {
        features: base.features.map((each) =>
          each.id === 'colour'
            ? { ...each, options: [option('red', undefined, 'C-R'), option('green', undefined, 'C-G')] }
            : each,
        ),
      },
      [['sameNumber', 'features.colour']],
    ],
    [
      'a row outside the scheme that has a price',
      { numbering: without(3) },
      [['sameNumber', 'parameters.height']],
    ],
    [
      'a row outside the scheme that needs material',
      { numbering: without(4) },
      [['sameNumber', 'parameters.lamp']],
    ],
    ['a row outside the scheme that nothing depends on', { numbering: without(4), materials: [] }, []],
    ['a row outside the scheme with a service alone', { numbering: without(4), services: ['BULB'] }, []],
    [
      'a quantity that is not told',
      {
        features: base.features.map((each) =>
          each.id === 'size'
            ? {
                ...each,
                options: [
                  option('small', 'S', 'G-S'),
                  { ...option('large', 'L', 'G-L'), quantity: { usual: '1', most: '3' } },
                ],
              }
            : each,
        ),
      },
      [['sameNumber', 'parameters.size/large/quantity']],
    ],
    [
      'two changes that belong together',
      {
        numbering: [base.numbering[0] as Segment, base.numbering[2] as Segment, base.numbering[3] as Segment],
        rules: [{ id: 'together', kind: 'require', must: 'lamp = (colour = "red")', reason: t('r') }],
      },
      [
        ['sameNumber', 'features.colour'],
        ['sameNumber', 'parameters.lamp'],
      ],
    ],
    [
      'codes that run into one another',
      {
        features: base.features.map((each) =>
          each.id === 'size'
            ? { ...each, options: [option('small', 'S', 'G-S'), option('large', 'SR', 'G-L')] }
            : {
                ...each,
                options: each.options.map((o) => (o.id === 'red' ? option('red', 'RG', 'C-R') : o)),
              },
        ),
      },
      [
        ['sameNumber', 'features.size'],
        ['sameNumber', 'features.colour'],
      ],
    ],
    [
      'several marks',
      {
        numbering: [
          ...without(4),
          {
            kind: 'marks',
            before: '+',
            of: [
              { text: 'L', when: 'lamp' },
              { text: 'X', when: 'height > 1' },
            ],
          },
        ],
      },
      [],
    ],
  ])('%s', (_, change, expected) => {
    expect(found({ ...base, ...change }).map(({ kind, at }) => [kind, at])).toEqual(expected);
  });

  it('names two builds of one number, in what they differ, and what goods that makes', () => {
    const [finding] = found({ ...base, numbering: without(4) });
    expect(finding).toMatchObject({
      kind: 'sameNumber',
      at: 'parameters.lamp',
      rows: ['lamp'],
      goods: [{ at: 'materials.bulb' }],
    });
    expect([finding?.example?.lamp, finding?.second?.lamp].sort()).toEqual([false, true]);
    const model = compiled({ ...base, numbering: without(4) });
    expect([finding?.example, finding?.second].map((values) => partNumber(model, values ?? {}).text)).toEqual(
      [finding?.number, finding?.number],
    );
  });

  it('is what comparing every build with every other says', () => {
    const segments = fc.subarray<Segment>(
      [
        { kind: 'code', of: 'a' },
        { kind: 'code', of: 'b', before: '-' },
        { kind: 'letters', of: 'c', before: '/' },
        { kind: 'number', of: 'n', width: 2 },
        { kind: 'number', of: 'double', width: 1, before: '.' },
        {
          kind: 'marks',
          before: '+',
          of: [
            { text: 'Y', when: 'y' },
            { text: 'N', when: 'n > 1.5' },
          ],
        },
        { kind: 'sequence', of: ['a', 'y'], width: 2, before: '#' },
      ],
      { minLength: 1 },
    );
    const coded = fc.constantFrom(['A', 'B', 'C'], ['A', 'AB', 'B'], ['A', 'A', 'B'], ['', 'A', 'B']);
    let [same, apart, missed] = [0, 0, 0];
    fc.assert(
      fc.property(
        plainModelArb,
        segments,
        coded,
        fc.subarray(['a', 'b', 'y', 'n'] as const, { minLength: 1 }),
        (random, numbering, codes, goods) => {
          const { document } = random;
          const model = compiled({
            ...document,
            numbering: numbering.map((segment) =>
              segment.kind === 'letters' || segment.kind === 'code'
                ? {
                    ...segment,
                    kind:
                      (document.features.find(({ id }) => id === segment.of)?.most ?? 1) > 1
                        ? 'letters'
                        : 'code',
                  }
                : segment,
            ),
            features: document.features.map((feature) => ({
              ...feature,
              options: feature.options.map((each, at) => ({
                ...each,
                code: codes[at] ?? '',
                ...((goods as string[]).includes(feature.id)
                  ? { item: `${feature.id}${String(at)}`.toUpperCase() }
                  : {}),
              })),
            })),
            prices: goods.includes('n') ? [{ id: 'post', name: t('post'), item: 'POST', quantity: 'n' }] : [],
            materials: goods.includes('y') ? [{ id: 'bulb', item: 'BULB', quantity: '1', when: 'y' }] : [],
          });
          const byNumber = new Map<string, Set<string>>();
          for (const build of allBuilds(model)) {
            const values = valuesOf(model, build);
            const { text, complete } = partNumber(model, values, 1);
            if (!complete) continue;
            const number = `${text} ${sequenceKey(model, values) ?? ''}`;
            byNumber.set(
              number,
              (byNumber.get(number) ?? new Set()).add(JSON.stringify([...goodsOf(model, values)].sort())),
            );
          }
          const twice = [...byNumber.values()].some((each) => each.size > 1);
          if (twice) same += 1;
          else apart += 1;
          const told = checkUp(model, date, () => true).findings.some(({ kind }) => kind === 'sameNumber');
          // Never is something told that is not so.
          if (!twice) expect(told).toBe(false);
          else if (!told) missed += 1;
        },
      ),
      { numRuns: 150 },
    );
    expect(Math.min(same, apart)).toBeGreaterThan(20);
    // Not every pair of builds is looked at, but what goes by is rare.
    expect(missed / same).toBeLessThan(0.05);
  });
});

describe('numbers below zero and conditions', () => {
  const document: ModelDocument = {
    ...base,
    parameters: base.parameters.map((each) => (each.type === 'number' ? { ...each, least: '-2' } : each)),
  };

  it('are printed with their sign before the zeros, and read back', () => {
    const model = compiled(document);
    expect(found(document)).toEqual([]);
    const engine = createEngine(model, { date, values: {} });
    for (const height of ['-2', '-0.5', '0', '1.5']) {
      const decisions = [
        { on: 'size', value: 'small' },
        { on: 'colour', value: 'red' },
        { on: 'height', value: height },
        { on: 'lamp', value: true },
      ];
      const { text } = partNumber(model, engine.state({ decisions }).values);
      const read = readNumber(engine, text);
      expect([text, read.is === 'build' && engine.state({ decisions: read.decisions }).values]).toEqual([
        text,
        expect.objectContaining({ height, lamp: true, size: 'small' }),
      ]);
    }
    expect(
      partNumber(model, { size: 'small', colour: 'red', extras: [], height: '-0.5', lamp: false }).text,
    ).toBe('SR--05');
  });
});
