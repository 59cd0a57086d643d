/**
 * The door of the model document: the published schema and the running one agree, and every slip has a place
 * and a kind.
 */
import { readFileSync } from 'node:fs';
import Ajv from 'ajv';
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { compileModel, documentSchema, type ModelDocument } from './index';

const read = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../../${name}`, import.meta.url), 'utf8'));
const published = new Ajv({ strict: false }).compile(read('docs/model.schema.json') as object);
const ridgeback = (): ModelDocument => structuredClone(demoDocument('ridgeback'));

/** The demo's model with one thing changed. */
function changed(change: (document: Record<string, never> & ModelDocument) => void): unknown {
  const document = ridgeback();
  change(document as Record<string, never> & ModelDocument);
  return document;
}
const problems = (document: unknown) => {
  const result = compileModel(document);
  return result.ok ? [] : result.problems.map(({ path, code }) => `${path} ${code}`);
};
const set = (target: object, key: string, value: unknown) => Object.assign(target, { [key]: value });
const at = <T>(list: readonly T[], index = 0): T => list[index] as T;

describe('the published JSON Schema and the check at run time', () => {
  const broken: [string, (document: ModelDocument) => void][] = [
    ['another format', (d) => set(d, 'format', 3)],
    ['no name', (d) => set(d, 'name', undefined)],
    ['an unknown field', (d) => set(d, 'colour', 'red')],
    ['an unknown field of an option', (d) => set(at(at(d.features).options), 'cost', '1')],
    ['a number as a decimal', (d) => set(at(d.parameters), 'least', 6)],
    ['a decimal with an exponent', (d) => set(at(d.parameters), 'most', '1e3')],
    ['a bad id', (d) => set(at(d.features), 'id', 'no id')],
    ['an unknown rule kind', (d) => set(at(d.rules), 'kind', 'maybe')],
    ['a rule without its reason', (d) => set(at(d.rules), 'reason', undefined)],
    ['a rule with a field of another kind', (d) => set(at(d.rules), 'must', 'true')],
    ['an unknown parameter type', (d) => set(at(d.parameters), 'type', 'colour')],
    ['an unknown segment', (d) => set(at(d.numbering), 'kind', 'barcode')],
    ['a feature without options', (d) => set(at(d.features), 'options', [])],
    ['a half number of options', (d) => set(at(d.features), 'least', 0.5)],
    ['a language name', (d) => set(d, 'languages', ['english'])],
    ['a bad day', (d) => set(at(d.rules), 'from', '1 May')],
    ['a bad item number', (d) => set(at(d.prices), 'item', 'deck plate')],
    ['an option of an unknown field', (d) => set(at(at(d.features).options), 'quantity', { usual: '1' })],
    [
      'a quantity that is counted otherwise',
      (d) => set(at(at(d.features).options), 'quantity', { usual: '1', most: '2', counts: 'wild' }),
    ],
    ['a text parameter without room', (d) => set(at(d.parameters), 'type', 'text')],
    [
      'a formula that is no text',
      (d) => set(at(d.rules.filter((rule) => rule.kind === 'set')), 'value', { formula: 3 }),
    ],
    ['an item that is told a number bare', (d) => set(d, 'items', { 'RB-HUB': { channels: 4 } })],
    ['a model inside of another format', (d) => set(at(d.library?.models ?? []), 'format', 3)],
    ['a text that is no text', (d) => set(at(d.sections), 'name', { en: 5 })],
  ];

  it('accept the demo', () => {
    expect(published(ridgeback())).toBe(true);
    expect(documentSchema.isValidSync(ridgeback())).toBe(true);
    expect(Object.keys(ridgeback())[0]).toBe('format');
  });

  it.each(broken)('both refuse %s', (_, change) => {
    const document = JSON.parse(JSON.stringify(changed(change))) as unknown;
    expect(published(document)).toBe(false);
    expect(documentSchema.isValidSync(document)).toBe(false);
    expect(problems(document)[0]).toMatch(/model\.shape$/);
  });

  it.each([
    [null],
    [42],
    ['text'],
    [[]],
    [{}],
    [{ format: 1 }],
    [{ format: 2 }],
    [{ ...ridgeback(), features: {} }],
  ])('refuse %j without a crash', (given) => {
    expect(compileModel(given).ok).toBe(false);
  });
});

describe('what the parts of a document mean to each other', () => {
  const slips: [string, (document: ModelDocument) => void, string][] = [
    [
      'an unknown name',
      (d) => set(at(d.prices), 'quantity', 'aera'),
      'prices.deckPlate.quantity formula.unknownName',
    ],
    [
      'an unknown option in a condition',
      (d) => set(at(d.prices), 'when', 'surface = "plat"'),
      'prices.deckPlate.when formula.unknownOption',
    ],
    [
      'a condition that is no condition',
      (d) => set(at(d.prices), 'when', 'area'),
      'prices.deckPlate.when formula.resultType',
    ],
    [
      'units that do not add up',
      (d) =>
        set(
          d.calculations.find((each) => each.id === 'area') as object,
          'formula',
          'deckLength + capacityMass',
        ),
      'calculations.area formula.unitMismatch',
    ],
    [
      'a result in another unit',
      (d) =>
        set(d.calculations.find((each) => each.id === 'area') as object, 'formula', 'deckLength + deckWidth'),
      'calculations.area formula.resultType',
    ],
    [
      'calculations in a circle',
      (d) =>
        set(d.calculations.find((each) => each.id === 'deckLength') as object, 'formula', 'area / deckWidth'),
      'calculations.deckLength model.cycle',
    ],
    ['one id twice', (d) => set(at(d.features, 1), 'id', 'vehicle'), 'vehicle model.duplicateId'],
    [
      'one option twice',
      (d) => set(at(at(d.features).options, 1), 'id', 'rigid'),
      'features.vehicle model.duplicateId',
    ],
    ['one rule twice', (d) => set(at(d.rules, 1), 'id', 'pitRamps'), 'rules.pitRamps model.duplicateId'],
    [
      'more to pick than there is',
      (d) => set(at(d.features), 'least', 5),
      'features.vehicle model.cardinality',
    ],
    [
      'a range without values',
      (d) => set(at(d.parameters), 'most', '1'),
      'parameters.customLength model.badRange',
    ],
    [
      'a row that does not exist',
      (d) => set(at(d.sections), 'rows', ['vehicles']),
      'sections.duty model.unknownRow',
    ],
    [
      'a row in two sections',
      (d) => set(at(d.sections, 1), 'rows', ['vehicle']),
      'sections.deck model.rowTwice',
    ],
    [
      'a default that is no option',
      (d) => set(at(d.features), 'usual', ['lorry']),
      'features.vehicle model.badTargetValue',
    ],
    [
      'a rule on what does not exist',
      (d) => set(d.rules.find((rule) => rule.kind === 'set') as object, 'of', 'boosters'),
      'rules.boosterAdded model.unknownTarget',
    ],
    [
      'a rule that sets the wrong kind of value',
      (d) => set(d.rules.find((rule) => rule.kind === 'set') as object, 'value', 'yes'),
      'rules.boosterAdded model.badTargetValue',
    ],
    [
      'a table row too short',
      (d) => set(d.rules.find((rule) => rule.kind === 'table') as object, 'rows', [['"eu"']]),
      'rules.approvalRegion.rows.0 model.rowWidth',
    ],
    [
      'a text missing in one language',
      (d) => set(at(d.sections), 'name', { en: 'Duty' }),
      'sections.duty.name model.missingText',
    ],
    [
      'a surcharge on nothing',
      (d) => set(at(d.surcharges), 'of', ['roof']),
      'surcharges.customLengthSurcharge model.unknownPart',
    ],
    [
      'a part number of nothing',
      (d) => set(at(d.numbering, 1), 'of', 'colour'),
      'numbering.1 model.unknownTarget',
    ],
    [
      'a figure that is no calculation',
      (d) => set(d.figures, 'mass', 'vehicle'),
      'figures model.unknownTarget',
    ],
    [
      'a formula that does not end',
      (d) => set(at(d.materials), 'quantity', '4 * ('),
      'materials.beams.quantity formula.syntax',
    ],
  ];
  it.each(slips)('%s', (_, change, expected) => {
    expect(problems(changed(change))).toContain(expected);
  });

  it('lists every problem at once, with the place in the formula', () => {
    const result = compileModel(
      changed((d) => {
        set(at(d.prices), 'when', 'surface = "plat"');
        set(at(d.materials), 'quantity', '4 * lenght');
      }),
    );
    expect(result.ok ? [] : result.problems.map(({ path, at: place }) => [path, place])).toEqual([
      ['prices.deckPlate.when', 10],
      ['materials.beams.quantity', 4],
    ]);
  });
});
