/**
 * A compiled model in one context, as finite-domain variables and constraints.
 *
 * A variable stands for a feature (one choice), one option of a multiple choice, or a parameter. Its values are small integers, "codes":
 * the index of an option, 0/1 for not taken/taken and no/yes, the step on a number's grid, and two codes below zero for "nothing".
 */
import type { Environment, Evaluator, Formula, Value } from '../formula';
import { codeOf, valueAt, type CompiledModel, type CompiledRule, type Entry, type PlainValue } from '../model';
import { anything, look, lookOf, lookOfAll, type Look, type Outlook, type OutlookEnv } from './outlook';

/** Of a feature that may stay without a choice: nothing is chosen. */
export const NONE = -1;
/** Of a feature or parameter that does not exist now. */
export const HIDDEN = -2;

/** Codes left for a variable; never empty in a consistent state; never changed in place. */
export type Domain = readonly number[];

export interface Variable {
  index: number;
  /** "feature", "feature.option" or "parameter". */
  key: string;
  slot: number;
  kind: 'choice' | 'taken' | 'number' | 'yesno';
  domain: Domain;
  /** Constraints that read it. */
  watchers: number[];
}

export type Origin =
  | { kind: 'rule'; rule: CompiledRule['rule'] }
  /** What the feature itself asks: how many options, and that it has a value when shown. */
  | { kind: 'shape'; entry: Entry };

export type Outcome = 'kept' | 'broken' | 'open';

export interface Constraint {
  index: number;
  origin: Origin;
  /** Variables read, directly or through calculations. */
  scope: readonly number[];
  /** Exact, once every variable of the scope is settled. */
  holds(env: Environment, codes: CodeOf): boolean;
  /** Never wrong, may be "open". */
  outlook(env: OutlookEnv, domains: readonly Domain[]): Outcome;
}

type CodeOf = (variable: number) => number;

/** What is fixed from outside a build. */
export interface Context {
  /** ISO date; decides which rules are in force. */
  date: string;
  values: Readonly<Record<string, string>>;
}

interface Condition {
  look: Look;
  run: Evaluator;
  slots: readonly number[];
}

export class Network {
  readonly variables: readonly Variable[];
  readonly constraints: readonly Constraint[];
  /** Variable by key. */
  readonly byKey: ReadonlyMap<string, Variable>;
  /** Variables of an entry, by slot. */
  readonly ofSlot: ReadonlyMap<number, readonly Variable[]>;
  private readonly calculationLooks = new Map<number, Look>();
  private readonly scopes = new Map<number, readonly number[]>();
  private readonly valueTables: Value[][] = [];

  constructor(
    readonly model: CompiledModel,
    readonly context: Context,
  ) {
    const variables: Variable[] = [];
    const ofSlot = new Map<number, Variable[]>();
    model.entries.forEach((entry, slot) => {
      const made = declare(entry).map(({ key, kind, domain }) => ({ index: variables.length, key, slot, kind, domain, watchers: [] as number[] }));
      made.forEach((variable, offset) => variables.push({ ...variable, index: variable.index + offset }));
      ofSlot.set(slot, variables.slice(variables.length - made.length));
    });
    this.variables = variables;
    this.ofSlot = ofSlot;
    this.byKey = new Map(variables.map((variable) => [variable.key, variable]));
    model.entries.forEach((entry, slot) => {
      if (entry.kind === 'calculation') this.calculationLooks.set(slot, look(entry.formula.expr, model.scope));
    });
    const built: Omit<Constraint, 'index'>[] = [];
    for (const entry of model.entries) built.push(...this.shape(entry));
    for (const rule of model.rules) {
      if (rule.severity === 'error' && rule.rule.kind !== 'say' && this.inForce(rule.rule)) built.push(this.restriction(rule));
    }
    this.constraints = built.map((constraint, index) => ({ ...constraint, index }));
    for (const constraint of this.constraints) for (const variable of constraint.scope) variables[variable]?.watchers.push(constraint.index);
  }

  inForce(rule: { from?: string; until?: string }): boolean {
    return (!rule.from || rule.from <= this.context.date) && (!rule.until || this.context.date <= rule.until);
  }

  /** Variables that a slot depends on. */
  scopeOfSlot(slot: number): readonly number[] {
    const known = this.scopes.get(slot);
    if (known) return known;
    const entry = this.model.entries[slot];
    const scope =
      entry?.kind === 'calculation'
        ? [...new Set(slotsOf(this.model, entry.formula).flatMap((each) => this.scopeOfSlot(each)))]
        : (this.ofSlot.get(slot) ?? []).map((variable) => variable.index);
    this.scopes.set(slot, scope);
    return scope;
  }

  condition(formula: Formula): Condition {
    return { look: look(formula.expr, this.model.scope), run: formula.run, slots: slotsOf(this.model, formula) };
  }

  /** Exact environment where every variable has a code; calculations are worked out on demand. */
  environment(codes: CodeOf): Environment {
    const calculated = new Map<number, Value>();
    const env: Environment = (slot) => {
      const entry = this.model.entries[slot];
      if (!entry) return null;
      if (entry.kind === 'calculation') {
        const known = calculated.get(slot);
        if (known !== undefined) return known;
        const value = entry.formula.run(env);
        calculated.set(slot, value);
        return value;
      }
      return this.valueOfSlot(slot, codes);
    };
    return env;
  }

  /** The value in the slot of a feature, parameter or context input. */
  valueOfSlot(slot: number, codes: CodeOf): Value {
    const entry = this.model.entries[slot] as Entry;
    if (entry.kind === 'context') return this.context.values[entry.id] ?? null;
    const variables = this.ofSlot.get(slot) ?? [];
    if (entry.kind === 'feature' && entry.many) {
      return entry.feature.options.filter((_, index) => codes((variables[index] as Variable).index) === 1).map((option) => option.id);
    }
    const variable = variables[0] as Variable;
    return this.valueOf(variable, codes(variable.index));
  }

  /** The value that a code of a variable stands for. */
  valueOf(variable: Variable, code: number): Value {
    if (code < 0) return null;
    const table = (this.valueTables[variable.index] ??= []);
    return (table[code] ??= this.makeValue(variable, code));
  }

  private makeValue({ slot }: Variable, code: number): Value {
    const entry = this.model.entries[slot] as Entry;
    if (entry.kind === 'number') return valueAt(entry.grid, code);
    if (entry.kind === 'feature' && !entry.many) return entry.feature.options[code]?.id ?? null;
    return code === 1;
  }

  /** A code as it travels in decisions and states. */
  plain(variable: Variable, code: number): PlainValue {
    const value = this.valueOf(variable, code);
    return value === null || typeof value === 'string' || typeof value === 'boolean' ? value : String(value);
  }

  /** The code of a value as it travels; null where the variable has no such value. */
  codeFor(variable: Variable, value: PlainValue): number | null {
    const entry = this.model.entries[variable.slot] as Entry;
    if (value === null) return variable.domain.includes(NONE) ? NONE : null;
    if (typeof value === 'boolean') return variable.kind === 'taken' || variable.kind === 'yesno' ? (value ? 1 : 0) : null;
    if (typeof value !== 'string') return null;
    if (entry.kind === 'number') return codeOf(entry.grid, value);
    if (entry.kind !== 'feature' || entry.many) return null;
    const index = entry.feature.options.findIndex((option) => option.id === value);
    return index < 0 ? null : index;
  }

  /** What a slot looks like under domains; a calculation whose variables are all settled is worked out exactly. */
  lookOfSlot(slot: number, domains: readonly Domain[], env: OutlookEnv): Outlook {
    const entry = this.model.entries[slot];
    if (!entry) return anything;
    if (entry.kind === 'calculation') {
      const settled = this.scopeOfSlot(slot).every((variable) => (domains[variable] as Domain).length === 1);
      if (settled) return lookOf(this.environment((variable) => (domains[variable] as Domain)[0] as number)(slot));
      return (this.calculationLooks.get(slot) as Look)(env);
    }
    if (entry.kind === 'context') return lookOf(this.context.values[entry.id] ?? null);
    const variables = this.ofSlot.get(slot) ?? [];
    if (entry.kind === 'feature' && entry.many) {
      const ids = entry.feature.options.map((option) => option.id);
      const domain = (index: number) => domains[(variables[index] as Variable).index] as Domain;
      const may = new Set(ids.filter((_, index) => domain(index).includes(1)));
      const must = new Set(ids.filter((_, index) => domain(index).length === 1 && domain(index)[0] === 1));
      return { ...lookOfAll([]), list: { must, may } };
    }
    const variable = variables[0] as Variable;
    const domain = domains[variable.index] as Domain;
    // On a grid the first and last codes bound all the others.
    const codes = entry.kind === 'number' && domain.length > 3 ? [...domain.filter((code) => code < 0), domain.find((code) => code >= 0) as number, domain[domain.length - 1] as number] : domain;
    return lookOfAll(codes.map((code) => this.valueOf(variable, code)));
  }

  private shape(entry: Entry): Omit<Constraint, 'index'>[] {
    if (entry.kind === 'context' || entry.kind === 'calculation') return [];
    const slot = this.model.scope.get(entry.id)?.slot as number;
    const variables = this.ofSlot.get(slot) as readonly Variable[];
    const own = variables.map((variable) => variable.index);
    const made: Omit<Constraint, 'index'>[] = [];
    if (entry.kind === 'feature' && entry.many) {
      const { least, most } = entry.feature;
      made.push({
        origin: { kind: 'shape', entry },
        scope: own,
        holds: (_, code) => {
          if (own.some((variable) => code(variable) === HIDDEN)) return own.every((variable) => code(variable) === HIDDEN);
          const taken = own.filter((variable) => code(variable) === 1).length;
          return least <= taken && taken <= most;
        },
        outlook: (_, domains) => {
          const mayHide = own.every((variable) => (domains[variable] as Domain).includes(HIDDEN));
          const mustHide = own.some((variable) => isOnly(domains[variable] as Domain, HIDDEN));
          if (mustHide) return mayHide ? (own.every((variable) => isOnly(domains[variable] as Domain, HIDDEN)) ? 'kept' : 'open') : 'broken';
          const may = own.filter((variable) => (domains[variable] as Domain).includes(1)).length;
          const must = own.filter((variable) => isOnly(domains[variable] as Domain, 1)).length;
          if (!mayHide && (may < least || must > most)) return 'broken';
          return !own.some((variable) => (domains[variable] as Domain).includes(HIDDEN)) && must >= least && may <= most ? 'kept' : 'open';
        },
      });
    }
    if (entry.shownWhen) {
      const when = this.condition(entry.shownWhen);
      const rule = this.model.document.rules.find((each) => each.kind === 'show' && each.of === entry.id) as CompiledRule['rule'];
      made.push({
        origin: { kind: 'rule', rule },
        scope: [...new Set([...own, ...when.slots.flatMap((each) => this.scopeOfSlot(each))])],
        holds: (env, code) => own.every((variable) => (code(variable) === HIDDEN) === (when.run(env) !== true)),
        outlook: (env, domains) => {
          const shown = when.look(env);
          const [mayShow, mayHide] = [shown.yes, shown.no || shown.none];
          const hidden = own.map((variable) => (domains[variable] as Domain).includes(HIDDEN));
          const only = own.map((variable) => isOnly(domains[variable] as Domain, HIDDEN));
          if ((!mayShow && hidden.includes(false)) || (!mayHide && only.includes(true)) || (hidden.includes(false) && only.includes(true))) return 'broken';
          return (mayShow !== mayHide && only.every((each) => each === mayHide) && hidden.every((each) => each === mayHide)) ? 'kept' : 'open';
        },
      });
    }
    return made;
  }

  private restriction({ rule, when, must, all, rows }: CompiledRule): Omit<Constraint, 'index'> {
    const conditions = (formulas: readonly Formula[] = []) => formulas.map((formula) => this.condition(formula));
    const [given] = conditions(when ? [when] : []);
    const [needed, together, table] = [conditions(must), conditions(all), rows?.map(conditions)];
    const listed = rule.kind === 'table' ? rule.listed : 'forbidden';
    const every = [...(given ? [given] : []), ...needed, ...together, ...(table?.flat() ?? [])];
    const forbidden = table ? table : all ? [together] : [];
    const test: Pick<Constraint, 'holds' | 'outlook'> =
      listed === 'allowed' && table
        ? {
            holds: (env) => table.some((row) => row.every((cell) => cell.run(env) === true)),
            outlook: (env) => anyRow(table.map((row) => allTrue(row, env))),
          }
        : forbidden.length > 0
          ? {
              holds: (env) => !forbidden.some((row) => row.every((cell) => cell.run(env) === true)),
              outlook: (env) => opposite(anyRow(forbidden.map((row) => allTrue(row, env)))),
            }
          : {
              holds: (env) => (given !== undefined && given.run(env) !== true) || needed.every((each) => each.run(env) === true),
              outlook: (env) => {
                const asked: Outcome = given ? allTrue([given], env) : 'kept';
                if (asked === 'broken') return 'kept';
                const answer = allTrue(needed, env);
                return answer === 'kept' ? 'kept' : asked === 'kept' ? answer : 'open';
              },
            };
    return { origin: { kind: 'rule', rule }, scope: [...new Set(every.flatMap((each) => each.slots).flatMap((slot) => this.scopeOfSlot(slot)))], ...test };
  }
}

const isOnly = (domain: Domain, code: number): boolean => domain.length === 1 && domain[0] === code;

/** "kept" when all are surely true, "broken" when one surely is not. */
function allTrue(conditions: readonly Condition[], env: OutlookEnv): Outcome {
  let outcome: Outcome = 'kept';
  for (const condition of conditions) {
    const seen = condition.look(env);
    if (!seen.yes) return 'broken';
    if (seen.no || seen.none) outcome = 'open';
  }
  return outcome;
}

const anyRow = (rows: Outcome[]): Outcome => (rows.includes('kept') ? 'kept' : rows.includes('open') ? 'open' : 'broken');
const opposite = (outcome: Outcome): Outcome => (outcome === 'kept' ? 'broken' : outcome === 'broken' ? 'kept' : 'open');

function slotsOf(model: CompiledModel, formula: Formula): number[] {
  return formula.names.flatMap((name) => model.scope.get(name)?.slot ?? []);
}

function declare(entry: Entry): { key: string; kind: Variable['kind']; domain: Domain }[] {
  if (entry.kind === 'context' || entry.kind === 'calculation') return [];
  const hidden = entry.shownWhen ? [HIDDEN] : [];
  if (entry.kind === 'number') return [{ key: entry.id, kind: 'number', domain: [...hidden, ...Array(entry.grid.count).keys()] }];
  if (entry.kind === 'yesno') return [{ key: entry.id, kind: 'yesno', domain: [...hidden, 0, 1] }];
  const { feature } = entry;
  if (entry.many) return feature.options.map((option) => ({ key: `${feature.id}.${option.id}`, kind: 'taken' as const, domain: [...hidden, 0, 1] }));
  const none = feature.least === 0 ? [NONE] : [];
  return [{ key: feature.id, kind: 'choice', domain: [...hidden, ...none, ...feature.options.keys()] }];
}
