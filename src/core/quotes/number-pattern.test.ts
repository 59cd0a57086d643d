import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { numberBy, rangeProblem } from './number-pattern';

describe('numbers of quotes, orders and work orders', () => {
  it.each([
    ['Q-{yy}-{0000}', { year: 2026, count: 42 }, 'Q-26-0042'],
    ['Q-{yy}-{0000}', { year: 2007, count: 123_456 }, 'Q-07-123456'],
    ['{yyyy}/{0}', { year: 2026, count: 7 }, '2026/7'],
    ['W-{order}-{0}', { year: 2026, count: 2, order: 'O-26-0007' }, 'W-26-0007-2'],
    ['{order}.{00}', { year: 2026, count: 2, order: '2026/7' }, '2026/7.02'],
  ])('%s', (pattern, of, expected) => {
    expect(numberBy(pattern, of)).toBe(expected);
  });

  it.each([
    ['Q-{yy}-{0000}', true, null],
    ['Q-{0000}', false, null],
    ['Q-{0000}', true, 'house.pattern.year'],
    ['Q-{yy}', false, 'house.pattern.count'],
    ['{0}{0}', false, 'house.pattern.count'],
    ['Q7{0}', false, 'house.pattern.sign'],
    ['{yy}{000}', false, 'house.pattern.sign'],
    ['Q {0}', false, 'house.pattern.sign'],
    ['{order}-{0}', false, 'house.pattern.sign'],
    ['Q-{yyy}-{0}', false, 'house.pattern.sign'],
    ['<b>{0}', false, 'house.pattern.sign'],
    ['a-very-long-pattern-{000}-', false, 'house.pattern.long'],
  ])('%s, anew each year: %s', (pattern, yearly, problem) => {
    expect(rangeProblem({ pattern, yearly })).toBe(problem);
  });

  it('of a work order have that of its order in them', () => {
    expect(rangeProblem({ pattern: 'W-{order}-{0}', yearly: false }, 'order')).toBeNull();
    expect(rangeProblem({ pattern: 'W-{0}', yearly: false }, 'order')).toBe('house.pattern.count');
  });

  it('are told apart, whatever pattern passes', () => {
    const pieces = fc.array(fc.constantFrom('{yy}', '{yyyy}', '{0}', '{000}', 'Q', '-', '7', '/'), {
      maxLength: 6,
    });
    const at = fc.record({
      year: fc.integer({ min: 2020, max: 2060 }),
      count: fc.integer({ min: 1, max: 5_000 }),
    });
    fc.assert(
      fc.property(pieces, fc.boolean(), at, at, (parts, yearly, one, other) => {
        const range = { pattern: parts.join(''), yearly };
        fc.pre(rangeProblem(range) === null);
        const same = one.count === other.count && (!yearly || one.year === other.year);
        if (!same && (yearly || one.year === other.year))
          expect(numberBy(range.pattern, one)).not.toBe(numberBy(range.pattern, other));
      }),
    );
  });
});
