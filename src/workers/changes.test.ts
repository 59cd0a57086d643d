import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changesOf, withChanges } from './changes';

const { value: plain } = fc.letrec<{ value: unknown }>((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    fc.constant(null),
    fc.boolean(),
    fc.integer({ min: 0, max: 3 }),
    fc.constantFrom('a', 'b', ''),
    fc.array(tie('value'), { maxLength: 3 }),
    fc.dictionary(fc.constantFrom('x', 'y', 'z'), tie('value'), { noNullPrototype: true }),
  ),
}));

describe('what changed', () => {
  it('makes of what was what is, also after the way between worker and page', () => {
    fc.assert(
      fc.property(plain, plain, (before, after) => {
        expect(withChanges(before, structuredClone(changesOf(before, after)))).toStrictEqual(after);
      }),
      { numRuns: 2000 },
    );
  });

  it('is nothing between equals', () => {
    fc.assert(
      fc.property(plain, (value) => {
        expect(changesOf(value, structuredClone(value))).toBeNull();
        expect(withChanges(value, null)).toBe(value);
      }),
    );
  });

  it('leaves what stays the object that it was, and sends only the rest', () => {
    const before = {
      rows: { length: { value: '18', options: [1, 2] }, width: { value: '3' } },
      open: ['width'],
    };
    const changes = changesOf(before, {
      ...structuredClone(before),
      rows: { ...structuredClone(before.rows), width: { value: '4' } },
    });
    expect(changes).toEqual({
      is: 'entries',
      gone: [],
      entries: {
        rows: {
          is: 'entries',
          gone: [],
          entries: { width: { is: 'entries', gone: [], entries: { value: { is: 'value', value: '4' } } } },
        },
      },
    });
    const after = withChanges(before, changes);
    expect(after.rows.length).toBe(before.rows.length);
    expect(after.open).toBe(before.open);
    expect(after.rows.width).toEqual({ value: '4' });
    expect(before.rows.width).toEqual({ value: '3' });
  });
});
