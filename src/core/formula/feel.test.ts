/**
 * The standard's language against an independent evaluator, expression by expression; where the two differ,
 * the standard decides.
 */
import { evaluate as oracle } from '@bpmn-io/feelin';
import { describe, expect, it } from 'vitest';
import { Exact } from '../exact';
import { compileCell, compileFormula, Day, Span, type FeelType, type Scope, type Value } from './index';

const numberType: FeelType = { is: 'number', unit: 'any' };
const given: Record<string, { type: FeelType; value: Value; plain: unknown }> = {
  length: { type: numberType, value: new Exact('18.5'), plain: 18.5 },
  cells: { type: numberType, value: new Exact(8), plain: 8 },
  mounting: { type: { is: 'text' }, value: 'pit', plain: 'pit' },
  parts: { type: { is: 'list', item: { is: 'text' } }, value: ['ramps', 'rails'], plain: ['ramps', 'rails'] },
  masses: {
    type: { is: 'list', item: numberType },
    value: ['12', '7.5', '40'].map((each) => new Exact(each)),
    plain: [12, 7.5, 40],
  },
  guards: { type: { is: 'yesno' }, value: true, plain: true },
  nothing: { type: { is: 'unknown' }, value: null, plain: null },
};
const names = Object.keys(given);
const scope: Scope = new Map(
  names.map((name, slot) => [name, { slot, type: given[name]?.type as FeelType }]),
);

/** `undefined` where the type check refuses the expression, which the standard would evaluate to null. */
function ours(source: string): Value | undefined {
  const compiled = compileFormula(source, scope);
  return compiled.ok
    ? compiled.formula.run((slot) => given[names[slot] as string]?.value ?? null)
    : undefined;
}
function theirs(source: string): unknown {
  const answer = oracle(
    source,
    Object.fromEntries(names.map((name) => [name, given[name]?.plain])),
  ) as unknown;
  return answer !== null && typeof answer === 'object' && 'value' in answer ? answer.value : answer;
}

/** Both sides in one form: numbers to twelve digits, days and durations as the standard writes them. */
function plain(value: unknown): unknown {
  if (value instanceof Exact) return Number(value.toNumber().toPrecision(12));
  if (typeof value === 'number') return Number(value.toPrecision(12));
  if (value instanceof Day || value instanceof Span) return String(value);
  if (Array.isArray(value)) return value.map(plain);
  if (value !== null && typeof value === 'object' && 'toISODate' in value)
    return (value as { toISODate(): string }).toISODate();
  if (value !== null && typeof value === 'object' && 'toISO' in value)
    return String(
      Span.read((value as { toISO(): string }).toISO()) ?? (value as { toISO(): string }).toISO(),
    );
  return value ?? null;
}

const each = (template: string, ...fillings: string[]): string[] =>
  fillings.map((filling) => template.replaceAll('_', filling));

const expressions: Record<string, string[]> = {
  arithmetic: [
    ...each('_ + 2', '1', '-1', '0.5', 'length', '(3 * 4)', '10 / 4'),
    ...each('_ - 2.5', '1', '2.5', 'cells', '-length'),
    ...each('3 * _', '4', '-4', '0', 'length', '(1 + 1)'),
    ...each('12 / _', '4', '5', '-8', '0', 'length'),
    ...each('2 ** _', '3', '0', '-1', '10'),
    '1 + 2 * 3',
    '(1 + 2) * 3',
    '2 * 3 - 4 / 2',
    '-(2 + 3)',
    '- length',
    '1 - 2 - 3',
    '100 / 10 / 2',
    '.5 + .5',
    '1 + nothing',
    'nothing * 2',
    '"a" + "b"',
    '"a" + ""',
  ],
  comparison: [
    ...each('_ = 2', '2', '2.0', '3', 'nothing', '1 + 1'),
    ...each('_ != 2', '2', '3', 'nothing'),
    ...each('cells _ 8', '<', '<=', '>', '>=', '=', '!='),
    ...each('length _ 18.5', '<', '<=', '>', '>='),
    ...each('"a" _ "b"', '<', '<=', '>', '>=', '=', '!='),
    ...each('nothing _ 1', '<', '<=', '>', '>=', '='),
    'nothing = null',
    'null = null',
    'null != null',
    'true = true',
    'true != false',
    'guards = true',
    'mounting = "pit"',
    'mounting = "surface"',
    '[1, 2] = [1, 2]',
    '[1, 2] = [2, 1]',
    '[] = []',
    '[1] != [2]',
    'length between 18 and 19',
    'length between 19 and 20',
    '5 between 5 and 5',
    '"b" between "a" and "c"',
  ],
  truth: [
    ...['and', 'or'].flatMap((op) =>
      ['true', 'false', 'null'].flatMap((a) => ['true', 'false', 'null'].map((b) => `${a} ${op} ${b}`)),
    ),
    ...each('not(_)', 'true', 'false', 'null', 'guards', '1 > 2'),
    ...each('if _ then 1 else 2', 'true', 'false', 'null', 'guards', 'length > 20', 'not(guards)'),
    'if guards then if length > 1 then "x" else "y" else "z"',
    'guards and length < 20',
    'guards and length < 10 or cells = 8',
    'not(guards and cells > 9)',
    'true and true and false',
    'false or false or true',
  ],
  ranges: [
    ...each('_ in [1..5]', '0', '1', '3', '5', '6', 'cells'),
    ...each('_ in (1..5)', '1', '2', '5'),
    ...each('_ in (1..5]', '1', '5'),
    ...each('_ in [1..5)', '1', '5'),
    ...each('_ in ]1..5[', '1', '3', '5'),
    ...each('_ in (1, 3, 8)', '1', '2', 'cells'),
    ...each('_ in (< 2, > 7)', '1', '5', 'cells'),
    ...each('cells in _', '> 7', '>= 8', '< 8', '<= 8', '[8..8]', '[8..9)', '(7..8)', '8', '9'),
    'mounting in ("pit", "surface")',
    'mounting in ["pit", "surface"]',
    'mounting in ["surface"]',
    '"ramps" in parts',
    '"barrier" in parts',
    'not("barrier" in parts)',
    '"c" in ["a".."d"]',
    'nothing in [1..5]',
  ],
  numbers: [
    ...['ceiling', 'floor'].flatMap((name) =>
      each(`${name}(_)`, '1.5', '-1.5', '2', '0', 'length / 6', 'nothing'),
    ),
    ...['ceiling', 'floor'].flatMap((name) => each(`${name}(_, 1)`, '1.55', '-1.55', '3.14')),
    ...each('decimal(_, 2)', '1.125', '1.135', '-1.125', '2', 'length / 7'),
    ...['round up', 'round down', 'round half up', 'round half down'].flatMap((name) =>
      each(`${name}(_, 0)`, '5.5', '-5.5', '2.5', '1.1', '-1.1', '1.6'),
    ),
    ...['round up', 'round half up'].flatMap((name) => each(`${name}(_, 2)`, '1.121', '1.126', '-1.126')),
    ...each('abs(_)', '-3', '3', '0', '-length'),
    ...each('modulo(_, 5)', '12', '-12', '10', '0.5', '5.5'),
    ...each('modulo(_, -5)', '12', '-12', '4.5'),
    'modulo(1, 0)',
    ...each('sqrt(_)', '16', '2', '0', '-1'),
    ...each('exp(_)', '0', '1'),
    ...each('log(_)', '1', '10'),
    ...each('odd(_)', '3', '4', '-1', '0'),
    ...each('even(_)', '3', '4', '-2', '0'),
  ],
  texts: [
    ...each('substring("weighbridge", _)', '1', '3', '11', '-3', '-11', '6, 3', '3, 1', '-6, 3'),
    'substring("Straße", 5)',
    'substring("a𝄞b", 2, 1)',
    ...each('string length(_)', '"abc"', '""', '"Brücke"', '"a𝄞b"', 'mounting'),
    ...['upper case', 'lower case'].flatMap((name) => each(`${name}(_)`, '"aBc4"', '""', 'mounting')),
    ...each('substring before("RB-060-180", _)', '"-"', '"RB"', '"X"', '""'),
    ...each('substring after("RB-060-180", _)', '"-"', '"RB"', '"X"', '""'),
    ...['contains', 'starts with', 'ends with'].flatMap((name) =>
      each(`${name}("ramp kit", _)`, '"ramp"', '"kit"', '"p k"', '"x"', '""'),
    ),
    ...each(
      'string join(_)',
      '["a", "b"], "-"',
      '["a"], ", "',
      '[], "-"',
      '["a", "b"]',
      '["a", null, "c"], "/"',
      'parts, "+"',
    ),
    ...each('string(_)', '1', '1.5', '"a"', 'true', 'cells'),
    '"a" + "b" + "c"',
    'upper case("a") = "A"',
    'string length("abc") > 2',
  ],
  lists: [
    ...['min', 'max', 'sum', 'mean', 'median', 'product', 'stddev', 'mode'].flatMap((name) =>
      each(`${name}(_)`, '[3, 1, 2]', '[2]', '1, 5, 4', 'masses', '[]', '[1, 1, 2]'),
    ),
    ...['min', 'max'].flatMap((name) => each(`${name}(_)`, '["b", "a"]')),
    ...each('count(_)', '[1, 2]', '[]', 'parts', 'masses'),
    ...each('list contains(_)', '[1, 2], 2', '[1, 2], 3', 'parts, "ramps"', '[1, null], null', '[], 1'),
    ...['all', 'any'].flatMap((name) =>
      each(
        `${name}(_)`,
        '[true, true]',
        '[true, false]',
        '[false, false]',
        '[]',
        '[true, null]',
        '[false, null]',
        'true, false',
      ),
    ),
    ...each('append(_)', '[1], 2', '[1], 2, 3', '[], 1'),
    ...each('concatenate(_)', '[1], [2, 3]', '[1, 2], []', 'parts, ["x"]'),
    ...each('insert before(_)', '[1, 3], 1, 2', '[1, 3], 2, 2', '[1, 3], -1, 2'),
    ...each('remove(_)', '[1, 2, 3], 2', '[1, 2, 3], -1', '[1], 1'),
    ...each('reverse(_)', '[1, 2, 3]', '[]', 'parts'),
    ...each('index of(_)', '[1, 2, 1], 1', '[1, 2], 3', 'parts, "rails"'),
    ...each('union(_)', '[1, 2], [2, 3]', '[1], [1]'),
    ...each('distinct values(_)', '[1, 2, 1]', '["a", "a"]', '[]'),
    ...each('flatten(_)', '[[1, 2], [3]]', '[[1], [[2]]]', '[1]'),
    ...each('sublist(_)', '[1, 2, 3], 2', '[1, 2, 3], 1, 2', '[1, 2, 3], -2, 1'),
    ...each('masses[_]', '1', '3', '-1', '4', 'item > 10', 'item > 100', 'item = 7.5'),
    ...each('parts[_]', '1', 'item = "rails"', 'string length(item) = 5'),
    '[1, 2, 3, 4][item > 2][1]',
    'count(masses[item > 10])',
    'sum(masses[item < 20])',
  ],
  loops: [
    ...['some', 'every'].flatMap((word) =>
      each(
        `${word} x in _`,
        'masses satisfies x > 10',
        'masses satisfies x > 100',
        'masses satisfies x > 1',
        '[] satisfies x > 1',
        '[1, 2], y in [2, 3] satisfies x < y',
        '[1, 2], y in [x] satisfies x = y',
        'parts satisfies x = "ramps"',
      ),
    ),
    ...each(
      'for x in _',
      '[1, 2, 3] return x * x',
      'masses return x / 2',
      '[] return x',
      '[1, 2], y in [10, 20] return x + y',
      '1..4 return x',
      '3..1 return x',
      '[1, 2], y in [x, 2 * x] return y',
      'parts return upper case(x)',
    ),
    'sum(for x in masses return x * 2)',
    'count(for x in 1..10 return x)',
    'some x in masses satisfies x > length',
    'every x in (for y in 1..3 return y * 2) satisfies even(x)',
  ],
  days: [
    ...each(
      'date("2026-06-15")_',
      '',
      '.year',
      '.month',
      '.day',
      '.weekday',
      ' = date(2026, 6, 15)',
      ' < date("2026-07-01")',
      ' + duration("P1D")',
      ' + duration("P30D")',
      ' - duration("P15D")',
      ' + duration("P1M")',
      ' - duration("P6M")',
      ' + duration("P1Y2M")',
      ' in [date("2026-06-01")..date("2026-06-30")]',
      ' - date("2026-06-01")',
    ),
    'date("2026-01-31") + duration("P1M")',
    'date("2024-02-29") + duration("P1Y")',
    'date("2026-02-30")',
    'date(2026, 13, 1)',
    '@"2026-06-15" = date("2026-06-15")',
    'date("2026-12-31") + duration("P1D")',
    'date("2026-03-01") - date("2026-02-01") = duration("P28D")',
    ...each('duration("_")', 'P1D', 'P2Y', 'P14M', 'PT90M', 'P1DT2H', '-P3D', 'P0D', 'bad'),
    ...each('duration("P1Y3M")._', 'years', 'months'),
    ...each('duration("P2DT3H4M5S")._', 'days', 'hours', 'minutes', 'seconds'),
    'duration("P1D") + duration("PT12H")',
    'duration("P1Y") + duration("P2M")',
    'duration("P2D") - duration("P3D")',
    'duration("P1M") * 3',
    '2 * duration("P1D")',
    'duration("P1D") < duration("P2D")',
    'duration("P12M") = duration("P1Y")',
    'duration("PT24H") = duration("P1D")',
    ...each(
      'years and months duration(date("2024-01-15"), date("_"))',
      '2026-03-20',
      '2026-01-14',
      '2023-12-15',
      '2024-01-15',
    ),
    'day of week(date("2026-06-15"))',
    'day of year(date("2026-02-01"))',
    'week of year(date("2026-06-15"))',
    'week of year(date("2027-01-01"))',
    'month of year(date("2026-06-15"))',
  ],
};

/** Where the oracle and the standard part: what the standard asks for, and why. */
const differing: Record<string, [answer: unknown, why: string]> = {
  'nothing in [1..5]': [null, '`e in [a..b]` means `e >= a and e <= b`, and an order with null is null'],
  'median(masses)': [12, 'the middle of the sorted numbers; sorted as texts 7.5 would come last'],
  'mode(masses)': [[7.5, 12, 40], 'the result is sorted, by size'],
  'min(["b", "a"])': ['a', 'min takes any comparable items'],
  'max(["b", "a"])': ['b', 'max takes any comparable items'],
  'insert before([1, 3], -1, 2)': [[1, 2, 3], 'position -1 is the last item'],
  'remove([1, 2, 3], -1)': [[1, 2], 'position -1 is the last item'],
  'date(2026, 13, 1)': [null, 'there is no month 13'],
  'duration("-P3D")': ['-P3D', 'the sign of a duration stands before the P'],
  'duration("P2D") - duration("P3D")': ['-P1D', 'the sign of a duration stands before the P'],
  'duration("P1M") * 3': ['P3M', 'a duration may be multiplied by a number'],
  '2 * duration("P1D")': ['P2D', 'a duration may be multiplied by a number'],
  'years and months duration(date("2024-01-15"), date("2026-03-20"))': ['P2Y2M', 'whole months only'],
  'years and months duration(date("2024-01-15"), date("2026-01-14"))': ['P1Y11M', 'whole months only'],
  'years and months duration(date("2024-01-15"), date("2023-12-15"))': [
    '-P1M',
    'the sign of a duration stands before the P',
  ],
  'years and months duration(date("2024-01-15"), date("2024-01-15"))': [
    'P0M',
    'the result is a duration of years and months',
  ],
};

describe('FEEL', () => {
  for (const [topic, sources] of Object.entries(expressions)) {
    describe(topic, () => {
      it.each([...new Set(sources)].map((source) => [source]))('%s', (source) => {
        const known = differing[source];
        if (known) {
          expect(plain(ours(source))).toEqual(known[0]);
          // Once the oracle agrees, it need not be listed.
          expect(plain(theirs(source))).not.toEqual(known[0]);
        } else expect(plain(ours(source))).toEqual(plain(theirs(source)));
      });
    });
  }

  it.each([
    ['12,000 terms', Array(12_000).fill('length').join(' + '), 'formula.tooLong', 0],
    ['1,000 terms in a row', Array(1_000).fill('length').join(' + '), 'formula.longChain', 2_906],
    ['1,000 conditions in a row', Array(1_000).fill('length > 1').join(' or '), 'formula.longChain', 3_415],
    ['5,000 brackets', '('.repeat(5_000) + '1' + ')'.repeat(5_000), 'formula.tooDeep', 200],
    ['20,000 lists not closed', '['.repeat(20_000), 'formula.tooDeep', 200],
    ['20,000 items', `[${Array(20_000).fill('1').join(',')}]`, 'formula.tooLong', 4_002],
    [
      '3,000 choices in one another',
      'if true then '.repeat(3_000) + '1' + ' else 2'.repeat(3_000),
      'formula.syntax',
      12_131,
    ],
  ])('refuses %s with their place', (_, source, code, at) => {
    const compiled = compileFormula(source, scope);
    expect(compiled.ok ? null : { code: compiled.problems[0]?.code, at: compiled.problems[0]?.at }).toEqual({
      code,
      at,
    });
  });

  it('takes a text of 99,000 characters and a list of 2,000 items, brackets in texts not counted', () => {
    expect(ours(`string length(${JSON.stringify('('.repeat(99_000))})`)).toEqual(new Exact(99_000));
    expect(ours(`count([${Array(2_000).fill('1').join(', ')}])`)).toEqual(new Exact(2_000));
  });

  it('takes hundreds of parts in a row, and a list of alternatives as long as any', () => {
    expect(plain(ours(Array.from({ length: 400 }, (_, at) => String(at)).join(' + ')))).toBe(79_800);
    expect(ours(Array.from({ length: 200 }, (_, at) => `cells = ${String(at)}`).join(' or '))).toBe(true);
    expect(ours(Array.from({ length: 200 }, (_, at) => `cells > ${String(at)}`).join(' and '))).toBe(false);
    expect(plain(ours(`12 in (${Array.from({ length: 1_900 }, (_, at) => String(at)).join(', ')})`))).toBe(
      true,
    );
    expect(plain(ours('10 - 3 - 2 - 1'))).toBe(4);
    expect(plain(ours('64 / 4 / 2 * 3'))).toBe(24);
  });

  it('lets nothing grow without end', () => {
    const doubled = Array.from({ length: 20 }).reduce<string>(
      (text) => `concatenate(${text}, ${text})`,
      '[1, 2]',
    );
    expect(doubled.length > 100_000 ? null : ours(doubled)).toBeNull();
  });

  it.each([
    ['not("a")', ['b', 'c']],
    ['not("a", "b")', ['c']],
    [' not ( "c" ) ', ['a', 'b']],
    ['not(not("c"))', ['c']],
    ['"a", "b"', ['a', 'b']],
    ['-', ['a', 'b', 'c']],
  ])('a table cell %s lets %j pass, as the standard says', (cell, passing) => {
    const compiled = compileCell(
      'kind',
      cell,
      new Map([['kind', { slot: 0, type: { is: 'text' as const } }]]),
    );
    expect(
      compiled.ok && ['a', 'b', 'c'].filter((value) => compiled.formula.run(() => value) === true),
    ).toEqual(passing);
  });

  it('bounds what a formula may do', () => {
    expect(ours('count(for x in 1..200, y in 1..200 return x)')).toBeNull();
    expect(ours('some x in 1..1000000000 satisfies x > 3')).toBeNull();
    // All loops of a formula together, in one another or side by side, and what they go through in vain.
    expect(ours('for x in 1..1000 return count(for y in 1..1000 return y)')).toBeNull();
    expect(ours('some x in 1..9000 satisfies some y in 1..9000 satisfies x + y < 0')).toBeNull();
    expect(ours('count(for x in 1..6000 return x) + count(for x in 1..6000 return x)')).toBeNull();
    expect(ours('count(for x in 1..9000 return (for y in 1..9000, z in [] return y))')).toBeNull();
    expect(
      ours('sum((for x in 1..5000 return x)[item > 2]) + count((for x in 1..5000 return x)[item > 2])'),
    ).toBeNull();
    expect(plain(ours('count(for x in 1..90 return count(for y in 1..100 return y))'))).toBe(90);
    expect(plain(ours('count(for x in 1..100, y in 1..100 return x)'))).toBe(10_000);
  });

  it.each([
    ['masses[length > "a"]', 'formula.wrongType', 16],
    ['some x in masses satisfies x + 1', 'formula.wrongType', 27],
    ['for x in masses return y', 'formula.unknownName', 23],
    ['date("2026-06-15").hour', 'formula.unknownName', 0],
    ['date("2026-06-15") + 1', 'formula.wrongType', 0],
    ['date("2026-06-15") < 5', 'formula.wrongType', 21],
    ['upper case(5)', 'formula.wrongType', 11],
    ['day of week("Monday")', 'formula.wrongType', 12],
    ['@"yesterday"', 'formula.unsupported', 0],
  ])('%s is refused as %s at %i', (source, code, at) => {
    const compiled = compileFormula(source, scope);
    expect(compiled.ok ? null : { code: compiled.problems[0]?.code, at: compiled.problems[0]?.at }).toEqual({
      code,
      at,
    });
  });

  it('is compared on at least 400 expressions', () => {
    expect(new Set(Object.values(expressions).flat()).size).toBeGreaterThanOrEqual(400);
  });
});
