import type { Expr } from './tree';
import { known, sameUnit, type Unit } from './units';

/** The type of a formula or of a name in its scope. */
export type FeelType =
  | { is: 'number'; unit: Unit }
  /**
   * Text; where the texts are the options of one feature, `of` lists them so that a typing slip is found, and
   * `facts` says what can be
   * read of the option taken. Of a typed text `length` is its length, the only thing that conditions may
   * read.
   */
  | { is: 'text'; of?: ReadonlySet<string> | undefined; facts?: Facts | undefined; length?: Expr }
  | { is: 'yesno' }
  | { is: 'list'; item: FeelType }
  | { is: 'date' }
  /** Of days and seconds, or of years and months. */
  | { is: 'duration' }
  /**
   * Things with fields of their own, such as builds inside the build: one, or a list. They stand only where a
   * field is read or they are counted.
   */
  | { is: 'places'; places: readonly Place[]; many: boolean }
  /** null, or a value of a type that the formula does not tell. */
  | { is: 'unknown' };

/** What is known of the options of a feature beside their names. */
export interface Facts {
  /** What is told of each option, such as the mass of its item, as expressions by option. */
  told: ReadonlyMap<string, Told>;
  /** What belongs to one option, such as the builds that it brings. */
  options: ReadonlyMap<string, FeelType>;
}

/** One thing that is told of options, and what each is told. */
export interface Told {
  type: FeelType;
  cases: readonly (readonly [option: string, value: Expr])[];
}

/** Something with fields that may or may not be there. */
export interface Place {
  when: Expr;
  fields: Scope;
}

/**
 * What a name in a formula stands for: a numbered slot in the environment it is evaluated in, or an
 * expression over such slots.
 */
export interface Binding {
  slot: number;
  type: FeelType;
  /** What it is called outside of this scope. */
  id?: string;
  expr?: Expr;
  /** The place has no such field: what would read it is left out. */
  absent?: boolean;
}

/** Names that a formula may use, with their types. */
export type Scope = ReadonlyMap<string, Binding>;

/** Whether a value of one type can stand where the other is wanted. */
export const fits = (a: FeelType, b: FeelType): boolean => {
  if (a.is === 'unknown' || b.is === 'unknown') return true;
  if (a.is === 'number' && b.is === 'number') return sameUnit(a.unit, b.unit);
  if (a.is === 'list' && b.is === 'list') return fits(a.item, b.item);
  return a.is === b.is;
};

/** The type that holds values of both. */
export function join(a: FeelType, b: FeelType): FeelType {
  if (a === b) return a;
  if (a.is === 'unknown') return b;
  if (a.is === 'number' && b.is === 'number') return { is: 'number', unit: known(a.unit, b.unit) };
  if (a.is === 'text' && b.is === 'text')
    return a.of && b.of ? { is: 'text', of: new Set([...a.of, ...b.of]) } : { is: 'text' };
  return a;
}

/** A scope with one more name, local to a part of a formula. Local slots count down from -1. */
export function withLocal(scope: Scope, name: string, type: FeelType): { scope: Scope; slot: number } {
  const slot =
    Math.min(0, ...[...scope.values()].filter((binding) => binding.slot < 0).map((binding) => binding.slot)) -
    1;
  return { scope: new Map(scope).set(name, { slot, type }), slot };
}
