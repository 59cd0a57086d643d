/**
 * FEEL conditions as literals: what combines options by and, or, not is built of literals; the rest is left
 * to `truth.ts`.
 */
import { compileExpr, Day, namesIn, type Expr, type Formula, type Test, type Value } from '../../formula';
import type { CompiledModel, Entry } from '../../model';
import { always, never, not, type Lit, type Solver } from '../../solver';
import type { Context } from '../types';
import { evaluateAbstract, type AbstractFormula } from '../bounds/abstract-evaluation';
import { both, type Row } from './rows';
import { Subject, truthOf, type ConditionTheory, type Truth } from './truth';

const yes: Truth = { yes: always, no: never };
const no: Truth = { yes: never, no: always };
const nothing: Truth = { yes: never, no: never };
const opposite = ({ yes, no }: Truth): Truth => ({ yes: no, no: yes });
const plainly = (lit: Lit): Truth => ({ yes: lit, no: not(lit) });

/** Makes literals of formulas. */
export class Conditions {
  /** Conditions too wide for clauses. */
  readonly wide: ConditionTheory[] = [];
  private readonly known = new Map<string, Truth>();
  private readonly pairs = new Map<string, Lit>();
  private readonly looks = new Map<number, AbstractFormula>();

  constructor(
    private readonly model: CompiledModel,
    private readonly rowOfSlot: ReadonlyMap<number, Row>,
    private readonly context: Context,
    private readonly solver: Solver,
  ) {}

  of(formula: Formula): Truth {
    return this.truth(formula.expr);
  }

  /** A literal that holds where all do. */
  all(lits: readonly Lit[]): Lit {
    return lits.reduce((a, b) => this.both(a, b), always);
  }

  any(lits: readonly Lit[]): Lit {
    return not(this.all(lits.map(not)));
  }

  private both(a: Lit, b: Lit): Lit {
    const key = a < b ? `${String(a)},${String(b)}` : `${String(b)},${String(a)}`;
    const known = this.pairs.get(key) ?? both(this.solver, a, b);
    this.pairs.set(key, known);
    return known;
  }

  private truth(expr: Expr): Truth {
    const key = keyOf(expr);
    const known = this.known.get(key) ?? this.make(expr);
    this.known.set(key, known);
    return known;
  }

  private make(expr: Expr): Truth {
    return this.combined(expr) ?? this.compared(expr) ?? this.other(expr);
  }

  private combined(expr: Expr): Truth | null {
    switch (expr.kind) {
      case 'literal':
        return expr.value === true ? yes : expr.value === false ? no : nothing;
      case 'logic': {
        const [a, b] = [this.truth(expr.left), this.truth(expr.right)];
        return expr.op === 'and'
          ? { yes: this.all([a.yes, b.yes]), no: this.any([a.no, b.no]) }
          : { yes: this.any([a.yes, b.yes]), no: this.all([a.no, b.no]) };
      }
      case 'if': {
        const [test, then, otherwise] = [this.truth(expr.test), this.truth(expr.then), this.truth(expr.else)];
        const either = (side: keyof Truth): Lit =>
          this.any([this.all([test.yes, then[side]]), this.all([not(test.yes), otherwise[side]])]);
        return { yes: either('yes'), no: either('no') };
      }
      case 'name': {
        const row = this.row(expr);
        if (row?.kind === 'yesno') return { yes: row.yes, no: row.no };
        const entry = this.entry(expr);
        return entry?.kind === 'calculation' ? this.truth(entry.formula.expr) : null;
      }
      case 'call':
        if (expr.name === 'not' && expr.args[0]) return opposite(this.truth(expr.args[0]));
        if (expr.name === 'list contains' && expr.args.length === 2)
          return this.member(expr.args[1] as Expr, expr.args[0] as Expr);
        return null;
      default:
        return null;
    }
  }

  private compared(expr: Expr): Truth | null {
    if (expr.kind === 'compare' && (expr.op === '=' || expr.op === '!=')) {
      const same = this.same(expr.left, expr.right) ?? this.same(expr.right, expr.left);
      return same && expr.op === '!=' ? opposite(same) : same;
    }
    if (expr.kind !== 'in') return null;
    const tests = expr.tests.map((test) => this.test(expr.value, test));
    return tests.every((each) => each !== null)
      ? { yes: this.any(tests.map((each) => each.yes)), no: this.all(tests.map((each) => each.no)) }
      : null;
  }

  private test(value: Expr, test: Test): Truth | null {
    if (test.kind !== 'equals') return null;
    if (test.expr.kind === 'list') {
      const items = test.expr.items.map((item) => this.same(value, item));
      return items.every((each) => each !== null) ? plainly(this.any(items.map((each) => each.yes))) : null;
    }
    if (this.row(test.expr)?.kind === 'many') return this.member(value, test.expr);
    return this.same(value, test.expr);
  }

  /** A text in the list of a multiple choice. */
  private member(item: Expr, list: Expr): Truth | null {
    const row = this.row(list);
    if (row?.kind !== 'many' || item.kind !== 'literal' || typeof item.value !== 'string') return null;
    return plainly(row.taken[row.ids.indexOf(item.value)] ?? never);
  }

  /** A row equal to a literal; null where it is something else. Equality with null is never null itself. */
  private same(side: Expr, other: Expr): Truth | null {
    const row = this.row(side);
    if (!row || other.kind !== 'literal') return null;
    const { value } = other;
    if (value === null)
      return row.kind === 'many'
        ? no
        : row.kind === 'choice'
          ? plainly(not(this.any(row.taken)))
          : row.kind === 'number' && row.entry.grid.optional
            ? plainly(this.any([not(row.shown), this.solver.atMost(row.number, 0)]))
            : plainly(not(row.shown));
    if (row.kind === 'choice' && typeof value === 'string')
      return plainly(row.taken[row.ids.indexOf(value)] ?? never);
    if (row.kind === 'yesno' && typeof value === 'boolean') return plainly(value ? row.yes : row.no);
    return null;
  }

  private other(expr: Expr): Truth {
    return truthOf(this.subject(expr), this.solver, this.wide);
  }

  /** An expression as something that reads rows. */
  subject(expr: Expr): Subject {
    return new Subject(
      this.model,
      evaluateAbstract(expr),
      compileExpr(expr),
      (slot) => this.lookOf(slot),
      (slot) => this.fixed(slot),
      this.rowsRead(expr),
    );
  }

  /** The truth of an expression that is not in the document. */
  ofExpr(expr: Expr): Truth {
    return this.truth(expr);
  }

  private rowsRead(expr: Expr, seen = new Set<number>(), found = new Set<Row>()): Row[] {
    for (const slot of namesIn(expr).values()) {
      if (seen.has(slot)) continue;
      seen.add(slot);
      const row = this.rowOfSlot.get(slot);
      if (row) found.add(row);
      const entry = this.model.entries[slot];
      if (entry?.kind === 'calculation') this.rowsRead(entry.formula.expr, seen, found);
    }
    return [...found];
  }

  private lookOf(slot: number): AbstractFormula {
    const known = this.looks.get(slot);
    if (known) return known;
    const entry = this.model.entries[slot] as Extract<Entry, { kind: 'calculation' }>;
    const made = evaluateAbstract(entry.formula.expr);
    this.looks.set(slot, made);
    return made;
  }

  private fixed(slot: number): Value {
    const id = this.model.entries[slot]?.id ?? '';
    return id === 'today' ? Day.read(this.context.date) : (this.context.values[id] ?? null);
  }

  private entry(expr: Expr): Entry | undefined {
    return expr.kind === 'name' ? this.model.entries[expr.slot ?? -1] : undefined;
  }

  private row(expr: Expr): Row | undefined {
    return expr.kind === 'name' ? this.rowOfSlot.get(expr.slot ?? -1) : undefined;
  }
}

/** An expression without its positions. */
const keyOf = (expr: Expr): string =>
  JSON.stringify(expr, (name, value: unknown) => (name === 'at' ? undefined : value));
