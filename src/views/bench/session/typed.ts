/** Lengths and masses as a person types them; a model keeps its own units. */
import {
  exact,
  Exact,
  inUnit,
  readWritten,
  shownUnit,
  type ExactText,
  type Units,
} from '../../../core/exact';

/** The steps that a number can stand on. */
export interface Steps {
  least: ExactText;
  most: ExactText;
  step: ExactText;
}

/** What somebody typed into the field of a number, in the model's unit. */
export type TypedNumber =
  | { is: 'number'; value: ExactText }
  /** "100,000" where a comma is decimal: a hundred, or a hundred thousand. */
  | { is: 'twoWays'; values: readonly [ExactText, ExactText] }
  /** It is no number, or the unit does not fit. */
  | { is: 'none' };

/** How the person writes, the units that the person reads, and the steps that the number stands on. */
export interface Typing {
  language: string;
  units?: Units;
  steps?: Steps;
}

/**
 * A number with its unit, as they stand in a text. Blanks and apostrophes group where three digits follow.
 */
const part = /([-−+]?\s*[\d.,](?:[\d.,]|[ \u00a0\u2009\u202f'’](?=\d{3}(?!\d)))*)\s*([a-z'"′″]*)\s*/gi;

/**
 * Reads a typed number, with or without a unit ("18", "18 m", "1,800cm", "12.5", "59 ft 6 in"), into the
 * model's unit; a bare number is in the unit that the person reads. A number in another unit means the step
 * that it names as exactly as it was typed: "59 ft" is 18 m where lengths go by half metres.
 */
export function readTyped(
  typed: string,
  unit: string,
  { language, units = 'metric', steps }: Typing,
): TypedNumber {
  const none = { is: 'none' } as const;
  const given = typed.trim();
  const parts = [...given.matchAll(part)];
  if (parts.length === 0 || parts.map((each) => each[0]).join('') !== given) return none;
  const [first, second, more] = parts;
  if (!first || more || (second && !(spoken(first[2]) === 'ft' && ['in', ''].includes(spoken(second[2])))))
    return none;
  const [main, rest] = [readWritten(first[1] ?? '', language), readWritten(second?.[1] ?? '0', language)];
  if (main.is === 'none' || rest.is !== 'number') return none;
  const said = spoken(first[2]) || shownUnit(unit, units);
  const inModel = (written: ExactText, decimals: number): ExactText | null => {
    if (said === unit && !second) return written;
    const value = inUnit(exact(written).plus(inUnit(exact(rest.value), 'in', said) ?? 0), said, unit);
    const precision =
      value && inUnit(exact(10).pow(-(second ? rest.decimals : decimals)), second ? 'in' : said, unit);
    return value && ((steps && precision ? nearStep(value, precision, steps) : null) ?? value).toString();
  };
  const values =
    main.is === 'number'
      ? [inModel(main.value, main.decimals)]
      : [inModel(main.values[0], main.decimals), inModel(main.values[1], 0)];
  const [one = null, other] = values;
  if (one === null || other === null) return none;
  return other === undefined ? { is: 'number', value: one } : { is: 'twoWays', values: [one, other] };
}

/** A unit as it is spoken: the marks of feet and inches among them. */
function spoken(suffix = ''): string {
  const mark = suffix.toLowerCase();
  return mark === "'" || mark === '′' ? 'ft' : mark === '"' || mark === '″' ? 'in' : mark;
}

/** The step that lies within what was typed, if any: no farther off than half of its last digit. */
function nearStep(value: Exact, precision: Exact, { least, most, step }: Steps): Exact | null {
  const steps = value.minus(least).div(step).toDecimalPlaces(0);
  const near = exact(least).plus(steps.times(step));
  return near.gte(least) && near.lte(most) && near.minus(value).abs().times(2).lte(precision) ? near : null;
}

/** What can be had nearest to a number: the next below and the next above, on the steps from the least on. */
export function nearestAllowed(
  value: ExactText,
  allowed: readonly { least: ExactText; most: ExactText }[],
  { least, step }: Pick<Steps, 'least' | 'step'>,
): ExactText[] {
  const at = exact(value);
  const steps = at.minus(least).div(step);
  const onStep = (count: Exact): Exact => exact(least).plus(count.times(step));
  const below = allowed
    .filter((range) => at.gte(range.least))
    .map((range) => Exact.min(range.most, onStep(steps.floor())));
  const above = allowed
    .filter((range) => at.lte(range.most))
    .map((range) => Exact.max(range.least, onStep(steps.ceil())));
  const found = [
    ...(below.length > 0 ? [Exact.max(...below)] : []),
    ...(above.length > 0 ? [Exact.min(...above)] : []),
  ];
  return [...new Set(found.map(String))];
}
