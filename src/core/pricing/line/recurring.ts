/**
 * What recurs: terms by whole months and then days of the month begun, their charges and their dates. Days
 * are ISO, without a time.
 */
import { exact, type Exact, type ExactText } from '../../exact';

/** A price for so many months, asked for at least so many. */
export interface Recurrence {
  baseMonths: number;
  leastMonths?: number;
}

/** So many whole months from a day on, then so many days of the month begun. */
export interface Term {
  start: string;
  months: number;
  days: number;
}

const dayMilliseconds = 86_400_000;
const read = (day: string): Date => new Date(`${day}T00:00:00Z`);
const written = (date: Date): string => date.toISOString().slice(0, 10);
const daysBetween = (from: string, to: string): number =>
  Math.round((read(to).getTime() - read(from).getTime()) / dayMilliseconds);

/** The same day so many months later; the last of the month where it has no such day. */
export function addMonths(day: string, months: number): string {
  const date = read(day);
  const [year, month] = [date.getUTCFullYear(), date.getUTCMonth() + months];
  const last = new Date(Date.UTC(year, month + 1, 0)).getUTCDate();
  return written(new Date(Date.UTC(year, month, Math.min(date.getUTCDate(), last))));
}

/** A day so many days later. */
export function addDays(day: string, days: number): string {
  return written(new Date(read(day).getTime() + days * dayMilliseconds));
}

interface Calendar {
  last: string;
  /** Days of the month begun. */
  begun: number;
}

/** Terms on a quote are mostly the same one, and calendars are slow. */
const calendars = new Map<string, Calendar>();

function calendarOf({ start, months, days }: Term): Calendar {
  const key = `${start} ${String(months)} ${String(days)}`;
  const known = calendars.get(key);
  if (known) return known;
  const whole = addMonths(start, months);
  const made = { last: addDays(whole, days - 1), begun: daysBetween(whole, addMonths(start, months + 1)) };
  if (calendars.size >= 1000) calendars.clear();
  calendars.set(key, made);
  return made;
}

/** The last day of a term. */
export const lastDay = (term: Term): string => calendarOf(term).last;

/** The term from a day to another, both of which belong to it. */
export function termBetween(start: string, last: string): Term {
  const end = addDays(last, 1);
  if (end < start) return { start, months: 0, days: 0 };
  let months =
    (read(end).getUTCFullYear() - read(start).getUTCFullYear()) * 12 +
    read(end).getUTCMonth() -
    read(start).getUTCMonth();
  while (addMonths(start, months) > end) months -= 1;
  return { start, months, days: daysBetween(addMonths(start, months), end) };
}

/**
 * Months of a term as a fraction of whole numbers, so that nothing is lost before it is used: the days count
 * by the length of the month begun.
 */
export function monthsIn(term: Term): { times: number; per: number } {
  const { months, days } = term;
  if (days === 0) return { times: months, per: 1 };
  const { begun } = calendarOf(term);
  return { times: months * begun + days, per: begun };
}

/** Months of a term as a number, for showing and comparing. */
export function monthsOf(term: Term): Exact {
  const { times, per } = monthsIn(term);
  return exact(times).div(per);
}

/** What a price for the base period comes to over a term. Nothing is rounded. */
export function chargeOver(price: ExactText, { baseMonths }: Recurrence, term: Term): ExactText {
  const { times, per } = monthsIn(term);
  return exact(price)
    .times(times)
    .div(per * baseMonths)
    .toString();
}

/** Whether a term is shorter than is sold. */
export const tooShort = ({ leastMonths = 0 }: Recurrence, term: Term): boolean =>
  monthsOf(term).lt(leastMonths);

/** The part of a term within its first so many months. */
export function beginningOf(term: Term, months: number): Term {
  return term.months >= months ? { start: term.start, months, days: 0 } : term;
}

/** What recurs, a year and over its term. */
export interface RecurringTotals {
  /** For a month. */
  perMonth: ExactText;
  firstYear: ExactText;
  wholeTerm: ExactText;
  /** First and last day. */
  from: string;
  to: string;
}

/** What something recurring comes to, by month, in its first year and over its whole term. */
export function recurringTotals(price: ExactText, recurrence: Recurrence, term: Term): RecurringTotals {
  return {
    perMonth: exact(price).div(recurrence.baseMonths).toString(),
    firstYear: chargeOver(price, recurrence, beginningOf(term, 12)),
    wholeTerm: chargeOver(price, recurrence, term),
    from: term.start,
    to: lastDay(term),
  };
}
