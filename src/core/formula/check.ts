/** Types and units of a formula, before it ever runs. */
import { builtins } from './builtins';
import type { FormulaProblem } from './problem';
import type { Expr, Iteration, Test } from './tree';
import { Day, Span } from './time';
import { fits, join, withLocal, type FeelType, type Scope } from './types';
import { known, noUnit, product, sameUnit, writeUnit } from './units';

const yesno: FeelType = { is: 'yesno' };
const unknown: FeelType = { is: 'unknown' };

/** Finds the type of an expression; everything wrong on the way is added to `problems`. */
export const check = (expr: Expr, scope: Scope, problems: FormulaProblem[]): FeelType =>
  new Checker(scope, problems).typeOf(expr);

/** A kind of expression. */
type Kind<K extends Expr['kind']> = Extract<Expr, { kind: K }>;

/** What an expression is by what is in scope. */
class Checker {
  constructor(
    private readonly scope: Scope,
    private readonly problems: FormulaProblem[],
  ) {}

  typeOf(expr: Expr): FeelType {
    switch (expr.kind) {
      case 'literal':
        return literalType(expr.value);
      case 'name':
        return (
          this.scope.get(expr.name)?.type ?? this.report('formula.unknownName', expr.at, { name: expr.name })
        );
      case 'negate':
        return this.expect(expr.of, 'number');
      case 'arithmetic':
        return this.arithmetic(expr);
      case 'path':
        return this.path(expr);
      case 'filter':
        return this.filter(expr);
      case 'for':
        return { is: 'list', item: check(expr.body, this.iterations(expr.over), this.problems) };
      case 'quantified':
        return this.quantified(expr);
      case 'compare':
        this.alike(expr.left, expr.right);
        return yesno;
      case 'logic':
        this.expect(expr.left, 'yesno');
        this.expect(expr.right, 'yesno');
        return yesno;
      case 'in':
        for (const one of expr.tests) this.test(expr.value, one);
        return yesno;
      case 'if':
        return this.choice(expr);
      case 'list':
        return {
          is: 'list',
          item: expr.items
            .map((each) => this.typeOf(each))
            .reduce((all, each) => (fits(all, each) ? join(all, each) : unknown), unknown),
        };
      case 'pick':
      case 'gather':
        return unknown;
      case 'call':
        return this.call(expr);
    }
  }

  private report(code: FormulaProblem['code'], at: number, params: FormulaProblem['params'] = {}): FeelType {
    this.problems.push({ code, at, params });
    return unknown;
  }

  private expect(sub: Expr, is: FeelType['is']): FeelType {
    return this.expected(this.typeOf(sub), sub.at, is);
  }

  private expected(type: FeelType, at: number, is: FeelType['is']): FeelType {
    return type.is === is || type.is === 'unknown'
      ? type
      : this.report('formula.wrongType', at, { wanted: is, found: type.is });
  }

  private quantified(expr: Kind<'quantified'>): FeelType {
    const type = check(expr.test, this.iterations(expr.over), this.problems);
    return type.is === 'unknown' ? yesno : this.expected(type, expr.test.at, 'yesno');
  }

  /** Both sides must be comparable; a literal text must be one of the options it is compared with. */
  private alike(left: Expr, right: Expr): FeelType {
    const [a, b] = [this.typeOf(left), this.typeOf(right)];
    if (!fits(a, b)) return this.mismatch(a, b, right.at);
    this.slip(a, right);
    this.slip(b, left);
    return join(a, b);
  }

  private mismatch(a: FeelType, b: FeelType, at: number): FeelType {
    return a.is === 'number' && b.is === 'number'
      ? this.report('formula.unitMismatch', at, { left: writeUnit(a.unit), right: writeUnit(b.unit) })
      : this.report('formula.wrongType', at, { wanted: a.is, found: b.is });
  }

  /** A literal text that is none of the options it stands for. */
  private slip(type: FeelType, literal: Expr): void {
    if (type.is !== 'text' || !type.of || literal.kind !== 'literal') return;
    if (typeof literal.value === 'string' && !type.of.has(literal.value))
      this.report('formula.unknownOption', literal.at, {
        option: literal.value,
        allowed: [...type.of].join(', '),
      });
  }

  private test(value: Expr, one: Test): void {
    if (one.kind === 'interval') {
      this.alike(value, one.low);
      this.alike(value, one.high);
      return;
    }
    const [type, other] = [this.typeOf(value), this.typeOf(one.expr)];
    const against = other.is === 'list' && one.kind === 'equals' && type.is !== 'list' ? other.item : other;
    if (!fits(type, against)) this.mismatch(type, against, one.expr.at);
    this.slip(type, one.expr);
    this.slip(against, value);
  }

  /** The scope inside of a loop: each name may be used by the next. */
  private iterations(over: readonly Iteration[]): Scope {
    return over.reduce<Scope>((inner, { name, list, to }) => {
      const type = check(list, inner, this.problems);
      if (!to) return withLocal(inner, name, itemOf(type)).scope;
      this.expected(type, list.at, 'number');
      this.expected(check(to, inner, this.problems), to.at, 'number');
      return withLocal(inner, name, type).scope;
    }, this.scope);
  }

  private arithmetic({ op, left, right }: Kind<'arithmetic'>): FeelType {
    const [a, b] = [this.typeOf(left), this.typeOf(right)];
    if (op === '+' && a.is === 'text' && b.is === 'text') return { is: 'text' };
    const timed = timeArithmetic(op, a, b);
    if (timed) return timed;
    for (const [type, sub] of [
      [a, left],
      [b, right],
    ] as const)
      if (type.is !== 'number' && type.is !== 'unknown')
        return this.report('formula.wrongType', sub.at, { wanted: 'number', found: type.is });
    if (a.is !== 'number' || b.is !== 'number') return { is: 'number', unit: 'any' };
    if (op === '+' || op === '-')
      return sameUnit(a.unit, b.unit)
        ? { is: 'number', unit: known(a.unit, b.unit) }
        : this.mismatch(a, b, right.at);
    if (op === '**') return { is: 'number', unit: 'any' };
    return { is: 'number', unit: product(a.unit, b.unit, op === '*' ? 1 : -1) };
  }

  private path(expr: Kind<'path'>): FeelType {
    const type = this.typeOf(expr.of);
    const several = type.is === 'list' || (type.is === 'places' && type.many);
    const found = fieldOf(type.is === 'list' ? type.item : type, expr.name);
    if (!found) return this.report('formula.unknownName', expr.at, { name: expr.name });
    return several && found.is !== 'places' ? { is: 'list', item: found } : found;
  }

  private filter(expr: Kind<'filter'>): FeelType {
    const type = this.typeOf(expr.list);
    const item = itemOf(type);
    const scope = insideOf(withLocal(this.scope, 'item', item).scope, item);
    const by = check(expr.by, scope, this.problems);
    if (type.is === 'places') {
      // A position must be known beforehand, since places are told apart when the formula is bound.
      const position = by.is === 'number' && !(expr.by.kind === 'literal' && expr.list.kind !== 'filter');
      if (!type.many) return this.report('formula.onlyBuild', expr.by.at);
      if (position) return this.report('formula.buildPosition', expr.by.at);
      return by.is === 'number' ? item : type;
    }
    if (by.is === 'number') return item;
    if (by.is !== 'yesno' && by.is !== 'unknown')
      return this.report('formula.wrongType', expr.by.at, { wanted: 'yesno', found: by.is });
    return { is: 'list', item };
  }

  private choice(expr: Kind<'if'>): FeelType {
    this.expect(expr.test, 'yesno');
    const [a, b] = [this.typeOf(expr.then), this.typeOf(expr.else)];
    return fits(a, b) ? join(a, b) : this.mismatch(a, b, expr.else.at);
  }

  private call({ name, args, at }: Kind<'call'>): FeelType {
    if (name === 'today' && args.length === 0)
      return this.scope.get('today')?.type ?? this.report('formula.unknownFunction', at, { name });
    if (name === 'count' && args[0] && this.typeOf(args[0]).is === 'places')
      return { is: 'number', unit: noUnit };
    const builtin = Object.hasOwn(builtins, name) ? builtins[name] : undefined;
    if (!builtin) return this.report('formula.unknownFunction', at, { name });
    const { least, most, takes } = builtin;
    if (args.length < least || args.length > most)
      return this.report('formula.argumentCount', at, { name, least, most });
    const types = args.map((arg, index) => {
      const wanted = takes[index];
      return wanted ? this.expect(arg, wanted) : this.typeOf(arg);
    });
    if (name === 'list contains' && types[0]?.is === 'list') this.slip(types[0].item, args[1] as Expr);
    return builtin.type(types);
  }
}

function literalType(value: Kind<'literal'>['value']): FeelType {
  if (value === null) return unknown;
  if (typeof value === 'string') return { is: 'text' };
  if (value instanceof Day) return { is: 'date' };
  if (value instanceof Span) return { is: 'duration' };
  return typeof value === 'boolean' ? yesno : { is: 'number', unit: 'any' };
}

/** What a type has under a name; undefined where it has nothing. */
function fieldOf(type: FeelType, name: string): FeelType | undefined {
  if (type.is === 'unknown') return unknown;
  if (type.is === 'places')
    return type.places.length === 0 ? unknown : type.places[0]?.fields.get(name)?.type;
  const { facts } = type.is === 'text' ? type : { facts: undefined };
  return facts?.told.get(name)?.type ?? facts?.options.get(name) ?? timeParts(type, name);
}

/**
 * The result of arithmetic with dates and durations; null where there is none in it or it is no such pair.
 */
function timeArithmetic(op: string, a: FeelType, b: FeelType): FeelType | null {
  const pair = `${a.is} ${op} ${b.is}`;
  if (pair === 'date - date') return { is: 'duration' };
  if (pair === 'duration / duration') return { is: 'number', unit: 'any' };
  if (['date + duration', 'date - duration', 'duration + date'].includes(pair)) return { is: 'date' };
  return [
    'duration + duration',
    'duration - duration',
    'duration * number',
    'number * duration',
    'duration / number',
  ].includes(pair)
    ? { is: 'duration' }
    : null;
}

const timed: Readonly<Record<string, readonly string[]>> = {
  date: ['year', 'month', 'day', 'weekday'],
  duration: ['years', 'months', 'days', 'hours', 'minutes', 'seconds'],
};
const timeParts = (type: FeelType, name: string): FeelType | undefined =>
  timed[type.is]?.includes(name) ? { is: 'number', unit: 'any' } : undefined;

/** The type of one item; of places, the first stands for all. */
export function itemOf(type: FeelType): FeelType {
  if (type.is === 'list') return type.item;
  return type.is === 'places' ? { is: 'places', places: type.places.slice(0, 1), many: false } : type;
}

/** The scope inside of a filter: the fields of an item may be named by themselves. */
export function insideOf(scope: Scope, item: FeelType): Scope {
  const fields = item.is === 'places' ? item.places[0]?.fields : undefined;
  return fields ? new Map([...scope, ...fields]) : scope;
}
