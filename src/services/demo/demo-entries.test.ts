import { describe, expect, it } from 'vitest';
import { changedEntry, entryOfFile } from './demo-entries';

describe('a change of price', () => {
  const yearly = { method: 'unit', price: '240.00', baseMonths: 12, leastMonths: 6 } as const;

  it('keeps for how long a price is, where only a figure is said', () => {
    expect(entryOfFile(changedEntry('DK-DRIVER', '312.00', yearly))).toEqual({
      entry: { method: 'unit', price: '312.00' },
      every: { baseMonths: 12, leastMonths: 6 },
    });
    expect(changedEntry('YE-BOLL', '176.00', '168.00')).toEqual({ method: 'unit', price: '176.00' });
    expect(changedEntry('NEW', '5.00', undefined)).toEqual({ method: 'unit', price: '5.00' });
  });

  it('is refused where it becomes another kind of price unsaid, and taken where it is said', () => {
    expect(() => changedEntry('DK-DRIVER', { method: 'unit', price: '312.00' }, yearly)).toThrow(
      /DK-DRIVER is of another kind \(unit, for 12 months becomes unit, once\)/,
    );
    expect(() => changedEntry('DK-CLOUD', '5.00', { method: 'included' })).toThrow(/another kind/);
    expect(changedEntry('DK-DRIVER', { method: 'unit', price: '312.00', otherKind: true }, yearly)).toEqual({
      method: 'unit',
      price: '312.00',
    });
  });
});
