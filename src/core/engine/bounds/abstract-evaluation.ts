/**
 * What a formula can still come to while its names have several values left. What it comes to exactly, for
 * every choice of what is left, is foretold.
 */
import { Exact } from '../../exact';
import { namesIn, Span, type Expr, type Test } from '../../formula';
import {
  anyNumber,
  anything,
  arithmetic,
  both,
  compare,
  either,
  hasDay,
  hasNumber,
  hasText,
  justNone,
  later,
  listOf,
  abstractOf,
  member,
  nothing,
  number,
  onlyNumber,
  same,
  truth,
  union,
  type Item,
  type AbstractValue,
} from './abstract-values';

/** What each name can still be, by its place. */
export type AbstractEnv = (slot: number) => AbstractValue;
/** What a formula can still come to, from what is known of its names. */
export type AbstractFormula = (env: AbstractEnv) => AbstractValue;

/** Compiles an expression to its abstract value, over those of its names. */
export function evaluateAbstract(expr: Expr): AbstractFormula {
  const sub = evaluateAbstract;
  switch (expr.kind) {
    case 'literal': {
      const fixed = abstractOf(expr.value);
      return () => fixed;
    }
    case 'name': {
      const { slot = -1 } = expr;
      return (env) => env(slot);
    }
    case 'negate': {
      const of = sub(expr.of);
      return (env) => {
        const a = of(env);
        const { exact } = a;
        return number(-a.high, -a.low, !onlyNumber(a), exact && (() => exact()?.negated() ?? null));
      };
    }
    case 'arithmetic': {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      const span =
        expr.right.kind === 'literal' && expr.right.value instanceof Span ? expr.right.value : null;
      if (span && (op === '+' || op === '-')) return (env) => later(left(env), span, op === '+' ? 1 : -1);
      return (env) => arithmetic(op, left(env), right(env));
    }
    case 'compare': {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => compare(op, left(env), right(env));
    }
    case 'logic': {
      const [left, right] = [sub(expr.left), sub(expr.right)];
      return expr.op === 'and'
        ? (env) => both(left(env), () => right(env))
        : (env) => either(left(env), () => right(env));
    }
    case 'in': {
      const value = sub(expr.value);
      const tests = expr.tests.map(lookTest);
      return (env) => {
        const a = value(env);
        let sum = truth(false, true, false);
        for (const test of tests) sum = either(sum, () => test(a, env));
        return sum;
      };
    }
    case 'if': {
      const [test, then, otherwise] = [sub(expr.test), sub(expr.then), sub(expr.else)];
      return (env) => {
        const t = test(env);
        const maybeNot = t.no || t.none;
        return t.yes ? (maybeNot ? union(then(env), otherwise(env)) : then(env)) : otherwise(env);
      };
    }
    case 'list': {
      const items = expr.items.map(sub);
      return (env) => listOf(items.map((item) => ({ look: item(env), surely: true })));
    }
    case 'pick':
      return pick(expr.of, expr.cases);
    case 'gather': {
      const items = gathered(expr.items);
      return (env) => listOf(items(env));
    }
    case 'call':
      return call(expr.name, expr.args);
    case 'path':
    case 'filter':
    case 'quantified':
    case 'for':
      return unforeseen(expr);
  }
}

/** The items of a gathered list, those left out that surely are not in it. */
function gathered(items: readonly { when: Expr; value: Expr }[]): (env: AbstractEnv) => Item[] {
  const looks = items.map(({ when, value }) => ({
    when: evaluateAbstract(when),
    value: evaluateAbstract(value),
  }));
  return (env) =>
    looks.flatMap(({ when, value }) => {
      const { yes, no, none } = when(env);
      return yes ? [{ look: value(env), surely: !no && !none }] : [];
    });
}

function pick(of: Expr, cases: readonly (readonly [string, Expr])[]): AbstractFormula {
  const text = evaluateAbstract(of);
  const values = new Map(cases.map(([name, value]) => [name, evaluateAbstract(value)]));
  const plain = cases.every(([, value]) => value.kind === 'literal');
  const known = new Map<string, AbstractValue>();
  const made = (env: AbstractEnv, texts: readonly string[]): AbstractValue =>
    texts.map((name) => values.get(name)?.(env) ?? justNone).reduce(union, nothing);
  return (env) => {
    const seen = text(env);
    if (seen.texts === 'any') return [...values.values()].map((value) => value(env)).reduce(union, justNone);
    const key = seen.texts.join();
    const found = (plain ? known.get(key) : undefined) ?? made(env, seen.texts);
    if (plain && known.size < 1_000) known.set(key, found);
    const other = seen.none || seen.yes || seen.no || hasNumber(seen) || hasDay(seen) || seen.list !== null;
    return other ? union(found, justNone) : found;
  };
}

/** Nothing is foretold, but whatever it reads is read. */
function unforeseen(expr: Expr): AbstractFormula {
  const slots = [...namesIn(expr).values()];
  return (env) => {
    for (const slot of slots) env(slot);
    return anything;
  };
}

function call(name: string, args: readonly Expr[]): AbstractFormula {
  const looks = args.map(evaluateAbstract);
  const [first = () => anything, second] = looks;
  /** Rounded to whole numbers by `apply`; with places given, at most one unit of the last place away. */
  const rounding = (apply: ((value: number) => number) | null): AbstractFormula => {
    const places =
      args[1] === undefined
        ? 0
        : args[1].kind === 'literal' && args[1].value instanceof Exact
          ? args[1].value.toNumber()
          : null;
    return (env) => {
      const a = first(env);
      second?.(env);
      if (places === null) return anyNumber;
      const unit = 10 ** -places;
      return {
        ...nothing,
        none: !onlyNumber(a),
        low: apply && places === 0 ? apply(a.low) : a.low - unit,
        high: apply && places === 0 ? apply(a.high) : a.high + unit,
      };
    };
  };
  const only = args.length === 1 ? args[0] : undefined;
  const given = only?.kind === 'list' ? only.items.map(evaluateAbstract) : looks;
  const items =
    only?.kind === 'gather'
      ? gathered(only.items)
      : (env: AbstractEnv): Item[] => given.map((item) => ({ look: item(env), surely: true }));
  /** What stands for an item that may be missing, so that the result is no higher, or no lower, by it. */
  const fold =
    (apply: (values: number[]) => number, missing: { low: number; high: number }): AbstractFormula =>
    (env) => {
      const all = items(env);
      if (all.length === 0) return justNone;
      if (
        !all.every(({ look: each }) => hasNumber(each) || each.none) ||
        all.some(({ look: each }) => each.list !== null)
      )
        return anyNumber;
      if (!all.every(({ look: each, surely }) => hasNumber(each) || !surely)) return justNone;
      const lows = all.map(({ look: each, surely }) => (surely ? each.low : Math.min(each.low, missing.low)));
      const highs = all.map(({ look: each, surely }) =>
        surely ? each.high : Math.max(each.high, missing.high),
      );
      const none = !all.every(({ look: each }) => onlyNumber(each)) || !all.some((each) => each.surely);
      return number(apply(lows), apply(highs), none);
    };
  switch (name) {
    case 'not':
      return (env) => {
        const a = first(env);
        return truth(a.no, a.yes, a.none || hasNumber(a) || hasDay(a) || hasText(a) || a.list !== null);
      };
    case 'ceiling':
      return rounding(Math.ceil);
    case 'floor':
      return rounding(Math.floor);
    case 'decimal':
    case 'round up':
    case 'round down':
    case 'round half up':
    case 'round half down':
      return rounding(null);
    case 'abs':
      return (env) => {
        const a = first(env);
        if (!hasNumber(a)) return justNone;
        const low = a.low <= 0 && a.high >= 0 ? 0 : Math.min(Math.abs(a.low), Math.abs(a.high));
        return number(low, Math.max(Math.abs(a.low), Math.abs(a.high)), !onlyNumber(a));
      };
    case 'min':
      return fold((values) => Math.min(...values), { low: Infinity, high: Infinity });
    case 'max':
      return fold((values) => Math.max(...values), { low: -Infinity, high: -Infinity });
    case 'sum':
      return fold((values) => values.reduce((a, b) => a + b, 0), { low: 0, high: 0 });
    case 'count':
      if (only?.kind === 'gather') {
        return (env) => {
          const all = items(env);
          return { ...nothing, low: all.filter((each) => each.surely).length, high: all.length };
        };
      }
      return (env) => {
        const { list } = first(env);
        return list && list !== 'any' ? { ...nothing, low: list.must.size, high: list.may.size } : anyNumber;
      };
    case 'list contains':
      return second ? (env) => member(second(env), first(env)) : () => anything;
    default:
      return (env) => {
        for (const each of looks) each(env);
        return anything;
      };
  }
}

function lookTest(test: Test): (value: AbstractValue, env: AbstractEnv) => AbstractValue {
  if (test.kind === 'interval') {
    const [low, high] = [evaluateAbstract(test.low), evaluateAbstract(test.high)];
    return (value, env) =>
      both(compare(test.lowOpen ? '>' : '>=', value, low(env)), () =>
        compare(test.highOpen ? '<' : '<=', value, high(env)),
      );
  }
  const expr = evaluateAbstract(test.expr);
  if (test.kind === 'compare') return (value, env) => compare(test.op, value, expr(env));
  return (value, env) => {
    const other = expr(env);
    return other.list !== null && value.list === null ? member(value, other) : same(value, other);
  };
}
