/** Days of the house: they begin and end at its midnight, wherever the server stands. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { addDays, format, parseISO } from 'date-fns';

let zone = 'Europe/London';
let writing = writerFor(zone);

/** A day as it is written in ISO form. */
function writerFor(timeZone: string): Intl.DateTimeFormat {
  return new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
}

/** Counts days by the midnight of a zone from now on. */
export function keepZone(next: string): void {
  if (next === zone) return;
  zone = next;
  writing = writerFor(next);
}

/** The zone by whose midnight days are counted. */
export const houseZone = (): string => zone;

/** The ISO date of a moment. */
export const dayOf = (moment: Date): string => writing.format(moment);

const moved = new AsyncLocalStorage<string>();

/** Does something as if it were another day: for the demo, which tells of days that are past. */
export const onDay = <T>(day: string, work: () => T): T => moved.run(day, work);

/** This moment; in the morning of the day, where something is done as if it were another one. */
export function now(): Date {
  const day = moved.getStore();
  return day === undefined ? new Date() : new Date(`${day}T10:00:00Z`);
}

/** Today as an ISO date. */
export const today = (): string => dayOf(now());

/** The day so many days from today; before it where negative. */
export const inDays = (days: number): string => format(addDays(parseISO(today()), days), 'yyyy-MM-dd');
