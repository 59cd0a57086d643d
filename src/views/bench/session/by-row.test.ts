import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { byRow } from './by-row';

const row = fc.constantFrom('length', 'width', 'guards', 'c1/display');
const key = fc.oneof(
  row,
  fc.tuple(row, fc.constantFrom('a', 'b')).map(([of, option]) => `${of}.${option}`),
);
const told = fc.dictionary(key, fc.constantFrom('0', '120', '-40'), { noNullPrototype: true });

describe('what is told of options, by row', () => {
  test('is all that was told, each under its row', () => {
    fc.assert(
      fc.property(told, (all) => {
        const rows = byRow(all);
        expect(Object.assign({}, ...rows.values())).toEqual(all);
        for (const [of, slice] of rows)
          expect(Object.keys(slice).every((each) => each === of || each.startsWith(`${of}.`))).toBe(true);
      }),
    );
  });

  test('keeps the object of exactly the rows of which the same is told', () => {
    fc.assert(
      fc.property(told, told, (first, then) => {
        const before = byRow(first);
        const after = byRow(then, before);
        expect(Object.assign({}, ...after.values())).toEqual(then);
        for (const of of new Set([...before.keys(), ...after.keys()])) {
          const of1 = Object.entries(first)
            .filter(([each]) => each.split('.')[0] === of)
            .sort();
          const of2 = Object.entries(then)
            .filter(([each]) => each.split('.')[0] === of)
            .sort();
          expect(before.get(of) === after.get(of)).toBe(JSON.stringify(of1) === JSON.stringify(of2));
        }
        expect(before === after).toBe(
          JSON.stringify(Object.entries(first).sort()) === JSON.stringify(Object.entries(then).sort()),
        );
      }),
    );
  });
});
