/**
 * A formula's text from its tree: `parse(written(expr))` is the same tree, places apart. What is alike but for
 * brackets and spaces is written alike.
 */
import { Exact } from '../exact';
import { Day, Span } from './time';
import type { Expr, Iteration, Test } from './tree';

/** How tightly something holds together; what holds less tightly than its surroundings stands in brackets. */
const tightness = { open: 0, or: 1, and: 2, compare: 3, sum: 4, product: 5, power: 6, tight: 7 };
const ofArithmetic = {
  '+': tightness.sum,
  '-': tightness.sum,
  '*': tightness.product,
  '/': tightness.product,
  '**': tightness.power,
};

/** The text of a formula that was read and not bound. Throws for trees that no text has. */
export const written = (expr: Expr): string => write(expr, tightness.open);

function write(expr: Expr, within: number): string {
  const [text, own] = plain(expr);
  return own < within ? `(${text})` : text;
}

/** The text without brackets around it, and how tightly it holds together. */
function plain(expr: Expr): [text: string, tightness: number] {
  const { open, tight } = tightness;
  switch (expr.kind) {
    case 'literal':
      return literal(expr.value);
    case 'name':
      return [expr.name, tight];
    case 'negate':
      return [`-${write(expr.of, tight)}`, tightness.power];
    case 'arithmetic': {
      const own = ofArithmetic[expr.op];
      // What stands at the right of a minus holds more tightly, and a power of a power says which is which.
      const left = write(expr.left, expr.op === '**' ? tight : own);
      return [`${left} ${expr.op} ${write(expr.right, own + 1)}`, own];
    }
    case 'compare': {
      const [left, right] = [write(expr.left, tightness.sum), write(expr.right, tightness.sum)];
      return [`${left} ${expr.op} ${right}`, tightness.compare];
    }
    case 'logic': {
      const own = tightness[expr.op];
      return [`${write(expr.left, own)} ${expr.op} ${write(expr.right, own)}`, own];
    }
    case 'in':
      // The grammar takes all that follows into its tests.
      return [`${write(expr.value, tightness.sum)} in ${tests(expr.tests)}`, open];
    case 'if':
      return [`if ${written(expr.test)} then ${written(expr.then)} else ${written(expr.else)}`, open];
    case 'list':
      return [`[${expr.items.map(written).join(', ')}]`, tight];
    case 'call':
      return [`${expr.name}(${expr.args.map(written).join(', ')})`, tight];
    case 'filter':
      return [`${write(expr.list, tight)}[${written(expr.by)}]`, tight];
    case 'path':
      return [`${write(expr.of, tight)}.${expr.name}`, tight];
    case 'quantified':
      return [
        `${expr.every ? 'every' : 'some'} ${iterations(expr.over)} satisfies ${write(expr.test, tightness.compare)}`,
        open,
      ];
    case 'for':
      return [`for ${iterations(expr.over)} return ${write(expr.body, tightness.compare)}`, open];
    case 'pick':
    case 'gather':
      throw new Error(`no text has a tree of this kind: ${expr.kind}`);
  }
}

function literal(value: Extract<Expr, { kind: 'literal' }>['value']): [string, number] {
  if (value instanceof Exact)
    return [value.toFixed(), value.isNegative() ? tightness.power : tightness.tight];
  if (value instanceof Day || value instanceof Span) return [`@"${value.toString()}"`, tightness.tight];
  return [typeof value === 'string' ? JSON.stringify(value) : String(value), tightness.tight];
}

const iterations = (over: readonly Iteration[]): string =>
  over
    .map(({ name, list, to }) => {
      const from = write(list, tightness.sum);
      return `${name} in ${to ? `${from}..${write(to, tightness.sum)}` : from}`;
    })
    .join(', ');

function tests(of: readonly Test[]): string {
  const [first] = of;
  if (of.length === 1 && first?.kind === 'interval') return test(first);
  if (of.every((each) => each.kind === 'equals' && each.expr.kind !== 'list'))
    return `[${of.map(test).join(', ')}]`;
  return `(${of.map(test).join(', ')})`;
}

function test(of: Test): string {
  switch (of.kind) {
    case 'equals':
      return written(of.expr);
    case 'compare':
      return `${of.op} ${write(of.expr, tightness.sum)}`;
    case 'interval': {
      const [low, high] = [write(of.low, tightness.sum), write(of.high, tightness.sum)];
      return `${of.lowOpen ? '(' : '['}${low}..${high}${of.highOpen ? ')' : ']'}`;
    }
  }
}
