import { describe, expect, it } from 'vitest';
import type { PricedPart } from '../core/pricing';
import { translator } from './index';
import { partHow, partHowInAll } from './part-how';

const part = (more: Partial<PricedPart>): PricedPart => ({
  id: 'a',
  kind: 'part',
  name: { en: 'A' },
  amount: '1',
  ...more,
});
const slices = [
  { from: '0', below: '1000', quantity: '1000', rate: '0.12', amount: '120' },
  { from: '1000', quantity: '1400', rate: '0.09', amount: '126' },
];
const [t, de] = [translator('en'), translator('de')];

describe('how a part came about', () => {
  it.each<[string, Partial<PricedPart>, string]>([
    ['one at its price', { quantity: '1', unitPrice: '980' }, ''],
    ['several', { quantity: '54', unitPrice: '312' }, '54 × 312.00'],
    [
      'a bracket',
      { quantity: '2', tiers: [{ from: '2', below: '3', quantity: '2', amount: '1216' }] },
      'from 2, below 3',
    ],
    [
      'a bracket without end',
      { quantity: '9', tiers: [{ from: '7', quantity: '9', amount: '3900' }] },
      'from 7 on',
    ],
    ['slices', { quantity: '2400', tiers: slices }, '1,000 × 0.12 + 1,400 × 0.09'],
    ['the least charge', { quantity: '20', tiers: slices, least: '45' }, 'Charge due in any case 45.00'],
    ['a surcharge', { kind: 'surcharge', rate: '0.06' }, '6 %'],
    ['a price inside', { kind: 'inside', rate: '0.1' }, '−10 %'],
    ['nothing to tell', {}, ''],
  ])('%s', (_name, more, how) => {
    expect(partHow(part(more), t, 'en', 2).replaceAll('\u00a0', ' ')).toBe(how);
  });

  it('over its term, so that it can be worked out again', () => {
    const recurs = { baseMonths: 12, months: 18 };
    expect(partHowInAll(part({ quantity: '5', unitPrice: '96', recurs }), t, 'en', 2)).toBe(
      '5 × 96.00 × 18/12 for 18 months',
    );
    expect(
      partHowInAll(
        part({ quantity: '2400', tiers: slices, recurs: { baseMonths: 1, months: 18 } }),
        t,
        'en',
        2,
      ),
    ).toBe('(1,000 × 0.12 + 1,400 × 0.09) × 18/1 for 18 months');
    expect(
      partHowInAll(part({ unitPrice: '780', recurs: { baseMonths: 12, leastMonths: 6 } }), t, 'en', 2),
    ).toBe('for 12 months');
    expect(partHowInAll(part({ unitPrice: '7', recurs: { baseMonths: 1 } }), t, 'en', 2)).toBe('for a month');
    expect(partHowInAll(part({ unitPrice: '7', recurs: { baseMonths: 1 } }), de, 'de', 2)).toBe(
      'für einen Monat',
    );
    expect(partHowInAll(part({ quantity: '2', unitPrice: '7' }), t, 'en', 2)).toBe('2 × 7.00');
  });
});
