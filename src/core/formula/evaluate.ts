/** Exact evaluation: a checked expression becomes a closure over numbered slots. */
import { Exact } from '../exact';
import { builtins } from './builtins';
import { asList } from './builtins/builtin';
import { partsOf } from './parts';
import type { Expr, Iteration, Test } from './tree';
import { arithmetic, compareValues, equal, partOf, type Value } from './value';

/** Gives the value in a slot. */
export type Environment = (slot: number) => Value;
/** A formula made ready to be worked out. */
export type Evaluator = (env: Environment) => Value;

/**
 * Rounds that all loops of a formula may make together, and items that lists and characters that texts may
 * grow to; beyond it the formula gives null.
 */
const mostRounds = 10_000;
const mostGrown = 100_000;

/** What is thrown where a formula takes more than it may; nobody else sees it. */
const tooMuch = new Error('more than a formula may take');
let roundsLeft = mostRounds;

function round(): void {
  if (--roundsLeft < 0) throw tooMuch;
}

/**
 * Compiles a bound expression. Division by zero, wrong kinds and overflow give null, as in the standard; so
 * does what takes more than it may.
 */
export function compile(expr: Expr): Evaluator {
  const run = part(expr);
  if (!mayTakeMuch(expr)) return run;
  return (env) => {
    const before = roundsLeft;
    roundsLeft = mostRounds;
    try {
      return run(env);
    } catch (thrown) {
      if (thrown !== tooMuch) throw thrown;
      return null;
    } finally {
      roundsLeft = before;
    }
  };
}

/**
 * Whether anything in an expression can take long or grow: loops, filters, and functions that put lists or
 * texts together.
 */
function mayTakeMuch(expr: Expr): boolean {
  if (expr.kind === 'for' || expr.kind === 'quantified' || expr.kind === 'filter' || expr.kind === 'call')
    return true;
  return partsOf(expr).some(mayTakeMuch);
}

function part(expr: Expr): Evaluator {
  const sub = part;
  switch (expr.kind) {
    case 'literal': {
      const { value } = expr;
      return () => value;
    }
    case 'name': {
      const { slot } = expr;
      if (slot === undefined) throw new Error(`unbound name ${expr.name}`);
      return (env) => env(slot);
    }
    case 'negate': {
      const of = sub(expr.of);
      return (env) => {
        const value = of(env);
        return value instanceof Exact ? value.negated() : null;
      };
    }
    case 'arithmetic': {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => {
        const value = arithmetic(op, left(env), right(env));
        return typeof value === 'string' && value.length > mostGrown ? null : value;
      };
    }
    case 'compare': {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => compareValues(op, left(env), right(env));
    }
    case 'logic': {
      const [left, right] = [sub(expr.left), sub(expr.right)];
      return expr.op === 'and'
        ? (env) => and(left(env), () => right(env))
        : (env) => or(left(env), () => right(env));
    }
    case 'in': {
      const value = sub(expr.value);
      const tests = expr.tests.map(compileTest);
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
      return (env) => grown(builtin.apply(args.map((arg) => arg(env))));
    }
    case 'path': {
      const [of, { name }] = [sub(expr.of), expr];
      return (env) => partOf(of(env), name);
    }
    case 'filter':
      return filter(expr.list, expr.by, expr.slot as number);
    case 'quantified': {
      const { every } = expr;
      return iterated(expr.over, expr.test, (found) => {
        if (found.includes(!every)) return !every;
        return found.every((each) => typeof each === 'boolean') ? every : null;
      });
    }
    case 'for':
      return iterated(expr.over, expr.body, (found) => found);
    case 'pick': {
      const of = sub(expr.of);
      const cases = new Map(expr.cases.map(([name, value]) => [name, sub(value)]));
      return (env) => {
        const name = of(env);
        return (typeof name === 'string' ? cases.get(name)?.(env) : undefined) ?? null;
      };
    }
    case 'gather': {
      const items = expr.items.map(({ when, value }) => ({ when: sub(when), value: sub(value) }));
      return (env) => items.flatMap(({ when, value }) => (when(env) === true ? [value(env)] : []));
    }
  }
}

/** A value, where it has not grown beyond what a formula may hold. */
function grown(value: Value): Value {
  if ((typeof value === 'string' || Array.isArray(value)) && value.length > mostGrown) throw tooMuch;
  return value;
}

function filter(list: Expr, by: Expr, own: number): Evaluator {
  const items = part(list);
  const test = part(by);
  return (env) => {
    const all = asList(items(env)) ?? [];
    const at = test((slot) => (slot === own ? (all[0] ?? null) : env(slot)));
    // A number is a position: from 1, or from the end below zero.
    if (at instanceof Exact)
      return at.isInteger() ? (all[at.lt(0) ? all.length + at.toNumber() : at.toNumber() - 1] ?? null) : null;
    return all.filter((item) => {
      round();
      return test((slot) => (slot === own ? item : env(slot))) === true;
    });
  };
}

/** Works out a body for every combination of items, the last name changing fastest. */
function iterated(over: readonly Iteration[], body: Expr, gather: (found: Value[]) => Value): Evaluator {
  const loops = over.map(({ slot, list, to }) => {
    const [from, until] = [part(list), to && part(to)];
    return {
      slot,
      items: (env: Environment): Value[] | null =>
        until ? counted(from(env), until(env)) : asList(from(env)),
    };
  });
  const result = part(body);
  return (env) => {
    const found: Value[] = [];
    const visit = (depth: number, at: Environment): boolean => {
      const loop = loops[depth];
      if (!loop) {
        round();
        return found.push(result(at)) > 0;
      }
      const items = loop.items(at);
      // Going through nothing again and again takes its time, too.
      if (items?.length === 0) round();
      return (
        items?.every((item) => visit(depth + 1, (slot) => (slot === loop.slot ? item : at(slot)))) ?? false
      );
    };
    return visit(0, env) ? gather(found) : null;
  };
}

function counted(from: Value, to: Value): Value[] | null {
  if (!(from instanceof Exact) || !(to instanceof Exact) || !from.isInteger() || !to.isInteger()) return null;
  const count = to.minus(from).abs().toNumber() + 1;
  if (count > mostRounds) throw tooMuch;
  const step = to.lt(from) ? -1 : 1;
  return Array.from({ length: count }, (_, index) => from.plus(step * index));
}

function compileTest(test: Test): (value: Value, env: Environment) => Value {
  if (test.kind === 'interval') {
    const [low, high] = [part(test.low), part(test.high)];
    const [above, below] = [test.lowOpen ? '>' : '>=', test.highOpen ? '<' : '<='] as const;
    return (value, env) =>
      and(compareValues(above, value, low(env)), () => compareValues(below, value, high(env)));
  }
  const expr = part(test.expr);
  if (test.kind === 'compare') return (value, env) => compareValues(test.op, value, expr(env));
  return (value, env) => {
    const other = expr(env);
    return Array.isArray(other) && !Array.isArray(value)
      ? other.some((each) => equal(each, value) === true)
      : equal(value, other);
  };
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
