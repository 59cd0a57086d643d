import { describe, expect, it } from 'vitest';
import { afterWorkingDays } from './index';

describe('working days', () => {
  // 2026-11-26 is a Thursday.
  it.each([
    [0, '2026-11-26'],
    [1, '2026-11-27'],
    [2, '2026-11-30'],
    [5, '2026-12-03'],
    [7, '2026-12-07'],
    [25, '2026-12-31'],
    [26, '2027-01-01'],
  ])('%i after a Thursday', (days, expected) => {
    expect(afterWorkingDays('2026-11-26', days)).toBe(expected);
  });
  it('begin on Monday from a weekend', () => {
    expect([afterWorkingDays('2026-11-28', 1), afterWorkingDays('2026-11-29', 1)]).toEqual([
      '2026-11-30',
      '2026-11-30',
    ]);
  });
});
