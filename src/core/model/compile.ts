/** From a document to a compiled model: names bound to slots, formulas compiled, references checked. */
import { ValidationError } from 'yup';
import { exact, Exact } from '../exact';
import { compileCell, compileFormula, readUnit, type FeelType, type Formula, type FormulaProblem, type Scope } from '../formula';
import type { Calculation, DecisionValue, Feature, ModelDocument, NumberParameter, Option, Rule, Severity, Texts, YesNoParameter } from './document';
import type { ModelProblem } from './problem';
import { documentSchema } from './schema';

/** One thing a formula may name. Slots are indices into `CompiledModel.entries`. */
export type Entry =
  | { kind: 'context'; id: string; values: readonly string[] }
  | { kind: 'feature'; id: string; feature: Feature; many: boolean; shownWhen?: Formula }
  | { kind: 'number'; id: string; parameter: NumberParameter; grid: Grid; shownWhen?: Formula }
  | { kind: 'yesno'; id: string; parameter: YesNoParameter; shownWhen?: Formula }
  | { kind: 'calculation'; id: string; calculation: Calculation; formula: Formula };

/** The values of a number parameter: least, least + step, ..., `count` of them. */
export interface Grid {
  least: Exact;
  step: Exact;
  count: number;
}

/** A rule as conditions: broken when `when` holds (or is absent) and `must` does not. */
export interface CompiledRule {
  rule: Rule;
  severity: Severity;
  when?: Formula;
  must: Formula[];
  /** For tables: a condition per row. */
  rows?: Formula[][];
  /** For `exclude`: broken when all hold. */
  all?: Formula[];
  /** For limits. */
  least?: Formula;
  most?: Formula;
}

/** A default or an advice: what it proposes, and under which condition. In order of priority. */
export interface Proposal {
  rule?: Rule;
  source: 'advised' | 'usual';
  when?: Formula;
  /** "feature", "feature.option" or "parameter". */
  on: string;
  value: DecisionValue;
}

export interface CompiledModel {
  document: ModelDocument;
  entries: readonly Entry[];
  scope: Scope;
  /** Rules that restrict, warn or speak; `set` firm among them. */
  rules: readonly CompiledRule[];
  proposals: readonly Proposal[];
  /** Compiled formulas of prices, surcharges, materials, operations and numbering, by their path in the document. */
  formulas: ReadonlyMap<string, Formula>;
}

export type ModelResult = { ok: true; model: CompiledModel } | { ok: false; problems: ModelProblem[] };

const yesno: FeelType = { is: 'yesno' };
const anyNumber: FeelType = { is: 'number', unit: 'any' };

/** Reads and compiles a document from outside. Every problem found is listed with its path; nothing throws. */
export function compileModel(given: unknown): ModelResult {
  try {
    documentSchema.validateSync(given, { abortEarly: false });
  } catch (failure) {
    if (!(failure instanceof ValidationError)) throw failure;
    const errors = failure.inner.length > 0 ? failure.inner : [failure];
    return { ok: false, problems: errors.map((each) => ({ path: each.path ?? '', code: 'model.shape', params: { what: each.message } })) };
  }
  return new Compiler(given as ModelDocument).run();
}

class Compiler {
  private readonly problems: ModelProblem[] = [];
  private readonly entries: Entry[] = [];
  private readonly types = new Map<string, FeelType>();
  private readonly scope = new Map<string, { slot: number; type: FeelType }>();
  private readonly formulas = new Map<string, Formula>();

  constructor(private readonly document: ModelDocument) {}

  run(): ModelResult {
    const { document } = this;
    this.texts(document, '');
    this.declare();
    this.calculations();
    this.sections();
    const shown = this.shown();
    const rules = document.rules.flatMap((rule) => this.rule(rule));
    const proposals = this.proposals();
    this.parts();
    if (this.problems.length > 0) return { ok: false, problems: this.problems };
    const entries = this.entries.map((entry) => {
      const shownWhen = shown.get(entry.id);
      return shownWhen ? ({ ...entry, shownWhen } as Entry) : entry;
    });
    return { ok: true, model: { document, entries, scope: this.scope, rules, proposals, formulas: this.formulas } };
  }

  private report(path: string, code: ModelProblem['code'], params: ModelProblem['params'] = {}, at?: number): void {
    this.problems.push({ path, code, params, at });
  }

  private add(entry: Entry, type: FeelType): void {
    if (this.scope.has(entry.id)) this.report(entry.id, 'model.duplicateId', { id: entry.id });
    this.scope.set(entry.id, { slot: this.entries.length, type });
    this.types.set(entry.id, type);
    this.entries.push(entry);
  }

  private declare(): void {
    const { document } = this;
    for (const input of document.context) {
      const values = input.values.map((value) => value.id);
      this.add({ kind: 'context', id: input.id, values }, { is: 'text', of: new Set(values) });
    }
    for (const feature of document.features) this.feature(feature);
    for (const parameter of document.parameters) {
      if (parameter.type === 'yesno') {
        this.add({ kind: 'yesno', id: parameter.id, parameter }, yesno);
      } else {
        this.add({ kind: 'number', id: parameter.id, parameter, grid: this.grid(parameter) }, { is: 'number', unit: readUnit(parameter.unit) });
      }
    }
    const ruleIds = new Set<string>();
    for (const rule of document.rules) {
      for (const [input, values] of Object.entries(rule.where ?? {})) {
        const known = document.context.find((each) => each.id === input)?.values.map((each) => each.id);
        const wrong = known ? values.find((value) => !known.includes(value)) : input;
        if (wrong !== undefined) this.report(`rules.${rule.id}.where`, 'model.unknownTarget', { id: wrong });
      }
      if (ruleIds.has(rule.id)) this.report(`rules.${rule.id}`, 'model.duplicateId', { id: rule.id });
      ruleIds.add(rule.id);
    }
  }

  private feature(feature: Feature): void {
    const ids = feature.options.map((option: Option) => option.id);
    const path = `features.${feature.id}`;
    const twice = ids.find((id, index) => ids.indexOf(id) !== index);
    if (twice) this.report(path, 'model.duplicateId', { id: twice });
    if (feature.least > feature.most || feature.least > ids.length) this.report(path, 'model.cardinality', { least: feature.least, options: ids.length });
    for (const usual of feature.usual ?? []) if (!ids.includes(usual)) this.report(path, 'model.badTargetValue', { value: usual });
    const options: FeelType = { is: 'text', of: new Set(ids) };
    const many = feature.most > 1;
    this.add({ kind: 'feature', id: feature.id, feature, many }, many ? { is: 'list', item: options } : options);
  }

  private grid(parameter: NumberParameter): Grid {
    const [least, most, step] = [exact(parameter.least), exact(parameter.most), exact(parameter.step)];
    if (step.lte(0) || most.lt(least)) {
      this.report(`parameters.${parameter.id}`, 'model.badRange', { least: parameter.least, most: parameter.most, step: parameter.step });
      return { least, step: exact(1), count: 1 };
    }
    return { least, step, count: most.minus(least).div(step).floor().toNumber() + 1 };
  }

  /** Calculations may name each other in any order; they are bound in the order of their dependencies. */
  private calculations(): void {
    const byId = new Map(this.document.calculations.map((each) => [each.id, each]));
    const state = new Map<string, 'begun' | 'done'>();
    const visit = (each: Calculation): void => {
      if (state.get(each.id) === 'done') return;
      if (state.get(each.id) === 'begun') {
        this.report(`calculations.${each.id}`, 'model.cycle', { id: each.id });
        return;
      }
      state.set(each.id, 'begun');
      for (const word of new Set(each.formula.match(/[A-Za-z][A-Za-z0-9]*/g) ?? [])) {
        const other = byId.get(word);
        if (other) visit(other);
      }
      state.set(each.id, 'done');
      const wanted: FeelType =
        each.type === 'number' ? { is: 'number', unit: readUnit(each.unit ?? '') } : each.type === 'text' ? { is: 'text' } : yesno;
      const formula = this.formula(`calculations.${each.id}`, each.formula, wanted);
      if (formula) this.add({ kind: 'calculation', id: each.id, calculation: each, formula }, wanted);
    };
    for (const each of this.document.calculations) visit(each);
  }

  private sections(): void {
    const placed = new Set<string>();
    for (const section of this.document.sections) {
      for (const row of section.rows) {
        const kind = this.entry(row)?.kind;
        if (kind === undefined || kind === 'context' || kind === 'calculation') this.report(`sections.${section.id}`, 'model.unknownRow', { id: row });
        if (placed.has(row)) this.report(`sections.${section.id}`, 'model.rowTwice', { id: row });
        placed.add(row);
      }
    }
  }

  private entry(id: string): Entry | undefined {
    const slot = this.scope.get(id)?.slot;
    return slot === undefined ? undefined : this.entries[slot];
  }

  private formula(path: string, source: string, wanted: FeelType): Formula | undefined {
    const compiled = compileFormula(source, this.scope, wanted);
    if (compiled.ok) return compiled.formula;
    this.formulaProblems(path, compiled.problems);
    return undefined;
  }

  private formulaProblems(path: string, problems: FormulaProblem[]): void {
    for (const { code, at, params } of problems) this.report(path, code, params, at);
  }

  private condition(path: string, source: string | undefined): Formula | undefined {
    return source === undefined ? undefined : this.formula(path, source, yesno);
  }

  private shown(): Map<string, Formula> {
    const shown = new Map<string, Formula>();
    for (const rule of this.document.rules) {
      if (rule.kind !== 'show') continue;
      const target = this.entry(rule.of);
      if (!target || target.kind === 'context' || target.kind === 'calculation') this.report(`rules.${rule.id}`, 'model.unknownTarget', { id: rule.of });
      const when = this.condition(`rules.${rule.id}.when`, rule.when);
      if (when) shown.set(rule.of, when);
    }
    return shown;
  }

  private rule(rule: Rule): CompiledRule[] {
    const path = `rules.${rule.id}`;
    const severity = 'severity' in rule && rule.severity ? rule.severity : 'error';
    const when = 'when' in rule ? this.condition(`${path}.when`, rule.when) : undefined;
    const base = { rule, severity, ...(when ? { when } : {}) };
    switch (rule.kind) {
      case 'require': {
        const must = this.condition(`${path}.must`, rule.must);
        return must ? [{ ...base, must: [must] }] : [];
      }
      case 'exclude': {
        const all = rule.all.map((each, index) => this.condition(`${path}.all.${index}`, each));
        return [{ ...base, must: [], all: all.filter((each) => each !== undefined) }];
      }
      case 'limit': {
        const type = this.types.get(rule.of);
        if (type?.is !== 'number') {
          this.report(path, 'model.unknownTarget', { id: rule.of });
          return [];
        }
        const bound = (name: 'least' | 'most') => (rule[name] === undefined ? undefined : this.formula(`${path}.${name}`, rule[name], type));
        const must = (['least', 'most'] as const).flatMap((name) => {
          if (!bound(name)) return [];
          const text = `${rule.of} ${name === 'least' ? '>=' : '<='} (${rule[name] ?? ''})`;
          return this.condition(`${path}.${name}`, text) ?? [];
        });
        const [least, most] = [bound('least'), bound('most')];
        return [{ ...base, must, ...(least ? { least } : {}), ...(most ? { most } : {}) }];
      }
      case 'table': {
        const rows = rule.rows.map((row, index) => {
          if (row.length !== rule.of.length) this.report(`${path}.rows.${index}`, 'model.rowWidth', { cells: row.length, wanted: rule.of.length });
          return row.flatMap((cell, column) => {
            const compiled = compileCell(rule.of[column] ?? '', cell, this.scope);
            if (compiled.ok) return [compiled.formula];
            this.formulaProblems(`${path}.rows.${index}.${column}`, compiled.problems);
            return [];
          });
        });
        return [{ ...base, must: [], rows }];
      }
      case 'set': {
        if (!this.target(path, rule.of, rule.value) || !rule.firm) return [];
        const must = this.condition(`${path}.value`, equation(rule.of, rule.value));
        return must ? [{ ...base, must: [must] }] : [];
      }
      case 'say':
        return [{ ...base, severity: rule.severity, must: [] }];
      case 'usual':
      case 'show':
        return [];
    }
  }

  /** Whether "feature", "feature.option" or "parameter" can have the value. */
  private target(path: string, on: string, value: DecisionValue): boolean {
    const [id = '', option] = on.split('.');
    const entry = this.entry(id);
    const fine =
      entry?.kind === 'feature'
        ? entry.many
          ? option !== undefined && entry.feature.options.some((each) => each.id === option) && typeof value === 'boolean'
          : option === undefined && (value === null || entry.feature.options.some((each) => each.id === value))
        : entry?.kind === 'number'
          ? typeof value === 'string' && codeOf(entry.grid, value) !== null
          : entry?.kind === 'yesno' && typeof value === 'boolean';
    if (!entry || entry.kind === 'context' || entry.kind === 'calculation') this.report(path, 'model.unknownTarget', { id: on });
    else if (!fine) this.report(path, 'model.badTargetValue', { value: String(value) });
    return fine;
  }

  /** Advice before defaults; rules before what stands at the feature itself; else the order of the document. */
  private proposals(): Proposal[] {
    const advised: Proposal[] = [];
    const usual: Proposal[] = [];
    for (const rule of this.document.rules) {
      if (rule.kind !== 'usual' && !(rule.kind === 'set' && !rule.firm)) continue;
      if (rule.kind === 'usual' && !this.target(`rules.${rule.id}`, rule.of, rule.value)) continue;
      const when = this.condition(`rules.${rule.id}.when`, rule.when);
      (rule.kind === 'set' ? advised : usual).push({
        rule, source: rule.kind === 'set' ? 'advised' : 'usual', on: rule.of, value: rule.value, ...(when ? { when } : {}),
      });
    }
    for (const { id, usual: options = [], most, options: all } of this.document.features) {
      if (most > 1) for (const option of all) usual.push({ source: 'usual', on: `${id}.${option.id}`, value: options.includes(option.id) });
      else for (const option of options) usual.push({ source: 'usual', on: id, value: option });
    }
    for (const parameter of this.document.parameters) {
      if (parameter.usual !== undefined) usual.push({ source: 'usual', on: parameter.id, value: parameter.usual });
    }
    return [...advised, ...usual];
  }

  private parts(): void {
    const { document } = this;
    const keep = (path: string, source: string | undefined, wanted: FeelType): void => {
      if (source === undefined) return;
      const formula = this.formula(path, source, wanted);
      if (formula) this.formulas.set(path, formula);
    };
    for (const part of document.prices) {
      keep(`prices.${part.id}.quantity`, part.quantity, anyNumber);
      keep(`prices.${part.id}.when`, part.when, yesno);
    }
    for (const part of document.surcharges) {
      keep(`surcharges.${part.id}.rate`, part.rate, anyNumber);
      keep(`surcharges.${part.id}.when`, part.when, yesno);
      for (const of of part.of) if (!document.prices.some((price) => price.id === of)) this.report(`surcharges.${part.id}`, 'model.unknownPart', { id: of });
    }
    for (const feature of document.features) {
      for (const option of feature.options) keep(`features.${feature.id}.${option.id}.quantity`, option.quantity, anyNumber);
    }
    for (const parameter of document.parameters) {
      if (parameter.type === 'yesno') keep(`parameters.${parameter.id}.quantity`, parameter.quantity, anyNumber);
    }
    for (const row of document.materials) {
      keep(`materials.${row.id}.quantity`, row.quantity, anyNumber);
      keep(`materials.${row.id}.when`, row.when, yesno);
      keep(`materials.${row.id}.cut`, row.cut, anyNumber);
    }
    for (const row of document.operations) {
      keep(`operations.${row.id}.setUp`, row.setUp, anyNumber);
      keep(`operations.${row.id}.run`, row.run, anyNumber);
      keep(`operations.${row.id}.when`, row.when, yesno);
    }
    keep('extraDays', document.extraDays, anyNumber);
    document.numbering.forEach((segment, index) => {
      keep(`numbering.${index}.when`, segment.when, yesno);
      const named = segment.kind === 'text' || segment.kind === 'check' ? [] : segment.kind === 'sequence' ? segment.of : [segment.of];
      for (const id of named) if (!this.entry(id)) this.report(`numbering.${index}`, 'model.unknownTarget', { id });
    });
    for (const id of [document.figures.mass, document.figures.installation, ...document.figures.more]) {
      if (id !== undefined && this.entry(id)?.kind !== 'calculation') this.report('figures', 'model.unknownTarget', { id });
    }
  }

  /** Every text is there in every language of the document. */
  private texts(value: unknown, path: string): void {
    if (Array.isArray(value)) {
      value.forEach((each, index) => this.texts(each, join(path, (each as { id?: string } | null)?.id ?? String(index))));
    } else if (value !== null && typeof value === 'object') {
      for (const [key, each] of Object.entries(value)) {
        if (textFields.has(key) && typeof each === 'object' && each !== null) {
          for (const language of this.document.languages) {
            if (!(each as Texts)[language]) this.report(join(path, key), 'model.missingText', { language });
          }
        } else this.texts(each, join(path, key));
      }
    }
  }
}

const textFields = new Set(['name', 'short', 'help', 'reason', 'text']);
const join = (path: string, part: string) => (path ? `${path}.${part}` : part);

/** "feature.option = true" as FEEL over the feature's list; everything else is plain equality. */
function equation(on: string, value: DecisionValue): string {
  const [id = '', option] = on.split('.');
  if (option !== undefined) return value === true ? `"${option}" in ${id}` : `not("${option}" in ${id})`;
  if (value === null || typeof value === 'boolean') return `${id} = ${String(value)}`;
  return /^-?\d/.test(value) ? `${id} = ${value}` : `${id} = "${value}"`;
}

/** Position of a decimal on a grid; null where it is out of range or between two steps. */
export function codeOf(grid: Grid, written: string): number | null {
  const value = new Exact(written);
  const code = value.minus(grid.least).div(grid.step);
  return code.isInteger() && code.gte(0) && code.lt(grid.count) ? code.toNumber() : null;
}

export const valueAt = (grid: Grid, code: number): Exact => grid.least.plus(grid.step.times(code)) as Exact;
