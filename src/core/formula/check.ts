/** Types and units of a formula, before it ever runs. */
import { builtins } from './builtins';
import type { FormulaProblem } from './problem';
import type { Expr, Test } from './syntax';
import { fits, join, type FeelType, type Scope } from './types';
import { known, product, sameUnit, writeUnit } from './units';

const yesno: FeelType = { is: 'yesno' };
const unknown: FeelType = { is: 'unknown' };

/** Finds the type of an expression; everything wrong on the way is added to `problems`. */
export function check(expr: Expr, scope: Scope, problems: FormulaProblem[]): FeelType {
  const report = (code: FormulaProblem['code'], at: number, params: FormulaProblem['params'] = {}): FeelType => {
    problems.push({ code, at, params });
    return unknown;
  };
  const of = (sub: Expr) => check(sub, scope, problems);
  const expect = (sub: Expr, is: FeelType['is']): FeelType => {
    const type = of(sub);
    return type.is === is || type.is === 'unknown' ? type : report('formula.wrongType', sub.at, { wanted: is, found: type.is });
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
    if (type.is === 'text' && type.of && literal.kind === 'literal' && typeof literal.value === 'string' && !type.of.has(literal.value)) {
      report('formula.unknownOption', literal.at, { option: literal.value, allowed: [...type.of].join(', ') });
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

  switch (expr.kind) {
    case 'literal': {
      const { value } = expr;
      if (value === null) return unknown;
      if (typeof value === 'string') return { is: 'text' };
      return typeof value === 'boolean' ? yesno : { is: 'number', unit: 'any' };
    }
    case 'name':
      return scope.get(expr.name)?.type ?? report('formula.unknownName', expr.at, { name: expr.name });
    case 'negate':
      return expect(expr.of, 'number');
    case 'arithmetic': {
      const [a, b] = [of(expr.left), of(expr.right)];
      if (expr.op === '+' && a.is === 'text' && b.is === 'text') return { is: 'text' };
      for (const [type, sub] of [[a, expr.left], [b, expr.right]] as const) {
        if (type.is !== 'number' && type.is !== 'unknown') return report('formula.wrongType', sub.at, { wanted: 'number', found: type.is });
      }
      if (a.is !== 'number' || b.is !== 'number') return { is: 'number', unit: 'any' };
      if (expr.op === '+' || expr.op === '-') return sameUnit(a.unit, b.unit) ? { is: 'number', unit: known(a.unit, b.unit) } : mismatch(a, b, expr.right.at);
      if (expr.op === '**') return { is: 'number', unit: 'any' };
      return { is: 'number', unit: product(a.unit, b.unit, expr.op === '*' ? 1 : -1) };
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
      return { is: 'list', item: expr.items.map(of).reduce((all, each) => (fits(all, each) ? join(all, each) : unknown), unknown) };
    case 'call': {
      const builtin = Object.hasOwn(builtins, expr.name) ? builtins[expr.name] : undefined;
      if (!builtin) return report('formula.unknownFunction', expr.at, { name: expr.name });
      if (expr.args.length < builtin.least || expr.args.length > builtin.most) {
        return report('formula.argumentCount', expr.at, { name: expr.name, least: builtin.least, most: builtin.most });
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
