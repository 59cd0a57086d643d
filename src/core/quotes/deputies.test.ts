import { describe, expect, it } from 'vitest';
import { circleIn, standsInFor, type Deputy } from './deputies';

const deputy = (of: string, by: string, from = '2027-01-04', to = '2027-01-08'): Deputy => ({
  of,
  deputy: by,
  from,
  to,
});

describe('whoever stands in', () => {
  it('does so from the first day to the last, both counted', () => {
    const all = [deputy('ann', 'ben')];
    const on = (day: string) => standsInFor(all, 'ben', day);
    expect(on('2027-01-03')).toEqual([]);
    expect(on('2027-01-04')).toEqual(['ann']);
    expect(on('2027-01-08')).toEqual(['ann']);
    expect(on('2027-01-09')).toEqual([]);
    expect(standsInFor(all, 'ann', '2027-01-05')).toEqual([]);
  });

  it('stands in for those too in whose place the other stood', () => {
    const all = [deputy('ann', 'ben'), deputy('ben', 'cid', '2027-01-06', '2027-01-20')];
    expect(standsInFor(all, 'cid', '2027-01-05')).toEqual([]);
    expect(standsInFor(all, 'cid', '2027-01-07').sort()).toEqual(['ann', 'ben']);
    expect(standsInFor(all, 'cid', '2027-01-12')).toEqual(['ben']);
  });
});

describe('a circle', () => {
  it('is of one, of two, and of more', () => {
    expect(circleIn([deputy('ann', 'ann')])).toEqual({ day: '2027-01-04', of: ['ann'] });
    expect(circleIn([deputy('ann', 'ben'), deputy('ben', 'ann')])?.of.sort()).toEqual(['ann', 'ben']);
    expect(circleIn([deputy('ann', 'ben'), deputy('ben', 'cid'), deputy('cid', 'ann')])?.of).toHaveLength(3);
  });

  it('is none where they are away at other times, or share a deputy', () => {
    expect(
      circleIn([
        deputy('ann', 'ben', '2027-01-04', '2027-01-08'),
        deputy('ben', 'ann', '2027-01-09', '2027-01-12'),
      ]),
    ).toBeNull();
    expect(
      circleIn([deputy('ann', 'ben'), deputy('ann', 'cid'), deputy('ben', 'dot'), deputy('cid', 'dot')]),
    ).toBeNull();
  });

  it('is told by the first day on which it is one', () => {
    expect(
      circleIn([
        deputy('ann', 'ben', '2027-01-04', '2027-01-20'),
        deputy('ben', 'ann', '2027-01-12', '2027-01-12'),
      ])?.day,
    ).toBe('2027-01-12');
  });

  it('is there just where on some day somebody would come back to themselves, whatever there is', () => {
    let seed = 7;
    const random = (below: number): number => {
      seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31;
      return Math.floor((seed / 2 ** 31) * below);
    };
    const dayAt = (at: number): string => `2027-01-${String(at + 1).padStart(2, '0')}`;
    let circles = 0;
    for (let run = 0; run < 400; run++) {
      const all = Array.from({ length: 1 + random(7) }, () => {
        const from = random(20);
        return deputy(`p${String(random(5))}`, `p${String(random(5))}`, dayAt(from), dayAt(from + random(8)));
      });
      const comesBack = Array.from({ length: 31 }, (_, at) => dayAt(at)).some((day) =>
        all.some((each) => reaches(all, each.deputy, each.of, day, 6) && each.from <= day && day <= each.to),
      );
      expect(circleIn(all) !== null, JSON.stringify(all)).toBe(comesBack);
      if (comesBack) circles++;
    }
    expect(circles).toBeGreaterThan(50);
    expect(circles).toBeLessThan(350);
  });
});

/** Said plainly: in so many steps at most somebody leads to somebody on a day. */
function reaches(all: readonly Deputy[], who: string, whom: string, day: string, steps: number): boolean {
  if (who === whom) return true;
  return (
    steps > 0 &&
    all.some(
      (each) =>
        each.of === who &&
        each.from <= day &&
        day <= each.to &&
        reaches(all, each.deputy, whom, day, steps - 1),
    )
  );
}
