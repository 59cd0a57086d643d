import { describe, expect, it } from 'vitest';
import { readDay } from './read-day';

const today = new Date(2026, 10, 26);

describe('a day as people write it', () => {
  it.each([
    ['2027-03-01', '2027-03-01'],
    ['1.3.2027', '2027-03-01'],
    ['1.3.27', '2027-03-01'],
    ['01/03/2027', '2027-03-01'],
    ['31/12/26', '2026-12-31'],
    ['1 Mar 2027', '2027-03-01'],
    ['1 March 27', '2027-03-01'],
    ['01 Mar 2027', '2027-03-01'],
    ['Mar 1, 2027', '2027-03-01'],
    ['1. März 2027', '2027-03-01'],
    ['  1   mar  2027 ', '2027-03-01'],
    ['29.2.2028', '2028-02-29'],
    ['today', '2026-11-26'],
    ['Heute', '2026-11-26'],
    ['tomorrow', '2026-11-27'],
    ['+14', '2026-12-10'],
    ['+ 365', '2027-11-26'],
  ])('%j is %s', (typed, day) => {
    expect(readDay(typed, 'en', today)).toBe(day);
    expect(readDay(typed, 'de', today)).toBe(day);
  });
  it.each([
    ['3/4/27', '2027-03-04'],
    ['12/31/2026', '2026-12-31'],
    ['Mar 1, 2027', '2027-03-01'],
    ['March 1 2027', '2027-03-01'],
    ['1.3.2027', '2027-03-01'],
    ['31/12/26', '2026-12-31'],
  ])('%j, in American English, is %s', (typed, day) => {
    expect(readDay(typed, 'en-US', today)).toBe(day);
  });
  it.each(['', 'soon', '29.2.2027', '2027-13-01', '32.1.2027', '1.3.', '1e9', '+99999', '1.1.0027', '-14'])(
    '%j is none',
    (typed) => {
      expect(readDay(typed, 'en', today)).toBeNull();
    },
  );
});
