/** What a line would come to at other quantities: as the walk says, and only where a piece comes to something else. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exact, roundHalfUp } from '../../exact';
import type { LineTerms, PricedPart } from '../types';
import { atQuantities } from './at-quantities';
import { walk } from './walk';

const part = (amount: string, more: Partial<PricedPart> = {}): PricedPart => ({
  id: 'a',
  kind: 'part',
  name: { en: 'A part' },
  amount,
  ...more,
});
const discounted = (quantity: number, levels: readonly (readonly [number, string])[]): LineTerms => ({
  quantity,
  day: '2026-06-01',
  quantityDiscount: {
    name: { en: 'By quantity' },
    by: 'whole',
    levels: levels.map(([from, rate]) => ({ from: String(from), rate })),
  },
});

describe('other quantities', () => {
  it('are those from which a piece costs less, with what it saves', () => {
    const terms = discounted(3, [
      [10, '0.02'],
      [40, '0.05'],
    ]);
    expect(atQuantities([part('200')], terms, 2)).toEqual([
      { quantity: 1, net: '200', each: '200', saves: '0' },
      { quantity: 3, net: '600', each: '200', saves: '0' },
      { quantity: 10, net: '1960', each: '196', saves: '4' },
      { quantity: 40, net: '7600', each: '190', saves: '10' },
    ]);
  });

  it('share what is due once a line among the pieces', () => {
    const rows = atQuantities([part('100'), part('50', { counts: 'line' })], discounted(1, []), 2);
    expect(rows.map(({ quantity, each }) => `${String(quantity)}: ${each}`)).toEqual([
      '1: 150',
      '5: 110',
      '10: 105',
      '25: 102',
      '50: 101',
      '100: 100.5',
    ]);
    expect(rows[1]?.saves).toBe('40');
  });

  it('are what the walk says at each of them, in order, the quantity of the line among them', () => {
    const level = fc.tuple(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 0, max: 30 }));
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.uniqueArray(level, { maxLength: 4, selector: ([from]) => from }),
        fc.integer({ min: 1, max: 1_000_000 }),
        (quantity, levels, cents) => {
          const parts = [part(exact(cents).div(100).toString())];
          const terms = discounted(
            quantity,
            levels.sort(([a], [b]) => a - b).map(([from, rate]) => [from, exact(rate).div(100).toString()]),
          );
          const rows = atQuantities(parts, terms, 2);
          expect(rows.map((row) => row.quantity)).toContain(quantity);
          for (const [at, row] of rows.entries()) {
            const net = walk(parts, { ...terms, quantity: row.quantity }, 2).net;
            expect(row.net).toBe(net);
            expect(row.each).toBe(roundHalfUp(exact(net).div(row.quantity), 2).toString());
            const before = rows[at - 1];
            if (before) {
              expect(before.quantity).toBeLessThan(row.quantity);
              if (row.quantity !== quantity) expect(before.each).not.toBe(row.each);
            }
          }
          expect(rows.find((row) => row.quantity === quantity)?.saves).toBe('0');
        },
      ),
    );
  });
});
