import { Exact } from '../../exact';
import { Day, Span } from '../time';
import type { FeelType } from '../types';
import type { Value } from '../value';
import { number, text, whole, type Builtin } from './builtin';

const date: FeelType = { is: 'date' };

const ofDay = (type: FeelType, apply: (day: Day) => Value): Builtin => ({
  least: 1,
  most: 1,
  takes: ['date'],
  type: () => type,
  apply: ([day]) => (day instanceof Day ? apply(day) : null),
});

const weekdays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const months = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

function dayOfYear(day: Day): number {
  return day.number - (Day.of(day.year, 1, 1) as Day).number + 1;
}

/** ISO 8601: weeks begin on Monday; the first has the year's first Thursday. */
function weekOfYear(day: Day): number {
  const thursday = Day.at(day.number + 4 - day.weekday) as Day;
  return Math.ceil(dayOfYear(thursday) / 7);
}

/** Functions on days and times, by name. */
export const times: Readonly<Record<string, Builtin>> = {
  date: {
    least: 1,
    most: 3,
    takes: [],
    type: () => date,
    apply: (args) => {
      const [first] = args;
      if (args.length === 1)
        return typeof first === 'string' ? Day.read(first) : first instanceof Day ? first : null;
      const [year, month, day] = args.map(whole);
      return args.length === 3 && year != null && month != null && day != null
        ? Day.of(year, month, day)
        : null;
    },
  },
  duration: {
    least: 1,
    most: 1,
    takes: ['text'],
    type: () => ({ is: 'duration' }),
    apply: ([source]) => (typeof source === 'string' ? Span.read(source) : null),
  },
  'years and months duration': {
    least: 2,
    most: 2,
    takes: ['date', 'date'],
    type: () => ({ is: 'duration' }),
    apply: ([from, to]) => {
      if (!(from instanceof Day) || !(to instanceof Day)) return null;
      const [early, late, sign] = from.number <= to.number ? [from, to, 1] : [to, from, -1];
      const whole = (late.year - early.year) * 12 + late.month - early.month - (late.day < early.day ? 1 : 0);
      return new Span('months', whole === 0 ? 0 : sign * whole);
    },
  },
  'day of week': ofDay(text, (day) => weekdays[day.weekday - 1] as string),
  'day of year': ofDay(number, (day) => new Exact(dayOfYear(day))),
  'week of year': ofDay(number, (day) => new Exact(weekOfYear(day))),
  'month of year': ofDay(text, (day) => months[day.month - 1] as string),
};
