/** Working days: the days of the week that are worked, but holidays and shutdowns. */

/** Days on which nobody works, both ends counted; everywhere where no country is named. */
export interface ClosedDays {
  from: string;
  to: string;
  country: string | null;
}

/** When work is done: days of the week from 1, Monday, to 7, Sunday, and what is closed. */
export interface WorkingCalendar {
  workdays: readonly number[];
  closed: readonly ClosedDays[];
}

/** Monday to Friday, no holidays. */
export const plainWeek: WorkingCalendar = { workdays: [1, 2, 3, 4, 5], closed: [] };

/**
 * Working days between the lead time of what is built and the date promised: packing and the way to the
 * customer.
 */
export const shippingDays = 2;

const oneDay = 24 * 60 * 60 * 1000;
/** Days looked through at most: nothing is ever worked where none of these is. */
const farthest = 20_000;

const numberOf = (day: string): number => Date.parse(`${day}T00:00:00Z`) / oneDay;
const dayOf = (number: number): string => new Date(number * oneDay).toISOString().slice(0, 10);

/** Closed days of one country as spans apart from each other, in order, both ends counted, as numbers of days. */
type Spans = readonly (readonly [from: number, to: number])[];

const known = new WeakMap<WorkingCalendar, Map<string, Spans>>();

function spansOf(calendar: WorkingCalendar, country: string): Spans {
  const byCountry = known.get(calendar) ?? new Map<string, Spans>();
  known.set(calendar, byCountry);
  const found = byCountry.get(country);
  if (found) return found;
  const spans: [number, number][] = [];
  const own = calendar.closed
    .filter((each) => each.country === null || each.country === country)
    .map(({ from, to }) => [numberOf(from), numberOf(to)] as [number, number])
    .sort(([one], [other]) => one - other);
  for (const [from, to] of own) {
    const last = spans.at(-1);
    if (last && from <= last[1] + 1) last[1] = Math.max(last[1], to);
    else spans.push([from, to]);
  }
  byCountry.set(country, spans);
  return spans;
}

/** The first span that ends on a day or later; past the last where none does. */
function spanAt(spans: Spans, day: number): number {
  let [low, high] = [0, spans.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((spans[middle]?.[1] ?? 0) < day) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * The ISO day so many working days after another, in a country; the same day for none. Where nothing is worked
 * any more, the last day that was looked at.
 */
export function afterWorkingDays(
  day: string,
  days: number,
  calendar: WorkingCalendar = plainWeek,
  country = '',
): string {
  const spans = spansOf(calendar, country);
  const worked = new Set(calendar.workdays);
  let at = numberOf(day);
  let span = spanAt(spans, at + 1);
  for (let left = days, looked = 0; left > 0 && looked < farthest; looked += 1) {
    at += 1;
    while ((spans[span]?.[1] ?? Infinity) < at) span += 1;
    const closed = (spans[span]?.[0] ?? Infinity) <= at;
    // Day 0 of the count was a Thursday.
    if (!closed && worked.has(((((at + 3) % 7) + 7) % 7) + 1)) left -= 1;
  }
  return dayOf(at);
}

/**
 * The day that can be promised: the working days that it takes where it is made, then those of the way, by the
 * calendar of where it goes.
 */
export const promisedDay = (
  ordered: string,
  leadDays: number,
  calendar: WorkingCalendar,
  { made, goes }: { made: string; goes: string },
): string =>
  afterWorkingDays(afterWorkingDays(ordered, leadDays, calendar, made), shippingDays, calendar, goes);

/** What of a calendar counts for two countries from a day on: so much of it as a page needs. */
export const calendarFor = (
  calendar: WorkingCalendar,
  from: string,
  countries: readonly string[],
): WorkingCalendar => ({
  workdays: calendar.workdays,
  closed: calendar.closed
    .filter(({ country, to }) => to >= from && (country === null || countries.includes(country)))
    .slice(0, mostOnPage)
    .map(({ from: first, to, country }) => ({ from: first, to, country })),
});
const mostOnPage = 1_000;
