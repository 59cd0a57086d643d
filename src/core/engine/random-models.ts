/** Small random models for the properties of the engine, and every complete valid build of one by brute force. */
import fc from 'fast-check';
import type { Feature, ModelDocument, Parameter, PlainValue, Rule } from '../model';
import { compileModel, Reading, type CompiledModel } from '../model';

const t = (text: string) => ({ en: text });

const featureArb = (id: string): fc.Arbitrary<Feature> =>
  fc.record({ count: fc.integer({ min: 1, max: 3 }), many: fc.boolean(), least: fc.integer({ min: 0, max: 1 }), usual: fc.option(fc.nat(2)) }).map(({ count, many, least, usual }) => ({
    id,
    name: t(id),
    least,
    most: many ? Math.max(2, count) : 1,
    options: Array.from({ length: count }, (_, index) => ({ id: `${id}${String(index)}`, name: t(`${id}${String(index)}`) })),
    ...(usual !== null && usual < count ? { usual: [`${id}${String(usual)}`] } : {}),
  }));

const numberArb: fc.Arbitrary<Parameter> = fc.record({ steps: fc.integer({ min: 1, max: 4 }), usual: fc.option(fc.nat(4)) }).map(({ steps, usual }) => ({
  id: 'n', type: 'number', name: t('n'), unit: 'm', least: '1', most: String(1 + steps * 0.5), step: '0.5',
  ...(usual !== null && usual <= steps ? { usual: String(1 + usual * 0.5) } : {}),
}));

/** Conditions over the features and parameters that exist. */
function conditionArb(features: Feature[]): fc.Arbitrary<string> {
  const atoms = features.flatMap((feature) => feature.options.map((option) => (feature.most > 1 ? `("${option.id}" in ${feature.id})` : `${feature.id} = "${option.id}"`)));
  const atom = fc.oneof(fc.constantFrom(...atoms), fc.constantFrom('n > 1.5', 'n = 1', 'double >= 4', 'y', 'y = false', `count(${features.find((f) => f.most > 1)?.id ?? '["x"]'}) > 1`));
  return fc.oneof(atom, fc.tuple(atom, fc.constantFrom('and', 'or'), atom).map((parts) => parts.join(' ')), atom.map((each) => `not(${each})`));
}

const ruleArb = (features: Feature[], index: number): fc.Arbitrary<Rule> => {
  const condition = conditionArb(features);
  const base = { id: `r${String(index)}`, reason: t(`rule ${String(index)}`) };
  const single = features.filter((feature) => feature.most === 1);
  return fc.oneof(
    fc.tuple(condition, condition).map(([when, must]): Rule => ({ ...base, kind: 'require', when, must })),
    fc.tuple(condition, condition).map((all): Rule => ({ ...base, kind: 'exclude', all: [...all] })),
    condition.map((when): Rule => ({ ...base, kind: 'limit', of: 'n', when, most: '2' })),
    fc.tuple(condition, fc.constantFrom(...features)).map(([when, feature]): Rule => ({ ...base, kind: 'show', of: feature.id, when: when.includes(feature.id) ? 'y' : when })),
    ...(single.length > 1
      ? [fc.boolean().map((allowed): Rule => ({
          ...base, kind: 'table', of: [single[0]?.id as string, single[1]?.id as string], listed: allowed ? 'allowed' : 'forbidden',
          rows: [['-', `"${single[1]?.options[0]?.id as string}"`], [`"${single[0]?.options[0]?.id as string}"`, '-']],
        }))]
      : []),
    condition.map((when): Rule => ({ ...base, kind: 'set', of: 'y', when, value: true, firm: true })),
    condition.map((when): Rule => ({ ...base, kind: 'set', of: 'y', when, value: false, firm: false })),
  );
};

export const modelArb: fc.Arbitrary<CompiledModel> = fc
  .tuple(featureArb('a'), featureArb('b'), featureArb('c'), numberArb)
  .chain(([a, b, c, n]) => fc.tuple(fc.constant<Feature[]>([a, b, c]), fc.constant(n), fc.array(fc.nat(), { minLength: 1, maxLength: 5 })))
  .chain(([features, n, seeds]) => fc.tuple(fc.constant(features), fc.constant(n), fc.tuple(...seeds.map((_, index) => ruleArb(features, index)))))
  .map(([features, n, rules]) => {
    // One show rule per feature, and none that leads in a circle: a feature's existence may only depend on others.
    const shown = new Set<string>();
    const kept = rules.filter((rule) => rule.kind !== 'show' || (shown.size === 0 && shown.add(rule.of) && true));
    const document: ModelDocument = {
      format: 1, id: 'random', name: t('random'), languages: ['en'], context: [],
      sections: [{ id: 's', name: t('s'), rows: ['a', 'b', 'c', 'n', 'y'] }],
      features, parameters: [n, { id: 'y', type: 'yesno', name: t('y'), usual: false }],
      calculations: [{ id: 'double', name: t('double'), type: 'number', unit: 'm', formula: 'n * 2' }],
      rules: kept, numbering: [], prices: [], surcharges: [], materials: [], operations: [], figures: { more: [] },
    };
    const compiled = compileModel(document);
    if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
    return compiled.model;
  });

export type Build = Record<string, PlainValue>;

/** Which parts of a model count: "rule:ID" (show rules too) and "shape:ROW" for what a feature itself asks. */
export type Enforced = (part: string) => boolean;

/** Every complete valid build, straight from the meaning of the document; optionally with only some of its parts in force. */
export function allBuilds(model: CompiledModel, enforced: Enforced = () => true): Build[] {
  const { document } = model;
  const shownBy = new Map(document.rules.flatMap((rule) => (rule.kind === 'show' ? [[rule.of, rule.when] as const] : [])));
  const ids = [...document.features.map((each) => each.id), ...document.parameters.map((each) => each.id)];
  const builds: Build[] = [];
  const extend = (index: number, build: Build): void => {
    const id = ids[index];
    if (id === undefined) {
      if (valid(model, build, enforced)) builds.push({ ...build });
      return;
    }
    for (const value of candidates(model, id, shownBy.has(id), enforced(`shape:${id}`))) extend(index + 1, { ...build, [id]: value });
  };
  extend(0, {});
  return builds;
}

/** "hidden" stands beside null so that nothing chosen and not existing are told apart. */
function candidates({ document }: CompiledModel, id: string, mayHide: boolean, counted: boolean): PlainValue[] {
  const hidden: PlainValue[] = mayHide ? ['hidden'] : [];
  const feature = document.features.find((each) => each.id === id);
  if (feature && feature.most > 1) {
    const subsets = feature.options.reduce<string[][]>((all, option) => [...all, ...all.map((each) => [...each, option.id])], [[]]);
    return [...hidden, ...subsets.filter((each) => !counted || (each.length >= feature.least && each.length <= feature.most))];
  }
  if (feature) return [...hidden, ...(feature.least === 0 ? [null] : []), ...feature.options.map((option) => option.id)];
  const parameter = document.parameters.find((each) => each.id === id);
  if (parameter?.type !== 'number') return [...hidden, true, false];
  const values: string[] = [];
  for (let value = Number(parameter.least); value <= Number(parameter.most); value += Number(parameter.step)) values.push(String(value));
  return [...hidden, ...values];
}

function valid(model: CompiledModel, build: Build, enforced: Enforced): boolean {
  const values = Object.fromEntries(
    Object.entries(build).map(([id, value]) => [id, value === 'hidden' ? ((model.document.features.find((each) => each.id === id)?.most ?? 1) > 1 ? [] : null) : value]),
  );
  const reading = new Reading(model, values);
  for (const entry of model.entries) {
    if (entry.kind === 'context' || entry.kind === 'calculation' || !entry.shownWhen) continue;
    const show = model.document.rules.find((rule) => rule.kind === 'show' && rule.of === entry.id);
    if (!enforced(`rule:${show?.id ?? ''}`)) continue;
    if ((build[entry.id] === 'hidden') !== (reading.run(entry.shownWhen) !== true)) return false;
  }
  return model.rules.every(({ rule, severity, when, must, all, rows }) => {
    if (severity !== 'error' || rule.kind === 'say' || !enforced(`rule:${rule.id}`)) return true;
    if (when && reading.run(when) !== true) return true;
    if (all) return !all.every((each) => reading.run(each) === true);
    if (rows && rule.kind === 'table') return rows.some((row) => row.every((cell) => reading.run(cell) === true)) === (rule.listed === 'allowed');
    return must.every((each) => reading.run(each) === true);
  });
}
