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
export function check(expr: Expr, scope: Scope, problems: FormulaProblem[]): FeelType {
  const report = (
    code: FormulaProblem['code'],
    at: number,
    params: FormulaProblem['params'] = {},
  ): FeelType => {
    problems.push({ code, at, params });
    return unknown;
  };
  const of = (sub: Expr) => check(sub, scope, problems);
  const expect = (sub: Expr, is: FeelType['is']): FeelType => {
    const type = of(sub);
    return type.is === is || type.is === 'unknown'
      ? type
      : report('formula.wrongType', sub.at, { wanted: is, found: type.is });
  };
  /** Both sides must be comparable; a literal text must be one of the options it is compared with. */
  const alike = (left: Expr, right: Expr): FeelType => {
    const [a, b] = [of(left), of(right)];
    if (!fits(a, b)) return mismatch(a, b, right.at);
    slip(a, right);
    slip(b, left);
    return join(a, b);
  };
  const mismatch = (a: FeelType, b: FeelType, at: number): FeelType =>
    a.is === 'number' && b.is === 'number'
      ? report('formula.unitMismatch', at, { left: writeUnit(a.unit), right: writeUnit(b.unit) })
      : report('formula.wrongType', at, { wanted: a.is, found: b.is });
  const slip = (type: FeelType, literal: Expr): void => {
    if (
      type.is === 'text' &&
      type.of &&
      literal.kind === 'literal' &&
      typeof literal.value === 'string' &&
      !type.of.has(literal.value)
    ) {
      report('formula.unknownOption', literal.at, {
        option: literal.value,
        allowed: [...type.of].join(', '),
      });
    }
  };
  const test = (value: Expr, one: Test): void => {
    if (one.kind === 'interval') {
      alike(value, one.low);
      alike(value, one.high);
      return;
    }
    const [type, other] = [of(value), of(one.expr)];
    const against = other.is === 'list' && one.kind === 'equals' && type.is !== 'list' ? other.item : other;
    if (!fits(type, against)) mismatch(type, against, one.expr.at);
    slip(type, one.expr);
    slip(against, value);
  };

  /** The scope inside of a loop: each name may be used by the next. */
  const iterations = (over: readonly Iteration[]): Scope =>
    over.reduce<Scope>((inner, { name, list, to }) => {
      const type = check(list, inner, problems);
      if (!to) return withLocal(inner, name, itemOf(type)).scope;
      for (const [end, found] of [
        [list, type],
        [to, check(to, inner, problems)],
      ] as const) {
        if (found.is !== 'number' && found.is !== 'unknown')
          report('formula.wrongType', end.at, { wanted: 'number', found: found.is });
      }
      return withLocal(inner, name, type).scope;
    }, scope);

  const field = (type: FeelType, name: string): FeelType | undefined => {
    if (type.is === 'unknown') return unknown;
    if (type.is === 'places')
      return type.places.length === 0 ? unknown : type.places[0]?.fields.get(name)?.type;
    const { facts } = type.is === 'text' ? type : { facts: undefined };
    const number = facts?.numbers.get(name);
    return number ? { is: 'number', unit: number.unit } : (facts?.options.get(name) ?? timeParts(type, name));
  };

  switch (expr.kind) {
    case 'literal': {
      const { value } = expr;
      if (value === null) return unknown;
      if (typeof value === 'string') return { is: 'text' };
      if (value instanceof Day) return { is: 'date' };
      if (value instanceof Span) return { is: 'duration' };
      return typeof value === 'boolean' ? yesno : { is: 'number', unit: 'any' };
    }
    case 'name':
      return scope.get(expr.name)?.type ?? report('formula.unknownName', expr.at, { name: expr.name });
    case 'negate':
      return expect(expr.of, 'number');
    case 'arithmetic': {
      const [a, b] = [of(expr.left), of(expr.right)];
      if (expr.op === '+' && a.is === 'text' && b.is === 'text') return { is: 'text' };
      const timed = timeArithmetic(expr.op, a, b);
      if (timed) return timed;
      for (const [type, sub] of [
        [a, expr.left],
        [b, expr.right],
      ] as const) {
        if (type.is !== 'number' && type.is !== 'unknown')
          return report('formula.wrongType', sub.at, { wanted: 'number', found: type.is });
      }
      if (a.is !== 'number' || b.is !== 'number') return { is: 'number', unit: 'any' };
      if (expr.op === '+' || expr.op === '-')
        return sameUnit(a.unit, b.unit)
          ? { is: 'number', unit: known(a.unit, b.unit) }
          : mismatch(a, b, expr.right.at);
      if (expr.op === '**') return { is: 'number', unit: 'any' };
      return { is: 'number', unit: product(a.unit, b.unit, expr.op === '*' ? 1 : -1) };
    }
    case 'path': {
      const type = of(expr.of);
      const several = type.is === 'list' || (type.is === 'places' && type.many);
      const found = field(type.is === 'list' ? type.item : type, expr.name);
      if (!found) return report('formula.unknownName', expr.at, { name: expr.name });
      return several && found.is !== 'places' ? { is: 'list', item: found } : found;
    }
    case 'filter': {
      const type = of(expr.list);
      const item = itemOf(type);
      const by = check(expr.by, insideOf(withLocal(scope, 'item', item).scope, item), problems);
      if (type.is === 'places') {
        // A position must be known beforehand, since places are told apart when the formula is bound.
        const position = by.is === 'number' && !(expr.by.kind === 'literal' && expr.list.kind !== 'filter');
        if (!type.many) return report('formula.onlyBuild', expr.by.at);
        if (position) return report('formula.buildPosition', expr.by.at);
        return by.is === 'number' ? item : type;
      }
      if (by.is === 'number') return item;
      if (by.is !== 'yesno' && by.is !== 'unknown')
        return report('formula.wrongType', expr.by.at, { wanted: 'yesno', found: by.is });
      return { is: 'list', item };
    }
    case 'quantified':
    case 'for': {
      const inner = iterations(expr.over);
      if (expr.kind === 'for') return { is: 'list', item: check(expr.body, inner, problems) };
      const type = check(expr.test, inner, problems);
      return type.is === 'yesno' || type.is === 'unknown'
        ? yesno
        : report('formula.wrongType', expr.test.at, { wanted: 'yesno', found: type.is });
    }
    case 'compare':
      alike(expr.left, expr.right);
      return yesno;
    case 'logic':
      expect(expr.left, 'yesno');
      expect(expr.right, 'yesno');
      return yesno;
    case 'in':
      for (const one of expr.tests) test(expr.value, one);
      return yesno;
    case 'if': {
      expect(expr.test, 'yesno');
      const [a, b] = [of(expr.then), of(expr.else)];
      return fits(a, b) ? join(a, b) : mismatch(a, b, expr.else.at);
    }
    case 'list':
      return {
        is: 'list',
        item: expr.items
          .map(of)
          .reduce((all, each) => (fits(all, each) ? join(all, each) : unknown), unknown),
      };
    case 'pick':
    case 'gather':
      return unknown;
    case 'call': {
      if (expr.name === 'today' && expr.args.length === 0)
        return scope.get('today')?.type ?? report('formula.unknownFunction', expr.at, { name: expr.name });
      if (expr.name === 'count' && expr.args[0] && of(expr.args[0]).is === 'places')
        return { is: 'number', unit: noUnit };
      const builtin = Object.hasOwn(builtins, expr.name) ? builtins[expr.name] : undefined;
      if (!builtin) return report('formula.unknownFunction', expr.at, { name: expr.name });
      if (expr.args.length < builtin.least || expr.args.length > builtin.most) {
        return report('formula.argumentCount', expr.at, {
          name: expr.name,
          least: builtin.least,
          most: builtin.most,
        });
      }
      const types = expr.args.map((arg, index) => {
        const wanted = builtin.takes[index];
        return wanted ? expect(arg, wanted) : of(arg);
      });
      if (expr.name === 'list contains' && types[0]?.is === 'list') slip(types[0].item, expr.args[1] as Expr);
      return builtin.type(types);
    }
  }
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
