/**
 * Builds inside builds, what reaches down to them, classes, numbers of items and typed texts: what compiles,
 * what does not, and what comes of it.
 */
import { describe, expect, it } from 'vitest';
import { createEngine, type Decision } from '../engine';
import { numbersInside, partNumber } from '../numbering';
import { priceBuild, type Tariff } from '../pricing';
import { making } from '../production';
import {
  buildsInside,
  compileModel,
  outlineOf,
  Reading,
  withLibrary,
  type CompiledModel,
  type ModelClass,
  type ModelDocument,
  type Rule,
} from './index';

const t = (text: string) => ({ en: text });
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
  numbering: [],
  prices: [],
  surcharges: [],
  materials: [],
  operations: [],
  figures: { more: [] },
});
const rule = (id: string, rest: Partial<Rule>): Rule => ({ id, reason: t(id), ...rest }) as Rule;

/** A lamp: housing and colour, a cable by length, an engraved text. */
const lamp: ModelDocument = {
  ...empty('lamp'),
  sections: [{ id: 'head', name: t('Head'), rows: ['housing', 'colour', 'note', 'from'] }],
  features: [
    {
      id: 'housing',
      name: t('Housing'),
      least: 1,
      most: 1,
      usual: ['steel'],
      options: [
        { id: 'steel', code: 'S', name: t('Steel'), item: 'H-STEEL' },
        { id: 'glass', code: 'G', name: t('Glass'), item: 'H-GLASS' },
      ],
    },
    {
      id: 'colour',
      name: t('Colour'),
      least: 1,
      most: 1,
      options: [
        { id: 'red', name: t('Red') },
        { id: 'grey', name: t('Grey') },
      ],
    },
  ],
  parameters: [
    { id: 'note', type: 'text', name: t('Note'), most: 10, optional: true },
    {
      id: 'from',
      type: 'date',
      name: t('From'),
      least: '2026-01-01',
      most: '2027-12-31',
      usual: { formula: 'today()' },
    },
  ],
  calculations: [
    { id: 'weight', name: t('Weight'), type: 'number', unit: 'kg', formula: 'housing.mass + 0.5' },
    {
      id: 'spoken',
      name: t('Spoken'),
      type: 'text',
      formula: 'if note = null then "-" else upper case(note)',
    },
  ],
  rules: [rule('redSteel', { kind: 'exclude', all: ['colour = "red"', 'housing = "glass"'] })],
  numbering: [
    { kind: 'text', text: 'L' },
    { kind: 'code', of: 'housing' },
  ],
  materials: [{ id: 'bulb', item: 'BULB', quantity: '2' }],
  operations: [
    {
      id: 'engrave',
      name: t('Engrave'),
      centre: 'ENG',
      setUp: '0',
      run: '0.1 * string length(note)',
      when: 'note != null',
      text: t('Engrave {spoken}'),
    },
  ],
  properties: [{ id: 'mass', name: t('Mass'), unit: 'kg' }],
  items: { 'H-STEEL': { mass: '2' }, 'H-GLASS': { mass: '3.5' } },
};

/** A post with up to three lamps of one colour. */
const post: ModelDocument = {
  ...empty('post'),
  sections: [{ id: 'foot', name: t('Foot'), rows: ['colour', 'lamps', 'bolts', 'from'] }],
  features: [
    {
      id: 'colour',
      name: t('Colour'),
      least: 1,
      most: 1,
      reachesDown: true,
      usual: ['grey'],
      options: [
        { id: 'red', name: t('Red') },
        { id: 'grey', name: t('Grey') },
      ],
    },
    {
      id: 'lamps',
      name: t('Lamps'),
      least: 0,
      most: 1,
      options: [{ id: 'lamp', name: t('Lamp'), model: 'lamp', quantity: { usual: '1', most: '3' } }],
    },
    {
      id: 'bolts',
      name: t('Bolts'),
      least: 0,
      most: 2,
      usual: ['long'],
      options: [
        {
          id: 'long',
          name: t('Long'),
          item: 'B-LONG',
          quantity: {
            usual: 'if lamps = null then 4 else 2 * count(lamps.lamp)',
            most: '12',
            counts: 'line',
          },
        },
        { id: 'short', name: t('Short'), item: 'B-SHORT' },
      ],
    },
  ],
  parameters: [
    {
      id: 'from',
      type: 'date',
      name: t('From'),
      least: '2026-01-01',
      most: '2027-12-31',
      reachesDown: true,
      usual: '2026-09-01',
    },
  ],
  calculations: [
    {
      id: 'load',
      name: t('Load'),
      type: 'number',
      unit: 'kg',
      formula: 'if lamps = null then 0 else sum(lamps.lamp.weight)',
    },
    {
      id: 'everything',
      name: t('Everything'),
      type: 'number',
      unit: 'kg',
      formula: 'sum(for p in picked return p.mass * p.quantity)',
    },
  ],
  rules: [rule('carries', { kind: 'limit', of: 'load', most: '7' })],
  properties: [{ id: 'mass', name: t('Mass'), unit: 'kg' }],
  items: { 'B-LONG': { mass: '0.25' } },
  library: { models: [lamp] },
};

function compiled(document: unknown): CompiledModel {
  const result = compileModel(document);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.model;
}
const problems = (document: unknown): string[] => {
  const result = compileModel(document);
  return result.ok ? [] : result.problems.map(({ path, code }) => `${path} ${code}`);
};
const context = { date: '2026-06-01', values: {} };
const decide = (values: Record<string, Decision['value']>): Decision[] =>
  Object.entries(values).map(([on, value]) => ({ on, value }));
const within = (change: Partial<ModelDocument>): ModelDocument => ({
  ...post,
  library: { models: [{ ...lamp, ...change }] },
});
const outside = (change: Partial<ModelDocument>): ModelDocument => ({ ...post, ...change });
const withRule = (rest: Partial<Rule>): ModelDocument => outside({ rules: [rule('r', rest)] });

describe('what does not compile', () => {
  it.each<[string, ModelDocument, string]>([
    ['a model that is not there', outside({ library: {} }), 'features.lamps.lamp model.unknownModel'],
    [
      'a model inside itself',
      within({
        features: [
          ...lamp.features,
          {
            id: 'more',
            name: t('More'),
            least: 0,
            most: 1,
            options: [{ id: 'lamp', name: t('Lamp'), model: 'lamp' }],
          },
        ],
      }),
      'library.models.lamp.features.more.lamp model.cycle',
    ],
    [
      'models inside one another',
      within({
        features: [
          ...lamp.features,
          {
            id: 'more',
            name: t('More'),
            least: 0,
            most: 1,
            options: [{ id: 'post', name: t('Post'), model: 'post' }],
          },
        ],
      }),
      'library.models.lamp.features.more.post model.cycle',
    ],
    [
      'something wrong inside, with its place',
      within({ rules: [rule('odd', { kind: 'require', must: 'housing = "wood"' })] }),
      'library.models.lamp.rules.odd.must formula.unknownOption',
    ],
    [
      'a model inside that does not speak the language',
      outside({ languages: ['en', 'de'] }),
      'library.models.lamp model.missingText',
    ],
    ['a class that is not there', outside({ classes: ['outdoor'] }), 'classes model.unknownClass'],
    [
      'a context that only the inner model has',
      within({ context: [{ id: 'region', name: t('Region'), values: [{ id: 'eu', name: t('EU') }] }] }),
      'lamps/lamp/1/region model.unknownContext',
    ],
    [
      'a row reaching down to one of other options',
      within({
        features: [
          lamp.features[0] as never,
          { id: 'colour', name: t('Colour'), least: 1, most: 1, options: [{ id: 'red', name: t('Red') }] },
        ],
        rules: [],
      }),
      'lamps/lamp/1/colour model.reachesOther',
    ],
    [
      'a row reaching down to one of fewer days',
      within({
        parameters: [
          lamp.parameters[0] as never,
          { id: 'from', type: 'date', name: t('From'), least: '2026-06-01', most: '2026-12-31' },
        ],
      }),
      'lamps/lamp/1/from model.reachesOther',
    ],
    [
      'more builds than anyone can tell apart',
      outside({
        features: post.features.map((each) =>
          each.id === 'lamps'
            ? {
                ...each,
                options: [
                  { id: 'lamp', name: t('Lamp'), model: 'lamp', quantity: { usual: '1', most: '500' } },
                ],
              }
            : each,
        ),
      }),
      'features.lamps.lamp model.tooManyBuilds',
    ],
    [
      'an option called like a number of items',
      outside({
        features: post.features.map((each) =>
          each.id === 'bolts'
            ? {
                ...each,
                options: each.options.map((option) =>
                  option.id === 'long' ? { ...option, id: 'mass' } : option,
                ),
                usual: [],
              }
            : each,
        ),
      }),
      'features.bolts model.duplicateId',
    ],
    [
      'a build as a value',
      withRule({ kind: 'require', must: 'lamps.lamp = null' }),
      'rules.r.must formula.unsupported',
    ],
    [
      'a build at a place that is worked out',
      withRule({ kind: 'require', must: 'lamps.lamp[1 + 1].housing = "steel"' }),
      'rules.r.must formula.buildPosition',
    ],
    [
      'a field that the inner model does not have',
      withRule({ kind: 'require', must: 'every l in lamps.lamp satisfies l.height > 2' }),
      'rules.r.must formula.unknownName',
    ],
    [
      'a wrong option of an inner row',
      withRule({ kind: 'require', must: 'every l in lamps.lamp satisfies l.housing = "wood"' }),
      'rules.r.must formula.unknownOption',
    ],
    [
      'units across places',
      withRule({ kind: 'limit', of: 'load', most: 'count(lamps.lamp) * load * load' }),
      'rules.r.most formula.resultType',
    ],
    [
      'a number that items do not have',
      withRule({ kind: 'require', must: 'bolts.length > 1' }),
      'rules.r.must formula.unknownName',
    ],
    [
      'a quantity of an option that has none',
      withRule({ kind: 'require', must: 'colour.quantity > 1' }),
      'rules.r.must formula.unknownName',
    ],
    [
      'what a typed text says as a condition',
      within({ rules: [rule('r', { kind: 'require', must: 'note = "north"' })] }),
      'library.models.lamp.rules.r formula.textContent',
    ],
    [
      'the same through a calculation',
      within({ rules: [rule('r', { kind: 'say', when: 'spoken = "NORTH"', severity: 'note' })] }),
      'library.models.lamp.rules.r formula.textContent',
    ],
    [
      'a text set firmly',
      within({ rules: [rule('r', { kind: 'set', of: 'note', value: 'north', firm: true })] }),
      'library.models.lamp.rules.r model.badTargetValue',
    ],
    [
      'a default of another unit',
      outside({
        parameters: [
          ...post.parameters,
          {
            id: 'span',
            type: 'number',
            name: t('Span'),
            unit: 'm',
            least: '1',
            most: '9',
            step: '1',
            usual: { formula: 'load' },
          },
        ],
      }),
      'parameters.span.value formula.resultType',
    ],
    [
      'a model of the library that is not sound, told there alone',
      within({ features: [{ ...(lamp.features[0] as (typeof lamp.features)[number]), least: 5, most: 5 }] }),
      'library.models.lamp.features.housing model.cardinality',
    ],
    [
      'more values than can be told apart',
      outside({
        parameters: [
          {
            id: 'way',
            type: 'number',
            name: t('Way'),
            unit: 'm',
            least: '0',
            most: '100000000000000',
            step: '0.000001',
          },
        ],
      }),
      'parameters.way model.tooFine',
    ],
    [
      'a rule from a day that there is not',
      withRule({ kind: 'require', must: 'true', from: '2026-13-01' }),
      'rules[0].from model.shape',
    ],
    [
      'a day that is none',
      outside({
        parameters: [{ id: 'from', type: 'date', name: t('From'), least: '2026-02-30', most: '2026-12-31' }],
      }),
      'parameters[0].least model.shape',
    ],
    [
      'quantities that lead in a circle',
      outside({
        features: post.features.map((each) =>
          each.id === 'bolts'
            ? {
                ...each,
                options: [
                  { id: 'long', name: t('Long'), item: 'B-LONG', quantity: 'bolts.long.quantity + 1' },
                  { id: 'short', name: t('Short') },
                ],
              }
            : each,
        ),
      }),
      'calculations.bolts/long/quantity model.cycle',
    ],
  ])('%s', (_, document, expected) => {
    expect(problems(document)).toContain(expected);
  });

  it('twenty models inside one another, though each is sound', () => {
    const models = Array.from({ length: 20 }, (_, index): ModelDocument => ({
      ...empty(`m${String(index)}`),
      features: [
        {
          id: 'f',
          name: t('F'),
          least: 1,
          most: 1,
          options: [{ id: 'o', name: t('O'), ...(index < 19 ? { model: `m${String(index + 1)}` } : {}) }],
        },
      ],
    }));
    const [first, ...rest] = models;
    expect(problems({ ...first, library: { models: rest } })[0]).toMatch(/model\.tooDeep$/);
  });
});

describe('builds inside a build', () => {
  const model = compiled(post);
  const engine = createEngine(model, context);
  const two = decide({ lamps: 'lamp', 'lamps/lamp/quantity': '2', 'lamps/lamp/1/housing': 'glass' });

  it('have choices of their own, under the rules of both models', () => {
    const { rows, values } = engine.state({ decisions: two });
    expect([
      values['lamps/lamp/1/housing'],
      values['lamps/lamp/2/housing'],
      rows['lamps/lamp/3/housing']?.shown,
    ]).toEqual(['glass', 'steel', false]);
    // 4 + 4 kg would be more than the post carries.
    expect(rows['lamps/lamp/2/housing']?.options?.map(({ standing }) => standing)).toEqual(['free', 'swap']);
    expect(
      engine
        .reason({ decisions: two }, { on: 'lamps/lamp/2/housing', value: 'glass' })
        .map((cause) => (cause.kind === 'rule' ? cause.rule : cause.kind)),
    ).toEqual(['decision', 'carries']);
    // One colour for all: a glass lamp is not red, so the post is not.
    expect(rows.colour?.options?.map(({ standing }) => standing)).toEqual(['swap', 'free']);
    expect(engine.reason({ decisions: two }, { on: 'colour', value: 'red' })).toContainEqual({
      kind: 'rule',
      rule: 'lamps/lamp/1/redSteel',
      reason: t('redSteel'),
    });
  });

  it('take what reaches down, and say it on their own', () => {
    const { values } = engine.state({ decisions: [...two, ...decide({ from: '2026-11-02' })] });
    const inside = buildsInside(new Reading(model, values));
    expect(inside.map(({ build }) => build.place)).toEqual(['lamps/lamp/1', 'lamps/lamp/2']);
    expect(inside[0]?.values).toMatchObject({
      housing: 'glass',
      colour: 'grey',
      from: '2026-11-02',
      today: '2026-06-01',
    });
    expect(partNumber(inside[0]?.build.model as CompiledModel, inside[0]?.values ?? {}).text).toBe('LG');
    expect(
      numbersInside(model, values).map(({ place, number, name }) => [place, number.text, name.en]),
    ).toEqual([
      ['lamps/lamp/1', 'LG', 'Lamp 1'],
      ['lamps/lamp/2', 'LS', 'Lamp 2'],
    ]);
  });

  it('are counted into sums, with what is picked', () => {
    const { values } = engine.state({ decisions: two });
    const reading = new Reading(model, values);
    // (3.5 + 0.5) + (2 + 0.5) kg; of what is picked: 3.5 + 2 + 4 bolts of 0.25 kg
    expect([String(reading.named('load')), String(reading.named('everything'))]).toEqual(['6.5', '6.5']);
    expect(engine.state({ decisions: decide({ lamps: null, colour: 'red' }) }).values).toMatchObject({
      'bolts/long/quantity': '4',
      colour: 'red',
    });
  });

  it('are made as parts of their own, and priced', () => {
    const { values } = engine.state({ decisions: [...two, ...decide({ 'lamps/lamp/2/note': 'North' })] });
    expect(making(model, values).materials.map(({ row, place, quantity }) => [row, place, quantity])).toEqual(
      [
        ['lamps/lamp/1/bulb', 'lamps/lamp/1', '2'],
        ['lamps/lamp/2/bulb', 'lamps/lamp/2', '2'],
      ],
    );
    expect(making(model, values).operations).toMatchObject([
      { row: 'lamps/lamp/2/engrave', hours: '0.5', text: { en: 'Engrave NORTH' } },
    ]);
    const tariff: Tariff = {
      list: 'EUR',
      currency: 'EUR',
      decimals: 2,
      prices: { 'H-STEEL': '20', 'H-GLASS': '35', 'B-LONG': '0.5' },
    };
    expect(priceBuild(model, values, tariff)).toMatchObject({ list: '57', open: [], unpriced: [] });
    expect(
      priceBuild(model, values, tariff).parts.map(({ id, amount, counts, place }) => [
        id,
        amount,
        counts,
        place,
      ]),
    ).toEqual([
      ['bolts.long', '2', 'line', undefined],
      ['lamps/lamp/1/housing.glass', '35', undefined, 'lamps/lamp/1'],
      ['lamps/lamp/2/housing.steel', '20', undefined, 'lamps/lamp/2'],
    ]);
  });

  it('keep their decisions at rest while there are fewer of them', () => {
    const spare = decide({ lamps: 'lamp', 'lamps/lamp/2/housing': 'steel', 'lamps/lamp/2/note': 'spare' });
    const [one, both] = [spare, [...spare, ...decide({ 'lamps/lamp/quantity': '2' })]].map((decisions) =>
      engine.state({ decisions }),
    );
    expect([one?.clashes, one?.rows['lamps/lamp/2/note']?.shown, one?.values['lamps/lamp/2/note']]).toEqual([
      [],
      false,
      null,
    ]);
    expect(both?.rows['lamps/lamp/2/note']).toMatchObject({ shown: true, value: 'spare', source: 'yours' });
    // Three lamps are more than the post carries, however light: that is said, and nothing dropped.
    const three = engine.state({ decisions: [...spare, ...decide({ 'lamps/lamp/quantity': '3' })] });
    expect(three.rows['lamps/lamp/quantity']).toMatchObject({ clashing: true, value: '3' });
  });

  it('stand in the outline behind the section that brings them', () => {
    const { sections, places } = outlineOf(model);
    expect(sections.map(({ id, place }) => [id, place])).toEqual([
      ['foot', undefined],
      ['head', 'lamps/lamp/1'],
      ['head', 'lamps/lamp/2'],
      ['head', 'lamps/lamp/3'],
    ]);
    expect(sections[0]?.rows).toEqual([
      'colour',
      'lamps',
      'lamps/lamp/quantity',
      'bolts',
      'bolts/long/quantity',
      'from',
    ]);
    // What reaches down is no row of theirs.
    expect(sections[1]?.rows).toEqual(['lamps/lamp/1/housing', 'lamps/lamp/1/note']);
    expect(places['lamps/lamp/2']).toEqual(t('Lamp 2'));
  });
});

describe('classes and libraries', () => {
  const outdoor: ModelClass = {
    id: 'outdoor',
    name: t('Outdoor'),
    sections: [{ id: 'place', name: t('Place'), rows: ['coast'] }],
    parameters: [{ id: 'coast', type: 'yesno', name: t('By the sea'), usual: false }],
    rules: [rule('saltSteel', { kind: 'exclude', all: ['coast', 'housing = "steel"'] })],
  };

  it('give what they hold to each model that names them', () => {
    const model = compiled({ ...lamp, classes: ['outdoor'], library: { classes: [outdoor] } });
    const state = createEngine(model, context).state({ decisions: decide({ coast: true }) });
    expect([state.values.housing, state.sections.map(({ id }) => id)]).toEqual(['glass', ['head', 'place']]);
  });

  it('are found for a document, one inside another', () => {
    const files: Record<string, unknown> = { lamp: { ...lamp, classes: ['outdoor'] }, outdoor };
    const { library: _library, ...alone } = post;
    const whole = withLibrary(alone, (id) => files[id]) as ModelDocument;
    expect([whole.library?.models?.map(({ id }) => id), whole.library?.classes?.map(({ id }) => id)]).toEqual(
      [['lamp'], ['outdoor']],
    );
    expect(compiled(whole).rules.map((each) => each.rule.id)).toContain('lamps/lamp/2/saltSteel');
    expect(problems(withLibrary(alone, () => undefined))).toEqual(['features.lamps.lamp model.unknownModel']);
    expect(withLibrary('no document', () => undefined)).toBe('no document');
  });
});

describe('texts, dates and choices', () => {
  const engine = createEngine(
    compiled({
      ...lamp,
      rules: [
        rule('long', {
          kind: 'require',
          when: 'housing = "glass"',
          must: 'note = null or string length(note) <= 5',
        }),
        rule('later', { kind: 'limit', of: 'from', least: 'today() + duration("P1M")' }),
      ],
    }),
    context,
  );

  it('ask for the length of a text, never for what it says', () => {
    const { rows } = engine.state({ decisions: decide({ housing: 'glass' }) });
    expect(rows.note).toMatchObject({
      value: null,
      source: 'usual',
      mayBeEmpty: true,
      allowed: [{ least: '1', most: '5' }],
    });
    const long = engine.state({ decisions: decide({ note: 'Northern' }) });
    expect(long.rows.housing?.options?.map(({ standing }) => standing)).toEqual(['free', 'swap']);
    expect(
      engine
        .waysOut({ decisions: decide({ note: 'Northern' }) }, { on: 'housing', value: 'glass' })
        .map(({ changes }) => changes),
    ).toEqual([[{ on: 'note', from: 'Northern', to: null }]]);
  });

  it('count months in days as the calendar has them', () => {
    expect(engine.state({ decisions: [] }).rows.from?.allowed).toEqual([
      { least: '2026-07-01', most: '2027-12-31' },
    ]);
    // The default, today, cannot be had any more: it is for a person to say.
    expect(engine.state({ decisions: [] }).rows.from).toMatchObject({ todo: true, source: 'open' });
  });
});
