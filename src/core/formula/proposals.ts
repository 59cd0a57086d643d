/**
 * What could stand at a place in a formula that is being written: names, options, fields, functions and words
 * of the language, by what stands before it. Whether it may is `compileFormula`'s to say.
 */
import { builtins } from './builtins';
import type { Binding, FeelType, Scope } from './types';

/** Something that could stand there. */
export type FormulaProposal =
  /** A row, calculation or context, or something that an iteration goes through. */
  | { is: 'name'; text: string; type: FeelType }
  /** An option of what is compared; `text` is its id, to be written in quotes. */
  | { is: 'option'; text: string; of: string }
  /** What can be read of what stands before the point. */
  | { is: 'field'; text: string; type: FeelType }
  /** A function of the standard, and how many values it takes. */
  | { is: 'function'; text: string; least: number; most: number }
  /** A word of the language. */
  | { is: 'word'; text: string };

/** What could stand in the place of a part of the text. */
export interface Proposals {
  /** Where what is replaced begins and ends; the same where nothing is written there yet. */
  from: number;
  to: number;
  proposals: readonly FormulaProposal[];
}

type Token =
  | { is: 'name'; text: string; from: number; to: number }
  /** A text; not closed where the place is inside of it. */
  | { is: 'text'; text: string; from: number; to: number; closed: boolean }
  | { is: 'number' | 'sign'; text: string; from: number; to: number };

const beginWords = ['if', 'for', 'some', 'every', 'true', 'false', 'null'];
const onWords = ['and', 'or', 'in', 'between', 'then', 'else', 'return', 'satisfies'];
const words = new Set([...beginWords, ...onWords]);
/** Characters before a place that are looked at. */
const farthest = 20_000;
/** Points in one path that are followed. */
const mostSteps = 50;
/** Functions of several words, the longest first, so that they are read as one. */
const longNames = Object.keys(builtins)
  .filter((name) => name.includes(' '))
  .sort((one, other) => other.length - one.length);

/**
 * What could stand at an offset of a formula's text; null inside a number or a text of which nothing is known.
 * `cell`: the name on which the tests of a table cell are.
 */
export function proposalsAt(source: string, at: number, scope: Scope, cell?: string): Proposals | null {
  const start = Math.max(0, at - farthest);
  const tokens = tokensOf(source.slice(0, at), start);
  const last = tokens.at(-1);
  if (last?.is === 'number' && last.to === at) return null;
  if (last?.is === 'text' && !last.closed) return insideText(source, at, tokens, scope, cell);
  const from = beginOfName(source.slice(start, at), at);
  const before = tokens.filter((token) => token.to <= from);
  const place = { from, to: endOfName(source, at) };
  const around = withIterations(scope, before);
  if (before.at(-1)?.text === '.') {
    const of = typeBefore(before, before.length - 1, around);
    return of ? { ...place, proposals: fieldsOf(of) } : null;
  }
  return {
    ...place,
    proposals: goesOn(before.at(-1))
      ? onWords.map((text) => ({ is: 'word', text }))
      : [...optionsFor(before, around, cell), ...beginnings(around)],
  };
}

/** Names, functions and words with which a value begins. */
const beginnings = (scope: Scope): FormulaProposal[] => [
  ...[...scope]
    .filter(([, { absent }]) => absent !== true)
    .map(([text, { type }]): FormulaProposal => ({ is: 'name', text, type })),
  ...Object.entries(builtins).map(([text, { least, most }]): FormulaProposal => ({
    is: 'function',
    text,
    least,
    most,
  })),
  ...beginWords.map((text): FormulaProposal => ({ is: 'word', text })),
];

/** Whether a value is complete, so that only a word can follow. */
const goesOn = (last: Token | undefined): boolean =>
  last !== undefined &&
  ((last.is === 'name' && !words.has(last.text)) ||
    last.is === 'number' ||
    last.is === 'text' ||
    [')', ']', '}'].includes(last.text) ||
    ['true', 'false', 'null'].includes(last.text));

function insideText(
  source: string,
  at: number,
  tokens: readonly Token[],
  scope: Scope,
  cell: string | undefined,
): Proposals | null {
  const before = tokens.slice(0, -1);
  const proposals = optionsFor(before, withIterations(scope, before), cell);
  const from = (tokens.at(-1)?.from ?? at) + 1;
  const rest = /^[^"\n]*/.exec(source.slice(at))?.[0] ?? '';
  // Without a quote behind it the rest of the line is another thing.
  const to = source[at + rest.length] === '"' ? at + rest.length : at;
  return proposals.length > 0 ? { from, to, proposals } : null;
}

/** The options of what is compared with what stands at the end of some tokens. */
function optionsFor(tokens: readonly Token[], scope: Scope, cell: string | undefined): FormulaProposal[] {
  let end = tokens.length;
  // Back over a list of others: name in ("a", "b", _
  while (end > 0 && (tokens[end - 1]?.is === 'text' || [',', '('].includes(tokens[end - 1]?.text ?? '')))
    end -= 1;
  const sign = tokens[end - 1]?.text;
  const listed = end < tokens.length;
  const compared = sign === 'in' || (!listed && (sign === '=' || sign === '!='));
  const type = compared
    ? typeBefore(tokens, end - 1, scope)
    : cell !== undefined && tokens.slice(0, end).every(({ text }) => text === 'not')
      ? scope.get(cell)?.type
      : listHeld(tokens, scope);
  if (type?.is !== 'text' || !type.of) return [];
  const of = nameBefore(tokens.slice(0, compared ? end - 1 : end)) ?? cell ?? '';
  return [...type.of].map((text) => ({ is: 'option', text, of }));
}

/** What the list holds of which `list contains(name, _` asks. */
function listHeld(tokens: readonly Token[], scope: Scope): FeelType | undefined {
  const [call, open, name, comma] = tokens.slice(-4);
  if (call?.text !== 'list contains' || open?.text !== '(' || comma?.text !== ',' || !name) return undefined;
  const type = scope.get(name.text)?.type;
  return type?.is === 'list' ? type.item : type;
}

const nameBefore = (tokens: readonly Token[]): string | undefined =>
  tokens.findLast(
    (token) => token.is === 'name' && !words.has(token.text) && !Object.hasOwn(builtins, token.text),
  )?.text;

/** The type of the name that ends before a token, or of the path that does. */
function typeBefore(tokens: readonly Token[], end: number, scope: Scope, steps = 0): FeelType | undefined {
  let at = end - 1;
  // One of several is of the type of each: skip what stands in the brackets.
  if (tokens[at]?.text === ']') {
    for (let depth = 0; at >= 0; at -= 1) {
      depth += tokens[at]?.text === ']' ? 1 : tokens[at]?.text === '[' ? -1 : 0;
      if (depth === 0) break;
    }
    at -= 1;
  }
  const token = tokens[at];
  if (token?.is !== 'name' || steps > mostSteps) return undefined;
  if (tokens[at - 1]?.text !== '.') return itemType(scope.get(token.text)?.type);
  const of = typeBefore(tokens, at - 1, scope, steps + 1);
  return of ? itemType(fieldTypes(of).get(token.text)) : undefined;
}

const itemType = (type: FeelType | undefined): FeelType | undefined =>
  type?.is === 'list' ? type.item : type;

const fieldsOf = (type: FeelType): FormulaProposal[] =>
  [...fieldTypes(type)].map(([text, of]) => ({ is: 'field', text, type: of }));

const number: FeelType = { is: 'number', unit: new Map() };

/** What can be read of a value of a type. */
function fieldTypes(type: FeelType): ReadonlyMap<string, FeelType> {
  if (type.is === 'date') return new Map(['year', 'month', 'day', 'weekday'].map((name) => [name, number]));
  if (type.is === 'duration')
    return new Map(['years', 'months', 'days', 'hours', 'minutes', 'seconds'].map((name) => [name, number]));
  if (type.is === 'text' && type.facts)
    return new Map([
      ...[...type.facts.told].map(([name, told]) => [name, told.type] as const),
      ...type.facts.options,
    ]);
  if (type.is !== 'places') return new Map();
  return new Map(
    type.places.flatMap(({ fields }) =>
      [...fields].filter(([, { absent }]) => absent !== true).map(([name, field]) => [name, field.type]),
    ),
  );
}

/** The scope with what iterations before the place go through: `for b in builds return b.`, `some x in list`. */
function withIterations(scope: Scope, tokens: readonly Token[]): Scope {
  const all = new Map<string, Binding>(scope);
  tokens.forEach((token, at) => {
    const [name, sign] = [tokens[at + 1], tokens[at + 2]];
    const begins =
      ['for', 'some', 'every'].includes(token.text) || (token.text === ',' && sign?.text === 'in');
    if (!begins || name?.is !== 'name' || sign?.text !== 'in') return;
    const end = endOfPath(tokens, at + 3);
    const type = typeBefore(tokens, Math.min(end, tokens.length), all) ?? { is: 'unknown' };
    const each: FeelType = type.is === 'places' ? { ...type, many: false } : type;
    all.set(name.text, { slot: -1, type: each });
  });
  return all;
}

function endOfPath(tokens: readonly Token[], from: number): number {
  let at = from;
  while (tokens[at]?.is === 'name' && !words.has(tokens[at]?.text ?? '') && tokens[at + 1]?.text === '.')
    at += 2;
  return at + 1;
}

/** Where the name begins that ends at a place, a function of several words as one; the place where there is none. */
function beginOfName(before: string, at: number): number {
  const written = /[\p{L}_][\p{L}\p{N}_ ]*$/u.exec(before)?.[0] ?? '';
  for (const { index } of written.matchAll(/(?<![\p{L}\p{N}_])[\p{L}_]/gu)) {
    const part = written.slice(index);
    if (!part.includes(' ') || longNames.some((name) => name.startsWith(part))) return at - part.length;
  }
  return at;
}

const endOfName = (source: string, at: number): number =>
  at + (/^[\p{L}\p{N}_]*/u.exec(source.slice(at))?.[0].length ?? 0);

function tokensOf(text: string, start: number): Token[] {
  const tokens: Token[] = [];
  const pattern =
    /"(?:\\.|[^"\\])*("?)|(?:\d+(?:\.\d+)?|\.\d+)|[\p{L}_][\p{L}\p{N}_]*|<=|>=|!=|\*\*|\.\.|\S/gu;
  pattern.lastIndex = start;
  for (let found = pattern.exec(text); found; found = pattern.exec(text)) {
    const [part, closing] = found;
    const from = found.index;
    const long = /^\p{L}/u.test(part) ? longNames.find((name) => beginsWith(text, from, name)) : undefined;
    if (long !== undefined) pattern.lastIndex = from + long.length;
    const whole = long ?? part;
    const place = { text: whole, from, to: from + whole.length };
    tokens.push(
      part.startsWith('"')
        ? { is: 'text', ...place, closed: closing === '"' && part.length > 1 }
        : { is: /^[\p{L}_]/u.test(part) ? 'name' : /^[\d.]*\d$/.test(part) ? 'number' : 'sign', ...place },
    );
  }
  return tokens;
}

const beginsWith = (text: string, from: number, name: string): boolean =>
  text.startsWith(name, from) && !/^[\p{L}\p{N}_]/u.test(text.slice(from + name.length));
