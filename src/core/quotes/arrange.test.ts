import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grouped, moved, type Arranged } from './arrange';

/** "a b A:c A:d" stands for two lines by themselves and two in group A. */
const lines = (text: string): Arranged[] =>
  text.split(' ').map((each) => {
    const [id = '', group = null] = each.split(':').reverse();
    return { id, group };
  });
const told = (all: readonly Arranged[]): string =>
  all.map(({ id, group }) => (group === null ? id : `${group}:${id}`)).join(' ');

describe('moving lines', () => {
  const cases: [string, string, number, string][] = [
    ['a b c', 'c', 1, 'c a b'],
    ['a b c', 'a', 99, 'b c a'],
    ['a b c d', 'a c', 3, 'b d a c'],
    ['a A:b A:c d', 'a', 2, 'A:b A:a A:c d'],
    ['a A:b A:c d', 'a', 1, 'a A:b A:c d'],
    ['a A:b A:c d', 'd', 2, 'a d A:b A:c'],
    ['a A:b A:c d', 'b', 4, 'a A:c d b'],
    ['a A:b A:c d', 'b', 3, 'a A:c A:b d'],
    ['a A:b A:c d', 'b', 1, 'b a A:c d'],
    ['a A:b c', 'b', 1, 'A:b a c'],
    ['A:a A:b B:c B:d', 'a b', 2, 'B:c B:d A:a A:b'],
    ['A:a A:b B:c B:d', 'b', 3, 'A:a B:c B:b B:d'],
  ];
  it.each(cases)('of %s, %s to place %i gives %s', (before, ids, to, after) => {
    expect(told(moved(lines(before), ids.split(' '), to))).toBe(after);
  });
});

describe('grouping lines', () => {
  const cases: [string, string, string | null, string][] = [
    ['a b c d', 'b d', 'A', 'a A:b A:d c'],
    ['a A:b c d', 'd', 'A', 'a A:b A:d c'],
    ['a A:b A:c A:d', 'b', null, 'a A:c A:d b'],
    ['a A:b c', 'b', null, 'a b c'],
    ['A:a A:b A:c', 'b', 'B', 'A:a A:c B:b'],
    ['A:a B:b', 'a b', 'C', 'C:a C:b'],
  ];
  it.each(cases)('of %s, %s into %s gives %s', (before, ids, group, after) => {
    expect(told(grouped(lines(before), ids.split(' '), group))).toBe(after);
  });
});

describe('whatever is moved and grouped', () => {
  const act = fc.oneof(
    fc.record({
      is: fc.constant('move' as const),
      ids: fc.subarray(['a', 'b', 'c', 'd', 'e', 'f'], { minLength: 1 }),
      to: fc.integer({ min: 1, max: 8 }),
    }),
    fc.record({
      is: fc.constant('group' as const),
      ids: fc.subarray(['a', 'b', 'c', 'd', 'e', 'f'], { minLength: 1 }),
      group: fc.constantFrom('A', 'B', null),
    }),
  );
  it('loses no line, and keeps every group together', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
        let all = lines('a b c d e f');
        for (const each of acts)
          all = each.is === 'move' ? moved(all, each.ids, each.to) : grouped(all, each.ids, each.group);
        expect(all.map(({ id }) => id).sort()).toEqual(['a', 'b', 'c', 'd', 'e', 'f']);
        const blocks = all
          .filter((line, index) => line.group !== null && all[index - 1]?.group !== line.group)
          .map((line) => line.group);
        expect(new Set(blocks).size).toBe(blocks.length);
      }),
    );
  });
});
