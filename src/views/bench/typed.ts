/** Lengths and masses in the units that a person says and reads; a model keeps its own. */
import { exact, readExact, roundHalfUp, type Exact, type ExactText } from '../../core/exact';

export type Units = 'metric' | 'imperial';

/** Factors to the metre and to the kilogram, exactly. */
const families: readonly Readonly<Record<string, ExactText>>[] = [
  { mm: '0.001', cm: '0.01', m: '1', km: '1000', in: '0.0254', ft: '0.3048', yd: '0.9144', mi: '1609.344' },
  { g: '0.001', kg: '1', t: '1000', lb: '0.45359237', oz: '0.028349523125' },
];
/** What stands for a metric unit where a person reads the other ones, and with how many decimals. */
const imperial: Readonly<Record<string, { unit: string; decimals: number }>> = {
  mm: { unit: 'in', decimals: 2 }, cm: { unit: 'in', decimals: 1 }, m: { unit: 'ft', decimals: 2 }, km: { unit: 'mi', decimals: 1 }, kg: { unit: 'lb', decimals: 0 }, t: { unit: 'lb', decimals: 0 },
};

const familyOf = (unit: string) => families.find((family) => Object.hasOwn(family, unit));

/** A value in another unit of the same kind; null where there is none. */
function convert(value: Exact, from: string, to: string): Exact | null {
  const family = familyOf(from);
  const [a, b] = [family?.[from], family?.[to]];
  return a === undefined || b === undefined ? null : (value.times(a).div(b) as Exact);
}

/** The unit in which a person reads a value of the model's unit. */
export const shownUnit = (unit: string, units: Units): string => (units === 'imperial' ? (imperial[unit]?.unit ?? unit) : unit);

/** A value of the model as a person reads it, in `shownUnit`. */
export function shownValue(value: ExactText, unit: string, units: Units): ExactText {
  const other = units === 'imperial' ? imperial[unit] : undefined;
  const converted = other && convert(exact(value), unit, other.unit);
  return converted ? roundHalfUp(converted, other.decimals).toString() : value;
}

/** The steps that a number can stand on. */
export interface Steps {
  least: ExactText;
  most: ExactText;
  step: ExactText;
}

/**
 * Reads a typed number, with or without a unit ("18", "18 m", "1800cm", "12,5", "59 ft 6 in"), into the model's unit; a bare number is in the
 * unit that the person reads. A number in another unit means the step that it names as exactly as it was typed: "59 ft" is 18 m
 * where lengths go by half metres. Null where it is no number, or the unit does not fit.
 */
export function readTyped(typed: string, unit: string, units: Units = 'metric', steps?: Steps): ExactText | null {
  const parts = [...typed.matchAll(/([-−]?\d[\d.,]*)\s*([a-z'"′″]*)\s*/gi)];
  if (parts.length === 0 || parts.map((part) => part[0]).join('') !== typed.trimStart().padEnd(typed.trimStart().length)) return null;
  const [first, second, more] = parts;
  if (!first || more || (second && !(spoken(first[2]) === 'ft' && ['in', ''].includes(spoken(second[2]))))) return null;
  const read = (part: RegExpMatchArray): Exact | null => readExact((part[1] ?? '').replace('−', '-').replace(',', '.'));
  const [main, rest] = [read(first), second ? read(second) : exact(0)];
  if (!main || !rest) return null;
  const said = spoken(first[2]) || shownUnit(unit, units);
  if (said === unit && !second) return main.toString();
  const whole = main.plus(convert(rest, 'in', said) ?? 0) as Exact;
  const value = convert(whole, said, unit);
  if (!value) return null;
  const precision = convert(exact(second ? (fineness(second[1]) ?? '1') : (fineness(first[1]) ?? '1')), second ? 'in' : said, unit);
  return (steps && precision ? (nearStep(value, precision, steps) ?? value) : value).toString();
}

/** A unit as it is spoken: the marks of feet and inches among them. */
function spoken(suffix = ''): string {
  const mark = suffix.toLowerCase();
  return mark === "'" || mark === '′' ? 'ft' : mark === '"' || mark === '″' ? 'in' : mark;
}

/** The worth of the last digit of a typed number: "44.3" is fine to 0.1. */
const fineness = (digits = ''): ExactText | null => {
  const decimals = digits.split(/[.,]/)[1]?.length ?? 0;
  return decimals === 0 ? null : exact(10).pow(-decimals).toString();
};

/** The step that lies within what was typed, if any: no farther off than half of its last digit. */
function nearStep(value: Exact, precision: Exact, { least, most, step }: Steps): Exact | null {
  const steps = value.minus(least).div(step).toDecimalPlaces(0);
  const near = exact(least).plus(steps.times(step)) as Exact;
  return near.gte(least) && near.lte(most) && near.minus(value).abs().times(2).lte(precision) ? near : null;
}
