/**
 * What a value can still be while variables have several values left, and what can come of such values: a
 * superset of the exact results.
 * Bounds are binary floating point, always widened outwards, so nothing possible is lost; certainty comes
 * from exact evaluation.
 */
import { Exact } from '../../exact';
import {
  arithmetic as exactly,
  compareValues,
  Day,
  Span,
  type Arithmetic,
  type Comparison,
  type Value,
} from '../../formula';

/**
 * A set of possible values, by kind. Numbers are the interval [low, high], empty where low > high; days the
 * interval [from, until].
 */
export interface AbstractValue {
  readonly none: boolean;
  readonly yes: boolean;
  readonly no: boolean;
  readonly low: number;
  readonly high: number;
  /** The exact number, where there is but one; worked out only where the bounds leave a comparison open. */
  readonly exact: (() => Exact | null) | null;
  readonly from: number;
  readonly until: number;
  readonly texts: readonly string[] | 'any';
  /** Lists of texts: what each surely holds and what it may hold. */
  readonly list: { must: ReadonlySet<string>; may: ReadonlySet<string> } | 'any' | null;
}

const noTexts: readonly string[] = [];
/** No value at all; what is gathered begins with it. */
export const nothing: AbstractValue = {
  none: false,
  yes: false,
  no: false,
  low: Infinity,
  high: -Infinity,
  exact: null,
  from: Infinity,
  until: -Infinity,
  texts: [],
  list: null,
};
/** Any value of any kind. */
export const anything: AbstractValue = {
  none: true,
  yes: true,
  no: true,
  low: -Infinity,
  high: Infinity,
  exact: null,
  from: -Infinity,
  until: Infinity,
  texts: 'any',
  list: 'any',
};
/** Any number, or null. */
export const anyNumber: AbstractValue = { ...nothing, none: true, low: -Infinity, high: Infinity };
/** Null alone. */
export const justNone: AbstractValue = { ...nothing, none: true };

/** The eight possible truths: any set of true, false and null. */
const truths: readonly AbstractValue[] = [0, 1, 2, 3, 4, 5, 6, 7].map((bits) => ({
  ...nothing,
  yes: (bits & 1) !== 0,
  no: (bits & 2) !== 0,
  none: (bits & 4) !== 0,
}));
/** Those of true, false and null that are possible. */
export const truth = (yes: boolean, no: boolean, none: boolean): AbstractValue =>
  truths[(yes ? 1 : 0) | (no ? 2 : 0) | (none ? 4 : 0)] as AbstractValue;

const widen = (value: number, towards: 1 | -1): number =>
  Number.isInteger(value) && Math.abs(value) < 1e9
    ? value
    : value + towards * (Math.abs(value) * 1e-12 + 1e-15);
/** Numbers from low to high; where there is none between them, null alone is left. */
export const number = (
  low: number,
  high: number,
  none: boolean,
  exact: AbstractValue['exact'] = null,
): AbstractValue =>
  low <= high && low < Infinity && high > -Infinity
    ? {
        none,
        yes: false,
        no: false,
        low: widen(low, -1),
        high: widen(high, 1),
        exact,
        from: Infinity,
        until: -Infinity,
        texts: noTexts,
        list: null,
      }
    : justNone;
/** Some number is possible. */
export const hasNumber = (a: AbstractValue): boolean => a.low <= a.high;
/** Some day is possible. */
export const hasDay = (a: AbstractValue): boolean => a.from <= a.until;
/** Some text is possible. */
export const hasText = (a: AbstractValue): boolean => a.texts === 'any' || a.texts.length > 0;
/** Nothing but a number is possible. */
export const onlyNumber = (a: AbstractValue): boolean =>
  !a.none && !a.yes && !a.no && !hasDay(a) && !hasText(a) && a.list === null;
const onlyDay = (a: AbstractValue): boolean =>
  !a.none && !a.yes && !a.no && !hasNumber(a) && !hasText(a) && a.list === null;

const days = (from: number, until: number, none: boolean): AbstractValue =>
  from <= until ? { ...nothing, none, from, until } : justNone;

/** The abstract value of one exact value. */
export function abstractOf(value: Value): AbstractValue {
  if (value === null) return justNone;
  if (typeof value === 'boolean') return truth(value, !value, false);
  if (typeof value === 'string') return { ...nothing, texts: [value] };
  if (Array.isArray(value)) {
    if (!value.every((item) => typeof item === 'string')) return { ...nothing, list: 'any' };
    const items = new Set(value);
    return { ...nothing, list: { must: items, may: items } };
  }
  if (value instanceof Day) return days(value.number, value.number, false);
  if (value instanceof Span) return anything;
  const rough = value.toNumber();
  return { ...nothing, low: widen(rough, -1), high: widen(rough, 1), exact: () => value };
}

/** An item of a list that may or may not be in it. */
export interface Item {
  look: AbstractValue;
  surely: boolean;
}

/** The abstract value of a list: told where every item is one text. */
export function listOf(items: readonly Item[]): AbstractValue {
  const must = new Set<string>();
  const may = new Set<string>();
  for (const {
    look: { texts, none, yes, no, low, high, from, until, list },
    surely,
  } of items) {
    if (texts === 'any' || texts.length !== 1 || none || yes || no || low <= high || from <= until || list)
      return { ...nothing, list: 'any' };
    const [text = ''] = texts;
    // Sets do not count what is there twice.
    if (may.has(text)) return { ...nothing, list: 'any' };
    may.add(text);
    if (surely) must.add(text);
  }
  return { ...nothing, list: { must, may } };
}

/** A day moved by a duration; months are 28 to 31 days long. */
export function later(a: AbstractValue, { unit, amount }: Span, sign: 1 | -1): AbstractValue {
  if (!hasDay(a)) return hasNumber(a) || hasText(a) || a.list !== null || a.yes || a.no ? anything : justNone;
  const moved = (length: number): number => sign * amount * length;
  const [near, far] = unit === 'seconds' ? [moved(1 / 86_400), moved(1 / 86_400)] : [moved(28), moved(31)];
  return {
    ...days(Math.floor(a.from + Math.min(near, far)) - 1, Math.ceil(a.until + Math.max(near, far)) + 1, true),
    ...(onlyDay(a) ? {} : { none: true }),
  };
}

/** Whether a list holds an item. */
export function member(item: AbstractValue, holder: AbstractValue): AbstractValue {
  const { list } = holder;
  if (
    list === null ||
    list === 'any' ||
    item.texts === 'any' ||
    hasNumber(item) ||
    hasDay(item) ||
    item.yes ||
    item.no ||
    item.none
  )
    return truth(true, true, true);
  const yes = item.texts.some((text) => list.may.has(text));
  const surely = item.texts.every((text) => list.must.has(text));
  return truth(yes, !surely, holder.none);
}

/** Whether two values are equal, as FEEL compares them. */
export function same(a: AbstractValue, b: AbstractValue): AbstractValue {
  const texts =
    a.texts === 'any' || b.texts === 'any'
      ? hasText(a) && hasText(b)
      : a.texts.length === 1
        ? b.texts.includes(a.texts[0] as string)
        : a.texts.some((text) => b.texts.includes(text));
  const numbers = a.low <= b.high && b.low <= a.high;
  const dates = a.from <= b.until && b.from <= a.until;
  const yes =
    texts ||
    numbers ||
    dates ||
    (a.yes && b.yes) ||
    (a.no && b.no) ||
    (a.none && b.none) ||
    (a.list !== null && b.list !== null);
  const single = size(a) === 1 && size(b) === 1;
  if (numbers && !single) {
    const found = decided('=', a, b);
    if (found) return found;
  }
  return truth(yes, !(yes && single), !single && mixed(a, b));
}

/** How many values are possible: exact for one; anything above is "more". */
function size(a: AbstractValue): number {
  const numbers = !hasNumber(a) ? 0 : a.low === a.high ? 1 : 2;
  const dates = !hasDay(a) ? 0 : a.from === a.until ? 1 : 2;
  const texts = a.texts === 'any' ? 2 : a.texts.length;
  return (
    numbers + dates + texts + (a.none ? 1 : 0) + (a.yes ? 1 : 0) + (a.no ? 1 : 0) + (a.list === null ? 0 : 2)
  );
}

/** Whether values of two kinds other than null can meet, which the standard compares as null. */
function mixed(a: AbstractValue, b: AbstractValue): boolean {
  const kinds = (each: AbstractValue) =>
    (hasNumber(each) ? 1 : 0) |
    (hasText(each) ? 2 : 0) |
    (each.yes || each.no ? 4 : 0) |
    (each.list === null ? 0 : 8) |
    (hasDay(each) ? 16 : 0);
  const all = kinds(a) | kinds(b);
  return (all & (all - 1)) !== 0;
}

/** What a comparison comes to. */
export function compare(op: Comparison, a: AbstractValue, b: AbstractValue): AbstractValue {
  if (op === '=') return same(a, b);
  if (op === '!=') {
    const equal = same(a, b);
    return truth(equal.no, equal.yes, equal.none);
  }
  if (hasText(a) || hasText(b)) return truth(true, true, true);
  if (hasDay(a) && hasDay(b) && !hasNumber(a) && !hasNumber(b))
    return ordered(op, a.from, a.until, b.from, b.until, !onlyDay(a) || !onlyDay(b));
  if (hasDay(a) || hasDay(b)) return truth(true, true, true);
  const none = !onlyNumber(a) || !onlyNumber(b);
  if (!hasNumber(a) || !hasNumber(b)) return truth(false, false, none);
  const rough = ordered(op, a.low, a.high, b.low, b.high, none);
  return rough.yes && rough.no ? (decided(op, a, b) ?? rough) : rough;
}

/** A comparison of two numbers that are one each; undefined where they are more. */
function decided(op: Comparison, a: AbstractValue, b: AbstractValue): AbstractValue | undefined {
  if (!a.exact || !b.exact || !onlyNumber(a) || !onlyNumber(b)) return undefined;
  const [left, right] = [a.exact(), b.exact()];
  const holds = left && right ? compareValues(op, left, right) : null;
  return holds === null ? undefined : truth(holds, !holds, false);
}

function ordered(
  op: Comparison,
  aLow: number,
  aHigh: number,
  bLow: number,
  bHigh: number,
  none: boolean,
): AbstractValue {
  switch (op) {
    case '<':
      return truth(aLow < bHigh, aHigh >= bLow, none);
    case '<=':
      return truth(aLow <= bHigh, aHigh > bLow, none);
    case '>':
      return truth(aHigh > bLow, aLow <= bHigh, none);
    default:
      return truth(aHigh >= bLow, aLow < bHigh, none);
  }
}

/** What a calculation comes to. */
export function arithmetic(op: Arithmetic, a: AbstractValue, b: AbstractValue): AbstractValue {
  const exact = exactOf(op, a, b);
  if (hasText(a) || hasText(b) || hasDay(a) || hasDay(b)) return anything;
  const none = !onlyNumber(a) || !onlyNumber(b);
  if (!hasNumber(a) || !hasNumber(b)) return justNone;
  if (op === '+') return number(a.low + b.low, a.high + b.high, none, exact);
  if (op === '-') return number(a.low - b.high, a.high - b.low, none, exact);
  if (op === '**' || (op === '/' && b.low <= 0 && b.high >= 0)) return anyNumber;
  const at = (x: number, y: number) => {
    const result = op === '*' ? x * y : x / y;
    return Number.isNaN(result) ? 0 : result;
  };
  const corners = [at(a.low, b.low), at(a.low, b.high), at(a.high, b.low), at(a.high, b.high)];
  return number(Math.min(...corners), Math.max(...corners), none, exact);
}

/**
 * The exact result where both sides are one number each, or one side is zero and nothing can come of it but
 * zero.
 */
function exactOf(op: Arithmetic, a: AbstractValue, b: AbstractValue): AbstractValue['exact'] {
  const [left, right] = [a.exact, b.exact];
  if ((op === '*' || op === '/') && left && a.low === 0 && a.high === 0) return left;
  if (op === '*' && right && b.low === 0 && b.high === 0) return right;
  if (!left || !right) return null;
  return () => {
    const [x, y] = [left(), right()];
    const value = x && y ? exactly(op, x, y) : null;
    return value instanceof Exact ? value : null;
  };
}

/** The FEEL "and": the right side is looked at only where the left leaves it open. */
export function both(a: AbstractValue, right: () => AbstractValue): AbstractValue {
  if (!a.yes && !a.none) return truth(false, true, false);
  const b = right();
  return truth(a.yes && b.yes, a.no || b.no, (a.none && (b.yes || b.none)) || (a.yes && b.none));
}

/** The FEEL "or": the right side is looked at only where the left leaves it open. */
export function either(a: AbstractValue, right: () => AbstractValue): AbstractValue {
  if (!a.no && !a.none) return truth(true, false, false);
  const b = right();
  return truth(a.yes || b.yes, a.no && b.no, (a.none && (b.no || b.none)) || (a.no && b.none));
}

/** What the one or the other can be. */
export function union(a: AbstractValue, b: AbstractValue): AbstractValue {
  if (a === nothing) return b;
  if (b === nothing) return a;
  const list =
    a.list === null
      ? b.list
      : b.list === null
        ? a.list
        : a.list === 'any' || b.list === 'any'
          ? 'any'
          : {
              must: new Set(
                [...a.list.must].filter((text) => (b.list as { must: ReadonlySet<string> }).must.has(text)),
              ),
              may: new Set([...a.list.may, ...b.list.may]),
            };
  return {
    none: a.none || b.none,
    yes: a.yes || b.yes,
    no: a.no || b.no,
    low: Math.min(a.low, b.low),
    high: Math.max(a.high, b.high),
    exact: null,
    from: Math.min(a.from, b.from),
    until: Math.max(a.until, b.until),
    texts: a.texts === 'any' || b.texts === 'any' ? 'any' : [...new Set([...a.texts, ...b.texts])],
    list,
  };
}

/** Exact values seen as one abstract value: what a variable with these values left looks like. */
export function abstractOfAll(values: readonly Value[]): AbstractValue {
  let low = Infinity;
  let high = -Infinity;
  let from = Infinity;
  let until = -Infinity;
  const texts: string[] = [];
  let [none, yes, no] = [false, false, false];
  for (const value of values) {
    if (value === null) none = true;
    else if (value === true) yes = true;
    else if (value === false) no = true;
    else if (typeof value === 'string') texts.push(value);
    else if (value instanceof Day)
      [from, until] = [Math.min(from, value.number), Math.max(until, value.number)];
    else if (value instanceof Exact) {
      const rough = value.toNumber();
      low = Math.min(low, widen(rough, -1));
      high = Math.max(high, widen(rough, 1));
    }
  }
  const only = values.length === 1 ? values[0] : undefined;
  return {
    ...nothing,
    none,
    yes,
    no,
    low,
    high,
    from,
    until,
    texts,
    exact: only instanceof Exact ? () => only : null,
  };
}
