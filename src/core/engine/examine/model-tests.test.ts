/** Tests of models: on the day that they name, and red where they speak of what is not there. */
import { describe, expect, it } from 'vitest';
import { compileModel, type ModelDocument } from '../../model';
import { runModelTest, testEngines } from '..';

const t = (text: string) => ({ en: text });
const document: ModelDocument = {
  format: 2,
  id: 'post',
  name: t('post'),
  languages: ['en'],
  context: [
    {
      id: 'region',
      name: t('region'),
      values: [
        { id: 'eu', name: t('eu') },
        { id: 'na', name: t('na') },
      ],
    },
  ],
  sections: [{ id: 's', name: t('s'), rows: ['size', 'start'] }],
  features: [
    {
      id: 'size',
      name: t('size'),
      least: 1,
      most: 1,
      options: [
        { id: 'small', name: t('small') },
        { id: 'large', name: t('large') },
      ],
    },
  ],
  parameters: [
    {
      id: 'start',
      type: 'date',
      name: t('start'),
      least: '2026-01-01',
      most: '2040-12-31',
      usual: { formula: 'today() + duration("P14D")' },
    },
  ],
  calculations: [],
  rules: [{ id: 'far', kind: 'exclude', all: ['size = "large"', 'region = "na"'], reason: t('far') }],
  numbering: [],
  prices: [],
  surcharges: [],
  materials: [],
  operations: [],
  figures: { more: [] },
};
const compiled = compileModel(document);
if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
const { model } = compiled;

describe.each(['2026-03-01', '2035-11-30'])('run on %s', (date) => {
  const engineFor = testEngines(model, { date, values: { region: 'eu' } });
  const failures = (test: Parameters<typeof engineFor>[0]) => runModelTest(engineFor(test), test).failures;

  it('a test with a day comes out the same', () => {
    expect(
      failures({ id: 'day', date: '2026-06-01', decisions: {}, expect: { values: { start: '2026-06-15' } } }),
    ).toEqual([]);
  });

  it('a test without one is run as on that day', () => {
    const start = new Date(new Date(`${date}T00:00:00Z`).getTime() + 14 * 86_400_000)
      .toISOString()
      .slice(0, 10);
    expect(failures({ id: 'today', decisions: {}, expect: { values: { start } } })).toEqual([]);
  });

  it('its context stands beside what is usual', () => {
    expect(
      failures({
        id: 'na',
        context: { region: 'na' },
        decisions: {},
        expect: { values: { size: 'small' }, standings: { 'size.large': 'barred' } },
      }),
    ).toEqual([]);
  });

  it('a row, an option or a value that is not there makes it red', () => {
    expect(failures({ id: 'row', decisions: { colour: 'red' }, expect: {} })).toMatchObject([
      { at: 'decisions.colour', expected: 'red' },
    ]);
    expect(failures({ id: 'option', decisions: { size: 'huge' }, expect: {} })).toMatchObject([
      { at: 'decisions.size', expected: 'huge' },
    ]);
    expect(
      failures({ id: 'standing', decisions: {}, expect: { standings: { 'size.huge': 'free' } } }),
    ).toMatchObject([{ at: 'standings.size.huge', expected: 'free' }]);
  });
});
