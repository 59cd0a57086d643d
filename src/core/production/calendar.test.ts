import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { afterWorkingDays, calendarFor, plainWeek, promisedDay, type WorkingCalendar } from './index';

const closed = (from: string, to = from, country: string | null = null) => ({ from, to, country });
const calendar: WorkingCalendar = {
  workdays: [1, 2, 3, 4, 5],
  closed: [
    closed('2026-12-25', '2026-12-26'),
    closed('2026-12-28', '2026-12-31', 'GB'),
    closed('2026-12-24', '2027-01-06', 'DE'),
    closed('2027-01-01'),
    closed('2027-05-31', '2027-05-31', 'GB'),
  ],
};

describe('working days', () => {
  // 2026-11-26 is a Thursday.
  it.each([
    [0, '2026-11-26'],
    [1, '2026-11-27'],
    [2, '2026-11-30'],
    [5, '2026-12-03'],
    [10, '2026-12-10'],
  ])('%d days after a Thursday', (days, expected) => {
    expect(afterWorkingDays('2026-11-26', days)).toBe(expected);
  });

  it('begin on Monday where one orders at a weekend', () => {
    expect([afterWorkingDays('2026-11-28', 1), afterWorkingDays('2026-11-29', 1)]).toEqual([
      '2026-11-30',
      '2026-11-30',
    ]);
  });

  it.each([
    ['2026-12-23', 1, 'GB', '2026-12-24'],
    ['2026-12-24', 1, 'GB', '2027-01-04'],
    ['2026-12-24', 1, 'DE', '2027-01-07'],
    ['2026-12-23', 1, 'DE', '2027-01-07'],
    ['2026-12-24', 1, 'FR', '2026-12-28'],
    ['2026-12-24', 4, 'FR', '2026-12-31'],
    ['2026-12-24', 5, 'FR', '2027-01-04'],
    ['2027-05-28', 1, 'GB', '2027-06-01'],
    ['2026-12-27', 0, 'GB', '2026-12-27'],
  ])('from %s, %d in %s: %s', (day, days, country, expected) => {
    expect(afterWorkingDays(day, days, calendar, country)).toBe(expected);
  });

  it('are made where it is built, and go by the calendar of where it is delivered', () => {
    expect(promisedDay('2026-12-22', 1, calendar, { made: 'GB', goes: 'DE' })).toBe('2027-01-08');
    expect(promisedDay('2026-12-22', 1, calendar, { made: 'GB', goes: 'GB' })).toBe('2027-01-04');
    expect(promisedDay('2026-11-26', 3, plainWeek, { made: 'GB', goes: 'DE' })).toBe(
      afterWorkingDays('2026-11-26', 5),
    );
  });

  it('are those of a day-by-day count, whatever is closed', () => {
    const day = fc
      .nat(400)
      .map((at) => new Date(Date.UTC(2026, 0, 1) + at * 86_400_000).toISOString().slice(0, 10));
    const spans = fc.array(
      fc.record({ from: day, length: fc.nat(20), country: fc.constantFrom(null, 'GB', 'DE') }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(
        day,
        fc.nat(60),
        spans,
        fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }),
        (start, days, given, workdays) => {
          const own: WorkingCalendar = {
            workdays,
            closed: given.map(({ from, length, country }) => ({
              from,
              to: new Date(Date.parse(from) + length * 86_400_000).toISOString().slice(0, 10),
              country,
            })),
          };
          const date = new Date(start);
          for (let left = days; left > 0;) {
            date.setUTCDate(date.getUTCDate() + 1);
            const iso = date.toISOString().slice(0, 10);
            const weekday = date.getUTCDay() === 0 ? 7 : date.getUTCDay();
            const free = own.closed.some(
              ({ from, to, country }) => country !== 'DE' && from <= iso && iso <= to,
            );
            if (!free && workdays.includes(weekday)) left -= 1;
          }
          expect(afterWorkingDays(start, days, own, 'GB')).toBe(date.toISOString().slice(0, 10));
          // What a page is given counts the same from that day on.
          expect(afterWorkingDays(start, days, calendarFor(own, start, ['GB']), 'GB')).toBe(
            afterWorkingDays(start, days, own, 'GB'),
          );
        },
      ),
    );
  });

  it('of 10,000 holidays are counted at once, and where nothing is worked the count ends', () => {
    const many: WorkingCalendar = {
      workdays: [1, 2, 3, 4, 5],
      closed: Array.from({ length: 10_000 }, (_, at) =>
        closed(new Date(Date.UTC(2000, 0, 1 + at * 2)).toISOString().slice(0, 10)),
      ),
    };
    for (let at = 0; at < 2_000; at += 1) afterWorkingDays('2026-01-01', 60, many, 'GB');
    expect(afterWorkingDays('2026-01-01', 5, { workdays: [], closed: [] })).toMatch(/^20\d\d-/);
  });
});
