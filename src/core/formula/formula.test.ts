import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Exact } from '../exact';
import { compileFormula, noUnit, readUnit, type FeelType, type Scope, type Value } from './index';
import { readPlain, readPlainCell } from './plain';
import { parseFully } from './syntax';

const number = (unit: string): FeelType => ({ is: 'number', unit: readUnit(unit) });
const types: Record<string, FeelType> = {
  length: number('m'),
  width: number('m'),
  mass: number('kg'),
  cells: { is: 'number', unit: noUnit },
  mounting: { is: 'text', of: new Set(['surface', 'pit']) },
  approach: { is: 'list', item: { is: 'text', of: new Set(['ramps', 'barrier']) } },
  guards: { is: 'yesno' },
};
const scope: Scope = new Map(Object.entries(types).map(([name, type], slot) => [name, { slot, type }]));
const slots = Object.keys(types);

const values: Record<string, Value> = {
  length: new Exact('18.5'),
  width: new Exact('3.2'),
  mass: new Exact('4200'),
  cells: new Exact(8),
  mounting: 'pit',
  approach: ['ramps'],
  guards: true,
};

function run(source: string, given: Record<string, Value> = values): Value {
  const compiled = compileFormula(source, scope);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return compiled.formula.run((slot) => given[slots[slot] as string] ?? null);
}

const plain = (value: Value): unknown =>
  value instanceof Exact ? value.toNumber() : Array.isArray(value) ? value.map(plain) : value;

function problems(source: string, wanted?: FeelType) {
  const compiled = compileFormula(source, scope, wanted);
  return compiled.ok ? [] : compiled.problems.map(({ code, at }) => ({ code, at }));
}

describe('evaluation', () => {
  it('is exact where binary floating point is not', () => {
    expect(run('0.1 + 0.2 = 0.3')).toBe(true);
    expect(run('1.15 * 60 = 69')).toBe(true);
    expect(plain(run('1.005 * 1000'))).toBe(1005);
    expect(plain(run('decimal(2.345, 2)'))).toBe(2.34);
  });

  it('has no order of addition', () => {
    const money = fc.integer({ min: -9_999_999, max: 9_999_999 }).map((cents) => new Exact(cents).div(100));
    fc.assert(
      fc.property(money, money, money, (length, width, mass) => {
        const given = { length, width, mass: length, cells: mass };
        expect(plain(run('(length + width) - length = width', given))).toBe(true);
      }),
    );
  });
});

describe('compile errors have a place and a kind', () => {
  it.each([
    ['1 +', 'formula.syntax', 3],
    ['', 'formula.empty', 0],
    ['lenght > 3', 'formula.unknownName', 0],
    ['length > width and frobnicate(2)', 'formula.unknownFunction', 19],
    ['length + mass', 'formula.unitMismatch', 9],
    ['length > mass', 'formula.unitMismatch', 9],
    ['mounting = "pitt"', 'formula.unknownOption', 11],
    ['mounting in ["surface", "sunk"]', 'formula.unknownOption', 24],
    ['"rampz" in approach', 'formula.unknownOption', 0],
    ['length and guards', 'formula.wrongType', 0],
    ['ceiling(mounting)', 'formula.wrongType', 8],
    ['min()', 'formula.argumentCount', 0],
    ['function(a) a', 'formula.unsupported', 0],
  ])('%s -> %s at %i', (source, code, at) => {
    expect(problems(source)[0]).toEqual({ code: code === 'formula.empty' ? 'formula.syntax' : code, at });
  });

  it('checks the type and unit that the place asks for', () => {
    expect(problems('length', { is: 'yesno' })[0]?.code).toBe('formula.resultType');
    expect(problems('length * width', number('m'))[0]?.code).toBe('formula.resultType');
    expect(problems('length * width', number('m2'))).toEqual([]);
  });

  it('refuses what is too long or too deep with a sentence instead of failing', () => {
    expect(problems('1 + '.repeat(30_000) + '1')[0]?.code).toBe('formula.tooLong');
    expect(problems('('.repeat(400) + '1' + ')'.repeat(400))[0]?.code).toBe('formula.tooDeep');
  });
});

describe('the plain forms', () => {
  const name = fc.constantFrom('a', 'length', 'not', 'x1', 'in', 'if', 'list', 'Big', 'some');
  const text = fc.string({ maxLength: 6 });
  const quoted = text.map((each) => JSON.stringify(each));
  const source = fc.oneof(
    fc.tuple(name, fc.constantFrom(' = ', ' != ', '=', ' < '), quoted).map((parts) => parts.join('')),
    fc
      .tuple(name, fc.array(quoted, { maxLength: 3 }))
      .map(([left, items]) => `${left} in [${items.join(', ')}]`),
    fc.tuple(name, quoted).map(([list, item]) => `list contains(${list}, ${item})`),
  );
  it('read the same tree as the grammar, or leave it to the grammar', () => {
    let read = 0;
    fc.assert(
      fc.property(source, name, quoted, (given, column, cell) => {
        for (const [plain, full] of [
          [readPlain(given), () => parseFully(given)],
          [readPlainCell(column, cell), () => parseFully(`${column} in (${cell})`)],
        ] as const) {
          if (!plain || ['not', 'in', 'if', 'some'].includes(column)) continue;
          read++;
          expect(plain).toEqual(full());
        }
      }),
      { numRuns: 500 },
    );
    expect(read).toBeGreaterThan(300);
  });
});
