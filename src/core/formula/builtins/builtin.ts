import { Exact } from '../../exact';
import { equal, type Value } from '../value';
import type { FeelType } from '../types';

export interface Builtin {
  least: number;
  most: number;
  /** Result type, given the argument types. */
  type(args: FeelType[]): FeelType;
  /** Kind each argument must be of; absent where any will do. */
  takes: (FeelType['is'] | undefined)[];
  apply(args: Value[]): Value;
}

export const number: FeelType = { is: 'number', unit: 'any' };
export const text: FeelType = { is: 'text' };
export const yesno: FeelType = { is: 'yesno' };
export const sameAsFirst = (args: FeelType[]): FeelType => args[0] ?? number;
export const itemOf = (type: FeelType | undefined): FeelType =>
  type?.is === 'list' ? type.item : (type ?? { is: 'unknown' });
export const listOfFirst = (args: FeelType[]): FeelType => ({ is: 'list', item: itemOf(args[0]) });

/** The standard takes one value for a list of one; null is no list here. */
export const asList = (value: Value | undefined): Value[] | null =>
  Array.isArray(value) ? value : value === null || value === undefined ? null : [value];

/** The items given: one list, or the arguments themselves. */
export const itemsOf = (args: Value[]): Value[] | null => (args.length === 1 ? asList(args[0]) : args);

/** A whole number of ordinary size; null for anything else. */
export const whole = (value: Value | undefined): number | null =>
  value instanceof Exact && value.isInteger() && value.abs().lte(1_000_000_000) ? value.toNumber() : null;

export const contains = (list: readonly Value[], item: Value): boolean =>
  list.some((each) => equal(each, item) === true);
