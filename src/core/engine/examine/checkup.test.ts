/** The check-up: the number of builds against brute force, and a planted fault for each kind of finding. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileModel, type ModelDocument, type Rule } from '../../model';
import { checkUp, type Finding } from '..';
import { modelArb } from '../testing/random-models';
import { allBuilds } from '../testing/brute-force';

const date = '2026-06-01';
const never = () => false;
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const t = (text: string) => ({ en: text });

describe('the number of builds', () => {
  it('is that of brute force', () => {
    fc.assert(
      fc.property(modelArb, (model) => {
        const [only] = checkUp(model, date, never).builds;
        expect(only?.count).toEqual({ exact: true, builds: BigInt(allBuilds(model).length) });
      }),
      { numRuns: 150 },
    );
  });

  it('is a bound where counting is stopped', () => {
    fc.assert(
      fc.property(modelArb, (model) => {
        const count = checkUp(model, date, () => true).builds[0]?.count;
        const builds = BigInt(allBuilds(model).length);
        expect(count?.exact === true ? count.builds === builds : (count?.most ?? -1n) >= builds).toBe(true);
      }),
      { numRuns: 20 },
    );
  });
});

function model(rules: Partial<Rule>[], change: Partial<ModelDocument> = {}): ModelDocument {
  const option = (id: string, code: string) => ({ id, code, name: t(id) });
  return {
    format: 2,
    id: 'small',
    name: t('small'),
    languages: ['en'],
    context: [],
    sections: [{ id: 's', name: t('s'), rows: ['size', 'colour', 'extras', 'count', 'lamp'] }],
    features: [
      {
        id: 'size',
        name: t('size'),
        least: 1,
        most: 1,
        options: [option('small', 'S'), option('large', 'L')],
      },
      {
        id: 'colour',
        name: t('colour'),
        least: 1,
        most: 1,
        options: [option('red', 'R'), option('green', 'G'), option('blue', 'B')],
      },
      {
        id: 'extras',
        name: t('extras'),
        least: 0,
        most: 2,
        options: [option('bell', 'B'), option('rack', 'K')],
      },
    ],
    parameters: [
      { id: 'count', type: 'number', name: t('count'), unit: '', least: '0', most: '9', step: '1' },
      { id: 'lamp', type: 'yesno', name: t('lamp') },
    ],
    calculations: [],
    rules: rules.map((rule, index) => ({ id: `r${String(index)}`, reason: t('rule'), ...rule }) as Rule),
    numbering: [],
    prices: [],
    surcharges: [],
    materials: [],
    operations: [],
    figures: { more: [] },
    ...change,
  };
}

function findings(document: ModelDocument): [string, string, string?][] {
  const compiled = compileModel(document);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return checkUp(compiled.model, date, never).findings.map(({ kind, at, other }: Finding) =>
    other === undefined ? [kind, at] : [kind, at, other],
  );
}

describe('findings', () => {
  const whole: ModelDocument['numbering'] = [
    { kind: 'code', of: 'size' },
    { kind: 'code', of: 'colour' },
    { kind: 'letters', of: 'extras' },
    { kind: 'number', of: 'count', width: 1 },
    { kind: 'sequence', of: ['lamp'], width: 2 },
  ];
  it.each<[string, ModelDocument, [string, string, string?][]]>([
    ['nothing wrong', model([{ kind: 'exclude', all: ['size = "small"', 'colour = "red"'] }]), []],
    [
      'an option that can never be taken',
      model([{ kind: 'exclude', all: ['colour = "red"', 'count >= 0'] }]),
      [['neverTaken', 'features.colour.red']],
    ],
    [
      'a feature with one possible option',
      model([{ kind: 'require', must: 'size = "large"' }]),
      [
        ['neverTaken', 'features.size.small'],
        ['neverAChoice', 'features.size'],
      ],
    ],
    [
      'a rule that never fires',
      model([{ kind: 'require', when: 'count > 9', must: 'lamp' }]),
      [['neverFires', 'rules.r0']],
    ],
    [
      'a rule that repeats another',
      model([
        { kind: 'exclude', all: ['size = "small"', 'lamp'] },
        { kind: 'require', when: 'size = "small" and count > 4', must: 'lamp = false' },
      ]),
      [['repeatsOthers', 'rules.r1']],
    ],
    [
      'two rules that contradict',
      model([
        { kind: 'require', when: 'size = "large"', must: 'count > 6' },
        { kind: 'require', when: 'colour = "red"', must: 'count < 4' },
      ]),
      [['contradict', 'rules.r0', 'rules.r1']],
    ],
    [
      'a model without a build',
      model([
        { kind: 'require', must: 'lamp' },
        { kind: 'exclude', all: ['lamp'] },
      ]),
      [['nothingToBuild', '']],
    ],
    [
      'a division by zero',
      model([], { calculations: [{ id: 'share', name: t('share'), type: 'number', formula: '10 / count' }] }),
      [['givesNothing', 'calculations.share']],
    ],
    [
      'a division kept from zero',
      model([], {
        calculations: [
          { id: 'share', name: t('share'), type: 'number', formula: 'if count = 0 then 0 else 10 / count' },
        ],
      }),
      [],
    ],
    [
      'table rows that overlap',
      model([
        {
          kind: 'table',
          of: ['size', 'colour'],
          listed: 'forbidden',
          rows: [
            ['"small"', '"red", "green"'],
            ['"small"', '"green"'],
          ],
        },
      ]),
      [['rowsOverlap', 'rules.r0.rows.0', 'rules.r0.rows.1']],
    ],
    [
      'a value that no table row lets pass',
      model([
        {
          kind: 'table',
          of: ['colour', 'size'],
          listed: 'allowed',
          rows: [
            ['"red"', '-'],
            ['"green"', '"large"'],
          ],
        },
      ]),
      [
        ['neverTaken', 'features.colour.blue'],
        ['tableHole', 'rules.r0', 'colour = blue'],
      ],
    ],
    ['a scheme that says everything', model([], { numbering: whole }), []],
  ])('%s', (_, document, expected) => {
    const found = findings(document);
    for (const each of expected) expect(found).toContainEqual(each);
    expect(found.filter(([kind]) => !expected.some(([other]) => other === kind))).toEqual([]);
  });

  it('shows a build in which a formula gives nothing', () => {
    const compiled = compileModel(
      model([{ kind: 'require', must: 'lamp' }], {
        materials: [{ id: 'bolts', item: 'BOLT', quantity: '12 / (count - 3)', when: 'size = "large"' }],
      }),
    );
    if (!compiled.ok) throw new Error('does not compile');
    const found = checkUp(compiled.model, date, never).findings.find(
      (finding) => finding.kind === 'givesNothing',
    );
    expect(found).toMatchObject({
      at: 'materials.bolts.quantity',
      example: { count: '3', size: 'large', lamp: true },
    });
  });
});
