/** Values of formulas: equality, order, arithmetic and writing, as the standard has them. */
import { Exact } from '../exact';
import type { Arithmetic, Comparison } from './tree';
import { Day, Span } from './time';

/** A value in a formula. Null is the standard's null: absent, or not computable. */
export type Value = Exact | string | boolean | null | Day | Span | Value[];

/** The standard's equality: null equals only null; different kinds give null. */
export function equal(a: Value, b: Value): boolean | null {
  if (a === null || b === null) return a === b;
  if (a instanceof Exact) return b instanceof Exact ? a.equals(b) : null;
  if (a instanceof Day) return b instanceof Day ? a.number === b.number : null;
  if (a instanceof Span) return b instanceof Span && a.unit === b.unit ? a.amount === b.amount : null;
  if (Array.isArray(a))
    return Array.isArray(b)
      ? a.length === b.length && a.every((each, i) => equal(each, b[i] as Value) === true)
      : null;
  return typeof a === typeof b ? a === b : null;
}

/**
 * Comparison as the standard has it: equality over any kinds, order over numbers, texts, days and durations,
 * else null.
 */
export function compareValues(op: Comparison, a: Value, b: Value): boolean | null {
  if (op === '=') return equal(a, b);
  if (op === '!=') {
    const same = equal(a, b);
    return same === null ? null : !same;
  }
  const order = orderOf(a, b);
  if (order === null) return null;
  return op === '<' ? order < 0 : op === '<=' ? order <= 0 : op === '>' ? order > 0 : order >= 0;
}

function orderOf(a: Value, b: Value): number | null {
  if (a instanceof Exact && b instanceof Exact) return a.comparedTo(b);
  if (typeof a === 'string' && typeof b === 'string') return a < b ? -1 : a > b ? 1 : 0;
  if (a instanceof Day && b instanceof Day) return a.number - b.number;
  if (a instanceof Span && b instanceof Span && a.unit === b.unit) return a.amount - b.amount;
  return null;
}

/** Two values added, subtracted, multiplied, divided or raised, as FEEL says; null where it says nothing. */
export function arithmetic(op: Arithmetic, a: Value, b: Value): Value {
  if (a instanceof Exact && b instanceof Exact) {
    const result =
      op === '+'
        ? a.plus(b)
        : op === '-'
          ? a.minus(b)
          : op === '*'
            ? a.times(b)
            : op === '/'
              ? a.div(b)
              : a.pow(b);
    return result.isFinite() ? result : null;
  }
  if (op === '+' && typeof a === 'string' && typeof b === 'string') return a + b;
  return withTime(op, a, b);
}

function withTime(op: Arithmetic, a: Value, b: Value): Value {
  if (a instanceof Day && b instanceof Day)
    return op === '-' ? new Span('seconds', (a.number - b.number) * 86_400) : null;
  if (a instanceof Day && b instanceof Span)
    return op === '+' ? a.plus(b) : op === '-' ? a.plus(new Span(b.unit, -b.amount)) : null;
  if (a instanceof Span && b instanceof Day) return op === '+' ? b.plus(a) : null;
  if (a instanceof Span && b instanceof Span) {
    if (op === '/') return a.unit === b.unit && b.amount !== 0 ? new Exact(a.amount).div(b.amount) : null;
    return op === '+' ? a.plus(b) : op === '-' ? a.plus(new Span(b.unit, -b.amount)) : null;
  }
  if (a instanceof Span && b instanceof Exact)
    return op === '*' ? a.times(b.toNumber()) : op === '/' && !b.isZero() ? a.times(1 / b.toNumber()) : null;
  if (a instanceof Exact && b instanceof Span) return op === '*' ? b.times(a.toNumber()) : null;
  return null;
}

/** A part of a day or a duration, such as its year. */
export function partOf(value: Value, name: string): Value {
  if (value instanceof Day) {
    const parts: Record<string, number> = {
      year: value.year,
      month: value.month,
      day: value.day,
      weekday: value.weekday,
    };
    return Object.hasOwn(parts, name) ? new Exact(parts[name] as number) : null;
  }
  if (!(value instanceof Span)) return null;
  const size = Math.abs(value.amount);
  const parts: Record<string, number> =
    value.unit === 'months'
      ? { years: Math.floor(size / 12), months: size % 12 }
      : {
          days: Math.floor(size / 86_400),
          hours: Math.floor(size / 3600) % 24,
          minutes: Math.floor(size / 60) % 60,
          seconds: size % 60,
        };
  if (!Object.hasOwn(parts, name)) return null;
  const part = parts[name] as number;
  return new Exact(value.amount < 0 && part !== 0 ? -part : part);
}

/** A value as text; texts inside a list in quotes. */
export function written(value: Value): string {
  if (Array.isArray(value))
    return `[${value.map((each) => (typeof each === 'string' ? JSON.stringify(each) : written(each))).join(', ')}]`;
  return String(value);
}
