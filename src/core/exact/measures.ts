/** Lengths and masses in the units that somebody reads; what is kept stays in its own. */
import type { Exact } from './decimal';
import { exact, roundHalfUp, type ExactText } from './decimal';

/** Units in which somebody thinks. */
export type Units = 'metric' | 'imperial';

/** Factors to the metre and to the kilogram, exactly. */
const families: readonly Readonly<Record<string, ExactText>>[] = [
  { mm: '0.001', cm: '0.01', m: '1', km: '1000', in: '0.0254', ft: '0.3048', yd: '0.9144', mi: '1609.344' },
  { g: '0.001', kg: '1', t: '1000', lb: '0.45359237', oz: '0.028349523125' },
];
/** What stands for a metric unit where somebody reads the other ones, and with how many decimals. */
const imperial: Readonly<Record<string, { unit: string; decimals: number }>> = {
  mm: { unit: 'in', decimals: 2 },
  cm: { unit: 'in', decimals: 1 },
  m: { unit: 'ft', decimals: 2 },
  km: { unit: 'mi', decimals: 1 },
  kg: { unit: 'lb', decimals: 0 },
  t: { unit: 'lb', decimals: 0 },
};

const familyOf = (unit: string) => families.find((family) => Object.hasOwn(family, unit));

/** A value in another unit of the same kind; null where there is none. */
export function inUnit(value: Exact, from: string, to: string): Exact | null {
  const family = familyOf(from);
  const [a, b] = [family?.[from], family?.[to]];
  return a === undefined || b === undefined ? null : value.times(a).div(b);
}

/** The unit in which somebody reads a value of a unit. */
export const shownUnit = (unit: string, units: Units): string =>
  units === 'imperial' ? (imperial[unit]?.unit ?? unit) : unit;

/** A value as somebody reads it, in `shownUnit`. */
export function shownValue(value: ExactText, unit: string, units: Units): ExactText {
  const other = units === 'imperial' ? imperial[unit] : undefined;
  const converted = other && inUnit(exact(value), unit, other.unit);
  return converted ? roundHalfUp(converted, other.decimals).toString() : value;
}
