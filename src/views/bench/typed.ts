import { exact, readExact, type ExactText } from '../../core/exact';

/** Factors to the metre, exactly. */
const metres: Readonly<Record<string, ExactText>> = { mm: '0.001', cm: '0.01', m: '1', ft: '0.3048', in: '0.0254' };

/**
 * Reads a typed number with or without a unit ("18", "18 m", "1800cm", "12,5") into the parameter's unit.
 * Null where it is no number or the unit does not fit.
 */
export function readTyped(typed: string, unit: string): ExactText | null {
  const [, digits, suffix = ''] = /^\s*(-?[\d.,]+)\s*([a-z]*)\s*$/i.exec(typed) ?? [];
  const value = digits === undefined ? null : readExact(digits.replace(',', '.'));
  if (!value) return null;
  if (suffix === '' || suffix === unit) return value.toString();
  const [from, to] = [metres[suffix.toLowerCase()], metres[unit]];
  return from === undefined || to === undefined ? null : value.times(from).div(exact(to)).toString();
}
