/** Exact evaluation: a checked expression becomes a closure over numbered slots. */
import { Exact } from '../exact';
import { builtins, equal } from './builtins';
import type { Comparison, Expr, Test } from './syntax';
import type { Scope } from './types';

/** A value in a formula. Null is the standard's null: absent, or not computable. */
export type Value = Exact | string | boolean | null | Value[];

/** Gives the value in a slot. */
export type Environment = (slot: number) => Value;
export type Evaluator = (env: Environment) => Value;

/** Compiles a checked expression. Division by zero, wrong kinds and overflow give null, as in the standard. */
export function compile(expr: Expr, scope: Scope): Evaluator {
  const sub = (each: Expr) => compile(each, scope);
  switch (expr.kind) {
    case 'literal': {
      const { value } = expr;
      return () => value;
    }
    case 'name': {
      const slot = scope.get(expr.name)?.slot;
      if (slot === undefined) throw new Error(`unchecked name ${expr.name}`);
      return (env) => env(slot);
    }
    case 'negate': {
      const of = sub(expr.of);
      return (env) => {
        const value = of(env);
        return value instanceof Exact ? (value.negated() as Exact) : null;
      };
    }
    case 'arithmetic': {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => arithmetic(op, left(env), right(env));
    }
    case 'compare': {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => compareValues(op, left(env), right(env));
    }
    case 'logic': {
      const [left, right] = [sub(expr.left), sub(expr.right)];
      return expr.op === 'and' ? (env) => and(left(env), () => right(env)) : (env) => or(left(env), () => right(env));
    }
    case 'in': {
      const value = sub(expr.value);
      const tests = expr.tests.map((test) => compileTest(test, scope));
      return (env) => {
        const found = value(env);
        return tests.reduce<Value>((known, test) => or(known, () => test(found, env)), false);
      };
    }
    case 'if': {
      const [test, then, otherwise] = [sub(expr.test), sub(expr.then), sub(expr.else)];
      return (env) => (test(env) === true ? then(env) : otherwise(env));
    }
    case 'list': {
      const items = expr.items.map(sub);
      return (env) => items.map((item) => item(env));
    }
    case 'call': {
      const builtin = builtins[expr.name];
      if (!builtin) throw new Error(`unchecked function ${expr.name}`);
      const args = expr.args.map(sub);
      return (env) => builtin.apply(args.map((arg) => arg(env)));
    }
  }
}

function compileTest(test: Test, scope: Scope): (value: Value, env: Environment) => Value {
  if (test.kind === 'interval') {
    const [low, high] = [compile(test.low, scope), compile(test.high, scope)];
    const [above, below] = [test.lowOpen ? '>' : '>=', test.highOpen ? '<' : '<='] as const;
    return (value, env) => and(compareValues(above, value, low(env)), () => compareValues(below, value, high(env)));
  }
  const expr = compile(test.expr, scope);
  if (test.kind === 'compare') return (value, env) => compareValues(test.op, value, expr(env));
  return (value, env) => {
    const other = expr(env);
    return Array.isArray(other) && !Array.isArray(value) ? other.some((each) => equal(each, value) === true) : equal(value, other);
  };
}

function arithmetic(op: string, a: Value, b: Value): Value {
  if (op === '+' && typeof a === 'string' && typeof b === 'string') return a + b;
  if (!(a instanceof Exact) || !(b instanceof Exact)) return null;
  const result = op === '+' ? a.plus(b) : op === '-' ? a.minus(b) : op === '*' ? a.times(b) : op === '/' ? a.div(b) : a.pow(b);
  return result.isFinite() ? (result as Exact) : null;
}

/** Comparison as the standard has it: equality over any kinds, order over numbers and texts, else null. */
export function compareValues(op: Comparison, a: Value, b: Value): boolean | null {
  if (op === '=') return equal(a, b);
  if (op === '!=') {
    const same = equal(a, b);
    return same === null ? null : !same;
  }
  let order: number;
  if (a instanceof Exact && b instanceof Exact) order = a.comparedTo(b);
  else if (typeof a === 'string' && typeof b === 'string') order = a < b ? -1 : a > b ? 1 : 0;
  else return null;
  return op === '<' ? order < 0 : op === '<=' ? order <= 0 : op === '>' ? order > 0 : order >= 0;
}

const truth = (value: Value): boolean | null => (typeof value === 'boolean' ? value : null);

function and(left: Value, right: () => Value): boolean | null {
  const a = truth(left);
  if (a === false) return false;
  const b = truth(right());
  return b === false ? false : a === null || b === null ? null : true;
}

function or(left: Value, right: () => Value): boolean | null {
  const a = truth(left);
  if (a === true) return true;
  const b = truth(right());
  return b === true ? true : a === null || b === null ? null : false;
}
