/**
 * The Yup door of the model document: shape and sizes. What the parts mean to each other is checked by the
 * compiler.
 */
import { array, boolean, lazy, mixed, number, object, string, type Schema } from 'yup';
import type { ModelDocument, Parameter, Rule, Segment } from './document';
import type { Shape } from './drawing';

const id = string()
  .strict()
  .matches(/^[a-z][A-Za-z0-9]{0,39}$/, 'model.badId')
  .required();
/** An id, or the way to a row inside an option: "approach/walkways/quantity". */
const way = string()
  .strict()
  .matches(/^[a-z][A-Za-z0-9]{0,39}(\/[a-z0-9][A-Za-z0-9]{0,39}){0,12}$/, 'model.badId')
  .required();
const sku = string()
  .strict()
  .matches(/^[A-Z0-9][A-Z0-9.-]{0,39}$/, 'model.badSku');
const feel = string().strict().max(100_000);
const decimal = string()
  .strict()
  .matches(/^-?\d{1,15}(\.\d{1,12})?$/, 'model.badDecimal');
/** A day that there is, as ISO writes it. */
function isDay(value: string): boolean {
  const date = new Date(`${value}T00:00:00Z`);
  return (
    /^\d{4}-\d\d-\d\d$/.test(value) && !Number.isNaN(date.getTime()) && date.toISOString().startsWith(value)
  );
}
const day = string()
  .strict()
  .test('day', 'model.badDay', (value) => value === undefined || isDay(value));
const severity = string().strict().oneOf(['error', 'warning', 'note']);
/**
 * One check for the whole record: a schema made for each of a model's thousands of texts would take most of
 * the time.
 */
const isTexts = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  !Array.isArray(value) &&
  Object.keys(value).length > 0 &&
  Object.values(value).every((text) => typeof text === 'string' && text.length > 0 && text.length <= 2_000);
const texts = mixed().test('texts', 'model.noText', isTexts);
const optionalTexts = mixed().test('texts', 'model.noText', (value) => value === undefined || isTexts(value));
const shape = (fields: Record<string, unknown>) =>
  object(fields as Record<string, Schema>)
    .strict()
    .noUnknown('model.unknownField');
const list = (of: unknown, most: number) =>
  array()
    .strict()
    .of(of as Schema)
    .max(most)
    .required();

const proposed = mixed()
  .test(
    'value',
    'model.badValue',
    (value: unknown) =>
      value === null || typeof value === 'string' || typeof value === 'boolean' || isFormula(value),
  )
  .defined();

/** Picks the schema by a discriminating field; an unknown value of the field is itself the problem. */
function byField<T extends string>(field: string, schemas: Record<T, Schema>): unknown {
  return lazy((value: unknown) => {
    const name = (value as Record<string, unknown> | null)?.[field];
    const known = typeof name === 'string' && Object.hasOwn(schemas, name);
    return known
      ? schemas[name as T]
      : shape({ [field]: string().strict().oneOf(Object.keys(schemas), 'model.unknownKind').required() });
  });
}

/** A record with any keys, each value checked by itself. */
const record = (fits: (value: unknown) => boolean) =>
  mixed().test(
    'record',
    'model.badValue',
    (value: unknown) =>
      value === undefined ||
      (typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.values(value).every(fits)),
  );
const counts = lazy((value: unknown) =>
  typeof value === 'object' && value !== null
    ? shape({ every: number().strict().integer().min(1).max(99_999).required() })
    : string().strict().oneOf(['line', 'typed']),
);
const quantityShape = shape({
  usual: feel.required(),
  least: decimal,
  most: decimal.required(),
  step: decimal,
  fixed: boolean().strict(),
  counts,
});
const quantity = lazy((value: unknown) =>
  typeof value === 'object' && value !== null ? quantityShape : feel,
);
const isId = (value: unknown): boolean => typeof value === 'string' && /^[a-z][A-Za-z0-9]{0,39}$/.test(value);
const isSku = (value: unknown): boolean =>
  typeof value === 'string' && /^[A-Z0-9][A-Z0-9.-]{0,39}$/.test(value);
const optionFields: Readonly<Record<string, { fits: (value: unknown) => boolean; needed?: true }>> = {
  id: { fits: isId, needed: true },
  code: { fits: (value) => typeof value === 'string' && value.length <= 8 },
  name: { fits: isTexts, needed: true },
  item: { fits: isSku },
  picture: { fits: (value) => typeof value === 'string' && /^[0-9a-f-]{36}$/.test(value) },
  model: { fits: isId },
  quantity: {
    fits: (value) =>
      typeof value === 'string' ? value !== '' && value.length <= 100_000 : quantityShape.isValidSync(value),
  },
};

/**
 * What is wrong with an option, as the field and the code; null where nothing is. A schema of its own for
 * each of 20,000 options would take seconds.
 */
function optionProblem(option: unknown): [field: string, code: string] | null {
  if (typeof option !== 'object' || option === null || Array.isArray(option)) return ['', 'model.badValue'];
  const given = option as Record<string, unknown>;
  for (const name of Object.keys(given))
    if (!Object.hasOwn(optionFields, name)) return [name, 'model.unknownField'];
  for (const [name, { fits, needed }] of Object.entries(optionFields)) {
    if (given[name] === undefined ? needed : !fits(given[name])) return [name, 'model.badValue'];
  }
  return null;
}
const options = array()
  .strict()
  .min(1)
  .max(20_000)
  .required()
  .test('options', 'model.badValue', function (list: unknown[]) {
    for (const [index, option] of list.entries()) {
      const problem = optionProblem(option);
      if (problem)
        return this.createError({
          path: `${this.path}[${String(index)}]${problem[0] && '.'}${problem[0]}`,
          message: problem[1],
        });
    }
    return true;
  });
const feature = shape({
  id,
  name: texts,
  short: optionalTexts,
  help: optionalTexts,
  least: number().strict().integer().min(0).required(),
  most: number().strict().integer().min(1).required(),
  options,
  usual: array().strict().of(id),
  reachesDown: boolean().strict(),
  given: boolean().strict(),
  shown: string().strict().oneOf(['tabs', 'table']),
});

const isFormula = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  Object.keys(value).join() === 'formula' &&
  typeof (value as { formula: unknown }).formula === 'string';
/** A value written as text, or a formula for it. */
const usualText = mixed().test(
  'usual',
  'model.badValue',
  (value) => value === undefined || typeof value === 'string' || isFormula(value),
);
const parameterBase = {
  id,
  type: string().required(),
  name: texts,
  short: optionalTexts,
  help: optionalTexts,
  reachesDown: boolean().strict(),
  given: boolean().strict(),
};
const optional = boolean().strict();
const standard = shape({ of: id, values: record(isId).required() }).default(undefined);
const parameter = byField<Parameter['type']>('type', {
  number: shape({
    ...parameterBase,
    unit: string().strict().defined(),
    least: decimal.required(),
    most: decimal.required(),
    step: decimal.required(),
    optional,
    usual: usualText,
    standard: standard,
  }),
  yesno: shape({ ...parameterBase, usual: boolean().strict(), item: sku, quantity }),
  choice: shape({
    ...parameterBase,
    options: list(shape({ id, code: string().strict().max(8), name: texts }), 5_000).min(1),
    optional,
    usual: id.notRequired(),
  }),
  text: shape({
    ...parameterBase,
    most: number().strict().integer().min(1).max(2_000).required(),
    optional,
    usual: string().strict().max(2_000),
  }),
  date: shape({ ...parameterBase, least: day.required(), most: day.required(), optional, usual: usualText }),
});

const isTextList = (value: unknown): boolean =>
  Array.isArray(value) && value.every((each) => typeof each === 'string');
const isPlain = (value: unknown): boolean =>
  value === null || typeof value === 'string' || typeof value === 'boolean';

const ruleBase = {
  id,
  kind: string().required(),
  reason: texts,
  help: string().strict().max(300),
  from: day,
  until: day,
  where: record(isTextList),
};
const rule = byField<Rule['kind']>('kind', {
  require: shape({ ...ruleBase, when: feel, must: feel.required(), severity }),
  exclude: shape({ ...ruleBase, all: list(feel.required(), 20).min(1), severity }),
  limit: shape({ ...ruleBase, of: way, when: feel, least: feel, most: feel, severity }),
  table: shape({
    ...ruleBase,
    of: list(id, 12).min(1),
    rows: list(array().strict().of(feel.required()).required(), 10_000),
    listed: string().strict().oneOf(['allowed', 'forbidden']).required(),
    severity,
  }),
  set: shape({
    ...ruleBase,
    of: string().strict().required(),
    when: feel,
    value: proposed,
    firm: boolean().strict().required(),
  }),
  usual: shape({ ...ruleBase, of: string().strict().required(), when: feel, value: proposed }),
  show: shape({ ...ruleBase, of: way, when: feel.required() }),
  say: shape({
    ...ruleBase,
    when: feel.required(),
    severity: string().strict().oneOf(['warning', 'note']).required(),
  }),
});

const segmentBase = { kind: string().required(), before: string().strict().max(4), when: feel };
const width = number().strict().integer().min(1).max(12).required();
const segment = byField<Segment['kind']>('kind', {
  text: shape({ ...segmentBase, text: string().strict().max(12).required() }),
  code: shape({ ...segmentBase, of: id }),
  number: shape({ ...segmentBase, of: way, times: decimal, width }),
  letters: shape({ ...segmentBase, of: id }),
  marks: shape({
    ...segmentBase,
    of: list(shape({ text: string().strict().max(4).required(), when: feel.required() }), 40).min(1),
  }),
  sequence: shape({ ...segmentBase, of: list(id, 20).min(1), width }),
  check: shape({ ...segmentBase }),
});

const choice = shape({
  id: string()
    .strict()
    .matches(/^[A-Za-z][A-Za-z0-9]{0,39}$/, 'model.badId')
    .required(),
  name: texts,
});

const section = shape({ id, name: texts, rows: list(id, 500) });
const calculation = shape({
  id,
  name: texts,
  type: string().strict().oneOf(['number', 'text', 'yesno']).required(),
  unit: string().strict(),
  decimals: number().strict().integer().min(0).max(6),
  formula: feel.required(),
});
const few = (of: unknown, most: number) =>
  array()
    .strict()
    .of(of as Schema)
    .max(most);
const point = list(feel.required(), 3).length(3);
const shapeBase = {
  id,
  kind: string().required(),
  layer: string().strict().required(),
  when: feel,
  repeat: feel,
  of: way.notRequired(),
  views: few(id, 20),
};
const axis = string().strict().oneOf(['x', 'y', 'z']).required();
const drawn = byField<Shape['kind']>('kind', {
  box: shape({ ...shapeBase, at: point, size: point }),
  cylinder: shape({
    ...shapeBase,
    along: axis,
    at: point,
    radius: feel.required(),
    radiusTo: feel,
    length: feel.required(),
  }),
  prism: shape({
    ...shapeBase,
    along: axis,
    outline: list(list(feel.required(), 2).length(2), 100).min(3),
    from: feel.required(),
    length: feel.required(),
  }),
  label: shape({ ...shapeBase, at: point, height: feel.required(), text: texts }),
  build: shape({ ...shapeBase, pick: string().strict().required(), at: point }),
});
const drawing = shape({
  views: list(
    shape({ id, name: texts, from: string().strict().oneOf(['front', 'back', 'above', 'end']).required() }),
    20,
  ).min(1),
  layers: list(
    shape({
      id: string()
        .strict()
        .matches(/^[A-Z][A-Z0-9]{0,29}$/, 'model.badId')
        .required(),
      name: texts,
      looks: string()
        .strict()
        .oneOf(['steel', 'dark', 'concrete', 'ground', 'vehicle', 'glass', 'accent', 'paper'])
        .required(),
    }),
    50,
  ).min(1),
  shapes: list(drawn, 1_000),
  dimensions: list(
    shape({
      id,
      view: id,
      along: axis,
      from: point,
      to: point,
      offset: feel.required(),
      of: way.notRequired(),
      when: feel,
    }),
    200,
  ),
});
const modelClass = shape({
  id,
  name: texts,
  sections: few(section, 200),
  features: few(feature, 1_000),
  parameters: few(parameter, 1_000),
  calculations: few(calculation, 1_000),
  rules: few(rule, 5_000),
});
const isTold = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  Object.values(value).every((each) => typeof each === 'string' && each.length <= 200);

/** The shape of a document; refuses what it does not know. */
export const documentSchema = shape({
  format: number().strict().oneOf([2], 'model.otherFormat').required(),
  id,
  name: texts,
  languages: list(
    string()
      .strict()
      .matches(/^[a-z]{2}$/, 'model.badLanguage')
      .required(),
    20,
  ).min(1),
  context: list(shape({ id, name: texts, values: list(choice, 500).min(1) }), 50),
  sections: list(section, 200),
  features: list(feature, 5_000),
  parameters: list(parameter, 5_000),
  calculations: list(calculation, 5_000),
  rules: list(rule, 20_000),
  numbering: list(segment, 60),
  services: array().strict().of(sku.required()).max(5_000),
  prices: list(
    shape({ id, name: texts, item: sku.required(), quantity: feel.required(), when: feel }),
    5_000,
  ),
  surcharges: list(
    shape({ id, name: texts, of: list(id, 100).min(1), rate: feel.required(), when: feel.required() }),
    200,
  ),
  insidePrices: few(
    shape({
      id,
      name: texts,
      of: list(string().strict().max(200).required(), 100).min(1),
      rate: feel.required(),
      when: feel,
    }),
    200,
  ),
  materials: list(
    shape({
      id,
      item: sku.required(),
      quantity: feel.required(),
      when: feel,
      scrap: decimal,
      cut: feel,
      counts,
    }),
    5_000,
  ),
  operations: list(
    shape({
      id,
      name: texts,
      centre: string().strict().max(40).required(),
      setUp: feel.required(),
      run: feel.required(),
      when: feel,
      text: texts,
    }),
    1_000,
  ),
  extraDays: feel,
  term: lazy((value: unknown) =>
    value === undefined ? mixed() : shape({ start: feel, months: feel.required() }),
  ),
  drawing: lazy((value: unknown) => (value === undefined ? mixed() : drawing)),
  tests: array()
    .strict()
    .max(2_000)
    .of(
      shape({
        id,
        date: day,
        context: record((value) => typeof value === 'string'),
        decisions: record(isPlain).defined(),
        expect: shape({
          complete: boolean().strict(),
          values: record((value) => isPlain(value) || isTextList(value)),
          standings: record((value) => value === 'free' || value === 'swap' || value === 'barred'),
          reasons: record(isTextList),
          messages: array().strict().of(string().strict().required()),
          partNumber: string().strict(),
        }).required(),
      }),
    ),
  figures: shape({ mass: id.notRequired(), installation: id.notRequired(), more: list(id, 20) }),
  classes: few(id, 50),
  properties: few(
    shape({
      id,
      name: texts,
      unit: string().strict().defined(),
      type: string().strict().oneOf(['number', 'text', 'yesno']),
    }),
    50,
  ),
  items: record(isTold),
  library: lazy((value: unknown) =>
    value === undefined
      ? mixed()
      : shape({ models: few(documentSchema, 100), classes: few(modelClass, 100) }),
  ),
}).required() as unknown as Schema<ModelDocument>;
