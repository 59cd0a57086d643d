/**
 * Formulas and conditions in FEEL: parsed, type-checked with units, compiled to exact evaluation.
 * A formula is compiled once against a scope of named slots and then run against an environment that fills them.
 */
import { check } from './check';
import { compile, type Evaluator } from './evaluate';
import type { FormulaProblem } from './problem';
import { parse, parseCell, SyntaxFailure, type Expr } from './syntax';
import { fits, type FeelType, type Scope } from './types';
import { writeUnit } from './units';

export type { Environment, Evaluator } from './evaluate';
export { Day, Span } from './time';
export { compareValues, equal, type Value } from './value';
export type { FormulaProblem } from './problem';
export type { Arithmetic, Comparison, Expr, Iteration, Test } from './syntax';
export type { Binding, FeelType, Scope } from './types';
export { compile as compileExpr } from './evaluate';
export { noUnit, readUnit } from './units';

export interface Formula {
  source: string;
  expr: Expr;
  type: FeelType;
  /** Names used, in order of first use. */
  names: readonly string[];
  /** Exact value in an environment; null where the standard says null. */
  run: Evaluator;
}

export type Compiled = { ok: true; formula: Formula } | { ok: false; problems: FormulaProblem[] };

/** Compiles FEEL text; `wanted` is the type the place asks for. All problems are listed, each with its position. */
export function compileFormula(source: string, scope: Scope, wanted?: FeelType): Compiled {
  return compileParsed(source, () => parse(source), scope, wanted);
}

/** Compiles a table cell: the standard's unary tests, applied to a named value. */
export function compileCell(name: string, cell: string, scope: Scope): Compiled {
  return compileParsed(cell, () => parseCell(name, cell), scope, { is: 'yesno' });
}

function compileParsed(source: string, parsed: () => Expr, scope: Scope, wanted: FeelType | undefined): Compiled {
  let expr: Expr;
  try {
    expr = parsed();
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return { ok: false, problems: [failure.problem] };
    throw failure;
  }
  const problems: FormulaProblem[] = [];
  const type = check(expr, scope, problems);
  if (problems.length === 0 && wanted && !fits(type, wanted)) {
    const params = { wanted: describeType(wanted), found: describeType(type) };
    problems.push({ code: 'formula.resultType', at: 0, params });
  }
  if (problems.length > 0) return { ok: false, problems };
  return { ok: true, formula: { source, expr, type, names: [...namesIn(expr)], run: compile(expr, scope) } };
}

function describeType(type: FeelType): string {
  return type.is === 'number' && type.unit !== 'any' ? `number [${writeUnit(type.unit)}]` : type.is;
}

/** The names an expression reads. */
export function namesIn(expr: Expr, found = new Set<string>()): Set<string> {
  switch (expr.kind) {
    case 'literal':
      break;
    case 'name':
      found.add(expr.name);
      break;
    case 'negate':
      namesIn(expr.of, found);
      break;
    case 'arithmetic':
    case 'compare':
    case 'logic':
      namesIn(expr.left, found);
      namesIn(expr.right, found);
      break;
    case 'if':
      for (const part of [expr.test, expr.then, expr.else]) namesIn(part, found);
      break;
    case 'list':
      for (const item of expr.items) namesIn(item, found);
      break;
    case 'call':
      for (const arg of expr.args) namesIn(arg, found);
      break;
    case 'path':
      namesIn(expr.of, found);
      break;
    case 'filter':
      namesIn(expr.list, found);
      addFree(expr.by, ['item'], found);
      break;
    case 'quantified':
    case 'for': {
      const own: string[] = [];
      for (const { name, list, to } of expr.over) {
        addFree(list, own, found);
        if (to) addFree(to, own, found);
        own.push(name);
      }
      addFree(expr.kind === 'for' ? expr.body : expr.test, own, found);
      break;
    }
    case 'in':
      namesIn(expr.value, found);
      for (const test of expr.tests) {
        for (const part of test.kind === 'interval' ? [test.low, test.high] : [test.expr]) namesIn(part, found);
      }
  }
  return found;
}

/** Adds the names of a part of an expression, but for those local to it. */
function addFree(expr: Expr, local: readonly string[], found: Set<string>): void {
  for (const name of namesIn(expr)) if (!local.includes(name)) found.add(name);
}
