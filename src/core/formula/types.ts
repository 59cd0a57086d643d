import { known, sameUnit, type Unit } from './units';

/** The type of a formula or of a name in its scope. */
export type FeelType =
  | { is: 'number'; unit: Unit }
  /** Text; where the texts are the options of one feature, `of` lists them so that a typing slip is found. */
  | { is: 'text'; of?: ReadonlySet<string> | undefined }
  | { is: 'yesno' }
  | { is: 'list'; item: FeelType }
  | { is: 'date' }
  /** Of days and seconds, or of years and months. */
  | { is: 'duration' }
  /** null, or a value of a type that the formula does not tell. */
  | { is: 'unknown' };

/** What a name in a formula stands for: a numbered slot in the environment it is evaluated in. */
export interface Binding {
  slot: number;
  type: FeelType;
}

export type Scope = ReadonlyMap<string, Binding>;

export const fits = (a: FeelType, b: FeelType): boolean => {
  if (a.is === 'unknown' || b.is === 'unknown') return true;
  if (a.is === 'number' && b.is === 'number') return sameUnit(a.unit, b.unit);
  if (a.is === 'list' && b.is === 'list') return fits(a.item, b.item);
  return a.is === b.is;
};

export function join(a: FeelType, b: FeelType): FeelType {
  if (a.is === 'unknown') return b;
  if (a.is === 'number' && b.is === 'number') return { is: 'number', unit: known(a.unit, b.unit) };
  if (a.is === 'text' && b.is === 'text') return a.of && b.of ? { is: 'text', of: new Set([...a.of, ...b.of]) } : { is: 'text' };
  return a;
}

/** A scope with one more name, local to a part of a formula. Local slots count down from -1. */
export function withLocal(scope: Scope, name: string, type: FeelType): { scope: Scope; slot: number } {
  const slot = Math.min(0, ...[...scope.values()].filter((binding) => binding.slot < 0).map((binding) => binding.slot)) - 1;
  return { scope: new Map(scope).set(name, { slot, type }), slot };
}
