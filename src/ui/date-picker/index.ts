/** What the field of a day loads when it is used: the calendar, and the reading of days. */
export { Calendar } from './Calendar';
export { readDay } from './read-day';
