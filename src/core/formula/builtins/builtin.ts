import { Exact } from '../../exact';
import { equal, type Value } from '../value';
import type { FeelType } from '../types';

/** A function of FEEL: how many arguments it has, their types, and what it does. */
export interface Builtin {
  least: number;
  most: number;
  /** Result type, given the argument types. */
  type(args: FeelType[]): FeelType;
  /** Kind each argument must be of; absent where any will do. */
  takes: (FeelType['is'] | undefined)[];
  apply(args: Value[]): Value;
}

/** A number of any unit. */
export const number: FeelType = { is: 'number', unit: 'any' };
/** A text. */
export const text: FeelType = { is: 'text' };
/** A yes or no. */
export const yesno: FeelType = { is: 'yesno' };
/** The type of the first argument. */
export const sameAsFirst = (args: FeelType[]): FeelType => args[0] ?? number;
/** The type of what is in a list; of anything else, its own. */
export const itemOf = (type: FeelType | undefined): FeelType =>
  type?.is === 'list' ? type.item : (type ?? { is: 'unknown' });
/** A list of what the first argument holds. */
export const listOfFirst = (args: FeelType[]): FeelType => ({ is: 'list', item: itemOf(args[0]) });

/** The standard takes one value for a list of one; null is no list here. */
export const asList = (value: Value | undefined): Value[] | null =>
  Array.isArray(value) ? value : value === null || value === undefined ? null : [value];

/** The items given: one list, or the arguments themselves. */
export const itemsOf = (args: Value[]): Value[] | null => (args.length === 1 ? asList(args[0]) : args);

/** A whole number of ordinary size; null for anything else. */
export const whole = (value: Value | undefined): number | null =>
  value instanceof Exact && value.isInteger() && value.abs().lte(1_000_000_000) ? value.toNumber() : null;

/** Whether a list has an item, by the equality of FEEL. */
export const contains = (list: readonly Value[], item: Value): boolean =>
  list.some((each) => equal(each, item) === true);
