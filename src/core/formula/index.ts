/**
 * Formulas and conditions in FEEL: parsed, type-checked with units, compiled to exact evaluation.
 * A formula is compiled once against a scope of named slots and then run against an environment that fills
 * them.
 */
import { bind } from './bind';
import { check } from './check';
import { compile, type Evaluator } from './evaluate';
import type { FormulaProblem } from './problem';
import { partsOf } from './parts';
import { beforeCell, parse, parseCell, SyntaxFailure } from './syntax';
import type { Expr } from './tree';
import { fits, type FeelType, type Scope } from './types';
import { writeUnit } from './units';

export type { Environment, Evaluator } from './evaluate';
export { Day, Span } from './time';
export { arithmetic, compareValues, type Value } from './value';
export type { FormulaProblem } from './problem';
export type { Arithmetic, Comparison, Expr, Test } from './tree';
export type { Binding, Facts, FeelType, Place, Scope, Told } from './types';
export { compile as compileExpr } from './evaluate';
export { mentionsIn, mentionsInCell, ownNamesIn, type Mention } from './mentions';
export { words as feelWords } from './plain';
export { proposalsAt, type FormulaProposal, type Proposals } from './proposals';
export { noUnit, readUnit, writeUnit } from './units';
export { written } from './write';

/** A formula that was read, typed and bound. */
export interface Formula {
  source: string;
  expr: Expr;
  type: FeelType;
  /** The expression over slots alone is `expr`; these are the names it reads, in order of first use. */
  names: readonly string[];
  /** Exact value in an environment; null where the standard says null. */
  run: Evaluator;
}

/** A formula, or what is wrong with its text. */
export type Compiled = { ok: true; formula: Formula } | { ok: false; problems: FormulaProblem[] };

/**
 * Compiles FEEL text; `wanted` is the type the place asks for. All problems are listed, each with its
 * position.
 */
export function compileFormula(source: string, scope: Scope, wanted?: FeelType): Compiled {
  return compileParsed(source, () => parse(source), scope, wanted);
}

/** Compiles a table cell: the standard's unary tests, applied to a named value. Places are those in the cell. */
export function compileCell(name: string, cell: string, scope: Scope): Compiled {
  const compiled = compileParsed(cell, () => parseCell(name, cell), scope, { is: 'yesno' });
  if (compiled.ok) return compiled;
  const before = beforeCell(name, cell);
  return {
    ok: false,
    problems: compiled.problems.map((problem) => ({ ...problem, at: Math.max(0, problem.at - before) })),
  };
}

/** The tree of a formula as it stands, unchecked; null where it cannot be read. */
export function parsed(source: string): Expr | null {
  try {
    return parse(source);
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return null;
    throw failure;
  }
}

/** Whether a text reads as a table cell; what it names is not looked at. */
export function parsesAsCell(cell: string): boolean {
  try {
    parseCell('row', cell);
    return true;
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return false;
    throw failure;
  }
}

function compileParsed(
  source: string,
  parsed: () => Expr,
  scope: Scope,
  wanted: FeelType | undefined,
): Compiled {
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
  return bound(source, expr, type, scope);
}

function bound(source: string, checked: Expr, type: FeelType, scope: Scope): Compiled {
  try {
    return { ok: true, formula: formulaOf(bind(checked, scope), type, source) };
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return { ok: false, problems: [failure.problem] };
    throw failure;
  }
}

/** A formula from a bound expression; for what is put together of others. */
export const formulaOf = (expr: Expr, type: FeelType, source = ''): Formula => ({
  source,
  expr,
  type,
  names: [...namesIn(expr).keys()],
  run: compile(expr),
});

function describeType(type: FeelType): string {
  return type.is === 'number' && type.unit !== 'any' ? `number [${writeUnit(type.unit)}]` : type.is;
}

/** The names a bound expression reads from outside, each with its slot, in order of first use. */
export function namesIn(expr: Expr, found = new Map<string, number>()): Map<string, number> {
  if (expr.kind === 'name') {
    if (expr.slot !== undefined && expr.slot >= 0) found.set(expr.name, expr.slot);
  } else for (const part of partsOf(expr)) namesIn(part, found);
  return found;
}
