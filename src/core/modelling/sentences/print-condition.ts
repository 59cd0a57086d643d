/** Conditions as sentences have them, in the order that their place asks for. */
import { Exact, zero } from '../../exact';
import type { Comparison, Expr, Test } from '../../formula';
import { eachOf, optionAt, rowAt, type Frames } from './frames';
import { between, filled, listed, say, spaced, type Filling } from './pieces';
import type { Order, Relation } from './phrases';
import { renamedIn } from './plain';
import { asFormula, ValuePrinter } from './print-value';
import type { RowWord } from './words';

const compared: Readonly<Record<Comparison, Relation>> = {
  '=': 'is',
  '!=': 'isNot',
  '<': 'lessThan',
  '<=': 'atMost',
  '>': 'moreThan',
  '>=': 'atLeast',
};
/** The same of days. */
const comparedDays: Readonly<Record<Comparison, Relation>> = {
  ...compared,
  '<': 'before',
  '<=': 'notAfter',
  '>': 'after',
  '>=': 'notBefore',
};
/** What is said by its not being so. */
const negative: ReadonlySet<Relation> = new Set([
  'isNot',
  'noneOf',
  'includesNot',
  'takenNot',
  'holdsNot',
  'givenNot',
  'notBefore',
  'notAfter',
]);

/** A condition that something is said of: who, what, and what it is compared with. */
interface Said {
  of: Filling;
  relation: Relation;
  what: Filling;
}

/** Prints conditions. */
export class ConditionPrinter extends ValuePrinter {
  /** A condition; with brackets where it stands in something that holds together more tightly. */
  condition(expr: Expr, frames: Frames, order: Order, within: 'or' | 'and' | 'open' = 'open'): Filling {
    if (order === 'bare' && within === 'open') return this.withMust(expr, frames);
    return this.inOrder(expr, frames, order, within);
  }

  /** "must A be ..." for what is all positive, "may A not be ..." for one negative, else each with its own verb. */
  private withMust(expr: Expr, frames: Frames): Filling {
    const { phrases } = this.manner;
    if (phrases.must === '') return this.inOrder(expr, frames, 'must', 'open');
    const relations = this.relationsIn(expr, frames);
    const denied = relations.filter((each) => negative.has(each));
    if (denied.length === 0 || this.manner.asFormulas)
      return spaced(say(phrases.must), this.inOrder(expr, frames, 'bare', 'open'));
    if (relations.length === 1)
      return spaced(say(phrases.mayNot), this.inOrder(expr, frames, 'bare', 'open'));
    return spaced(say(phrases.holdsThat), this.inOrder(expr, frames, 'must', 'open'));
  }

  private inOrder(expr: Expr, frames: Frames, order: Order, within: 'or' | 'and' | 'open'): Filling {
    const { phrases, inBrackets, asFormulas } = this.manner;
    if (expr.kind === 'logic' && !asFormulas) {
      const parts = [expr.left, expr.right].map((part) => this.inOrder(part, frames, order, expr.op));
      const joined = between(parts, ` ${phrases[expr.op]} `);
      return expr.op === 'or' && within === 'and' ? [...say('('), ...joined, ...say(')')] : joined;
    }
    const group = asFormulas ? null : this.group(expr, frames, order);
    if (group) return group;
    const { of, relation, what } = (asFormulas ? null : this.said(expr, frames)) ?? {
      of: asFormula(expr),
      relation: 'holds',
      what: [],
    };
    const [before, behind] = phrases.relations[relation][order];
    const said = spaced(of, say(before), what, say(behind));
    return inBrackets && within !== 'open' ? [...say('('), ...said, ...say(')')] : said;
  }

  /** All relations of a condition, to know whether it says that something is or that it is not. */
  private relationsIn(expr: Expr, frames: Frames): Relation[] {
    if (expr.kind === 'logic')
      return [...this.relationsIn(expr.left, frames), ...this.relationsIn(expr.right, frames)];
    if (expr.kind === 'quantified') {
      const inner = this.inside(expr, frames);
      return inner ? this.relationsIn(inner.test, inner.frames) : ['holds'];
    }
    const said = this.said(expr, frames);
    if (!said && this.denied(expr)) return ['holdsNot', 'holdsNot'];
    return [said?.relation ?? 'holds'];
  }

  /** Conditions that have others in brackets: those of builds, those that are counted, and those denied. */
  private group(expr: Expr, frames: Frames, order: Order): Filling | null {
    const { phrases } = this.manner;
    const inner = this.inside(expr, frames);
    if (inner) {
      const shape = inner.every ? phrases.every : phrases.some;
      const test = this.inOrder(inner.test, inner.frames, order, 'open');
      return [...filled(shape, () => this.option(inner.of, frames)), ...say(' ('), ...test, ...say(')')];
    }
    const within = order === 'sub' ? 'main' : order;
    const counted = this.counting(expr);
    if (counted) {
      const parts = counted.of.map((each) => this.inOrder(each, frames, within, 'open'));
      const head = filled(phrases[counted.shape], () => this.number(counted.count));
      return [...head, ...say(' ('), ...between(parts, '; '), ...say(')')];
    }
    const denied = this.said(expr, frames) ? null : this.denied(expr);
    if (!denied) return null;
    return [...say(`${phrases.not} (`), ...this.inOrder(denied, frames, within, 'open'), ...say(')')];
  }

  private denied(expr: Expr): Expr | null {
    return expr.kind === 'call' && expr.name === 'not' ? (expr.args[0] ?? null) : null;
  }

  private inside(expr: Expr, frames: Frames) {
    if (expr.kind !== 'quantified' || expr.over.length !== 1) return null;
    const [over] = expr.over;
    const of = over && !over.to ? optionAt(frames, over.list) : undefined;
    if (!over || !of?.inside) return null;
    // As whoever reads the sentence will call it, in formulas that stand inside too.
    const each = eachOf(frames);
    const inner: Frames = [...frames, { words: of.inside, each }];
    return { every: expr.every, of, test: renamedIn(expr.test, new Map([[over.name, each]])), frames: inner };
  }

  /** `count([a, b, c][item]) >= 2`. */
  private counting(expr: Expr) {
    if (expr.kind !== 'compare' || expr.right.kind !== 'literal') return null;
    const shape = (
      { '>=': 'atLeastOf', '<=': 'atMostOf', '=': 'exactlyOf' } as Partial<
        Record<Comparison, 'atLeastOf' | 'atMostOf' | 'exactlyOf'>
      >
    )[expr.op];
    const { left, right } = expr;
    const [of] = left.kind === 'call' && left.name === 'count' ? left.args : [];
    if (!shape || !(right.value instanceof Exact) || of?.kind !== 'filter' || of.list.kind !== 'list')
      return null;
    if (of.by.kind !== 'name' || of.by.name !== 'item' || of.list.items.length === 0) return null;
    return right.value.isInteger() && right.value.gte(zero)
      ? { shape, count: right.value, of: of.list.items }
      : null;
  }

  /** What is said of something; null where there are no words for it. */
  private said(expr: Expr, frames: Frames): Said | null {
    const bare = rowAt(frames, expr);
    if (bare)
      return {
        of: this.row(bare, frames),
        relation: bare.row.is === 'yesno' ? 'taken' : 'holds',
        what: [],
      };
    if (expr.kind === 'compare') return this.comparison(expr, frames);
    if (expr.kind === 'in') return this.among(expr.value, expr.tests, frames, false);
    if (expr.kind !== 'call') return null;
    if (expr.name === 'list contains') return this.inclusion(expr.args, frames, 'includes');
    const denied = this.denied(expr);
    if (!denied) return null;
    const of = rowAt(frames, denied);
    if (of)
      return {
        of: this.row(of, frames),
        relation: of.row.is === 'yesno' ? 'takenNot' : 'holdsNot',
        what: [],
      };
    if (denied.kind === 'in') return this.among(denied.value, denied.tests, frames, true);
    if (denied.kind === 'call' && denied.name === 'list contains')
      return this.inclusion(denied.args, frames, 'includesNot');
    return null;
  }

  private inclusion(args: readonly Expr[], frames: Frames, relation: Relation): Said | null {
    const [list, item] = args;
    const at = list && rowAt(frames, list);
    const text = item?.kind === 'literal' && typeof item.value === 'string' ? item.value : undefined;
    const option = at?.row.options.find(({ id }) => id === text);
    if (at?.row.is !== 'several' || !option) return null;
    return { of: this.row(at, frames), relation, what: this.name(option, 'option') };
  }

  private comparison(expr: Extract<Expr, { kind: 'compare' }>, frames: Frames): Said | null {
    const { op, left, right } = expr;
    const row = rowAt(frames, left)?.row;
    const of = this.value(left, frames);
    if (right.kind === 'literal' && right.value === null) {
      if (op !== '=' && op !== '!=') return null;
      return { of, relation: op === '=' ? 'givenNot' : 'given', what: [] };
    }
    return {
      of,
      relation: (row?.is === 'date' ? comparedDays : compared)[op],
      what: this.compared(right, row, frames),
    };
  }

  /** What a row is compared with: one of its options, a number in its unit, yes or no, or any value. */
  private compared(expr: Expr, row: RowWord | undefined, frames: Frames): Filling {
    const { phrases } = this.manner;
    if (expr.kind === 'literal' && typeof expr.value === 'boolean')
      return say(expr.value ? phrases.yes : phrases.no);
    const text = expr.kind === 'literal' && typeof expr.value === 'string' ? expr.value : undefined;
    const option = text === undefined ? undefined : row?.options.find(({ id }) => id === text);
    return option ? this.name(option, 'option') : this.value(expr, frames, row?.unit);
  }

  private among(value: Expr, tests: readonly Test[], frames: Frames, denied: boolean): Said | null {
    const row = rowAt(frames, value)?.row;
    const of = this.value(value, frames);
    const [first] = tests;
    if (first?.kind === 'interval') {
      if (tests.length > 1 || first.lowOpen || first.highOpen || denied) return null;
      const [low, high] = [first.low, first.high].map((each) => this.compared(each, row, frames));
      return { of, relation: 'between', what: spaced(low ?? [], say(this.manner.phrases.and), high ?? []) };
    }
    const values = tests.flatMap((test) =>
      test.kind === 'equals' ? [this.compared(test.expr, row, frames)] : [],
    );
    if (values.length < tests.length || values.length === 0) return null;
    return {
      of,
      relation: denied ? 'noneOf' : 'oneOf',
      what: listed(values, this.manner.phrases.or),
    };
  }
}
