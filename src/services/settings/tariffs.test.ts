import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PriceEntryRow } from '../../data';
import { inForce } from '../../core/terms';
import type { Reference } from './reference-data';
import { entriesOn, placeOf, sinceWhen } from './tariffs';

const day = fc
  .integer({ min: 0, max: 40 })
  .map((at) => new Date(Date.UTC(2026, 0, 10 + at)).toISOString().slice(0, 10));
const row = fc.record({
  sku: fc.constantFrom('A', 'B', 'C'),
  inside: fc.constantFrom('', 'X'),
  validFrom: day,
  validTo: fc.option(day),
});
let count = 0;
/** Reference data with only what lists are read from. */
const knownWith = (rows: readonly object[]): Reference =>
  ({
    stamp: String((count += 1)),
    entries: new Map([['EU', rows]]),
    workCentres: [],
  }) as unknown as Reference;

describe('a price list on a day', () => {
  it('has the entries that hold on that day, also where it is shared with other days', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(row, { maxLength: 12 }),
        fc.array(day, { minLength: 1, maxLength: 6 }),
        async (rows, days) => {
          const entries = rows as unknown as PriceEntryRow[];
          const known = knownWith(entries);
          for (const each of days)
            expect(await entriesOn(known, 'EU', each)).toEqual(inForce(entries, placeOf, each));
        },
      ),
    );
  });

  it('is named by the day on which it last changed', () => {
    const known = knownWith([
      { sku: 'A', inside: '', validFrom: '2026-02-01', validTo: '2026-02-10' },
      { sku: 'B', inside: '', validFrom: '2026-03-01', validTo: null },
    ]);
    const since = (on: string): string => sinceWhen(known, 'EU', on);
    expect(
      ['2026-01-31', '2026-02-01', '2026-02-10', '2026-02-11', '2026-02-28', '2027-01-01'].map(since),
    ).toEqual(['0001-01-01', '2026-02-01', '2026-02-01', '2026-02-11', '2026-02-11', '2026-03-01']);
  });
});
