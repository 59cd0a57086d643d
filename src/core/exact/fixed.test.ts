import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compare,
  divided,
  exact,
  Sum,
  fixed,
  minus,
  negative,
  nothing,
  ofWhole,
  plus,
  ratio,
  rounded,
  roundHalfUp,
  textOf,
  times,
  unitsAt,
  type Fixed,
} from './index';

const decimal = fc
  .tuple(
    fc.boolean(),
    fc.bigInt({ min: 0n, max: 10n ** 9n }),
    fc.bigInt({ min: 0n, max: 10n ** 6n - 1n }),
    fc.nat({ max: 6 }),
  )
  .map(([below, whole, rest, digits]) => {
    const after = rest.toString().padStart(6, '0').slice(0, digits);
    return `${below && (whole > 0n || /[1-9]/.test(after)) ? '-' : ''}${whole.toString()}${after ? `.${after}` : ''}`;
  });

describe('decimals of fixed scale', () => {
  it.each(['0', '0.00', '-0.05', '100', '-100', '12.50', '0.000001', '-7', '1000000000000.1'])(
    '%s is read and written',
    (text) => expect(textOf(fixed(text))).toBe(exact(text).toString().replace(/^-0$/, '0')),
  );
  it('do what exact decimals do', () => {
    const same = (ours: Fixed, theirs: { toString(): string }) =>
      expect(textOf(ours)).toBe(theirs.toString().replace(/^-0$/, '0'));
    fc.assert(
      fc.property(decimal, decimal, fc.nat({ max: 4 }), (a, b, decimals) => {
        same(plus(fixed(a), fixed(b)), exact(a).plus(b));
        same(minus(fixed(a), fixed(b)), exact(a).minus(b));
        same(times(fixed(a), fixed(b)), exact(a).times(b));
        same(negative(fixed(a)), exact(a).negated());
        same(rounded(fixed(a), decimals), roundHalfUp(exact(a), decimals));
        expect(compare(fixed(a), fixed(b))).toBe(exact(a).cmp(b));
      }),
    );
  });
  it('divide to twenty decimals', () => {
    expect([
      ratio(fixed('1'), fixed('3')),
      ratio(fixed('-2'), fixed('3')),
      ratio(fixed('0.5'), fixed('-0.25')),
      ratio(nothing, fixed('7')),
    ]).toEqual(['0.33333333333333333333', '-0.66666666666666666667', '-2', '0']);
    fc.assert(
      fc.property(
        decimal,
        decimal.filter((each) => Number(each) !== 0),
        (a, b) => {
          expect(
            exact(ratio(fixed(a), fixed(b)))
              .minus(exact(a).div(b))
              .abs()
              .lte('1e-20'),
          ).toBe(true);
        },
      ),
    );
  });
  it('divide to whatever decimals, rounded once from the exact quotient', () => {
    const ties = [
      ['1', '8', 2],
      ['-1', '8', 2],
      ['1', '-8', 2],
      ['12345.678', '0.01', 0],
      ['0.005', '1', 2],
      ['2.4999999', '1', 0],
    ] as const;
    expect(ties.map(([a, b, decimals]) => textOf(divided(fixed(a), fixed(b), decimals)))).toEqual([
      '0.13',
      '-0.13',
      '-0.13',
      '1234568',
      '0.01',
      '2',
    ]);
    fc.assert(
      fc.property(
        decimal,
        decimal.filter((each) => Number(each) !== 0),
        fc.nat({ max: 4 }),
        (a, b, decimals) => {
          // Off by at most half of the last decimal, told without dividing: |2 (q b - a)| <= |b| /
          // 10^decimals.
          const missed = exact(textOf(divided(fixed(a), fixed(b), decimals)))
            .times(b)
            .minus(a)
            .abs()
            .times(2);
          expect(missed.lte(exact(b).abs().div(exact(10).pow(decimals)))).toBe(true);
        },
      ),
    );
  });
  it('round ties away from zero', () => {
    expect(['0.005', '-0.005', '0.0049', '2.5'].map((text) => textOf(rounded(fixed(text), 2)))).toEqual([
      '0.01',
      '-0.01',
      '0',
      '2.5',
    ]);
    expect(unitsAt(plus(ofWhole(3), nothing), 2)).toBe(300n);
  });
});

it('a sum of many is what adding them one by one comes to, of whatever scales', () => {
  fc.assert(
    fc.property(fc.array(decimal, { maxLength: 30 }), (texts) => {
      const sum = new Sum();
      for (const text of texts) sum.add(fixed(text));
      expect(textOf(sum.value)).toBe(textOf(texts.reduce((all, text) => plus(all, fixed(text)), nothing)));
      expect(exact(textOf(sum.value)).eq(texts.reduce((all, text) => all.plus(text), exact(0)))).toBe(true);
    }),
  );
});
