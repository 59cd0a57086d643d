/** Rules, advice and defaults of every place, compiled. */
import { compileCell, formulaOf, type Expr, type FeelType, type Formula } from '../formula';
import type { DecisionValue, Proposed, Rule } from './document';
import type { CompiledRule, Entry, Proposal } from './entries';
import { all, compared, either, holds, literal, literalOf, negated } from './expressions';
import { codeOf } from './grid';
import { lettersOf } from './letters';
import type { Names } from './names';
import { anyNumber, yesno, type Home } from './places';

/** A rule under the way to its place. */
export const placed = <T extends Rule>(home: Home, rule: T): T =>
  home.prefix === '' ? rule : { ...rule, id: home.prefix + rule.id };

/** Compiles the rules of a document. */
export class Rules {
  constructor(
    private readonly names: Names,
    /** Whether a rule shows the row of an entry. */
    private readonly isShown: (id: string) => boolean,
  ) {}

  rule(home: Home, given: Rule): CompiledRule[] {
    const rule = placed(home, given);
    const path = `rules.${rule.id}`;
    const severity = 'severity' in rule && rule.severity ? rule.severity : 'error';
    const own =
      'when' in rule && rule.kind !== 'show' && rule.kind !== 'usual'
        ? this.names.condition(home, `${path}.when`, rule.when)
        : undefined;
    const guarded = all(home.when, own?.expr);
    const when = home.when && guarded ? formulaOf(guarded, yesno, own?.source) : own;
    const base = { rule, severity, ...(when ? { when } : {}) };
    switch (rule.kind) {
      case 'require': {
        const must = this.names.condition(home, `${path}.must`, rule.must);
        return must ? [{ ...base, must: [must] }] : [];
      }
      case 'exclude': {
        const every = rule.all.map((each, index) =>
          this.names.condition(home, `${path}.all.${String(index)}`, each),
        );
        return [{ ...base, must: [], all: every.filter((each) => each !== undefined) }];
      }
      case 'limit': {
        const type = this.names.typeAt(home, rule.of);
        if (type?.is !== 'number' && type?.is !== 'date') {
          this.names.report(path, 'model.unknownTarget', { id: rule.of });
          return [];
        }
        const bound = (name: 'least' | 'most') =>
          rule[name] === undefined
            ? undefined
            : this.names.formula(home, `${path}.${name}`, rule[name], type);
        const [least, most] = [bound('least'), bound('most')];
        const of = this.names.nameOf(home, rule.of);
        const target = this.names.entry(home, rule.of);
        // A row that is not there has no number to keep within anything; a calculation must come to one.
        const unlessNothing = (test: Expr): Expr =>
          target?.kind === 'calculation' || !this.mayBeNothing(home, rule.of)
            ? test
            : either(compared(of, '=', literal(null)), test);
        const must = [
          ...(least ? [formulaOf(unlessNothing(compared(of, '>=', least.expr)), yesno)] : []),
          ...(most ? [formulaOf(unlessNothing(compared(of, '<=', most.expr)), yesno)] : []),
        ];
        return [{ ...base, must, ...(least ? { least } : {}), ...(most ? { most } : {}) }];
      }
      case 'table': {
        const rows = rule.rows.map((row, index) => {
          if (row.length !== rule.of.length)
            this.names.report(`${path}.rows.${String(index)}`, 'model.rowWidth', {
              cells: row.length,
              wanted: rule.of.length,
            });
          return row.flatMap((cell, column) => {
            const compiled = compileCell(rule.of[column] ?? '', cell, home.scope);
            if (compiled.ok) return [compiled.formula];
            this.names.formulaProblems(`${path}.rows.${String(index)}.${String(column)}`, compiled.problems);
            return [];
          });
        });
        const of = home.prefix === '' ? rule.of : rule.of.map((each) => home.scope.get(each)?.id ?? each);
        return [{ ...base, rule: { ...rule, of }, must: [], rows }];
      }
      case 'set': {
        const value = this.target(home, path, rule.of, rule.value, rule.firm);
        if (value === undefined || !rule.firm) return [];
        return [{ ...base, must: [formulaOf(this.equation(home, rule.of, value), yesno)] }];
      }
      case 'say':
        return [{ ...base, severity: rule.severity, must: [] }];
      case 'usual':
      case 'show':
        return [];
    }
  }

  /** Whether a number or date may have no value, because it may not be there or is optional. */
  private mayBeNothing(home: Home, id: string): boolean {
    const draft = this.names.draft(home, id);
    if (!draft) return false;
    const { entry, under } = draft;
    return (
      under !== undefined ||
      draft.home.when !== undefined ||
      this.isShown(entry.id) ||
      ('grid' in entry && entry.grid.optional)
    );
  }

  /** The value "feature", "feature.option" or "parameter" is proposed; undefined where it cannot have it. */
  private target(
    home: Home,
    path: string,
    on: string,
    value: Proposed,
    firm: boolean,
  ): DecisionValue | Formula | undefined {
    const [id = '', option] = on.split('.');
    const entry = this.names.entry(home, id);
    if (!entry || entry.kind === 'context' || entry.kind === 'calculation') {
      this.names.report(path, 'model.unknownTarget', { id: on });
      return undefined;
    }
    if (value !== null && typeof value === 'object') {
      const type = this.names.typeAt(home, id) as FeelType;
      const one = type.is !== 'list' && option === undefined && entry.kind !== 'text';
      if (!one) this.names.report(path, 'model.badTargetValue', { value: value.formula });
      return one ? this.names.formula(home, `${path}.value`, value.formula, type) : undefined;
    }
    const fine = isValue(entry, option, value) && !(firm && entry.kind === 'text');
    if (!fine) this.names.report(path, 'model.badTargetValue', { value: String(value) });
    return fine ? value : undefined;
  }

  private equation(home: Home, on: string, value: DecisionValue | Formula): Expr {
    const [id = '', option] = on.split('.');
    const of = this.names.nameOf(home, id);
    if (option !== undefined) return value === true ? holds(of, option) : negated(holds(of, option));
    if (value !== null && typeof value === 'object') return compared(of, '=', value.expr);
    const kind = this.names.entry(home, id)?.kind;
    return compared(of, '=', literalOf(kind === 'number' || kind === 'date' ? kind : 'other', value));
  }

  /**
   * Advice before defaults; rules before what stands at the feature itself; else the order of the document,
   * the outer place first.
   */
  proposals(homes: readonly Home[]): Proposal[] {
    const advised: Proposal[] = [];
    const usual: Proposal[] = [];
    for (const home of homes) {
      const full = (on: string): string => {
        const [id = '', option] = on.split('.');
        const own = home.scope.get(id)?.id ?? home.prefix + id;
        return option === undefined ? own : `${own}.${option}`;
      };
      for (const rule of home.document.rules) {
        if (rule.kind !== 'usual' && !(rule.kind === 'set' && !rule.firm)) continue;
        const path = `rules.${home.prefix}${rule.id}`;
        const value = this.target(home, path, rule.of, rule.value, false);
        const own = this.names.condition(home, `${path}.when`, rule.when);
        const expr = all(home.when, own?.expr);
        if (value === undefined) continue;
        (rule.kind === 'set' ? advised : usual).push({
          rule: placed(home, rule),
          source: rule.kind === 'set' ? 'advised' : 'usual',
          on: full(rule.of),
          value,
          ...(expr ? { when: formulaOf(expr, yesno) } : {}),
        });
      }
    }
    for (const home of homes) usual.push(...this.defaults(home));
    return [...advised, ...usual];
  }

  /** What stands at features, parameters and quantities themselves. */
  private defaults(home: Home): Proposal[] {
    const { document, prefix } = home;
    const found: Proposal[] = [];
    const add = (id: string, value: DecisionValue | Formula): void =>
      void found.push({ source: 'usual', on: prefix + id, value });
    const own = (id: string): boolean => (home.scope.get(id)?.id ?? prefix + id) === prefix + id;
    for (const { id, usual: options = [], most, options: every } of document.features) {
      if (!own(id)) continue;
      if (most > 1) for (const option of every) add(`${id}.${option.id}`, options.includes(option.id));
      else for (const option of options) add(id, option);
      for (const { id: option, quantity } of every) {
        if (typeof quantity !== 'object' || quantity.fixed) continue;
        const formula = this.names.formula(
          home,
          `features.${prefix}${id}.${option}.quantity.usual`,
          quantity.usual,
          anyNumber,
        );
        if (formula)
          add(
            `${id}/${option}/quantity`,
            formula.expr.kind === 'literal' ? String(formula.expr.value) : formula,
          );
      }
    }
    for (const parameter of document.parameters) {
      const { id, type, usual } = parameter;
      if (!own(id)) continue;
      if (type === 'yesno' && typeof parameter.quantity === 'object' && !parameter.quantity.fixed) {
        const formula = this.names.formula(
          home,
          `parameters.${prefix}${id}.quantity.usual`,
          parameter.quantity.usual,
          anyNumber,
        );
        if (formula) add(`${id}/quantity`, formula);
      }
      if (usual !== undefined) {
        const value = this.target(home, `parameters.${prefix}${id}`, id, usual, false);
        if (value !== undefined) add(id, value);
      }
      if (type !== 'yesno' && parameter.optional) add(id, null);
    }
    return found;
  }
}

function isValue(
  entry: Exclude<Entry, { kind: 'context' | 'calculation' }>,
  option: string | undefined,
  value: DecisionValue,
): boolean {
  switch (entry.kind) {
    case 'feature':
      if (entry.many)
        return (
          option !== undefined &&
          entry.feature.options.some((each) => each.id === option) &&
          typeof value === 'boolean'
        );
      return (
        option === undefined && (value === null || entry.feature.options.some((each) => each.id === value))
      );
    case 'number':
    case 'date':
      return option === undefined && typeof value !== 'boolean' && codeOf(entry.grid, value) !== null;
    case 'yesno':
      return option === undefined && typeof value === 'boolean';
    case 'text':
      return (
        option === undefined &&
        (value === null
          ? entry.parameter.optional === true
          : typeof value === 'string' && value !== '' && lettersOf(value) <= entry.parameter.most)
      );
    case 'length':
      return false;
  }
}
