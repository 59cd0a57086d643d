import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inForce, standOf, type Dated } from '.';

interface Row extends Dated {
  key: string;
}
const days = Array.from({ length: 12 }, (_, at) => `2026-03-${String(at + 1).padStart(2, '0')}`);
const row: fc.Arbitrary<Row> = fc.record({
  key: fc.constantFrom('a', 'b'),
  validFrom: fc.option(fc.constantFrom(...days)),
  validTo: fc.option(fc.constantFrom(...days)),
});

describe('what is in force on a day', () => {
  it('is what a diary says that is written day by day', () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 10 }), (rows) => {
        // What begins before all days is written into the diary first; then each day what begins on it.
        const diary = new Map<string, Row>();
        for (const day of ['', ...days]) {
          for (const each of rows) if ((each.validFrom ?? '') === day) diary.set(each.key, each);
          if (day === '') continue;
          const expected = [...diary].filter(([, { validTo }]) => validTo === null || validTo >= day);
          expect(new Map(expected)).toEqual(inForce(rows, ({ key }) => key, day));
        }
      }),
    );
  });

  it('tells of each row where it stands', () => {
    const [first, second] = [
      { validFrom: null, validTo: null },
      { validFrom: '2026-03-05', validTo: '2026-03-08' },
    ];
    const stands = (day: string) => [first, second].map((each) => standOf(each, [first, second], day));
    expect(stands('2026-03-04')).toEqual(['now', 'ahead']);
    expect(stands('2026-03-05')).toEqual(['over', 'now']);
    expect(stands('2026-03-09')).toEqual(['over', 'over']);
  });
});
