/**
 * The commonest forms, read without the grammar: `name = "text"`, `name in ["a", "b"]`, `list contains(name,
 * "text")`.
 * A model of ten thousand rules is mostly these. What is not exactly one of them is left to the parser; the
 * trees are the same (tested).
 */
import type { Expr, Test } from './tree';

const name = '([a-z][A-Za-z0-9]*)';
const text = '"([^"\\\\]*)"';
const equation = new RegExp(`^${name} (=|!=) ${text}$`);
const membership = new RegExp(`^${name} in \\[("[^"\\\\]*"(?:, "[^"\\\\]*")*)\\]$`);
const containing = new RegExp(`^list contains\\(${name}, ${text}\\)$`);
const item = new RegExp(text, 'g');
/** Words that mean something in the grammar and are no names. */
export const words: ReadonlySet<string> = new Set([
  'if',
  'then',
  'else',
  'and',
  'or',
  'in',
  'not',
  'for',
  'return',
  'some',
  'every',
  'satisfies',
  'between',
  'instance',
  'of',
  'null',
  'true',
  'false',
  'function',
  'external',
]);

/** The tree of a plain condition; null where it is not one. */
export function readPlain(source: string): Expr | null {
  const equal = equation.exec(source);
  if (equal && !words.has(equal[1] as string)) {
    const [, left = '', op = '=', value = ''] = equal;
    return {
      kind: 'compare',
      op: op as '=' | '!=',
      left: { kind: 'name', name: left, at: 0 },
      right: { kind: 'literal', value, at: left.length + op.length + 2 },
      at: 0,
    };
  }
  const member = membership.exec(source);
  if (member && !words.has(member[1] as string)) {
    const [, left = '', list = ''] = member;
    const at = left.length + 4;
    const tests = [...list.matchAll(item)].map((found): Test => ({
      kind: 'equals',
      expr: { kind: 'literal', value: found[1] as string, at: at + 1 + found.index },
    }));
    return { kind: 'in', value: { kind: 'name', name: left, at: 0 }, tests, at: 0 };
  }
  const contains = containing.exec(source);
  if (contains && !words.has(contains[1] as string)) {
    const [, list = '', value = ''] = contains;
    const at = 'list contains('.length;
    return {
      kind: 'call',
      name: 'list contains',
      args: [
        { kind: 'name', name: list, at },
        { kind: 'literal', value, at: at + list.length + 2 },
      ],
      at: 0,
    };
  }
  return null;
}

/** The tree of a table cell that is one text; null where it is something else. */
export function readPlainCell(named: string, cell: string): Expr | null {
  const found = /^"([^"\\]*)"$/.exec(cell);
  if (!found) return null;
  return {
    kind: 'in',
    value: { kind: 'name', name: named, at: 0 },
    tests: [{ kind: 'equals', expr: { kind: 'literal', value: found[1] as string, at: named.length + 5 } }],
    at: 0,
  };
}
