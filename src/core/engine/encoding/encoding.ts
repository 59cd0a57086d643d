/** A compiled model in one context as clauses: rows, shapes, rules. */
import type { Formula } from '../../formula';
import type { CompiledModel, CompiledRule, DecisionValue, Rule } from '../../model';
import { always, never, not, Solver, type Lit } from '../../solver';
import { Conditions } from './conditions';
import type { Context } from '../types';
import { decided, makeRow, wanted, type Row } from './rows';

/** A part of a model that can forbid something. */
export type Part =
  | { kind: 'rule'; rule: Rule }
  /** What a feature itself asks: how many options. */
  | { kind: 'shape'; row: string };

/** A model as clauses, with the literals that its rows and rules stand for. */
export class Encoding {
  readonly solver = new Solver();
  /** In the order of the model. */
  readonly rows: readonly Row[];
  readonly conditions: Conditions;
  /** Parts by the literal that puts them in force; empty where all are in force for good. */
  readonly parts = new Map<Lit, Part>();
  private readonly byId = new Map<string, Row>();
  private readonly guards = new Map<string, Lit>();
  private readonly keys = new Map<string, number>();
  private lastKey = 0;
  private readonly cells = new Map<number, readonly number[]>();

  /**
   * With `apart`, each rule and shape is in force only under a literal of its own, so that causes can be
   * told.
   */
  constructor(
    readonly model: CompiledModel,
    readonly context: Context,
    private readonly apart = false,
  ) {
    const { solver } = this;
    const rowOfSlot = new Map<number, Row>();
    const existing = new Map<Formula, Lit>();
    model.entries.forEach((entry, slot) => {
      const row = makeRow(entry, slot, solver, existing);
      if (row) rowOfSlot.set(slot, row);
    });
    this.rows = [...rowOfSlot.values()];
    for (const row of this.rows) this.byId.set(row.id, row);
    this.conditions = new Conditions(model, rowOfSlot, context, solver);
    for (const row of this.rows) this.shape(row);
    for (const rule of model.rules) {
      if (rule.severity === 'error' && rule.rule.kind !== 'say' && this.inForce(rule.rule))
        this.restrict(rule);
    }
  }

  /** Whether a rule counts on the context's date and in its region, or what else the rule's place is. */
  inForce({ from, until, where = {} }: Pick<Rule, 'from' | 'until' | 'where'>): boolean {
    const { date, values } = this.context;
    return (
      (!from || from <= date) &&
      (!until || date <= until) &&
      Object.entries(where).every(([input, allowed]) => allowed.includes(values[input] ?? ''))
    );
  }

  /**
   * Where the model's conditions cut a number, as it was when first asked: between two of these cuts no
   * clause tells codes apart.
   * Cuts that decisions and searches make later are not among them.
   */
  cutsOf(number: number): readonly number[] {
    const known = this.cells.get(number) ?? [...this.solver.numbers.cuts(number)];
    this.cells.set(number, known);
    return known;
  }

  /** A key for a wish; the same for the same name. */
  newKey(name?: string): number {
    const known = name === undefined ? undefined : this.keys.get(name);
    if (known !== undefined) return known;
    if (name !== undefined) this.keys.set(name, this.lastKey + 1);
    return ++this.lastKey;
  }

  row(id: string): Row | undefined {
    return this.byId.get(id);
  }

  /**
   * Of each choice what is usual or stands first, of several nothing but what is usual: most models have a
   * build near it, and a search that begins there meets a tenth of the conflicts.
   */
  get preferred(): Lit[] {
    return this.rows.flatMap((row): Lit[] => {
      const entry = this.model.entries[row.slot];
      const usual = entry?.kind === 'feature' ? new Set(entry.feature.usual) : new Set<string>();
      switch (row.kind) {
        case 'choice':
          return [
            row.latent[
              Math.max(
                0,
                row.ids.findIndex((id) => usual.has(id)),
              )
            ] as Lit,
          ];
        case 'many':
          return row.latent.map((lit, index) => (usual.has(row.ids[index] as string) ? lit : not(lit)));
        case 'yesno':
          return [not(row.latent)];
        case 'number':
          return [];
      }
    });
  }

  /** What a decision fixes; null where the model has no such value. */
  decided(on: string, value: DecisionValue): Lit[] | null {
    const [row, option] = this.place(on);
    return row ? decided(row, option, value, this.solver) : null;
  }

  /** What must hold for a value to be there. */
  wanted(on: string, value: DecisionValue): Lit[] | null {
    const [row, option] = this.place(on);
    return row ? wanted(row, option, value, this.solver) : null;
  }

  /** The rule's condition, and its being broken, as literals; whether or not the rule is in force. */
  meaning({ rule, when, must, all, rows }: CompiledRule): { premise: Lit; broken: Lit } {
    const { conditions } = this;
    const premise = when ? conditions.of(when).yes : always;
    const yes = (list: CompiledRule['must']): Lit =>
      conditions.all(list.map((each) => conditions.of(each).yes));
    if (all) return { premise, broken: yes(all) };
    if (rows && rule.kind === 'table') {
      const listed = conditions.any(rows.map(yes));
      return { premise, broken: rule.listed === 'forbidden' ? listed : not(listed) };
    }
    return { premise, broken: conditions.all([premise, not(yes(must))]) };
  }

  private place(on: string): [Row | undefined, string | undefined] {
    const [id = '', option] = on.split('.');
    return [this.byId.get(id), option];
  }

  /** The literals that take a part out of force again; none where parts are not told apart. */
  private unless(key: string, part: Part): Lit[] {
    if (!this.apart) return [];
    const guard = this.guards.get(key) ?? this.solver.add();
    this.guards.set(key, guard);
    this.parts.set(guard, part);
    return [not(guard)];
  }

  private shape(row: Row): void {
    const { solver } = this;
    const entry = this.model.entries[row.slot];
    if (row.kind === 'many' && entry?.kind === 'feature') {
      const { least, most } = entry.feature;
      const count = row.latent.length;
      if (least > 0 || most < count) {
        const unless = this.unless(`shape:${row.id}`, { kind: 'shape', row: row.id });
        const guard =
          unless.length === 0 ? row.shown : this.conditions.all([row.shown, not(unless[0] as Lit)]);
        if (most < count) solver.addAtMost(row.latent, most, guard);
        if (least === 1) solver.addClause([not(guard), ...row.latent]);
        else if (least > 1) solver.addAtMost(row.latent.map(not), count - least, guard);
      }
    }
    if (
      row.shown === always ||
      !entry ||
      entry.kind === 'context' ||
      entry.kind === 'calculation' ||
      !entry.shownWhen
    )
      return;
    const place = entry.placeWhen ? this.conditions.of(entry.placeWhen).yes : always;
    if (place !== always) solver.addClause([not(row.shown), place]);
    // Each rule in force can keep the row away; what is in its place is there where none does.
    const hidden: Lit[] = [];
    for (const { rule, when } of entry.shownBy ?? []) {
      if (!this.inForce(rule)) continue;
      const unless = this.unless(`rule:${rule.id}`, { kind: 'rule', rule });
      const { yes } = this.conditions.of(when);
      solver.addClause([...unless, not(row.shown), yes]);
      hidden.push(...unless, not(yes));
    }
    solver.addClause([row.shown, not(place), ...hidden]);
  }

  private restrict({ rule, when, must, all, rows }: CompiledRule): void {
    const { conditions, solver } = this;
    const unless = this.unless(`rule:${rule.id}`, { kind: 'rule', rule });
    const given = when ? [...unless, not(conditions.of(when).yes)] : unless;
    for (const each of must) solver.addClause([...given, conditions.of(each).yes]);
    if (all) solver.addClause([...given, ...all.map((each) => not(conditions.of(each).yes))]);
    if (!rows || rule.kind !== 'table') return;
    const cells = rows.map((row) => row.map((cell) => conditions.of(cell).yes));
    if (rule.listed === 'forbidden') for (const row of cells) solver.addClause([...given, ...row.map(not)]);
    else solver.addClause([...given, ...cells.map((row) => conditions.all(row))]);
  }
}

/** Values of a row, its not existing among them; of a multiple choice as if its options were independent. */
export function valueCount(row: Row): number {
  const hidden = row.shown === always ? 0 : 1;
  switch (row.kind) {
    case 'choice':
      return hidden + row.ids.length + (row.none === never ? 0 : 1);
    case 'many':
      return hidden + 2 ** Math.min(row.ids.length, 1_000);
    case 'yesno':
      return hidden + 2;
    case 'number':
      return hidden + row.entry.grid.count;
  }
}
