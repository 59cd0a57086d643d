/** From FEEL text to a small syntax tree of our own; the grammar is the parser package's. */
import { parser } from '@bpmn-io/lezer-feel';
import { Exact } from '../exact';
import { Day, Span } from './time';
import { readPlain, readPlainCell } from './plain';
import type { FormulaProblem } from './problem';
import type { Arithmetic, Comparison, Expr, Iteration, Test } from './tree';

type Node = ReturnType<typeof parser.parse>['topNode'];

/** A text that is no formula, and where it stops being one. */
export class SyntaxFailure extends Error {
  constructor(readonly problem: FormulaProblem) {
    super(problem.code);
  }
}

const longest = 100_000;
const deepest = 200;
/** Commas in one formula, and parts of one sum, product or chain of conditions. */
const mostItems = 2_000;

/** Parses an expression. Throws SyntaxFailure with a position. */
export function parse(source: string): Expr {
  if (source.length > longest) fail('formula.tooLong', 0, { most: longest });
  return readPlain(source) ?? parseFully(source);
}

/** Trees of formulas that were parsed lately: a model is compiled after each edit, and most of it is as before. */
const known = new Map<string, Expr>();
const mostKnown = 20_000;
const longestKnown = 2_000;

/** Parses by the grammar, whatever the form. Nobody changes a tree, so that one of the same text is the same. */
export function parseFully(source: string): Expr {
  if (source.length > longestKnown) return parseAnew(source);
  const found = known.get(source);
  if (found) return found;
  const expr = parseAnew(source);
  if (known.size >= mostKnown) known.clear();
  known.set(source, expr);
  return expr;
}

function parseAnew(source: string): Expr {
  keepWithin(source);
  const top = parser.parse(source).topNode;
  let broken: number | undefined;
  top.cursor().iterate((node) => {
    if (node.type.isError && broken === undefined) broken = node.from;
  });
  if (broken !== undefined) {
    if (operatorsBefore(source, broken) >= longestChain)
      fail('formula.longChain', broken, { most: longestChain });
    fail('formula.syntax', broken, { near: source.slice(broken, broken + 12).trim() });
  }
  const [only] = children(top);
  if (!only) fail('formula.empty', 0, {});
  return new Reader(source).expr(only, 0);
}

/** Operators in the bracket in which a place is, up to it. */
function operatorsBefore(source: string, place: number): number {
  const counts = [0];
  for (const [part] of source
    .slice(0, place)
    .matchAll(/"(?:\\.|[^"\\])*"|[([{]|[)\]}]|\b(?:and|or)\b|[-+*/]/g)) {
    if (part.startsWith('"')) continue;
    if (/[([{]/.test(part)) counts.push(0);
    else if (/[)\]}]/.test(part)) counts.pop();
    else counts.push((counts.pop() ?? 0) + 1);
  }
  return Math.max(0, ...counts);
}

/** Parses a table cell: unary tests on the named value; "-" accepts everything. */
export function parseCell(name: string, cell: string): Expr {
  if (cell.trim() === '-') return { kind: 'literal', value: true, at: 0 };
  const negated = insideOfNot(cell);
  if (negated !== null) return { kind: 'call', name: 'not', args: [parseCell(name, negated)], at: 0 };
  return readPlainCell(name, cell) ?? parse(`${name} in (${cell})`);
}

/** How much further right a place stands in what `parseCell` reads than in the cell as it is written. */
export function beforeCell(name: string, cell: string): number {
  const inner = cell.trim() === '-' ? null : insideOfNot(cell);
  return inner === null ? `${name} in (`.length : beforeCell(name, inner) - (cell.indexOf('(') + 1);
}

/**
 * The tests within a cell that is all one "not(...)", which the standard has there beside the function of
 * that name.
 */
function insideOfNot(cell: string): string | null {
  const [whole, inner] = /^\s*not\s*\(([^]*)\)\s*$/.exec(cell) ?? [];
  if (whole === undefined || inner === undefined) return null;
  let depth = 0;
  for (const [part] of inner.matchAll(/"(?:\\.|[^"\\])*"|[()]/g)) {
    depth += part === '(' ? 1 : part === ')' ? -1 : 0;
    if (depth < 0) return null;
  }
  return inner;
}

/** The parser's time grows with the square of brackets and items, so both are bounded before it begins. */
function keepWithin(source: string): void {
  let depth = 0;
  let items = 0;
  let inText = false;
  for (let at = 0; at < source.length; at++) {
    const character = source[at];
    if (inText) {
      if (character === '\\') at++;
      else if (character === '"') inText = false;
    } else if (character === '"') inText = true;
    else if (character === '(' || character === '[' || character === '{') {
      if (++depth > deepest) fail('formula.tooDeep', at, { most: deepest });
    } else if (character === ')' || character === ']' || character === '}') depth--;
    else if (character === ',' && ++items > mostItems) fail('formula.tooLong', at, { most: mostItems });
  }
}

/** Parts of a chain of operators that the grammar surely takes; of short ones it takes more. */
const longestChain = 150;

function fail(code: FormulaProblem['code'], at: number, params: FormulaProblem['params']): never {
  throw new SyntaxFailure({ code, at, params });
}

function children(node: Node): Node[] {
  const found: Node[] = [];
  for (let child = node.firstChild; child; child = child.nextSibling) found.push(child);
  return found;
}

const punctuation = new Set(['(', ')', '[', ']', ',', 'if', 'then', 'else', 'and', 'or', 'in', 'between']);

/** A chain of conditions as a tree that is as flat as can be; it means the same in any shape. */
function balanced(op: 'and' | 'or', parts: readonly Expr[]): Expr {
  const [first] = parts;
  if (first && parts.length === 1) return first;
  const middle = parts.length >> 1;
  const left = balanced(op, parts.slice(0, middle));
  return { kind: 'logic', op, left, right: balanced(op, parts.slice(middle)), at: left.at };
}

class Reader {
  constructor(private readonly source: string) {}

  private text(node: Node): string {
    return this.source.slice(node.from, node.to);
  }

  private parts(node: Node): Node[] {
    return children(node).filter((child) => !punctuation.has(child.name));
  }

  expr(node: Node, depth: number): Expr {
    if (depth > deepest) fail('formula.tooDeep', node.from, { most: deepest });
    const at = node.from;
    const parts = this.parts(node);
    const sub = (index: number): Expr => {
      const part = parts[index];
      if (!part) fail('formula.syntax', at, { near: this.text(node).slice(0, 12) });
      return this.expr(part, depth + 1);
    };
    switch (node.name) {
      case 'ParenthesizedExpression':
        return sub(0);
      case 'NumericLiteral':
        return { kind: 'literal', value: new Exact(this.text(node).replace(/\s/g, '')), at };
      case 'StringLiteral':
        return { kind: 'literal', value: JSON.parse(this.text(node)) as string, at };
      case 'BooleanLiteral':
        return { kind: 'literal', value: this.text(node) === 'true', at };
      case 'null':
        return { kind: 'literal', value: null, at };
      case 'VariableName':
        return { kind: 'name', name: this.text(node).replace(/\s+/g, ' '), at };
      case 'Conjunction':
        return balanced(
          'and',
          this.chain(node).map((each) => this.expr(each, depth + 1)),
        );
      case 'Disjunction':
        return balanced(
          'or',
          this.chain(node).map((each) => this.expr(each, depth + 1)),
        );
      case 'IfExpression':
        return { kind: 'if', test: sub(0), then: sub(1), else: sub(2), at };
      case 'List':
        return { kind: 'list', items: parts.map((_, index) => sub(index)), at };
      case 'ArithmeticExpression': {
        if (parts[0]?.name === 'ArithOp') return { kind: 'negate', of: sub(1), at };
        return this.arithmetic(node, depth);
      }
      case 'FunctionInvocation':
        return this.call(node, depth);
      case 'DateTimeLiteral':
        return this.time(node, depth);
      case 'FilterExpression':
        return { kind: 'filter', list: sub(0), by: sub(1), at };
      case 'PathExpression':
        return {
          kind: 'path',
          of: sub(0),
          name: this.text(parts[2] as Node),
          nameAt: parts[2]?.from ?? at,
          at,
        };
      case 'QuantifiedExpression':
        return {
          kind: 'quantified',
          every: parts[0]?.name === 'every',
          over: this.iterations(parts[1], depth),
          test: sub(3),
          at,
        };
      case 'ForExpression':
        return { kind: 'for', over: this.iterations(parts[1], depth), body: sub(3), at };
      case 'Comparison':
        return this.comparison(node, depth);
      default:
        return fail('formula.unsupported', at, { what: this.text(node).slice(0, 40) });
    }
  }

  /** The parts of a chain of one operator, such as "a and b and c", however long. */
  private chain(node: Node): Node[] {
    const found: Node[] = [];
    let left = node;
    for (; left.name === node.name;) {
      const [first, second] = this.parts(left);
      if (!first || !second) fail('formula.syntax', left.from, { near: this.text(left).slice(0, 12) });
      if (found.push(second) > mostItems) fail('formula.tooLong', node.from, { most: mostItems });
      left = first;
    }
    return [...found, left].map((_, at, all) => (at === 0 ? left : (found[all.length - 1 - at] as Node)));
  }

  /** Sums and products from left to right, however long. */
  private arithmetic(node: Node, depth: number): Expr {
    const steps: { op: Arithmetic; right: Node; at: number }[] = [];
    let left = node;
    for (;;) {
      const [first, op, right] = this.parts(left);
      if (left.name !== 'ArithmeticExpression' || first?.name === 'ArithOp') break;
      if (!first || !op || !right) fail('formula.syntax', left.from, { near: this.text(left).slice(0, 12) });
      if (steps.push({ op: this.text(op) as Arithmetic, right, at: left.from }) > mostItems)
        fail('formula.tooLong', node.from, { most: mostItems });
      left = first;
    }
    return steps.reduceRight<Expr>(
      (sum, { op, right, at }) => ({
        kind: 'arithmetic',
        op,
        left: sum,
        right: this.expr(right, depth + 1),
        at,
      }),
      this.expr(left, depth + 1),
    );
  }

  private iterations(node: Node | undefined, depth: number): Iteration[] {
    return (node ? this.parts(node) : []).map((each): Iteration => {
      const [name, context] = this.parts(each);
      const [from, , to] = context ? this.parts(context) : [];
      if (!name || !from) fail('formula.syntax', each.from, { near: this.text(each).slice(0, 12) });
      return {
        name: this.text(name),
        list: this.expr(from, depth + 1),
        ...(to ? { to: this.expr(to, depth + 1) } : {}),
      };
    });
  }

  /** A date or duration written out: `@"2026-06-01"`, `date("2026-06-01")`, `duration("P1M")`. */
  private time(node: Node, depth: number): Expr {
    const [first] = this.parts(node);
    if (first?.name !== 'AtLiteral') return this.call(node, depth);
    const written = JSON.parse(this.text(this.parts(first)[0] as Node)) as string;
    const value = Day.read(written) ?? Span.read(written);
    return value
      ? { kind: 'literal', value, at: node.from }
      : fail('formula.unsupported', node.from, { what: this.text(node).slice(0, 40) });
  }

  private call(node: Node, depth: number): Expr {
    const [name, args] = this.parts(node);
    if (!name || (args && args.name !== 'PositionalParameters'))
      fail('formula.unsupported', node.from, { what: this.text(node) });
    return {
      kind: 'call',
      name: this.text(name).replace(/\s+/g, ' '),
      args: args ? this.parts(args).map((arg) => this.expr(arg, depth + 1)) : [],
      at: node.from,
    };
  }

  private comparison(node: Node, depth: number): Expr {
    const at = node.from;
    const parts = this.parts(node);
    const keyword = children(node).find((child) => child.name === 'in' || child.name === 'between')?.name;
    const value = this.expr(parts[0] as Node, depth + 1);
    if (keyword === 'between') {
      const [low, high] = [this.expr(parts[1] as Node, depth + 1), this.expr(parts[2] as Node, depth + 1)];
      return {
        kind: 'in',
        value,
        tests: [{ kind: 'interval', low, high, lowOpen: false, highOpen: false }],
        at,
      };
    }
    if (keyword === 'in') {
      const tests = parts.slice(1).flatMap((part) => this.tests(part, depth + 1));
      return { kind: 'in', value, tests, at };
    }
    return {
      kind: 'compare',
      op: this.text(parts[1] as Node) as Comparison,
      left: value,
      right: this.expr(parts[2] as Node, depth + 1),
      at,
    };
  }

  private tests(node: Node, depth: number): Test[] {
    const parts = this.parts(node);
    switch (node.name) {
      case 'PositiveUnaryTests':
      case 'PositiveUnaryTest':
        return parts.flatMap((part) => this.tests(part, depth + 1));
      case 'ParenthesizedExpression':
        return parts[0]?.name === 'SimplePositiveUnaryTest'
          ? this.tests(parts[0], depth + 1)
          : [{ kind: 'equals', expr: this.expr(node, depth) }];
      case 'SimplePositiveUnaryTest': {
        const [first, second] = parts;
        if (first?.name === 'Interval') return this.tests(first, depth + 1);
        if (first?.name === 'CompareOp')
          return [
            {
              kind: 'compare',
              op: this.text(first) as Comparison,
              expr: this.expr(second as Node, depth + 1),
            },
          ];
        return [{ kind: 'equals', expr: this.expr(first as Node, depth + 1) }];
      }
      case 'Interval': {
        const inner = parts.filter((part) => part.name !== '..');
        const text = this.text(node);
        return [
          {
            kind: 'interval',
            low: this.expr(inner[0] as Node, depth + 1),
            high: this.expr(inner[1] as Node, depth + 1),
            lowOpen: !text.startsWith('['),
            highOpen: !text.endsWith(']'),
          },
        ];
      }
      case 'List':
        return parts.map((part) => ({ kind: 'equals', expr: this.expr(part, depth + 1) }));
      default:
        return [{ kind: 'equals', expr: this.expr(node, depth) }];
    }
  }
}
