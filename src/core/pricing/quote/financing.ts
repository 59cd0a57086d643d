/** A lease by the month, and what a sale earns who made it. */
import { exact, type ExactText } from '../../exact';
import { limitFor, type Limit } from '../limits/limits';
import type { QuoteLine } from './quote-types';

/** A lease: months, a rate a year as a fraction, what is left at the end. */
export interface Lease {
  amount: ExactText;
  months: number;
  /** 0.054 is 5.4 % a year. */
  yearlyRate: ExactText;
  /** What it is worth at the end. */
  residual?: ExactText;
  /** Due at the beginning of each month instead of its end. */
  inAdvance?: boolean;
}

/**
 * (PV - RV/(1+i)^n) x i / (1 - (1+i)^-n); in advance divided by (1+i); without interest, what is used up in
 * equal parts. Not rounded.
 */
export function monthlyRate({
  amount,
  months,
  yearlyRate,
  residual = '0',
  inAdvance = false,
}: Lease): ExactText {
  if (!Number.isInteger(months) || months < 1)
    throw new RangeError('a lease runs for at least one whole month');
  const interest = exact(yearlyRate).div(12);
  if (interest.isZero()) return exact(amount).minus(residual).div(months).toString();
  const growth = interest.plus(1);
  const worn = growth.pow(-months);
  const rate = exact(amount).minus(exact(residual).times(worn)).times(interest).div(exact(1).minus(worn));
  return (inAdvance ? rate.div(growth) : rate).toString();
}

/** What somebody earns on what they sell, as fractions. */
export interface CommissionPlan {
  baseRate: ExactText;
  /** On what is above the target price. */
  higherRate: ExactText;
}

/** The base rate up to the target price, the higher one on what is above. */
export function commission(
  net: ExactText,
  target: ExactText,
  { baseRate, higherRate }: CommissionPlan,
): ExactText {
  const sold = exact(net);
  const above = sold.gt(target) ? sold.minus(target) : exact(0);
  return sold.minus(above).times(baseRate).plus(above.times(higherRate)).toString();
}

/**
 * The lines at their target: with just the discount that the role is expected to give, and whatever else
 * holds.
 */
export function atTarget(lines: readonly QuoteLine[], limits: readonly Limit[], role: string): QuoteLine[] {
  const own = limits.filter((limit) => limit.role === role);
  return lines.map((line) => {
    const { hand: _hand, ...granted } = line.terms;
    const target = limitFor(own, line.family, 'discount')?.target;
    return {
      ...line,
      terms: {
        ...granted,
        ...(target !== undefined && line.discountable
          ? { hand: { by: 'rate' as const, value: target } }
          : {}),
      },
    };
  });
}
