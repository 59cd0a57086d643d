import { Exact } from '../../exact';
import { written, type Value } from '../value';
import { asList, number, text, whole, yesno, type Builtin } from './builtin';

type Kind = 'text' | 'number';

/**
 * A function of texts (and numbers, where `takes` says so) that gives null unless every argument is of its
 * kind.
 */
const onTexts = (
  takes: Kind[],
  type: Builtin['type'],
  apply: (args: string[], numbers: Exact[]) => Value,
  least = takes.length,
): Builtin => ({
  least,
  most: takes.length,
  takes,
  type,
  apply: (args) => {
    if (
      !args.every((arg, index) => (takes[index] === 'text' ? typeof arg === 'string' : arg instanceof Exact))
    )
      return null;
    return apply(
      args.filter((arg) => typeof arg === 'string'),
      args.filter((arg) => arg instanceof Exact),
    );
  },
});
const isText = () => text;
const isYesno = () => yesno;

/** Positions count characters, not code units, from 1 or, below zero, from the end. */
function substring(source: string, start: number | null, length: number | null | undefined): Value {
  const characters = [...source];
  if (start === null || start === 0 || length === null || Math.abs(start) > characters.length) return null;
  if (length !== undefined && length < 1) return null;
  const from = start > 0 ? start - 1 : characters.length + start;
  return characters.slice(from, length === undefined ? undefined : from + length).join('');
}

/** Functions on texts, by name. */
export const texts: Readonly<Record<string, Builtin>> = {
  substring: onTexts(
    ['text', 'number', 'number'],
    isText,
    ([source = ''], [start, length]) =>
      substring(source, whole(start), length === undefined ? undefined : whole(length)),
    2,
  ),
  'string length': onTexts(
    ['text'],
    () => number,
    ([source = '']) => new Exact([...source].length),
  ),
  'upper case': onTexts(['text'], isText, ([source = '']) => source.toUpperCase()),
  'lower case': onTexts(['text'], isText, ([source = '']) => source.toLowerCase()),
  'substring before': onTexts(['text', 'text'], isText, ([source = '', match = '']) =>
    source.slice(0, Math.max(0, source.indexOf(match))),
  ),
  'substring after': onTexts(['text', 'text'], isText, ([source = '', match = '']) =>
    source.includes(match) ? source.slice(source.indexOf(match) + match.length) : '',
  ),
  contains: onTexts(['text', 'text'], isYesno, ([source = '', match = '']) => source.includes(match)),
  'starts with': onTexts(['text', 'text'], isYesno, ([source = '', match = '']) => source.startsWith(match)),
  'ends with': onTexts(['text', 'text'], isYesno, ([source = '', match = '']) => source.endsWith(match)),
  string: {
    least: 1,
    most: 1,
    takes: [],
    type: isText,
    apply: ([value]) => (value === null || value === undefined ? null : written(value)),
  },
  'string join': {
    least: 1,
    most: 2,
    takes: ['list', 'text'],
    type: isText,
    apply: ([list, delimiter = '']) => {
      const items = asList(list)?.filter((item) => item !== null);
      if (!items?.every((item) => typeof item === 'string')) return null;
      return delimiter === null
        ? items.join('')
        : typeof delimiter === 'string'
          ? items.join(delimiter)
          : null;
    },
  },
  number: {
    least: 1,
    most: 1,
    takes: ['text'],
    type: () => number,
    apply: ([source]) =>
      typeof source === 'string' && /^-?(\d+(\.\d+)?|\.\d+)$/.test(source) ? new Exact(source) : null,
  },
};
