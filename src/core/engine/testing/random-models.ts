/**
 * Small random models for the properties of the engine, and every complete valid build of one by brute force.
 */
import fc from 'fast-check';
import {
  type Feature,
  type ModelDocument,
  type Option,
  type Parameter,
  type Rule,
  type Severity,
  compileModel,
  type CompiledModel,
} from '../../model';

const t = (text: string) => ({ en: text });

const featureArb = (id: string): fc.Arbitrary<Feature> =>
  fc
    .record({
      count: fc.integer({ min: 1, max: 3 }),
      many: fc.boolean(),
      least: fc.integer({ min: 0, max: 1 }),
      usual: fc.option(fc.nat(2)),
    })
    .map(({ count, many, least, usual }) => ({
      id,
      name: t(id),
      least,
      most: many ? Math.max(2, count) : 1,
      options: Array.from({ length: count }, (_, index) => ({
        id: `${id}${String(index)}`,
        name: t(`${id}${String(index)}`),
      })),
      ...(usual !== null && usual < count ? { usual: [`${id}${String(usual)}`] } : {}),
    }));

const numberArb: fc.Arbitrary<Parameter> = fc
  .record({ steps: fc.integer({ min: 1, max: 4 }), usual: fc.option(fc.nat(4)) })
  .map(({ steps, usual }) => ({
    id: 'n',
    type: 'number',
    name: t('n'),
    unit: 'm',
    least: '1',
    most: String(1 + steps * 0.5),
    step: '0.5',
    ...(usual !== null && usual <= steps ? { usual: String(1 + usual * 0.5) } : {}),
  }));

/** What a random model has beside its plain features: conditions over it are in `atoms`. */
interface Extra {
  kind: 'plain' | 'nested' | 'typed' | 'quantities';
  atoms: readonly string[];
  /** Numbers of which limits can be asked, with a bound. */
  limits: readonly (readonly [of: string, most: string])[];
  change(document: ModelDocument): ModelDocument;
}

const plain: Extra = { kind: 'plain', atoms: [], limits: [], change: (document) => document };

/**
 * A build inside: with a choice, a yes/no, a mass, rules of its own, and a parameter that may come from
 * outside.
 */
const nestedArb: fc.Arbitrary<Extra> = fc
  .record({
    least: fc.integer({ min: 0, max: 1 }),
    most: fc.integer({ min: 1, max: 2 }),
    inner: fc.boolean(),
    rule: fc.nat(4),
    usual: fc.integer({ min: 1, max: 2 }),
    free: fc.boolean(),
  })
  .map(({ least, most, inner: own, rule, usual, free }): Extra => {
    const rules: Partial<Rule>[] = [
      { kind: 'exclude', all: ['p = "p0"', 'q'] },
      { kind: 'show', of: 'q', when: 'p = "p1"' },
      { kind: 'require', when: 'q', must: 'weight >= 3' },
      { kind: 'set', of: 'q', when: 'p = "p1"', value: true, firm: false },
      { kind: 'require', when: 'y', must: 'p = "p1"' },
    ];
    const inner: ModelDocument = {
      ...empty('inner'),
      sections: [{ id: 'is', name: t('is'), rows: ['p', 'q', 'y'] }],
      features: [
        {
          id: 'p',
          name: t('p'),
          least: 1,
          most: 1,
          options: [
            { id: 'p0', name: t('p0'), item: 'P0' },
            { id: 'p1', name: t('p1'), item: 'P1' },
          ],
        },
      ],
      parameters: [
        { id: 'q', type: 'yesno', name: t('q'), ...(free ? {} : { usual: false }) },
        { id: 'y', type: 'yesno', name: t('y'), usual: false },
      ],
      calculations: [
        {
          id: 'weight',
          name: t('weight'),
          type: 'number',
          unit: 'kg',
          formula: 'p.mass + (if q then 1 else 0)',
        },
      ],
      properties: [{ id: 'mass', name: t('mass'), unit: 'kg' }],
      items: { P0: { mass: '2' }, P1: { mass: '3.5' } },
      rules: [{ id: 'ir', reason: t('inner rule'), ...rules[rule] } as Rule],
    };
    const option: Option = {
      id: 'box',
      name: t('box'),
      model: 'inner',
      ...(most > 1 ? { quantity: { usual: String(usual), most: String(most) } } : {}),
    };
    const several = most > 1;
    // Two builds with a value of their own each would be too many to write down.
    const reaches = several || !own;
    return {
      kind: 'nested',
      atoms: several
        ? [
            'count(k.box) >= 2',
            'some b in k.box satisfies b.p = "p1"',
            'every b in k.box satisfies b.q',
            'sum(k.box.weight) > 5',
            'count(k.box[q]) = 1',
            'k.quantity = 2',
            'list contains(k.box.p, "p0")',
            'sum(for x in picked return x.mass * x.quantity) <= 4',
          ]
        : ['k.box.p = "p1"', 'k.box.q', 'k.box.weight > 3', 'sum(picked.mass) >= 3'],
      limits: several ? [['k/box/quantity', '1']] : [],
      change: (document) => ({
        ...document,
        features: [
          ...document.features.slice(0, 1),
          { id: 'k', name: t('k'), least, most: 1, options: [option] },
        ],
        parameters: document.parameters.map((each) =>
          each.id === 'y' ? { ...each, reachesDown: reaches } : each,
        ),
        sections: document.sections.map((section) => ({
          ...section,
          rows: [...section.rows.filter((row) => row !== 'b' && row !== 'c'), 'k'],
        })),
        properties: [{ id: 'mass', name: t('mass'), unit: 'kg' }],
        library: { models: [inner] },
      }),
    };
  });

/** A text, a date, a choice that is no item, and a number that may be absent: two of them at a time. */
const typedArb: fc.Arbitrary<Extra> = fc
  .record({
    which: fc.subarray(['s', 'd', 'o', 'e'], { minLength: 2, maxLength: 2 }),
    optional: fc.boolean(),
    usual: fc.boolean(),
  })
  .map(({ which, optional, usual }): Extra => {
    const all: Record<string, { parameter: Parameter; atoms: string[]; limit?: string }> = {
      s: {
        parameter: {
          id: 's',
          type: 'text',
          name: t('s'),
          most: 2,
          optional,
          ...(usual ? { usual: '··' } : {}),
        },
        atoms: ['s = null', 'string length(s) >= 2', 's != null'],
      },
      d: {
        parameter: {
          id: 'd',
          type: 'date',
          name: t('d'),
          least: '2026-06-01',
          most: '2026-06-03',
          optional,
          ...(usual ? { usual: { formula: 'today() + duration("P1D")' } } : {}),
        },
        atoms: ['d > @"2026-06-01"', 'd = null', 'd + @"P1D" <= @"2026-06-03"', 'd.day = 2'],
        limit: '@"2026-06-02"',
      },
      o: {
        parameter: {
          id: 'o',
          type: 'number',
          name: t('o'),
          unit: 'm',
          least: '0',
          most: '2',
          step: '1',
          optional: true,
          ...(usual ? { usual: { formula: 'n - 1' } } : {}),
        },
        atoms: ['o = null', 'o >= 1', 'o * n > 2'],
        limit: '1',
      },
      e: {
        parameter: {
          id: 'e',
          type: 'choice',
          name: t('e'),
          options: [
            { id: 'e0', name: t('e0') },
            { id: 'e1', name: t('e1') },
          ],
          optional,
          ...(usual ? { usual: 'e1' } : {}),
        },
        atoms: ['e = "e0"', 'e = null', 'e != "e1"'],
      },
    };
    const chosen = which.flatMap((id) => all[id] ?? []);
    return {
      kind: 'typed',
      atoms: chosen.flatMap((each) => each.atoms),
      limits: chosen.flatMap((each) =>
        each.limit === undefined ? [] : [[each.parameter.id, each.limit] as const],
      ),
      change: (document) => ({
        ...document,
        // Few other values, so that every build can be written down.
        features: document.features.slice(0, 2),
        parameters: [...document.parameters, ...chosen.map((each) => each.parameter)],
        rules: document.rules,
        sections: document.sections.map((section) => ({
          ...section,
          rows: [...section.rows.filter((row) => row !== 'c'), ...which],
        })),
      }),
    };
  });

/** Items with numbers, and options of which one takes several. */
const quantitiesArb: fc.Arbitrary<Extra> = fc
  .record({
    many: fc.boolean(),
    usual: fc.constantFrom('2', 'n', 'n * 2', 'if y then 1 else 3'),
    fixed: fc.boolean(),
    least: fc.integer({ min: 0, max: 1 }),
  })
  .map(({ many, usual, fixed, least }): Extra => ({
    kind: 'quantities',
    atoms: [
      ...(many
        ? ['w.w0.quantity >= 2', 'sum(w.mass) > 5', 'w.w1.mass = 4', 'max(w.quantity) <= 2', 'count(w) = 2']
        : ['w.quantity >= 2', 'w.mass = 4', 'w.mass * w.quantity > 4', 'w.mass = null']),
      'sum(for x in picked return x.mass * x.quantity) > 6',
      'count(picked) = 0',
      'some x in picked satisfies x.quantity = 3',
    ],
    limits: fixed ? [] : [['w/w0/quantity', '2']],
    change: (document) => ({
      ...document,
      features: [
        ...document.features.slice(0, 2),
        {
          id: 'w',
          name: t('w'),
          least,
          most: many ? 2 : 1,
          options: [
            {
              id: 'w0',
              name: t('w0'),
              item: 'W0',
              quantity: { usual, most: '3', ...(fixed ? { fixed: true } : {}) },
            },
            { id: 'w1', name: t('w1'), item: 'W1' },
          ],
        },
      ],
      sections: document.sections.map((section) => ({
        ...section,
        rows: [...section.rows.filter((row) => row !== 'c'), 'w'],
      })),
      properties: [{ id: 'mass', name: t('mass'), unit: 'kg' }],
      items: { W0: { mass: '2.5' }, W1: { mass: '4' } },
    }),
  }));

/** Conditions over the features and parameters that exist. */
function conditionArb(features: Feature[], extra: Extra): fc.Arbitrary<string> {
  const atoms = features.flatMap((feature) =>
    feature.options.map((option) =>
      feature.most > 1 ? `("${option.id}" in ${feature.id})` : `${feature.id} = "${option.id}"`,
    ),
  );
  const common = [
    'n > 1.5',
    'n = 1',
    'double >= 4',
    'y',
    'y = false',
    `count(${features.find((f) => f.most > 1)?.id ?? '["x"]'}) > 1`,
  ];
  const own = extra.atoms.length > 0 ? [fc.constantFrom(...extra.atoms).map((atom) => `(${atom})`)] : [];
  const atom = fc.oneof(fc.constantFrom(...atoms), fc.constantFrom(...common), ...own);
  return fc.oneof(
    atom,
    fc.tuple(atom, fc.constantFrom('and', 'or'), atom).map((parts) => parts.join(' ')),
    atom.map((each) => `not(${each})`),
  );
}

const severityArb: fc.Arbitrary<{ severity?: Severity }> = fc.oneof(
  { weight: 4, arbitrary: fc.constant({}) },
  {
    weight: 1,
    arbitrary: fc.constantFrom<Severity>('error', 'warning', 'note').map((severity) => ({ severity })),
  },
);

const ruleArb = (features: Feature[], extra: Extra, index: number): fc.Arbitrary<Rule> => {
  const condition = conditionArb(features, extra);
  const base = { id: `r${String(index)}`, reason: t(`rule ${String(index)}`) };
  const single = features.filter((feature) => feature.most === 1);
  return fc.oneof(
    fc
      .tuple(condition, condition, severityArb)
      .map(([when, must, severity]): Rule => ({ ...base, kind: 'require', when, must, ...severity })),
    fc
      .tuple(condition, condition, severityArb)
      .map(([one, other, severity]): Rule => ({ ...base, kind: 'exclude', all: [one, other], ...severity })),
    fc
      .tuple(condition, fc.constantFrom(...extra.limits, ['n', '2'] as const), severityArb)
      .map(([when, [of, most], severity]): Rule => ({ ...base, kind: 'limit', of, when, most, ...severity })),
    fc.tuple(condition, fc.constantFrom(...features)).map(([when, feature]): Rule => ({
      ...base,
      kind: 'show',
      of: feature.id,
      when: when.includes(feature.id) ? 'y' : when,
    })),
    ...(single.length > 1
      ? [
          fc.tuple(fc.boolean(), severityArb).map(([allowed, severity]): Rule => ({
            ...base,
            kind: 'table',
            of: [single[0]?.id as string, single[1]?.id as string],
            listed: allowed ? 'allowed' : 'forbidden',
            rows: [
              ['-', `"${single[1]?.options[0]?.id as string}"`],
              [`"${single[0]?.options[0]?.id as string}"`, '-'],
            ],
            ...severity,
          })),
        ]
      : []),
    condition.map((when): Rule => ({ ...base, kind: 'set', of: 'y', when, value: true, firm: true })),
    condition.map((when): Rule => ({ ...base, kind: 'set', of: 'y', when, value: false, firm: false })),
    condition.map((when): Rule => ({ ...base, kind: 'say', when, severity: 'note' })),
  );
};

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

function modelOf(extras: fc.Arbitrary<Extra>): fc.Arbitrary<CompiledModel> {
  return fc
    .tuple(featureArb('a'), featureArb('b'), featureArb('c'), numberArb, extras)
    .chain(([a, b, c, n, extra]) => {
      const features = extra.kind === 'plain' ? [a, b, c] : extra.kind === 'nested' ? [a] : [a, b];
      return fc.record({
        features: fc.constant(features),
        n: fc.constant(n),
        extra: fc.constant(extra),
        count: fc.integer({ min: 1, max: 5 }),
      });
    })
    .chain(({ features, n, extra, count }) =>
      fc.tuple(
        fc.constant({ features, n, extra }),
        fc.tuple(...Array.from({ length: count }, (_, index) => ruleArb(features, extra, index))),
      ),
    )
    .map(([{ features, n, extra }, rules]) => {
      // Show rules for one feature alone, so that none leads in a circle: a feature's existence may only
      // depend on others.
      const shown = rules.find((rule) => rule.kind === 'show')?.of;
      const kept = rules.filter((rule) => rule.kind !== 'show' || rule.of === shown);
      const document = extra.change({
        ...empty('random'),
        sections: [{ id: 's', name: t('s'), rows: [...features.map((each) => each.id), 'n', 'y'] }],
        features,
        parameters: [n, { id: 'y', type: 'yesno', name: t('y'), usual: false }],
        calculations: [{ id: 'double', name: t('double'), type: 'number', unit: 'm', formula: 'n * 2' }],
        rules: kept,
      });
      const compiled = compileModel(document);
      if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
      return compiled.model;
    });
}

/** Random small models with rules of every kind. */
export const modelArb: fc.Arbitrary<CompiledModel> = modelOf(
  fc.oneof(
    { weight: 3, arbitrary: fc.constant(plain) },
    { weight: 1, arbitrary: nestedArb },
    { weight: 1, arbitrary: typedArb },
    { weight: 1, arbitrary: quantitiesArb },
  ),
);
/** Models without anything inside, whose rows are those of the document. */
export const plainModelArb: fc.Arbitrary<CompiledModel> = modelOf(fc.constant(plain));
