/**
 * The check-up of a model: what can never be taken, never fires, repeats, contradicts, crashes, overlaps, or
 * is named twice.
 */
import type { Expr, Formula } from '../../formula';
import { featureAt, readsTyped, type CompiledModel, type CompiledRule, type PlainValue } from '../../model';
import { always, type Lit, type Witness } from '../../solver';
import { countBuilds, type Count } from '../answers/count';
import { Encoding } from '../encoding/encoding';
import type { Context } from '../types';
import { plainIn } from '../answers/plain-values';
import { WitnessCache } from '../answers/witness-cache';
import { sameNumbers } from './same-numbers';
import { contextsOf, holesIn, overlapsIn } from './tables';
import { variablesOf, type Variable } from '../encoding/variables';

/** Something that is wrong with a model, or worth a look. */
export interface Finding {
  kind:
    /** In no context is there anything to build. */
    | 'nothingToBuild'
    /** No build has the option. */
    | 'neverTaken'
    /** Several options, of which only one is possible. */
    | 'neverAChoice'
    /** The rule's condition cannot come about even without the other rules. */
    | 'neverFires'
    /** Without the rule nothing more could be built: others say the same. */
    | 'repeatsOthers'
    /** Two rules that leave nothing where both apply, though each alone does. */
    | 'contradict'
    /** A formula that gives nothing in some build, for instance by dividing by zero. */
    | 'givesNothing'
    /** Two rows of a table that say the same of some build. */
    | 'rowsOverlap'
    /** A value of a table's column that no row lets pass. */
    | 'tableHole'
    /** Two builds with the same part number that differ in what is sold or made. */
    | 'sameNumber'
    /** A build whose part number is not read back as this build. */
    | 'unreadableNumber';
  /** Path in the document. */
  at: string;
  /** The other rule, row or value concerned. */
  other?: string;
  /** A build in which it happens. */
  example?: Readonly<Record<string, PlainValue>>;
  /** The other build of the same number. */
  second?: Readonly<Record<string, PlainValue>>;
  /** The number. */
  number?: string;
  /** Rows in which the two differ. */
  rows?: string[];
  /**
   * What is sold or made for the one and for the other, where it is not the same; absent where there is
   * nothing.
   */
  goods?: { at: string; first?: string; second?: string }[];
}

/** What an examination found. */
export interface CheckUp {
  findings: Finding[];
  /** By context, in the order of the context's values. */
  builds: { context: Readonly<Record<string, string>>; count: Count }[];
}

const mostPairs = 20_000;

/** What is found in one context: what counts only where it is so in all, and what counts wherever it happens. */
export interface FoundIn {
  always: Finding[];
  possible: Finding[];
}

/** Examines a model in one context. */
export function examineIn(model: CompiledModel, context: Context): FoundIn {
  const examiner = new Examiner(model, context);
  return { always: [...examiner.always()], possible: [...examiner.possible()] };
}

const keyOf = ({ kind, at, other }: Finding): string => `${kind} ${at} ${other ?? ''}`;

/** What is found in a model, of what was found in each of its contexts. */
export function foundTogether(found: readonly FoundIn[]): Finding[] {
  const everywhere = new Map<string, { finding: Finding; times: number }>();
  const somewhere = new Map<string, Finding>();
  for (const { always, possible } of found) {
    for (const finding of always)
      everywhere.set(keyOf(finding), { finding, times: (everywhere.get(keyOf(finding))?.times ?? 0) + 1 });
    for (const finding of possible) somewhere.set(keyOf(finding), finding);
  }
  return [
    ...[...everywhere.values()].filter(({ times }) => times === found.length).map(({ finding }) => finding),
    ...somewhere.values(),
  ];
}

/**
 * Examines a model on a date in all its contexts. `stop` ends the counting of builds, and after it the rest.
 */
export function checkUp(model: CompiledModel, date: string, stop: () => boolean): CheckUp {
  const contexts = contextsOf(model, date);
  const findings = foundTogether(contexts.map((context) => examineIn(model, context)));
  const builds = contexts.map((context) => ({
    context: context.values,
    count: countBuilds(new Encoding(model, context), stop),
  }));
  return { findings, builds };
}

class Examiner {
  private readonly encoding: Encoding;
  private readonly variables: readonly Variable[];
  private readonly witnesses: WitnessCache;
  /** All parts in force. */
  private readonly force: readonly Lit[];
  private readonly guardOf = new Map<string, Lit>();
  /** In force whatever becomes of the rules: shapes, and what shows rows. */
  private readonly frame: readonly Lit[];
  private readonly rules: readonly CompiledRule[];
  private readonly typed: (formula: Formula) => boolean;

  constructor(
    private readonly model: CompiledModel,
    private readonly context: Context,
  ) {
    this.encoding = new Encoding(model, context, true);
    this.typed = readsTyped(model.entries);
    // The rules of builds inside are examined with their own model.
    this.rules = model.rules.filter(
      ({ rule, severity }) =>
        severity === 'error' && rule.kind !== 'say' && !rule.id.includes('/') && this.encoding.inForce(rule),
    );
    // Literals first, so that all are there before the first witness.
    for (const rule of this.rules) this.encoding.meaning(rule);
    for (const [, nothing] of this.formulas()) this.nothingOf(nothing.formula);
    for (const [path, formula] of model.formulas)
      if (path.startsWith('numbering.')) this.encoding.conditions.of(formula);
    const parts = [...this.encoding.parts];
    this.force = parts.map(([lit]) => lit);
    for (const [lit, part] of parts) if (part.kind === 'rule') this.guardOf.set(part.rule.id, lit);
    this.frame = parts.flatMap(([lit, part]) =>
      part.kind === 'shape' || part.rule.kind === 'show' ? [lit] : [],
    );
    this.variables = variablesOf(this.encoding);
    this.witnesses = new WitnessCache(this.encoding.solver, this.encoding.preferred);
  }

  /** What must hold in every context to be a finding. */
  *always(): Generator<Finding> {
    if (this.witnesses.move(this.force)) {
      yield { kind: 'nothingToBuild', at: '' };
      return;
    }
    for (const { on, row, codes } of this.variables) {
      const possible = codes.filter((code) => this.witnesses.can(code.wish));
      for (const { value, wish } of codes) {
        if (value === false || value === null || this.witnesses.can(wish)) continue;
        yield {
          kind: 'neverTaken',
          at:
            row.kind === 'choice'
              ? `features.${on}.${String(value)}`
              : row.kind === 'many'
                ? `features.${on}`
                : `parameters.${on}`,
        };
      }
      if (codes.length > 1 && possible.length === 1 && row.kind !== 'many')
        yield { kind: 'neverAChoice', at: row.kind === 'choice' ? `features.${on}` : `parameters.${on}` };
    }
    for (const rule of this.rules) {
      const { broken } = this.encoding.meaning(rule);
      const at = `rules.${rule.rule.id}`;
      if (!this.possibleWith([...this.frame, broken])) yield { kind: 'neverFires', at };
      else if (
        !this.possibleWith([...this.force.filter((lit) => lit !== this.guardOf.get(rule.rule.id)), broken])
      )
        yield { kind: 'repeatsOthers', at };
      if (rule.rows) yield* this.holes(rule, rule.rows);
    }
  }

  /** What is a finding wherever it happens. */
  *possible(): Generator<Finding> {
    if (this.witnesses.move(this.force)) return;
    yield* this.contradictions();
    for (const [at, { formula, used }] of this.formulas()) {
      const nothing = this.nothingOf(formula);
      const found = this.witness([...this.force, used, nothing]);
      if (found) yield { kind: 'givesNothing', at, example: this.plain(found) };
    }
    for (const rule of this.rules) if (rule.rows) yield* this.overlaps(rule, rule.rows);
    yield* this.numbers();
  }

  private *contradictions(): Generator<Finding> {
    const claims = this.rules
      .filter(({ rule }) => rule.kind === 'require' || rule.kind === 'set' || rule.kind === 'limit')
      .map((rule) => ({
        rule,
        names: new Set(rule.must.flatMap((each) => each.names)),
        ...this.encoding.meaning(rule),
      }));
    let pairs = 0;
    for (const [index, one] of claims.entries()) {
      for (const other of claims.slice(index + 1)) {
        if (![...one.names].some((name) => other.names.has(name)) || ++pairs > mostPairs) continue;
        const both = [...this.frame, one.premise, other.premise];
        const [mine, theirs] = [
          this.guardOf.get(one.rule.rule.id) as Lit,
          this.guardOf.get(other.rule.rule.id) as Lit,
        ];
        if (
          this.possibleWith([...both, mine, theirs]) ||
          !this.possibleWith([...both, mine]) ||
          !this.possibleWith([...both, theirs])
        )
          continue;
        yield { kind: 'contradict', at: `rules.${one.rule.rule.id}`, other: `rules.${other.rule.rule.id}` };
      }
    }
  }

  private rowsOf(rows: readonly (readonly Formula[])[]): Lit[] {
    const { conditions } = this.encoding;
    return rows.map((row) => conditions.all(row.map((cell) => conditions.of(cell).yes)));
  }

  private *overlaps({ rule }: CompiledRule, rows: readonly (readonly Formula[])[]): Generator<Finding> {
    for (const [one, other] of overlapsIn(this.rowsOf(rows), (lits) =>
      this.possibleWith([...this.frame, ...lits]),
    ))
      yield {
        kind: 'rowsOverlap',
        at: `rules.${rule.id}.rows.${String(one)}`,
        other: `rules.${rule.id}.rows.${String(other)}`,
      };
  }

  private *holes({ rule }: CompiledRule, rows: readonly (readonly Formula[])[]): Generator<Finding> {
    if (rule.kind !== 'table' || rule.listed === 'forbidden') return;
    const possible = (lits: readonly Lit[]): boolean => this.possibleWith([...this.frame, ...lits]);
    for (const { on, value } of holesIn(rule.of, this.rowsOf(rows), this.variables, possible))
      yield { kind: 'tableHole', at: `rules.${rule.id}`, other: `${on} = ${String(value)}` };
  }

  private *numbers(): Generator<Finding> {
    for (const { row, ...found } of sameNumbers(this.model, this.context, {
      encoding: this.encoding,
      force: this.force,
      witnesses: this.witnesses,
      variables: this.variables,
    })) {
      const feature =
        featureAt(this.model, row) !== undefined &&
        !this.model.document.parameters.some((each) => each.id === row);
      yield { at: `${feature ? 'features' : 'parameters'}.${row}`, ...found };
    }
  }

  /** Every formula that makes a figure, with the literal under which it is used. */
  private formulas(): Map<string, { formula: Formula; used: Lit }> {
    const { document, entries, formulas } = this.model;
    const { conditions } = this.encoding;
    const found = new Map<string, { formula: Formula; used: Lit }>();
    // Those of builds inside are looked at with their own model.
    for (const entry of entries)
      if (
        entry.kind === 'calculation' &&
        !entry.quantityOf &&
        !entry.id.includes('/') &&
        !this.typed(entry.formula)
      )
        found.set(`calculations.${entry.id}`, { formula: entry.formula, used: always });
    const add = (path: string, under: string | undefined, used: Lit = always): void => {
      const formula = formulas.get(path);
      const when = under === undefined ? undefined : formulas.get(under);
      if (formula && !this.typed(formula))
        found.set(path, { formula, used: when ? conditions.all([used, conditions.of(when).yes]) : used });
    };
    for (const { id } of document.prices) add(`prices.${id}.quantity`, `prices.${id}.when`);
    for (const { id } of document.surcharges) add(`surcharges.${id}.rate`, `surcharges.${id}.when`);
    for (const { id } of document.materials)
      for (const field of ['quantity', 'cut']) add(`materials.${id}.${field}`, `materials.${id}.when`);
    for (const { id } of document.operations)
      for (const field of ['setUp', 'run']) add(`operations.${id}.${field}`, `operations.${id}.when`);
    for (const feature of document.features) {
      const row = this.encoding.row(feature.id);
      feature.options.forEach((option, index) =>
        add(
          `features.${feature.id}.${option.id}.quantity`,
          undefined,
          row && (row.kind === 'choice' || row.kind === 'many') ? row.taken[index] : always,
        ),
      );
    }
    add('extraDays', undefined);
    return found;
  }

  /** Holds where a formula gives null. */
  private nothingOf({ expr }: Formula): Lit {
    const nothing: Expr = {
      kind: 'compare',
      op: '=',
      left: expr,
      right: { kind: 'literal', value: null, at: 0 },
      at: 0,
    };
    return this.encoding.conditions.ofExpr(nothing).yes;
  }

  private possibleWith(assume: readonly Lit[]): boolean {
    return (
      this.encoding.solver.ask({ assume: assume.filter((lit) => lit !== always), base: this.witnesses.base })
        .is === 'yes'
    );
  }

  private witness(assume: readonly Lit[]): Witness | null {
    const answer = this.encoding.solver.ask({
      assume: assume.filter((lit) => lit !== always),
      base: this.witnesses.base,
    });
    return answer.is === 'yes' ? answer.witness() : null;
  }

  private plain(build: Witness): Record<string, PlainValue> {
    return Object.fromEntries(this.encoding.rows.map((row) => [row.id, plainIn(row, build)]));
  }
}
